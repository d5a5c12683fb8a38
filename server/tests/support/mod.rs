//! A real server on a database of its own, for each test.
#![allow(dead_code)]

pub mod chaos;
pub mod matches;
pub mod program;

use std::net::SocketAddr;
use std::sync::OnceLock;

use diesel::{Connection, PgConnection};
use oak_cluster::Throwaway;
use oak_server::app;
use oak_server::db;
use oak_server::state::State;
use serde_json::{Value, json};
use uuid::Uuid;

pub const DEMO: &str = concat!(env!("CARGO_MANIFEST_DIR"), "/../demo");

/// One cluster for all tests of a binary.
pub fn cluster() -> &'static Throwaway {
    static CLUSTER: OnceLock<Throwaway> = OnceLock::new();
    CLUSTER.get_or_init(|| Throwaway::start().expect("a throwaway cluster"))
}

pub struct Site {
    pub address: String,
    agent: ureq::Agent,
}

/// An answer.
#[derive(Debug)]
pub struct Answer {
    pub status: u16,
    pub etag: Option<String>,
    pub kind: String,
    pub text: String,
    pub headers: ureq::http::HeaderMap,
}

impl Answer {
    pub fn json(&self) -> Value {
        serde_json::from_str(&self.text).unwrap_or_else(|e| panic!("{e}: {}", self.text))
    }

    /// The messages of a problem document by field.
    pub fn told(&self, field: &str) -> String {
        assert_eq!(self.kind, "application/problem+json", "{}", self.text);
        let document = self.json();
        let errors = document["errors"].as_array().cloned().unwrap_or_default();
        let found = errors.iter().find(|error| error["field"] == field);
        found.unwrap_or_else(|| panic!("{field} in {document}"))["message"].as_str().expect("text").to_owned()
    }

    pub fn expect(self, status: u16) -> Self {
        assert_eq!(self.status, status, "{}", self.text);
        self
    }
}

pub fn agent() -> ureq::Agent {
    ureq::Agent::config_builder().http_status_as_error(false).build().into()
}

impl Site {
    /// A server in this process with an empty workshop.
    pub fn start() -> Self {
        Self::start_on(&cluster().database().expect("a database"))
    }

    /// A server in this process on a database.
    pub fn start_on(url: &str) -> Self {
        db::migrate(&mut PgConnection::establish(url).expect("connects")).expect("migrates");
        Self::serving(url)
    }

    /// A server in this process on whatever is at an address.
    pub fn serving(url: &str) -> Self {
        Self::serving_with(url, None)
    }

    /// A server in this process with an empty workshop and a measuring box at an address.
    pub fn with_rig(rig: SocketAddr) -> Self {
        let url = cluster().database().expect("a database");
        db::migrate(&mut PgConnection::establish(&url).expect("connects")).expect("migrates");
        Self::serving_with(&url, Some(rig))
    }

    fn serving_with(url: &str, rig: Option<SocketAddr>) -> Self {
        let url = url.to_owned();
        let (sender, receiver) = std::sync::mpsc::channel();
        std::thread::spawn(move || {
            actix_web::rt::System::new().block_on(async move {
                let mut state = State::new(&url, 4).expect("a state");
                state.rig = rig;
                let (server, port) = app::start(state, 0, 1).expect("starts");
                sender.send(port).expect("somebody waits");
                server.await.expect("runs");
            });
        });
        let port = receiver.recv().expect("the server starts");
        Self { address: format!("http://127.0.0.1:{port}"), agent: agent() }
    }

    /// One that runs elsewhere.
    pub fn at(address: &str) -> Self {
        Self { address: address.to_owned(), agent: agent() }
    }

    pub fn get(&self, path: &str) -> Answer {
        answer(self.agent.get(format!("{}{path}", self.address)).call())
    }

    pub fn send(&self, method: &str, path: &str, headers: &[(&str, &str)], body: &[u8]) -> Answer {
        let mut request =
            ureq::http::Request::builder().method(method).uri(format!("{}{path}", self.address));
        for (name, value) in headers {
            request = request.header(*name, *value);
        }
        answer(self.agent.run(request.body(body).expect("a request")))
    }

    pub fn post(&self, path: &str, body: &Value) -> Answer {
        self.send("POST", path, &[("content-type", "application/json")], body.to_string().as_bytes())
    }

    pub fn post_for(&self, path: &str, kind: &str, body: &Value) -> Answer {
        let headers = [("content-type", "application/json"), ("accept", kind)];
        self.send("POST", path, &headers, body.to_string().as_bytes())
    }

    pub fn put(&self, path: &str, etag: &str, body: &Value) -> Answer {
        self.send_json("PUT", path, &[("if-match", etag)], body)
    }

    fn send_json(&self, method: &str, path: &str, headers: &[(&str, &str)], body: &Value) -> Answer {
        let headers = [&[("content-type", "application/json")], headers].concat();
        self.send(method, path, &headers, body.to_string().as_bytes())
    }

    pub fn delete(&self, path: &str, etag: &str) -> Answer {
        self.send("DELETE", path, &[("if-match", etag)], b"")
    }

    pub fn import_table(&self, text: &[u8]) -> Answer {
        self.send("POST", "/api/v1/drivers/import", &[("content-type", "text/csv")], text)
    }

    /// A build with one variant; returns both ids.
    pub fn build_with_variant(&self) -> (String, String) {
        let build = Uuid::now_v7().to_string();
        self.send_json("PUT", &format!("/api/v1/builds/{build}"), &[], &json!({ "name": "Nook" }))
            .expect(201);
        let variant = self.new_document(&build, "variant", &design()).expect(201).json();
        (build, variant["id"].as_str().expect("id").to_owned())
    }

    /// Adds a document to a build, under a key made here.
    pub fn new_document(&self, build: &str, kind: &str, content: &Value) -> Answer {
        let path = format!("/api/v1/documents/{}", Uuid::now_v7());
        let body = json!({ "build": build, "kind": kind, "content": content });
        self.send_json("PUT", &path, &[("if-none-match", "*")], &body)
    }

    /// Changes a variant of a build from a revision of it.
    pub fn change(&self, (build, variant): (&str, &str), revision: i32, design: &Value) -> Answer {
        let body = json!({ "build": build, "kind": "variant", "content": design });
        self.put(&format!("/api/v1/documents/{variant}"), &format!("\"{revision}\""), &body)
    }

    /// The documents of a kind in a build that is opened.
    pub fn documents(&self, build: &str, kind: &str) -> Vec<Value> {
        let opened = self.get(&format!("/api/v1/builds/{build}")).expect(200).json();
        let all = opened["documents"].as_array().expect("documents");
        all.iter().filter(|one| one["kind"] == kind).cloned().collect()
    }
}

pub fn answer(result: Result<ureq::http::Response<ureq::Body>, ureq::Error>) -> Answer {
    let mut response = result.expect("an answer");
    let header = |name: &str| response.headers().get(name).map(|v| v.to_str().expect("text").to_owned());
    Answer {
        status: response.status().as_u16(),
        etag: header("etag"),
        kind: header("content-type").unwrap_or_default(),
        headers: response.headers().clone(),
        // Of a file that is no text its letters and digits are enough.
        text: String::from_utf8_lossy(&response.body_mut().read_to_vec().expect("a body")).into_owned(),
    }
}

pub fn driver() -> Value {
    json!({
        "format": "oak-drum/driver", "version": 2, "name": "Heron 250/4", "re": "3.4 ohm", "le": "1.15 mH",
        "fs": "24 Hz", "qms": 5.4, "qes": 0.38, "vas": "2.24 cuft", "sd": "346 cm2", "xmax": "11.5 mm"
    })
}

/// A question about the figures of the design.
pub fn asked() -> Value {
    json!({ "design": design() })
}

pub fn design() -> Value {
    json!({
        "format": "oak-drum/design", "version": 2, "name": "Slot", "driver": driver(),
        "enclosure": {
            "family": "ported", "volume": "1.5 cuft", "ql": 7, "tuning": "29 Hz",
            "ports": [{ "shape": "slot", "width": "250 mm", "height": "28 mm", "inner_end": "two_walls" }]
        },
        "signal": { "drive": { "power": "80 W" } }
    })
}
