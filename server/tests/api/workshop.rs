//! The library, exchange of files, and what is computed for the workbench.

use serde_json::{Value, json};

use crate::support::{DEMO, Site, asked, driver};

#[test]
fn a_driver_is_kept_as_typed_and_changed_only_from_its_newest_state() {
    let site = Site::start();
    let added = site.post("/api/v1/drivers", &driver()).expect(201);
    let path = format!("/api/v1/drivers/{}", added.json()["id"].as_str().expect("id"));
    assert_eq!(added.json()["document"]["vas"], "2.24 cuft");
    assert_eq!(added.etag.as_deref(), Some("\"1\""));

    let mut changed = driver();
    changed["name"] = json!("Heron, measured");
    let second = site.put(&path, "\"1\"", &changed).expect(200);
    assert_eq!(second.etag.as_deref(), Some("\"2\""));
    let stale = site.put(&path, "\"1\"", &driver()).expect(412).json();
    assert_eq!((&stale["current_revision"], &stale["type"]), (&json!(2), &json!("urn:oak-drum:stale")));
    assert_eq!(site.get(&path).json()["document"]["name"], "Heron, measured");

    site.delete(&path, "\"1\"").expect(412);
    site.delete(&path, "\"2\"").expect(204);
    site.get(&path).expect(404);
    assert_eq!(site.get("/api/v1/drivers").json()["drivers"], json!([]));
    site.post(&format!("{path}/restore"), &json!({})).expect(200);
    assert_eq!(site.get("/api/v1/drivers").json()["drivers"].as_array().expect("list").len(), 1);
}

#[test]
fn what_is_exported_can_be_imported_and_is_the_same() {
    let site = Site::start();
    let demo = std::fs::read_to_string(format!("{DEMO}/builds/pit-organ.json")).expect("demo");
    let demo: Value = serde_json::from_str(&demo).expect("JSON");
    let build = site.post("/api/v1/builds/import", &demo).expect(201).json();
    let build = build["id"].as_str().expect("id");
    let exported = site.get(&format!("/api/v1/builds/{build}/build.json"));
    assert_eq!(exported.json(), demo);
    assert!(exported.headers["content-disposition"].to_str().expect("text").contains("Pit organ.json"));

    let first = &site.documents(build, "variant")[0];
    let variant = first["id"].as_str().expect("id");
    let file = site.get(&format!("/api/v1/variants/{variant}/design.json")).json();
    assert_eq!(file, demo["variants"][0]);
    let response =
        site.get(&format!("/api/v1/variants/{variant}/response.csv?from=20&to=200&points=5")).expect(200);
    assert_eq!(response.text.lines().count(), 7);
    assert!(response.text.starts_with("# 300 W into 4 Ω (34.6 V), against a wall\nfrequency_hz,level_db,"));
    let bench = site.get(&format!("/api/v1/variants/{variant}/response.csv?basis=bench")).expect(200);
    assert!(bench.text.starts_with("# 2.83 V, half space\n"));
    let nowhere = site.get(&format!("/api/v1/variants/{variant}/response.csv?basis=nowhere"));
    assert_eq!(nowhere.status, 400);

    let table = std::fs::read(format!("{DEMO}/drivers.csv")).expect("demo");
    let report = site.import_table(&table).expect(200).json();
    assert_eq!(report["imported"], report["rows"]);
    let back = site.get("/api/v1/drivers/export.csv").expect(200);
    assert_eq!(site.import_table(back.text.as_bytes()).expect(200).json()["imported"], report["rows"]);
    let id = site.get("/api/v1/drivers").json()["drivers"][0]["id"].as_str().expect("id").to_owned();
    let file = site.get(&format!("/api/v1/drivers/{id}/driver.json")).json();
    site.post("/api/v1/drivers", &file).expect(201);
}

#[test]
fn a_table_with_a_bad_row_imports_nothing_and_reports_every_bad_row() {
    let site = Site::start();
    let table = b"name,re (ohm),fs (Hz),qms,qes,vas (l),sd (cm2)\nA,3,30,4,0.4,60,350\nB,0,30,4,0.4,60,350\nC,3,30,4,,60,350\n";
    let refused = site.import_table(table).expect(422).json();
    let lines: Vec<_> =
        refused["report"]["problems"].as_array().expect("list").iter().map(|p| p["line"].clone()).collect();
    assert_eq!(lines, [3, 4]);
    assert_eq!(site.get("/api/v1/drivers").json()["drivers"], json!([]));
}

#[test]
fn the_computation_is_the_same_as_on_the_command_line() {
    let site = Site::start();
    let report = site.post("/api/v1/simulate?from=20&to=100&points=11", &asked()).expect(200).json();
    let traces = |report: &Value| report["traces"].as_array().expect("a list").clone();
    for trace in traces(&report) {
        assert_eq!(trace["frequency"].as_array().expect("list").len(), 11, "{trace}");
        assert_eq!(trace["values"].as_array().expect("list").len(), 11, "{trace}");
    }
    let drawn =
        site.post("/api/v1/simulate?from=20&to=100&points=11&traces=lanes", &asked()).expect(200).json();
    let (drawn, all) = (traces(&drawn), traces(&report));
    assert!(drawn.iter().all(|trace| trace["quantity"] != "power") && drawn.len() < all.len());
    for (trace, whole) in drawn.iter().zip(&all) {
        assert_eq!((&trace["quantity"], &trace["values"]), (&whole["quantity"], &whole["values"]));
    }
    site.post("/api/v1/simulate?traces=some", &asked()).expect(400);
    assert!((report["figures"]["fb"].as_f64().expect("ported") - 29.0).abs() < 1e-6);
    assert!((report["driver"]["vas"].as_f64().expect("m3") - 0.06343).abs() < 1e-4);
    let resolved = site.post("/api/v1/drivers/resolve", &driver()).expect(200).json();
    assert_eq!(resolved, report["driver"]);
}

#[test]
fn the_description_names_every_address() {
    let site = Site::start();
    let document = site.get("/api/openapi.json").expect(200).json();
    for path in
        ["/api/v1/simulate", "/api/v1/drivers/import", "/api/v1/documents/{id}", "/api/v1/builds/{id}/order"]
    {
        assert!(document["paths"].get(path).is_some(), "{path}");
    }
    assert!(document["components"]["schemas"]["RawDesign"].is_object());
    let operations = document["paths"].as_object().expect("paths").values();
    let names: Vec<_> = operations
        .flat_map(|item| item.as_object().expect("item").values())
        .map(|o| &o["operationId"])
        .collect();
    for (at, name) in names.iter().enumerate() {
        assert!(name.is_string() && !names[..at].contains(name), "{name} twice");
    }
}

#[test]
fn every_starting_point_of_a_family_answers_with_a_design_or_a_reason() {
    let site = Site::start();
    let ask = |family: &str| json!({ "family": family, "driver": driver(), "lowest": "30 Hz" });
    let starts = site.post("/api/v1/starts", &ask("ported")).expect(200).json();
    let starts = starts.as_array().expect("list");
    assert!(starts.len() >= 5);
    let flat = &starts[0];
    assert_eq!((&flat["starting_point"], &flat["name"]), (&json!("flat"), &json!("Flat")));
    site.post("/api/v1/simulate", &json!({ "design": flat["design"] })).expect(200);
    let none = site.post("/api/v1/starts", &ask("open_baffle")).expect(200).json();
    assert_eq!(none[0]["design"], Value::Null);
    assert!(none[0]["reason"].as_str().expect("a reason").contains("Qts"));
    let bad =
        site.post("/api/v1/starts", &json!({ "family": "ported", "driver": driver(), "lowest": "1 Hz" }));
    assert_eq!(bad.expect(422).json()["errors"][0]["field"], "lowest");
    // A brief says lowest note and size where nothing else does, and the box goes into its place.
    let brief = json!({ "lowest": "40 Hz", "width": "400 mm", "height": "380 mm", "depth": "420 mm" });
    let asked = json!({ "family": "ported", "driver": driver(), "brief": brief });
    let starts = site.post("/api/v1/starts", &asked).expect(200).json();
    let made = starts.as_array().expect("list").iter().filter(|start| !start["design"].is_null());
    let fits = made.filter(|start| {
        let judged =
            site.post("/api/v1/judge", &json!({ "brief": brief, "design": start["design"] })).expect(200);
        let checks = judged.json();
        let met = |id: &str| {
            checks.as_array().expect("list").iter().any(|one| one["id"] == id && one["verdict"] == "met")
        };
        met("size") && met("fits")
    });
    assert!(fits.count() >= 1, "{starts}");
    let unknown = site.post("/api/v1/starts", &ask("sphere")).expect(400).json();
    assert_eq!(unknown["type"], "urn:oak-drum:malformed");
}

#[test]
fn a_data_sheet_is_read_and_a_kind_of_cabinet_recommended_for_it() {
    let site = Site::start();
    let sheet = "Heron 250/4\nFs: 28Hz\nRe: 3,6 Ohm\nQms 5,4\nQes 0,38\nVas 63,3 l\nSd 346 cm²\nXmax 11,5 mm";
    let read = site.post("/api/v1/drivers/read-sheet", &json!({ "text": sheet })).expect(200).json();
    assert_eq!(read["found"].as_array().expect("list").len(), 7, "{read}");
    assert_eq!(read["driver"]["vas"], "63.3 l");
    let none = site.post("/api/v1/drivers/read-sheet", &json!({ "text": "Re: lunch at 12" })).expect(200);
    assert_eq!(none.json()["found"], json!([]));
    let long = json!({ "text": "x".repeat(20_001) });
    site.post("/api/v1/drivers/read-sheet", &long).expect(422).told("text");
    site.post("/api/v1/drivers/read-sheet", &json!({ "sheet": "" })).expect(400);

    let brief = json!({ "lowest": "35 Hz", "loudness": "100 dB", "amplifier_power": "200 W", "amplifier_load": "4 ohm" });
    let ask = json!({ "driver": read["driver"], "brief": brief });
    let found = site.post("/api/v1/recommendation", &ask).expect(200).json();
    let best = &found["kinds"][0];
    assert_eq!(best["family"], found["family"]);
    // What is said of it is what its judgement says.
    let judged =
        site.post("/api/v1/judge", &json!({ "brief": brief, "design": best["design"] })).expect(200).json();
    let short = judged.as_array().expect("list").iter().filter(|check| check["verdict"] == "short").count();
    assert_eq!(best["short"].as_array().expect("list").len(), short, "{judged}");
    let unknown = json!({ "driver": read["driver"], "brief": { "lowest": "35 kg" } });
    assert_eq!(
        site.post("/api/v1/recommendation", &unknown).expect(422).json()["errors"][0]["field"],
        "brief.lowest"
    );
}

#[test]
fn a_burst_is_played_and_a_bad_one_refused() {
    let site = Site::start();
    let heard = site.post("/api/v1/transient?play=burst&frequency=40&cycles=3", &asked()).expect(200).json();
    assert_eq!(heard["time"].as_array().map(Vec::len), heard["pressure"].as_array().map(Vec::len));
    assert_eq!(heard["band_limit"], 1000.0);
    let refused =
        [("play=burst&frequency=4000", 422), ("play=burst&cycles=0.2", 422), ("play=drum", 400), ("", 400)];
    for (query, status) in refused {
        site.post(&format!("/api/v1/transient?{query}"), &asked()).expect(status);
    }
}
