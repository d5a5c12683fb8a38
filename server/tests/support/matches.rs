//! Driver matches as jobs to test with.

use std::time::{Duration, Instant};

use serde_json::{Value, json};

use super::{Answer, DEMO, Site};

/// The kinds of cabinet that are looked at for each driver: few, as what happens to the job is tested, not what it finds.
pub const FAMILIES: [&str; 2] = ["sealed", "ported"];

/// Fills the library with the demo's drivers under other names.
pub fn enlarge(site: &Site, times: usize) {
    let table = std::fs::read_to_string(format!("{DEMO}/drivers.csv")).expect("drivers.csv");
    let (header, rows) = table.split_once('\n').expect("rows");
    let more = (0..times).flat_map(|number| rows.lines().map(move |row| format!("Copy {number} of {row}\n")));
    let table: String = std::iter::once(format!("{header}\n")).chain(more).collect();
    site.import_table(table.as_bytes()).expect(200);
}

/// A build of the demo, by its name, with its brief.
pub fn build_named(site: &Site, name: &str) -> (String, Value) {
    let builds = site.get("/api/v1/builds").expect(200).json();
    let build = builds.as_array().expect("builds").iter().find(|build| build["name"] == name);
    let build = build.expect("in the demo");
    let id = build["id"].as_str().expect("id");
    let brief = site.documents(id, "brief").first().map_or(Value::Null, |brief| brief["content"].clone());
    (id.to_owned(), brief)
}

pub fn nook(site: &Site) -> (String, Value) {
    build_named(site, "Narrowboat nook")
}

pub fn ask(site: &Site, ask: &Value) -> Answer {
    let (build, _) = nook(site);
    site.post(&format!("/api/v1/builds/{build}/driver-matches"), ask)
}

/// Starts a match in the nook; its key.
pub fn started(site: &Site) -> String {
    let (_, mut brief) = nook(site);
    brief["families"] = json!(FAMILIES);
    let job = ask(site, &json!({ "brief": brief, "drivers": 1 })).expect(202).json();
    job["id"].as_str().expect("id").to_owned()
}

pub fn page(site: &Site, id: &str) -> Value {
    site.get(&format!("/api/v1/driver-matches/{id}?limit=200")).expect(200).json()
}

pub fn ended(job: &Value) -> bool {
    ["finished", "cancelled", "failed"].iter().any(|state| job["state"] == *state)
}

/// Waits for a match to stand as wanted.
pub fn wait(site: &Site, id: &str, wanted: impl Fn(&Value) -> bool) -> Value {
    let patience = Instant::now();
    loop {
        let page = page(site, id);
        if wanted(&page["job"]) {
            return page;
        }
        assert!(patience.elapsed() < Duration::from_secs(300), "{}", page["job"]);
        std::thread::sleep(Duration::from_millis(30));
    }
}

/// A finished match has looked at every driver, and counted each once.
pub fn assert_whole(site: &Site, id: &str) {
    let job = page(site, id)["job"].clone();
    assert_eq!(job["state"], "finished", "{job}");
    assert_eq!(job["done"], job["total"], "{job}");
    let drivers = site.get("/api/v1/drivers?limit=500").expect(200).json();
    let drivers = drivers["drivers"].as_array().expect("drivers");
    assert_eq!(job["total"].as_u64(), Some(drivers.len() as u64));
    let mut found = 0;
    for driver in drivers {
        let key = driver["id"].as_str().expect("id");
        let rows = site.get(&format!("/api/v1/driver-matches/{id}/drivers/{key}")).expect(200).json();
        let rows = rows.as_array().expect("rows");
        assert_eq!(rows.len(), FAMILIES.len(), "{driver}");
        found += rows.iter().filter(|row| !row["found"].is_null()).count() as u64;
    }
    assert_eq!(job["found"].as_u64(), Some(found), "what was found is counted once");
}
