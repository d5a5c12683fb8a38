//! Searches: put in by the server, carried out by workers of their own, and none is lost with a worker.

mod support;

use std::io::{BufRead, BufReader};
use std::process::{Child, Command, Stdio};
use std::time::{Duration, Instant};

use serde_json::{Value, json};
use support::{Answer, DEMO, Site, cluster};

/// A program of ours that is killed with the test.
struct Program(Child);

impl Drop for Program {
    fn drop(&mut self) {
        let _ = self.0.kill();
        let _ = self.0.wait();
    }
}

/// Starts the program with arguments and returns its first line.
fn start(url: &str, arguments: &[&str]) -> (Program, String) {
    let mut child = Command::new(env!("CARGO_BIN_EXE_oak-drum-server"))
        .args(arguments)
        .env("OAK_DRUM_DATABASE_URL", url)
        .stdout(Stdio::piped())
        .spawn()
        .expect("starts");
    let mut line = String::new();
    BufReader::new(child.stdout.take().expect("stdout")).read_line(&mut line).expect("a line");
    (Program(child), line.trim().to_owned())
}

fn worker(url: &str) -> Program {
    start(url, &["worker", "--threads", "1"]).0
}

/// A server with the demo and some threads for searches.
fn server(threads: &str) -> (Program, Site, String) {
    let url = cluster().database().expect("a database");
    let (program, line) = start(&url, &["serve", "--port", "0", "--demo", DEMO, "--search-threads", threads]);
    let address = line.strip_prefix("Oak Drum is at ").expect("an address").trim_end_matches('/');
    (program, Site::at(address), url)
}

/// Fills the library with the demo's drivers under other names.
fn enlarge(site: &Site, times: usize) {
    let table = std::fs::read_to_string(format!("{DEMO}/drivers.csv")).expect("drivers.csv");
    let (header, rows) = table.split_once('\n').expect("rows");
    let more = (0..times).flat_map(|number| rows.lines().map(move |row| format!("Copy {number} of {row}\n")));
    let table: String = std::iter::once(format!("{header}\n")).chain(more).collect();
    site.import_table(table.as_bytes()).expect(200);
}

fn build(site: &Site) -> (String, Value) {
    let builds = site.get("/api/v1/builds").expect(200).json();
    let build = builds.as_array().expect("builds").iter().find(|build| build["name"] == "Narrowboat nook");
    let build = build.expect("in the demo");
    (build["id"].as_str().expect("id").to_owned(), build["brief"].clone())
}

fn begin(site: &Site, ask: &Value) -> Answer {
    let (build, _) = build(site);
    site.post(&format!("/api/v1/builds/{build}/searches"), ask)
}

fn begun(site: &Site) -> String {
    let (_, brief) = build(site);
    let search = begin(site, &json!({ "brief": brief, "drivers": 1 })).expect(202).json();
    search["id"].as_str().expect("id").to_owned()
}

fn page(site: &Site, search: &str) -> Value {
    site.get(&format!("/api/v1/searches/{search}?limit=200")).expect(200).json()
}

/// Waits for a search to stand as wanted.
fn wait(site: &Site, search: &str, wanted: impl Fn(&Value) -> bool) -> Value {
    let patience = Instant::now();
    loop {
        let page = page(site, search);
        if wanted(&page["search"]) {
            return page;
        }
        assert!(patience.elapsed() < Duration::from_secs(120), "{}", page["search"]);
        std::thread::sleep(Duration::from_millis(30));
    }
}

#[test]
fn a_search_ranks_what_it_finds_and_each_row_becomes_a_design_that_keeps_its_word() {
    let (_program, site, _) = server("2");
    let search = begun(&site);
    let page = wait(&site, &search, |search| search["state"] == "finished");
    assert_eq!(page["search"]["done"], page["search"]["total"]);
    let rows = page["rows"].as_array().expect("rows");
    assert_eq!(page["search"]["found"].as_u64(), Some(rows.len() as u64));
    let score = |row: &Value| row["found"]["score"].as_f64().expect("a score");
    assert!(rows.len() > 60 && rows.windows(2).all(|pair| score(&pair[0]) >= score(&pair[1])));
    let complete = rows.iter().filter(|row| score(row) > 99.999).count() as u64;
    assert_eq!(page["search"]["complete"].as_u64(), Some(complete));

    let (build, brief) = build(&site);
    for row in rows.iter().step_by(9) {
        let (driver, family) = (row["driver"].as_str().expect("id"), row["family"].as_str().expect("family"));
        let design =
            site.get(&format!("/api/v1/searches/{search}/drivers/{driver}/{family}")).expect(200).json();
        let checks =
            site.post("/api/v1/judge", &json!({ "brief": brief, "design": design })).expect(200).json();
        for part in row["found"]["parts"].as_array().expect("parts") {
            let checks = checks.as_array().expect("checks");
            let check = checks.iter().find(|check| check["id"] == part["id"]).expect("the same rules");
            assert_eq!(check["reached"], part["reached"], "{row}");
            assert_eq!(check["words"], part["words"], "{row}");
        }
        site.post(&format!("/api/v1/builds/{build}/variants"), &design).expect(201);
        let all = site.get(&format!("/api/v1/searches/{search}/drivers/{driver}")).expect(200).json();
        assert!(
            all.as_array()
                .expect("rows")
                .iter()
                .all(|row| row["found"].is_null() != row["refused"].is_null())
        );
    }
    let points = site.get(&format!("/api/v1/searches/{search}/points")).expect(200).json();
    let points = points.as_array().expect("points");
    let number = |point: &Value, name: &str| point[name].as_f64().expect("a number");
    let beats = |a: &Value, b: &Value| {
        number(a, "volume") < number(b, "volume")
            && number(a, "f3") < number(b, "f3")
            && number(a, "loudness") > number(b, "loudness")
    };
    assert!(points.iter().any(|point| point["front"] == true));
    for point in points {
        let beaten = points.iter().any(|other| beats(other, point));
        assert!(!(beaten && point["front"] == true), "{point}");
    }
    assert_eq!(site.get(&format!("/api/v1/builds/{build}/search")).expect(200).json()["id"], search);
    let next = begun(&site);
    assert_ne!(next, search);
    site.get(&format!("/api/v1/searches/{search}")).expect(404);
}

#[test]
fn a_search_outlives_the_worker_that_carries_it_out() {
    let (_program, site, url) = server("0");
    enlarge(&site, 8);
    let search = begun(&site);
    std::thread::sleep(Duration::from_millis(300));
    assert_eq!(page(&site, &search)["search"]["state"], "waiting", "nobody is there to do it");
    let first = worker(&url);
    wait(&site, &search, |search| search["done"].as_u64() > Some(0));
    drop(first);
    let left = page(&site, &search);
    assert_eq!(left["search"]["state"], "running", "it was killed on the way");
    let (_second, _third) = (worker(&url), worker(&url));
    let page = wait(&site, &search, |search| search["state"] == "finished");
    assert_eq!(page["search"]["done"], page["search"]["total"], "every driver was counted once");
    let drivers = site.get("/api/v1/drivers?limit=500").expect(200).json();
    for driver in drivers["drivers"].as_array().expect("drivers") {
        let id = driver["id"].as_str().expect("id");
        let rows = site.get(&format!("/api/v1/searches/{search}/drivers/{id}")).expect(200).json();
        assert_eq!(rows.as_array().expect("rows").len(), 5, "{driver}");
    }
}

#[test]
fn a_search_that_is_called_off_stops_and_keeps_what_it_has() {
    let (_program, site, url) = server("0");
    enlarge(&site, 8);
    let search = begun(&site);
    let _worker = worker(&url);
    wait(&site, &search, |search| search["done"].as_u64() > Some(0));
    let cancelled = site.post(&format!("/api/v1/searches/{search}/cancel"), &json!({})).expect(200).json();
    assert_eq!(cancelled["state"], "cancelled");
    std::thread::sleep(Duration::from_millis(200));
    let done = page(&site, &search)["search"]["done"].clone();
    std::thread::sleep(Duration::from_millis(800));
    let page = page(&site, &search);
    assert_eq!(page["search"]["done"], done, "nothing more is done");
    assert!(page["search"]["done"].as_u64() < page["search"]["total"].as_u64());
    assert!(!page["rows"].as_array().expect("rows").is_empty());
    // The worker is free for the next one.
    let next = begun(&site);
    wait(&site, &next, |search| search["state"] == "finished");
}

#[test]
fn what_a_search_cannot_be_begun_with_is_named() {
    let (_program, site, _) = server("0");
    let (_, brief) = build(&site);
    let told = begin(&site, &json!({ "brief": { "loudness": "95 dB" } })).expect(422).told("lowest");
    assert!(told.contains('5') && told.contains("500"), "{told}");
    let told = begin(&site, &json!({ "brief": brief, "drivers": 9 })).expect(422).told("drivers");
    assert!(told.contains('9') && told.contains('8'), "{told}");
    let mut horns = brief.clone();
    horns["families"] = json!(["front_horn"]);
    let told = begin(&site, &json!({ "brief": horns })).expect(422).told("families");
    assert!(told.contains("ported"), "{told}");
    begin(&site, &json!({ "brief": brief, "drivers": "two" })).expect(400);
    let nowhere = "/api/v1/builds/00000000-0000-0000-0000-000000000000/searches";
    site.post(nowhere, &json!({ "brief": brief })).expect(404);
    let search = begun(&site);
    site.get(&format!("/api/v1/searches/{search}?limit=0")).expect(400);
    site.get(&format!("/api/v1/searches/{search}?family=shoebox")).expect(400);
}
