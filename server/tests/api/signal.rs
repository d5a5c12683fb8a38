//! What comes before the drivers.

use serde_json::json;

use crate::support::{Site, design};

#[test]
fn the_chain_is_reported_block_by_block_in_its_conditions() {
    let site = Site::start();
    let mut design = design();
    design["signal"] = json!({
        "filters": [
            { "kind": "high_pass", "order": 4, "frequency": "20 Hz" },
            { "kind": "parametric", "frequency": "15 Hz", "gain": "6 dB", "q": 1 },
        ],
        "parts": [{ "wiring": "series", "inductance": "5 mH", "coil_resistance": "0.3 ohm" }],
    });
    let brief = json!({ "lowest": "30 Hz", "amplifier_power": "100 W", "amplifier_load": "4 ohm" });
    let said = site.post("/api/v1/signal", &json!({ "design": design, "brief": brief })).expect(200).json();
    assert!(said["conditions"].as_str().expect("words").ends_with(", through its filters"));
    assert_eq!(said["filters"].as_array().map(Vec::len), Some(2));
    assert!(said["filters"][1]["caution"].as_str().expect("a caution").contains("Boosts below the tuning"));
    assert!(said["parts"][0]["heat"].as_f64().expect("W") > 0.0);
    assert!(said["amplifier"]["verdicts"].as_array().is_some_and(|verdicts| !verdicts.is_empty()));
    let bench = json!({ "design": design, "brief": brief, "conditions": { "basis": "bench" } });
    let bench = site.post("/api/v1/signal", &bench).expect(200).json();
    assert_eq!(bench["conditions"], "2.83 V, half space");
    design["signal"]["filters"][0]["order"] = json!(9);
    let refused = site.post("/api/v1/signal", &json!({ "design": design })).expect(422).json();
    assert_eq!(refused["errors"][0]["field"], "signal.filters[0].order");
    assert_eq!((&refused["errors"][0]["min"], &refused["errors"][0]["max"]), (&json!(1.0), &json!(8.0)));
}

#[test]
fn filters_leave_as_biquads_or_say_why_not() {
    let site = Site::start();
    let mut design = design();
    design["signal"] = json!({ "filters": [{ "kind": "high_pass", "order": 3, "frequency": "20 Hz" }] });
    let body = json!({ "design": design });
    let sheet = site.post("/api/v1/signal/biquads?sample_rate=48000", &body).expect(200).json();
    assert_eq!(sheet["sections"].as_array().map(Vec::len), Some(2));
    assert!(sheet["deviation"].as_f64().expect("dB") < 0.02);
    let table = site.post("/api/v1/signal/biquads?sample_rate=48000&format=csv", &body).expect(200);
    assert!(table.text.starts_with("filter,b0,b1,b2,a1,a2\n"));
    for rate in ["100", "1e9", "NaN", ""] {
        let refused =
            site.post(&format!("/api/v1/signal/biquads?sample_rate={rate}"), &body).expect(400).json();
        assert_eq!(refused["type"], "urn:oak-drum:query", "{rate}");
    }
    let high = json!({ "kind": "all_pass", "frequency": "9 kHz" });
    let above = json!({ "design": { "filters": 0 } });
    site.post("/api/v1/signal/biquads?sample_rate=48000", &above).expect(400);
    let mut design = design.clone();
    design["signal"]["filters"] = json!([high]);
    let refused = site
        .post("/api/v1/signal/biquads?sample_rate=16000", &json!({ "design": design }))
        .expect(422)
        .json();
    assert!(refused["detail"].as_str().expect("words").contains("9000 Hz is not below half the sample rate"));
}

#[test]
fn amplifiers_to_begin_with_are_listed() {
    let kinds = Site::start().get("/api/v1/amplifier-kinds").expect(200).json();
    let kinds = kinds.as_array().expect("a list").clone();
    assert!(kinds.len() >= 4);
    assert!(kinds.iter().all(|kind| kind["minimum_load"].as_f64().is_some_and(|load| load >= 2.0)));
}

#[test]
fn a_trace_is_read_from_text_and_plays_as_a_filter() {
    let site = Site::start();
    let read =
        |text: &[u8]| site.send("POST", "/api/v1/traces/read", &[("content-type", "text/plain")], text);
    let found = read("* kHz; dB\n0,020;-3;10\n0,2;0;0\n".as_bytes()).expect(200).json();
    assert_eq!(found["points"], json!([[20.0, -3.0, 10.0], [200.0, 0.0, 0.0]]));
    assert_eq!((&found["rows"], &found["phase"]), (&json!(2), &json!(true)));
    let mut design = design();
    design["signal"] = json!({ "filters": [{ "kind": "measured", "trace": found["points"] }] });
    let said = site.post("/api/v1/signal", &json!({ "design": design })).expect(200).json();
    assert_eq!(said["filters"].as_array().map(Vec::len), Some(1));
    assert_eq!(read(b"no numbers here").expect(422).json()["errors"][0]["field"], "text");
    assert_eq!(read(b"Hz Ohm\n20 8\n30 9\n").expect(422).json()["errors"][0]["field"], "text");
    read(&[0xff, 0xfe, 0x31]).expect(422);
    site.post("/api/v1/traces/read", &json!({})).expect(415);
    read(&vec![b' '; (8 << 20) + 1]).expect(413);
}
