//! Where a build is listened to.

use serde_json::{Value, json};

use crate::support::{Site, design};

fn room() -> Value {
    json!({
        "name": "Lounge", "kind": "room", "width": "4 m", "length": "5 m", "height": "2.5 m",
        "cabinets": [{ "across": "1 m", "along": "4.5 m" }],
        "seats": [{ "across": "1.6 m", "along": "1.5 m" }, { "name": "Window", "across": "3 m", "along": "2 m" }],
    })
}

fn asked(place: &Value) -> Value {
    json!({ "design": design(), "conditions": { "place": place } })
}

#[test]
fn a_place_is_reported_mapped_and_part_of_the_conditions() {
    let site = Site::start();
    let said = site.post("/api/v1/place", &asked(&room())).expect(200).json();
    assert_eq!(said["seats"][1]["name"], "Window");
    assert_eq!(said["room"]["volume"], 50.0);
    let simulated = site.post("/api/v1/simulate", &asked(&room())).expect(200).json();
    let labels: Vec<_> = simulated["traces"]
        .as_array()
        .expect("traces")
        .iter()
        .filter(|trace| trace["quantity"] == "seat_level")
        .map(|trace| trace["label"].clone())
        .collect();
    assert_eq!(labels, [Value::Null, json!("Seat 1"), json!("Window")]);
    let map = site.post("/api/v1/place/map?frequency=40", &asked(&room())).expect(200).json();
    assert_eq!(map["high"], json!([4.0, 5.0]));
    for frequency in ["9", "201", "NaN", ""] {
        site.post(&format!("/api/v1/place/map?frequency={frequency}"), &asked(&room())).expect(400);
    }
    // Without a place there is nothing to say, and one that cannot be is refused where it is wrong.
    let nowhere = site.post("/api/v1/place", &json!({ "design": design() })).expect(422).json();
    assert_eq!(nowhere["errors"][0]["field"], "conditions");
    let mut outside = room();
    outside["seats"][0]["across"] = json!("5 m");
    let refused = site.post("/api/v1/simulate", &asked(&outside)).expect(422).json();
    assert_eq!(refused["errors"][0]["field"], "conditions.place.seats[0].across");
    assert_eq!((&refused["errors"][0]["min"], &refused["errors"][0]["max"]), (&json!(0.0), &json!(4.0)));
}

#[test]
fn a_search_for_places_that_cannot_be_is_refused() {
    let site = Site::start();
    let (build, _) = site.build_with_variant();
    let path = format!("/api/v1/builds/{build}/best-places");
    assert_eq!(site.get(&path).expect(200).json(), Value::Null);
    let ask = |cabinets: u32, place: &Value| json!({ "question": asked(place), "cabinets": cabinets });
    site.post(&path, &ask(3, &room())).expect(400);
    let mut empty = room();
    empty["seats"] = json!([]);
    site.post(&path, &ask(1, &empty)).expect(422);
    let started = site.post(&path, &ask(2, &room())).expect(202).json();
    assert_eq!(started["job"]["kind"], "best_places");
    // One at a time in a build.
    site.post(&path, &ask(2, &room())).expect(409);
}
