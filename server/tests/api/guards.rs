//! Only pages of this server, on this machine, are answered.

use crate::support::{Site, asked};

#[test]
fn a_foreign_host_name_is_refused() {
    let site = Site::start();
    for host in ["evil.example", "evil.example:80", "127.0.0.1.evil.example", ""] {
        site.send("GET", "/api/v1/health", &[("host", host)], b"").expect(421);
    }
    let port = site.address.rsplit(':').next().expect("a port");
    site.send("GET", "/api/v1/health", &[("host", &format!("localhost:{port}"))], b"").expect(200);
}

#[test]
fn a_change_asked_for_by_another_origin_is_refused() {
    let site = Site::start();
    let body = asked().to_string();
    let with = |name: &str, value: &str| {
        let headers = [("content-type", "application/json"), (name, value)];
        site.send("POST", "/api/v1/simulate", &headers, body.as_bytes()).status
    };
    assert_eq!(with("origin", "http://evil.example"), 403);
    assert_eq!(with("origin", "http://127.0.0.1:1"), 403);
    assert_eq!(with("origin", "null"), 403);
    assert_eq!(with("sec-fetch-site", "cross-site"), 403);
    assert_eq!(with("origin", &site.address), 200);
    assert_eq!(with("sec-fetch-site", "same-origin"), 200);
}

#[test]
fn every_answer_tells_browsers_to_be_strict() {
    let site = Site::start();
    let answer = site.get("/api/v1/health");
    assert_eq!(answer.headers["x-content-type-options"], "nosniff");
    assert!(answer.headers["content-security-policy"].to_str().expect("text").contains("default-src 'none'"));
}
