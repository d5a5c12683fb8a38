//! What is bought, cut and done, over HTTP.

use serde_json::{Value, json};

use crate::support::{Site, design};

fn asked(workshop: &Value) -> Value {
    json!({
        "question": { "design": design(), "brief": { "lowest": "35 Hz", "budget": 400 }, "conditions": { "workshop": workshop } },
        "today": "2026-05-01",
    })
}

#[test]
fn a_plan_is_made_in_the_workshop_that_is_said_and_refused_where_that_is_wrong() {
    let site = Site::start();
    let plan = site.post("/api/v1/plan", &asked(&json!({ "glue": "polyurethane" }))).expect(200).json();
    let items = plan["items"].as_array().expect("parts");
    assert!(items.iter().any(|item| item["id"] == "glue.polyurethane"));
    assert!(plan["steps"].as_array().expect("steps").len() > 25);
    assert_eq!(plan["budget"], 400.0);
    let checks =
        site.post("/api/v1/judge", &asked(&json!({ "glue": "polyurethane" }))["question"]).expect(200).json();
    let chip =
        checks.as_array().expect("checks").iter().find(|check| check["id"] == "cost").expect("asked").clone();
    // The design of these tests has no price for its driver, and both say so.
    assert_eq!(plan["cost"], Value::Null);
    assert_eq!(chip["verdict"], "unknown");

    let wrong = site.post("/api/v1/plan", &asked(&json!({ "kerf": "3 in" }))).expect(422).json();
    assert_eq!(wrong["errors"][0]["field"], "conditions.workshop.kerf");
    let wrong = site.post("/api/v1/plan", &asked(&json!({ "start": "soon" }))).expect(422).json();
    assert_eq!(wrong["errors"][0]["field"], "conditions.workshop.start");
    site.post("/api/v1/plan", &asked(&json!({ "hammer": "big" }))).expect(400);
    let mut someday = asked(&json!({}));
    someday["today"] = json!("1 May");
    assert_eq!(site.post("/api/v1/plan", &someday).expect(422).json()["errors"][0]["field"], "today");
    let mut ticked = asked(&json!({}));
    ticked["progress"] = json!({ "ticks": [{ "step": "cut.label", "at": "yesterday" }] });
    let refused = site.post("/api/v1/plan", &ticked).expect(422).json();
    assert_eq!(refused["errors"][0]["field"], "progress.ticks[0].at");
    // A baffle has no box to build.
    let mut baffle = asked(&json!({}));
    baffle["question"]["design"]["enclosure"]["family"] = json!("infinite_baffle");
    assert_eq!(site.post("/api/v1/plan", &baffle).expect(200).json(), Value::Null);
    site.post("/api/v1/plan/pages?pages=book", &baffle).expect(404);
}

#[test]
fn a_plan_leaves_as_tables_a_calendar_drawings_and_pages() {
    let site = Site::start();
    let file = |what: &str| {
        site.post(&format!("/api/v1/plan/file?file={what}"), &asked(&json!({}))).expect(200).text
    };
    assert!(file("parts").starts_with("item,name,shop,"));
    assert!(file("calendar").starts_with("BEGIN:VCALENDAR"));
    let prices = file("prices");
    let read = site.send("POST", "/api/v1/plan/prices", &[("content-type", "text/csv")], prices.as_bytes());
    let read = read.expect(200).json();
    assert!(read.as_array().expect("prices").iter().any(|one| one["item"] == "glue.pva"));
    let bad = site.send(
        "POST",
        "/api/v1/plan/prices",
        &[("content-type", "text/csv")],
        b"item,price\nglue.pva,cheap\n",
    );
    assert!(bad.expect(422).json()["detail"].as_str().expect("words").contains("line 2"));
    site.post("/api/v1/plan/file?file=house", &asked(&json!({}))).expect(400);

    let question = asked(&json!({}))["question"].clone();
    let svg = site.post("/api/v1/plan/drawing?panel=1&format=svg", &question).expect(200).text;
    assert!(svg.contains("<svg"));
    let dxf = site.post("/api/v1/plan/drawing?sheet=0&format=dxf", &question).expect(200).text;
    for layer in ["cut", "recess", "drill", "mark", "label"] {
        assert!(dxf.contains(layer), "{layer}");
    }
    site.post("/api/v1/plan/drawing?panel=999&format=svg", &question).expect(404);
    site.post("/api/v1/plan/drawing?format=svg", &question).expect(422);

    let pages = site.post("/api/v1/plan/pages?pages=book", &asked(&json!({}))).expect(200);
    assert!(pages.text.starts_with("%PDF-"));
    let templates =
        site.post("/api/v1/plan/pages?pages=templates", &asked(&json!({ "paper": "letter" }))).expect(200);
    assert!(templates.text.starts_with("%PDF-"));
    site.post("/api/v1/plan/pages?pages=poem", &asked(&json!({}))).expect(404);
}

#[test]
fn a_longer_search_tells_how_far_it_is_and_ends_with_what_it_found() {
    let site = Site::start();
    let question = asked(&json!({}))["question"].clone();
    let lines = site.post_for("/api/v1/plan/layouts", "application/x-ndjson", &question).expect(200).text;
    let lines: Vec<Value> = lines.lines().map(|line| serde_json::from_str(line).expect("a line")).collect();
    assert!(lines.len() > 10 && lines[0]["progress"].is_array());
    let found = lines.last().expect("an end")["found"].as_array().expect("layouts").clone();
    assert!(!found.is_empty());
    // What was found is used from then on.
    let plan = site.post("/api/v1/plan", &asked(&json!({ "layouts": found }))).expect(200).json();
    assert_eq!(plan["sheets"][0]["searched"], true);
}
