//! What the workbench asks: suggestions, sweeps, luck, motion, workings, and the shelf's order.

use serde_json::{Value, json};

use crate::support::{Site, asked, design};

fn brief() -> Value {
    json!({ "lowest": "25 Hz", "loudness": "100 dB", "amplifier_power": "100 W", "amplifier_load": "4 ohm" })
}

#[test]
fn suggestions_come_with_the_changed_design() {
    let site = Site::start();
    let ask = json!({ "brief": brief(), "design": design(), "check": "lowest" });
    let found = site.post("/api/v1/suggestions", &ask).expect(200).json();
    assert_eq!(found["check"]["verdict"], "short");
    let first = &found["suggestions"][0];
    let judged = json!({ "brief": brief(), "design": first["design"] });
    let checks = site.post("/api/v1/judge", &judged).expect(200).json();
    let lowest =
        checks.as_array().expect("list").iter().find(|check| check["id"] == "lowest").expect("asked");
    assert_eq!((&lowest["verdict"], &lowest["reached"]), (&json!("met"), &first["reached"]));

    let unknown = json!({ "brief": brief(), "design": design(), "check": "colour" });
    assert!(site.post("/api/v1/suggestions", &unknown).expect(422).told("check").contains("colour"));
    let vague = json!({ "brief": { "lowest": "low" }, "design": design(), "check": "lowest" });
    assert!(site.post("/api/v1/suggestions", &vague).expect(422).told("brief.lowest").contains("low"));
}

#[test]
fn sweeps_tolerances_motion_and_workings_answer_and_name_what_is_wrong() {
    let site = Site::start();
    let sweep = |more: Value| {
        let mut ask = json!({ "design": design() });
        ask.as_object_mut().expect("object").extend(more.as_object().expect("object").clone());
        site.post("/api/v1/sweep", &ask)
    };
    let swept = sweep(json!({})).expect(200).json();
    assert_eq!(swept["parameter"], "volume");
    assert_eq!(
        swept["steps"][0]["outcome"]["level"].as_array().expect("list").len(),
        swept["frequency"].as_array().expect("list").len()
    );
    sweep(json!({ "parameter": "volume", "from": 0.05, "to": 0.01 })).expect(422).told("to");
    sweep(json!({ "parameter": "volume", "from": 1e9 })).expect(422).told("from");

    let percentiles =
        site.post("/api/v1/tolerance", &json!({ "design": design(), "brief": brief() })).expect(200).json();
    assert!(percentiles["words"][0].as_str().expect("words").contains("19 of 20"));
    let wild = json!({ "design": design(), "spreads": { "qes": 2 } });
    assert!(site.post("/api/v1/tolerance", &wild).expect(422).told("spreads.qes").contains("50 %"));

    let moves = site.post("/api/v1/motion?frequency=30", &asked()).expect(200).json();
    assert_eq!(moves["movers"][0]["kind"], "cone");
    assert!(site.post("/api/v1/motion?frequency=2", &asked()).expect(422).told("frequency").contains("5 Hz"));
    site.post("/api/v1/motion", &asked()).expect(400);

    let plain = site.post("/api/v1/workings", &json!({ "design": design() })).expect(200).json();
    let cornered = json!({ "design": design(), "brief": { "space": "eighth" } });
    let cornered = site.post("/api/v1/workings", &cornered).expect(200).json();
    let level = |all: &Value| -> f64 {
        let level = all.as_array().expect("list").iter().find(|one| one["id"] == "level").expect("a level");
        level["result"].as_str().and_then(|text| text.split(' ').next()?.parse().ok()).expect("a number")
    };
    assert!((level(&cornered) - level(&plain) - 12.0).abs() < 0.3, "two walls more add 6 dB each");
}

#[test]
fn the_shelf_keeps_its_order_and_every_variant_its_mark() {
    let site = Site::start();
    let (build, first) = site.build_with_variant();
    let add = || site.new_document(&build, "variant", &design()).expect(201).json();
    let (second, third) = (add()["id"].clone(), add()["id"].clone());
    let path = format!("/api/v1/builds/{build}");
    let order = |keys: &[&Value]| site.put(&format!("{path}/order"), "", &json!({ "documents": keys }));
    let shelf = || -> Vec<(Value, Value)> {
        let all = site.documents(&build, "variant");
        all.into_iter().map(|variant| (variant["id"].clone(), variant["number"].clone())).collect()
    };
    order(&[&third, &json!(first)]).expect(204);
    let expected = vec![(third.clone(), json!(2)), (json!(first), json!(0)), (second.clone(), json!(1))];
    assert_eq!(shelf(), expected);

    let archive = |revision: i32, archived: bool| {
        let body = json!({ "build": build, "kind": "variant", "content": design(), "archived": archived });
        site.put(&format!("/api/v1/documents/{first}"), &format!("\"{revision}\""), &body).expect(200)
    };
    archive(1, true);
    assert_eq!(shelf(), [(third.clone(), json!(2)), (second.clone(), json!(1))]);
    archive(2, false);
    assert_eq!(shelf(), expected);
    assert_eq!(add()["number"], 3);

    let stranger = json!("0192f0c1-2345-7890-abcd-1234567890ab");
    order(&[&stranger]).expect(404);
    assert_eq!(shelf().len(), 4);
}
