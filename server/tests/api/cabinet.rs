//! The box of a design over the API: what it comes to, its drawings, its boards, and how it rings.

use serde_json::{Value, json};

use crate::support::{Site, design};

/// A design with something said of its box.
fn boxed(body: &Value) -> Value {
    let mut design = design();
    design["body"] = body.clone();
    design
}

#[test]
fn a_box_answers_with_its_ledger_drawings_and_what_does_not_fit() {
    let site = Site::start();
    let ask = |body: Value| json!({ "design": boxed(&body) });
    let found = site.post("/api/v1/cabinet", &ask(json!({ "width": "400 mm" }))).expect(200).json();
    assert!((found["outside"][0].as_f64().expect("a width") - 0.4).abs() < 1e-9);
    let chamber = &found["chambers"][0];
    let (net, wanted) = (chamber["net"].as_f64().expect("net"), chamber["wanted"].as_f64().expect("wanted"));
    assert!((net - wanted).abs() < 1e-6, "the open sizes follow from the volume");
    assert_eq!(found["drawings"].as_array().expect("list").len(), 4);

    let narrow = site.post("/api/v1/cabinet", &ask(json!({ "width": "200 mm" }))).expect(200).json();
    assert!(!narrow["findings"].as_array().expect("list").is_empty());
    let small = json!({ "width": "300 mm", "height": "300 mm", "depth": "150 mm" });
    let full = site.post("/api/v1/cabinet", &ask(small)).expect(422);
    assert!(full.told("body").contains("needs more room than there is"), "{}", full.text);

    // Nothing where there is no box.
    let mut wall = design();
    wall["enclosure"] = json!({ "family": "infinite_baffle" });
    assert_eq!(site.post("/api/v1/cabinet", &json!({ "design": wall })).expect(200).json(), Value::Null);
}

#[test]
fn the_boards_of_a_kit_make_the_box_that_is_drawn() {
    let site = Site::start();
    let text = "Front 400 x 600 x 25\nBack 400 x 600 x 25\nSides (2) 300 x 600 x 18\nTop and bottom 364 x 300 x 18\nBrace 364 x 80 x 18";
    let read = site.post("/api/v1/cabinet/read-kit", &json!({ "text": text })).expect(200).json();
    let mut design = boxed(&read["body"]);
    design["enclosure"].as_object_mut().expect("an enclosure").remove("volume");
    let drawn = site.post("/api/v1/cabinet", &json!({ "design": design })).expect(200).json();
    let near = |a: &Value, b: &Value| (a.as_f64().expect("a") - b.as_f64().expect("b")).abs() < 1e-6;
    for side in 0..3 {
        assert!(near(&drawn["outside"][side], &read["outside"][side]), "{drawn}");
    }
    assert!(near(&drawn["chambers"][0]["gross"], &read["room"]), "{}", drawn["chambers"]);
    site.post("/api/v1/cabinet/read-kit", &json!({ "text": "x".repeat(5001) })).expect(422).told("text");
    site.post("/api/v1/cabinet/read-kit", &json!({ "boards": [] })).expect(400);
}

#[test]
fn what_is_wrong_with_a_box_names_its_place_and_range() {
    let site = Site::start();
    let ask = |body: Value| site.post("/api/v1/cabinet", &json!({ "design": boxed(&body) }));
    assert!(ask(json!({ "width": "20 m" })).expect(422).told("body.width").contains("8000 mm"));
    assert!(
        ask(json!({ "braces": [{ "along": "height", "open": "99 %" }] }))
            .expect(422)
            .told("body.braces[0].open")
            .contains("95 %")
    );
    let step = json!({ "shape": "step", "width": "400 mm", "height": "400 mm", "depth": "400 mm", "step_height": "500 mm", "step_depth": "100 mm" });
    assert!(ask(step).expect(422).told("body.step_height").contains("cannot be built"));
    ask(json!({ "shape": "sphere" })).expect(400);
    ask(json!({ "colour": "oak" })).expect(400);
}

#[test]
fn drawings_come_as_files() {
    let site = Site::start();
    let asked = boxed(&json!({}));
    let svg = site.post("/api/v1/cabinet/drawing?view=side&format=svg", &asked).expect(200);
    assert!(svg.text.contains("<svg"));
    let dxf = site.post("/api/v1/cabinet/drawing?view=front&format=dxf", &asked).expect(200);
    assert!(dxf.text.contains("LWPOLYLINE"));
    site.post("/api/v1/cabinet/drawing?view=above&format=svg", &asked).expect(400);
    let mut wall = design();
    wall["enclosure"] = json!({ "family": "infinite_baffle" });
    site.post("/api/v1/cabinet/drawing?view=side&format=svg", &wall).expect(404);
}

#[test]
fn boards_and_waves_answer() {
    let site = Site::start();
    let ask = json!({ "design": boxed(&json!({ "width": "400 mm" })) });
    let panels = site.post("/api/v1/cabinet/panels", &ask).expect(200).json();
    assert!(panels["braced"].as_f64() >= panels["resonance"].as_f64());
    assert!(panels["materials"].as_array().expect("list").len() > 5);
    for model in ["quick", "full"] {
        let cavity_check =
            site.post(&format!("/api/v1/cabinet/cavity-check?model={model}"), &ask).expect(200).json();
        assert_eq!(cavity_check["model"], model);
        let count = cavity_check["frequency"].as_array().expect("list").len();
        assert_eq!(cavity_check["cavity"]["impedance"].as_array().expect("list").len(), count);
    }
    // Only plain boxes have a model in three directions.
    let pipe = json!({ "design": boxed(&json!({ "shape": "pipe" })) });
    site.post("/api/v1/cabinet/cavity-check?model=quick", &pipe).expect(200);
    assert!(
        site.post("/api/v1/cabinet/cavity-check?model=full", &pipe)
            .expect(422)
            .told("body.shape")
            .contains("plain box")
    );
}

/// A line of 2.2 m.
fn line() -> Value {
    let mut line = design();
    line["enclosure"] = json!({
        "family": "line",
        "passage": {
            "segments": [{ "length": "2.2 m", "start": "500 cm2", "end": "350 cm2" }],
            "driver_at": "0.5 m"
        }
    });
    line
}

#[test]
fn a_line_is_folded_and_offered_with_other_folds() {
    let site = Site::start();
    let found = site.post("/api/v1/cabinet", &json!({ "design": line() })).expect(200).json();
    let fold = &found["fold"];
    let [asked, built] = [0, 1].map(|k| fold["length"][k].as_f64().expect("a length"));
    assert!((asked - 2.2).abs() < 1e-9 && (built - 2.2).abs() < 1e-3, "{fold}");
    let offers = site.post("/api/v1/cabinet/folds", &json!({ "design": line() })).expect(200).json();
    assert!(offers.as_array().expect("list").len() > 3);
    let none = site.post("/api/v1/cabinet/folds", &json!({ "design": design() })).expect(200).json();
    assert_eq!(none, json!([]));

    let mut bent = line();
    bent["body"] = json!({ "fold": { "folds": 13 } });
    assert!(
        site.post("/api/v1/cabinet", &json!({ "design": bent }))
            .expect(422)
            .told("body.fold.folds")
            .contains("12")
    );
}

#[test]
fn the_box_in_three_dimensions_has_its_boards_and_parts() {
    let site = Site::start();
    let model = site.post("/api/v1/cabinet/model", &line()).expect(200).json();
    assert_eq!(model["panels"].as_array().expect("list").len(), 6);
    let names: Vec<&str> =
        model["parts"].as_array().expect("list").iter().filter_map(|part| part["name"].as_str()).collect();
    for part in ["driver", "mouth"] {
        assert!(names.contains(&part), "{names:?}");
    }
    let mut wall = design();
    wall["enclosure"] = json!({ "family": "infinite_baffle" });
    assert_eq!(site.post("/api/v1/cabinet/model", &wall).expect(200).json(), Value::Null);
}

#[test]
fn a_check_asked_for_in_lines_tells_how_far_it_is() {
    let site = Site::start();
    let path = "/api/v1/cabinet/cavity-check?model=full";
    let lines = |design: Value| -> Vec<Value> {
        let answer = site.post_for(path, "application/x-ndjson", &json!({ "design": design })).expect(200);
        answer.text.lines().map(|line| serde_json::from_str(line).expect("JSON")).collect()
    };
    let told = lines(boxed(&json!({ "width": "400 mm" })));
    let (last, steps) = told.split_last().expect("lines");
    assert!(!steps.is_empty(), "progress before the report");
    let done: Vec<u64> = steps.iter().map(|line| line["progress"][0].as_u64().expect("a count")).collect();
    assert!(done.iter().all(|one| *one <= steps[0]["progress"][1].as_u64().expect("a whole")));
    assert_eq!(last["report"]["model"], "full");
    // What cannot be checked is told in the last line.
    let told = lines(boxed(&json!({ "shape": "pipe" })));
    assert_eq!(told.last().expect("a line")["errors"][0]["field"], "body.shape");
}
