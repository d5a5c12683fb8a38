//! Many at once, and people who mean harm.

use std::thread;

use serde_json::{Value, json};

use crate::support::{Site, design, driver};

fn sized(litres: usize) -> Value {
    let mut next = design();
    next["enclosure"]["volume"] = json!(format!("{litres} l"));
    next
}

/// Eight writers, each trying again with the newest tag when it was refused: every accepted write is a
/// revision, in order, and none is overwritten unseen.
#[test]
fn many_writers_at_once_lose_nothing() {
    let site = Site::start();
    let (build, variant) = site.build_with_variant();
    let path = format!("/api/v1/documents/{variant}");
    let sized = |litres: usize| json!({ "build": build, "kind": "variant", "content": sized(litres) });
    thread::scope(|scope| {
        for writer in 0..8 {
            let (site, path, sized) = (&site, &path, &sized);
            scope.spawn(move || {
                for _ in 0..100 {
                    let tag = site.get(path).expect(200).etag.expect("tag");
                    match site.put(path, &tag, &sized(20 + writer)).status {
                        200 => return,
                        status => assert_eq!(status, 412),
                    }
                }
                panic!("never got through");
            });
        }
    });
    let revisions = site.get(&format!("{path}/revisions")).expect(200).json();
    let list = revisions.as_array().expect("list");
    let numbers: Vec<_> =
        list.iter().map(|revision| revision["revision"].as_i64().expect("number")).collect();
    assert_eq!(numbers, (1..=9).rev().collect::<Vec<_>>());
    let mut volumes: Vec<_> =
        list[..8].iter().map(|revision| revision["content"]["enclosure"]["volume"].to_string()).collect();
    volumes.sort();
    volumes.dedup();
    assert_eq!(volumes.len(), 8, "each writer's own volume is there");
}

#[test]
fn text_is_kept_as_text_whatever_it_says() {
    let site = Site::start();
    let names = [
        "'; DROP TABLE drivers; --",
        "<script>alert(1)</script>",
        "${7*7} {{7*7}} %s %n",
        "Čáp 250/4 – 低音 🎛",
        "../../etc/passwd",
    ];
    for name in names {
        let mut hostile = driver();
        hostile["name"] = json!(name);
        let kept = site.post("/api/v1/drivers", &hostile).expect(201).json();
        assert_eq!(kept["document"]["name"], name);
        let id = kept["id"].as_str().expect("id");
        let file = site.get(&format!("/api/v1/drivers/{id}/driver.json")).expect(200);
        let disposition = file.headers["content-disposition"].to_str().unwrap_or("").to_owned();
        let file_name = disposition.strip_prefix("attachment; ").expect("a download");
        assert!(!file_name.contains(['<', '/', '\\', '\n']), "{disposition}");
        assert_eq!(file.json()["name"], name);
    }
    assert_eq!(site.get("/api/v1/drivers").expect(200).json()["total"], names.len());
}

#[test]
fn nothing_outside_the_interface_is_served() {
    let site = Site::start();
    for path in [
        "/../Cargo.toml",
        "/assets/../../Cargo.toml",
        "/%2e%2e/Cargo.toml",
        "/..%2fserver%2fCargo.toml",
        "/.git/config",
    ] {
        let answer = site.send("GET", path, &[], b"");
        assert!(!answer.text.contains("[package]") && !answer.text.contains("[workspace]"), "{path}");
        assert!(!answer.text.contains("[core]"), "{path}");
    }
    for path in ["/api/v1/nothing", "/api/v2/drivers", "/api/v1/drivers/not-a-uuid"] {
        let answer = site.get(path).expect(404);
        assert_eq!(answer.kind, "application/problem+json", "{path}");
    }
}

#[test]
fn deep_and_wide_documents_are_answered_and_the_server_stays_up() {
    let site = Site::start();
    let headers = [("content-type", "application/json")];
    let deep = "[".repeat(100_000);
    assert_eq!(site.send("POST", "/api/v1/simulate", &headers, deep.as_bytes()).status, 400);
    let mut wide = design();
    wide["enclosure"]["ports"] = Value::Array(vec![wide["enclosure"]["ports"][0].clone(); 5000]);
    site.post("/api/v1/simulate", &json!({ "design": wide })).expect(422).told("enclosure.ports");
    let mut long = design();
    long["name"] = json!("x".repeat(200_000));
    site.post("/api/v1/simulate", &json!({ "design": long })).expect(422).told("name");
    let digits = "9".repeat(100_000);
    long["name"] = json!("short");
    long["enclosure"]["volume"] = json!(format!("{digits} l"));
    site.post("/api/v1/simulate", &json!({ "design": long })).expect(422).told("enclosure.volume");
    site.get("/api/v1/health").expect(200);
}

#[test]
fn tags_that_are_none_are_refused() {
    let site = Site::start();
    let (build, variant) = site.build_with_variant();
    let path = format!("/api/v1/documents/{variant}");
    let sized = |litres: usize| json!({ "build": build, "kind": "variant", "content": sized(litres) });
    for tag in ["*", "1", "\"one\"", "\"99999999999999\"", "W/\"1\"", ""] {
        let answer = site.put(&path, tag, &sized(30));
        assert_eq!(answer.status, 428, "{tag}");
    }
    assert_eq!(site.put(&path, "\"7\"", &sized(30)).status, 412, "a revision that is not there yet");
    site.put(&path, "\"1\"", &sized(30)).expect(200);
}
