//! Bad input gets a clear answer, and the server stays up.

use serde_json::{Value, json};

use crate::support::{Site, asked, design, driver};

#[test]
fn every_bad_value_is_named_with_its_allowed_range() {
    let site = Site::start();
    let cases = [
        ("/driver/fs", json!("1e9 Hz"), "driver.fs", "1e9 Hz is outside 5 Hz to 2000 Hz"),
        ("/driver/fs", json!("0 Hz"), "driver.fs", "0 Hz is outside 5 Hz to 2000 Hz"),
        ("/driver/re", json!("-3 ohm"), "driver.re", "-3 ohm is outside 0.1 ohm to 100 ohm"),
        ("/driver/qes", json!("NaN"), "driver.qes", "\"NaN\" is not a number"),
        ("/enclosure/volume", json!("44 kg"), "enclosure.volume", "is a unit of mass, not of volume"),
        ("/enclosure/volume", json!("44"), "enclosure.volume", "a unit is missing"),
        ("/driver/sd", Value::Null, "driver.sd", "is missing; 1 cm2 to 5000 cm2 is allowed"),
    ];
    for (pointer, value, field, words) in cases {
        let mut bad = design();
        *bad.pointer_mut(pointer).expect("a place") = value;
        for answer in [
            site.post("/api/v1/simulate", &json!({ "design": bad })),
            site.post("/api/v1/builds/import", &in_a_build(&bad)),
        ] {
            let answer = answer.expect(422);
            let field = if answer.text.contains("variants[0]") {
                format!("variants[0].{field}")
            } else {
                field.to_owned()
            };
            assert!(answer.told(&field).contains(words), "{pointer}: {}", answer.text);
        }
    }
    let mut bad = driver();
    bad["fs"] = json!("1e9 Hz");
    let answer = site.post("/api/v1/drivers", &bad).expect(422);
    assert_eq!(answer.json()["errors"][0]["max"], 2000.0);
    site.get("/api/v1/health").expect(200);
}

fn in_a_build(design: &Value) -> Value {
    json!({ "format": "oak-drum/build", "version": 2, "name": "x", "variants": [design] })
}

#[test]
fn what_is_not_a_document_is_told_where_it_goes_wrong() {
    let site = Site::start();
    let kind = [("content-type", "application/json")];
    for body in [
        "",
        "{",
        "[]",
        "{\"name\":",
        "\u{0}",
        "{\"enclosure\": {\"family\": \"sphere\"}}",
        "{\"driver\":{\"fs\":1e999}}",
    ] {
        let answer = site.send("POST", "/api/v1/simulate", &kind, body.as_bytes()).expect(400);
        assert_eq!(answer.json()["type"], "urn:oak-drum:malformed", "{body}");
    }
    let deep = "[".repeat(200_000);
    site.send("POST", "/api/v1/drivers", &kind, deep.as_bytes()).expect(400);
    let answer = site.post("/api/v1/simulate", &json!({ "design": { "enclosure": { "family": "sphere" } } }));
    assert!(answer.told("design.enclosure.family").contains("sphere"));
    site.get("/api/v1/health").expect(200);
}

#[test]
fn fifty_megabytes_are_refused_and_the_server_stays_up() {
    let site = Site::start();
    let large = vec![b' '; 50 << 20];
    let answer =
        site.send("POST", "/api/v1/simulate", &[("content-type", "application/json")], &large).expect(413);
    assert!(answer.json()["detail"].as_str().expect("text").contains("4194304"));
    site.send("POST", "/api/v1/drivers/import", &[("content-type", "text/csv")], &large).expect(413);
    site.get("/api/v1/health").expect(200);
}

#[test]
fn other_kinds_of_body_query_and_address_are_refused_in_the_same_form() {
    let site = Site::start();
    site.send("POST", "/api/v1/simulate", &[("content-type", "text/plain")], b"{}").expect(415);
    site.send("POST", "/api/v1/drivers/import", &[("content-type", "application/xml")], b"{}").expect(415);
    let image = b"\x89PNG\r\n\x1a\n\x00\x00\x00\x0dIHDR";
    let answer =
        site.send("POST", "/api/v1/drivers/import", &[("content-type", "text/csv")], image).expect(422);
    assert!(answer.json()["detail"].as_str().expect("text").contains("not UTF-8"));
    for (query, status) in
        [("from=0", 422), ("from=100&to=10", 422), ("points=1", 422), ("points=x", 400), ("form=10", 400)]
    {
        let answer = site.post(&format!("/api/v1/simulate?{query}"), &asked()).expect(status);
        assert_eq!(answer.kind, "application/problem+json", "{query}");
    }
    for path in [
        "/api/v1/drivers/7",
        "/api/v1/drivers/0190a1b2-0000-7000-8000-000000000000",
        "/api/nothing",
        "/api/v2/x",
    ] {
        assert_eq!(site.get(path).expect(404).kind, "application/problem+json", "{path}");
    }
    let long = "x".repeat(121);
    let answer =
        site.new_document(&site.build_with_variant().0, "title", &json!({ "name": long })).expect(422);
    assert!(answer.told("name").contains("121 characters long; 1 to 120 are allowed"));
}
