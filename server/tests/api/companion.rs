//! Pages for phones: opened by a link, once; of one build; and nothing else.

use std::io::{Read, Write};
use std::net::{SocketAddr, TcpStream};
use std::sync::Arc;
use std::time::{Duration, Instant};

use diesel::prelude::*;
use diesel::{Connection, PgConnection, sql_query};
use oak_server::companion::{self, Companion, CompanionError, Options};
use oak_server::compute::Compute;
use oak_server::state::State;
use oak_server::{app, db};
use serde_json::{Value, json};

use crate::support::{Answer, DEMO, Site, answer, cluster};

/// A server with the listener for phones beside it.
struct Both {
    site: Site,
    companion: Arc<Companion>,
    url: String,
}

fn options(idle: Duration) -> Options {
    Options { address: SocketAddr::from(([127, 0, 0, 1], 0)), keys: None, idle }
}

impl Both {
    fn start() -> Self {
        Self::idle_after(Duration::from_secs(600))
    }

    fn idle_after(idle: Duration) -> Self {
        let url = cluster().database().expect("a database");
        db::migrate(&mut PgConnection::establish(&url).expect("connects")).expect("migrates");
        let (sender, receiver) = std::sync::mpsc::channel();
        let database = url.clone();
        std::thread::spawn(move || {
            actix_web::rt::System::new().block_on(async move {
                let mut state = State::new(&database, 4).expect("a state");
                let started =
                    companion::start(&database, state.compute.clone(), &options(idle)).expect("starts");
                state.companion = Some(started.clone());
                let (server, port) = app::start(state, 0, 1).expect("starts");
                sender.send((port, started)).expect("somebody waits");
                server.await.expect("runs");
            });
        });
        let (port, companion) = receiver.recv().expect("the server starts");
        Self { site: Site::at(&format!("http://127.0.0.1:{port}")), companion, url }
    }

    /// The demo's organ build, with its key and the key of its first variant.
    fn build(&self) -> (String, String) {
        let file = std::fs::read(format!("{DEMO}/builds/pit-organ.json")).expect("the demo");
        let headers = [("content-type", "application/json")];
        let made = self.site.send("POST", "/api/v1/builds/import", &headers, &file).expect(201).json();
        let build = made["id"].as_str().expect("a key").to_owned();
        let whole = self.site.get(&format!("/api/v1/builds/{build}")).expect(200).json();
        let documents = whole["documents"].as_array().expect("documents");
        let variant = documents.iter().find(|one| one["kind"] == "variant").expect("a variant");
        (build, variant["id"].as_str().expect("a key").to_owned())
    }

    fn link(&self, build: &str, variant: &str) -> Value {
        let wanted = json!({ "variant": variant, "purpose": "steps" });
        self.site.post(&format!("/api/v1/builds/{build}/companion-links"), &wanted).expect(201).json()
    }

    /// A phone that has opened a link.
    fn joined(&self, link: &Value) -> Phone {
        let phone = Phone::of(self);
        let answer = phone.join(link).expect(204);
        let set = answer.headers["set-cookie"].to_str().expect("text").to_owned();
        for wanted in ["__Host-oak-drum=", "HttpOnly", "Secure", "SameSite=Strict", "Path=/"] {
            assert!(set.contains(wanted), "{set}");
        }
        assert!(!set.contains("Domain"), "{set}");
        let cookie = set.split(';').next().expect("a pair").to_owned();
        Phone { cookie: Some(cookie), ..phone }
    }

    /// Changes what is kept of links, as time would.
    fn alter(&self, statement: &str) {
        let mut connection = PgConnection::establish(&self.url).expect("connects");
        assert!(sql_query(statement).execute(&mut connection).expect("runs") > 0);
    }
}

struct Phone {
    agent: ureq::Agent,
    origin: String,
    cookie: Option<String>,
}

impl Phone {
    fn of(both: &Both) -> Self {
        let tls = ureq::tls::TlsConfig::builder()
            // Its own certificate, which the phone was told to take.
            .disable_verification(true)
            .unversioned_rustls_crypto_provider(Arc::new(rustls::crypto::ring::default_provider()))
            .build();
        let agent = ureq::Agent::config_builder().http_status_as_error(false).tls_config(tls).build().into();
        Self { agent, origin: both.companion.origin(), cookie: None }
    }

    fn ask(&self, method: &str, path: &str, headers: &[(&str, &str)], body: &str) -> Answer {
        let mut request = ureq::http::Request::builder().method(method).uri(format!("{}{path}", self.origin));
        for (name, value) in headers {
            request = request.header(*name, *value);
        }
        if let Some(cookie) = &self.cookie {
            request = request.header("cookie", cookie);
        }
        answer(self.agent.run(request.body(body.as_bytes().to_vec()).expect("a request")))
    }

    fn get(&self, path: &str) -> Answer {
        self.ask("GET", path, &[], "")
    }

    fn post(&self, path: &str, body: &Value) -> Answer {
        let headers = [("content-type", "application/json"), ("origin", self.origin.as_str())];
        self.ask("POST", path, &headers, &body.to_string())
    }

    fn join(&self, link: &Value) -> Answer {
        let url = link["url"].as_str().expect("text");
        self.post("/join", &json!({ "token": url.rsplit_once('#').expect("a secret").1 }))
    }

    fn tick(&self, step: &str, at: &str, done: bool) -> Answer {
        self.post("/ticks", &json!({ "steps": [{ "step": step, "at": at, "done": done }] }))
    }
}

#[test]
fn a_phone_reads_the_steps_and_ticks_them_into_the_build() {
    let both = Both::start();
    let (build, variant) = both.build();
    let made = both.link(&build, &variant);
    let rows = made["code"].as_array().expect("a code");
    assert!(rows.len() >= 25 && rows.iter().all(|row| row.as_str().expect("text").len() == rows.len()));
    let phone = both.joined(&made);
    let page = phone.get("/steps").expect(200).json();
    let steps = page["steps"].as_array().expect("steps");
    assert!(steps.len() > 20 && page["build"] == "Pit organ", "{}", page["build"]);
    let first = steps[0]["id"].as_str().expect("text");
    let ticks = phone.tick(first, "2026-12-01T10:00:00+01:00", true).expect(200).json();
    assert_eq!(ticks[0]["step"], first);

    // It is the build's own document, with its history.
    let whole = both.site.get(&format!("/api/v1/builds/{build}")).expect(200).json();
    let documents = whole["documents"].as_array().expect("documents");
    let progress = documents.iter().find(|one| one["kind"] == "progress").expect("what is done");
    assert_eq!(progress["content"]["ticks"][0]["step"], first);

    // What was said last stands, whatever comes last.
    phone.tick(first, "2026-12-01T09:00:00+01:00", false).expect(200);
    assert_eq!(phone.get("/steps").json()["ticks"][0]["step"], first);
    phone.tick(first, "2026-12-01T11:00:00+01:00", false).expect(200);
    assert_eq!(phone.get("/steps").json()["ticks"], json!([]));
    // The same once more changes nothing, and makes no revision.
    let id = progress["id"].as_str().expect("a key");
    let revisions = || both.site.get(&format!("/api/v1/documents/{id}/revisions")).json();
    let before = revisions();
    phone.tick(first, "2026-12-01T11:00:00+01:00", false).expect(200);
    assert_eq!(revisions(), before);
}

#[test]
fn phones_and_the_laptop_at_once_lose_no_tick() {
    let both = Both::start();
    let (build, variant) = both.build();
    let links: Vec<_> = (0..4).map(|_| both.link(&build, &variant)).collect();
    let phones: Vec<_> = links.iter().map(|link| both.joined(link)).collect();
    std::thread::scope(|scope| {
        for (number, phone) in phones.iter().enumerate() {
            scope.spawn(move || {
                for at in 0..6 {
                    let step = format!("phone {number} step {at}");
                    // Where many write at once it is told to come again.
                    while phone.tick(&step, "2026-12-01T10:00:00Z", true).status != 200 {}
                }
            });
        }
    });
    assert_eq!(phones[0].get("/steps").json()["ticks"].as_array().expect("ticks").len(), 24);
}

#[test]
fn a_link_opens_once_in_time_and_until_it_is_taken_back() {
    let both = Both::start();
    let (build, variant) = both.build();
    let state = || {
        both.site.get(&format!("/api/v1/builds/{build}/companion-links")).json()["links"][0]["state"].clone()
    };
    let first = both.link(&build, &variant);
    assert_eq!(state(), "waiting");
    let phone = both.joined(&first);
    assert_eq!(state(), "joined");
    // Somebody who looked over a shoulder comes too late.
    let told = Phone::of(&both).join(&first).expect(403);
    assert!(told.text.contains("ask for a new one"), "{}", told.text);
    phone.get("/steps").expect(200);
    let id = first["link"]["id"].as_str().expect("a key");
    both.site.post(&format!("/api/v1/companion-links/{id}/revoke"), &json!({})).expect(200);
    assert_eq!(state(), "revoked");
    phone.get("/steps").expect(403);
    phone.tick("cut", "2026-12-01T10:00:00Z", true).expect(403);

    let late = both.link(&build, &variant);
    both.alter("UPDATE companion_links SET join_before = now() WHERE session_hash IS NULL");
    Phone::of(&both).join(&late).expect(403);
    assert_eq!(state(), "expired");

    let short = both.link(&build, &variant);
    let phone = both.joined(&short);
    both.alter("UPDATE companion_links SET expires_at = now()");
    phone.get("/steps").expect(403);
    phone.tick("cut", "2026-12-01T10:00:00Z", true).expect(403);

    // Only hashes are kept.
    #[derive(QueryableByName)]
    struct Found {
        #[diesel(sql_type = diesel::sql_types::BigInt)]
        count: i64,
    }
    let secret = short["url"].as_str().expect("text").rsplit_once('#').expect("a secret").1;
    let mut connection = PgConnection::establish(&both.url).expect("connects");
    let looked =
        format!("SELECT count(*) FROM companion_links WHERE companion_links::text LIKE '%{secret}%'");
    let found: Found = sql_query(looked).get_result(&mut connection).expect("runs");
    assert_eq!(found.count, 0);
}

#[test]
fn guesses_are_slowed_down_and_wrong_cookies_open_nothing() {
    let both = Both::start();
    let guess = |token: &str| Phone::of(&both).post("/join", &json!({ "token": token })).status;
    assert_eq!(guess("no token"), 403);
    let statuses: Vec<u16> = (0..25).map(|number| guess(&format!("{number:032x}"))).collect();
    assert!(statuses[..15].iter().all(|status| *status == 403) && statuses[24] == 429, "{statuses:?}");
    let wrong = format!("__Host-oak-drum={:032x}", 7);
    for cookie in [None, Some("__Host-oak-drum=x".to_owned()), Some(wrong)] {
        let phone = Phone { cookie, ..Phone::of(&both) };
        phone.get("/steps").expect(403);
        phone.tick("cut", "2026-12-01T10:00:00Z", true).expect(403);
    }
}

#[test]
fn it_opens_no_route_of_the_application_and_nothing_of_another_build() {
    let both = Both::start();
    let (build, variant) = both.build();
    let (other, _) = both.build();
    let phone = both.joined(&both.link(&build, &variant));
    let described = both.site.get("/api/openapi.json").expect(200).json();
    let paths = described["paths"].as_object().expect("paths");
    assert!(paths.len() > 40);
    for path in paths.keys() {
        let path = path.replace("{id}", &other).replace(['{', '}'], "");
        for method in ["GET", "POST", "PUT", "DELETE", "PATCH"] {
            let headers = [("content-type", "application/json"), ("origin", phone.origin.as_str())];
            assert_eq!(phone.ask(method, &path, &headers, "{}").status, 404, "{method} {path}");
        }
    }
    for path in [
        "/index.html",
        "/assets/../companion.html",
        "/assets/none.js",
        "/builds",
        "/../Cargo.toml",
        "/companion.html",
    ] {
        assert!(matches!(phone.get(path).status, 404 | 400), "{path}");
    }
    // A variant of another build gets no link there.
    let wanted = json!({ "variant": variant, "purpose": "steps" });
    both.site.post(&format!("/api/v1/builds/{other}/companion-links"), &wanted).expect(404);
    // Nor does the application take the cookie.
    let cookie = phone.cookie.clone().expect("a cookie");
    let with = both.site.send("GET", "/steps", &[("cookie", &cookie)], b"");
    assert_ne!(with.kind, "application/json");
}

#[test]
fn only_its_own_page_writes_and_only_by_tls() {
    let both = Both::start();
    let (build, variant) = both.build();
    let phone = both.joined(&both.link(&build, &variant));
    let body = json!({ "steps": [] }).to_string();
    let with = |headers: &[(&str, &str)]| {
        let all = [&[("content-type", "application/json")], headers].concat();
        phone.ask("POST", "/ticks", &all, &body).status
    };
    assert_eq!(with(&[]), 403);
    assert_eq!(with(&[("origin", "https://evil.example")]), 403);
    assert_eq!(with(&[("origin", &phone.origin.replace("https", "http"))]), 403);
    assert_eq!(with(&[("origin", &phone.origin)]), 200);
    for host in ["evil.example", "localhost", "127.0.0.1"] {
        assert_eq!(phone.ask("GET", "/", &[("host", host)], "").status, 421, "{host}");
    }
    let page = phone.get("/");
    assert!(page.headers["content-security-policy"].to_str().expect("text").contains("default-src 'none'"));
    assert_eq!(page.headers["cache-control"], "no-store");

    // Plain HTTP gets no answer.
    let mut plain = TcpStream::connect(both.companion.address).expect("connects");
    plain.set_read_timeout(Some(Duration::from_secs(15))).expect("a timeout");
    plain.write_all(b"GET / HTTP/1.1\r\nHost: x\r\n\r\n").expect("sent");
    let mut heard = Vec::new();
    let _ = plain.read_to_end(&mut heard);
    assert!(!heard.starts_with(b"HTTP"), "{}", String::from_utf8_lossy(&heard));
}

#[test]
fn what_a_phone_sends_is_bounded() {
    let both = Both::start();
    let (build, variant) = both.build();
    let phone = both.joined(&both.link(&build, &variant));
    let step = |name: &str| json!({ "step": name, "at": "2026-12-01T10:00:00Z", "done": true });
    let many: Vec<Value> = (0..101).map(|number| step(&format!("step {number}"))).collect();
    phone.post("/ticks", &json!({ "steps": many })).expect(429);
    phone.post("/ticks", &json!({ "steps": [step(&"x".repeat(20_000))] })).expect(413);
    let told =
        phone.post("/ticks", &json!({ "steps": [step(&"x".repeat(81))] })).expect(422).told("ticks[0].step");
    assert!(told.contains("81 characters"), "{told}");
    phone
        .post("/ticks", &json!({ "steps": [{ "step": "cut", "at": "yesterday", "done": true }] }))
        .expect(422);
    both.alter("UPDATE companion_links SET writes = 5000");
    let told = phone.tick("cut", "2026-12-01T10:00:00Z", true).expect(429);
    assert!(told.text.contains("5000"), "{}", told.text);
}

#[test]
fn its_role_may_do_no_more_than_a_page_needs() {
    let both = Both::start();
    let (build, _) = both.build();
    let mut connection = PgConnection::establish(&both.url).expect("connects");
    sql_query("SET ROLE oak_companion").execute(&mut connection).expect("may");
    let mut refused = |statement: &str| {
        let done = sql_query(statement).execute(&mut connection);
        assert!(matches!(done, Err(_) | Ok(0)), "{statement}");
    };
    for table in ["drivers", "jobs", "photos", "builds", "fang_tasks", "loaded_scenarios"] {
        refused(&format!("SELECT * FROM {table}"));
        refused(&format!("DELETE FROM {table}"));
    }
    refused("DELETE FROM documents");
    refused("DELETE FROM document_revisions");
    refused("UPDATE document_revisions SET content = '{}'");
    refused("UPDATE documents SET revision = 9 WHERE kind = 'variant'");
    refused("UPDATE companion_links SET expires_at = now() + interval '1 year'");
    refused("UPDATE companion_links SET revoked_at = NULL");
    refused(&format!(
        "INSERT INTO documents (id, build_id, kind, position, number, revision) VALUES (gen_random_uuid(), '{build}', 'progress', 9, 9, 1)"
    ));
    refused(
        "INSERT INTO document_revisions (document_id, revision, content) SELECT id, 99, '{}' FROM documents WHERE kind = 'variant' LIMIT 1",
    );
}

#[test]
fn it_stops_when_nobody_uses_it_and_says_that_it_is_off() {
    let both = Both::idle_after(Duration::from_millis(400));
    let (build, variant) = both.build();
    let began = Instant::now();
    while both.companion.running() {
        assert!(began.elapsed() < Duration::from_secs(30), "it goes on");
        std::thread::sleep(Duration::from_millis(20));
    }
    let wanted = json!({ "variant": variant, "purpose": "steps" });
    let told = both.site.post(&format!("/api/v1/builds/{build}/companion-links"), &wanted).expect(409);
    assert!(told.text.contains("--companion"), "{}", told.text);
    assert_eq!(
        both.site.get(&format!("/api/v1/builds/{build}/companion-links")).json()["address"],
        Value::Null
    );
    let began = Instant::now();
    while TcpStream::connect(both.companion.address).is_ok() {
        assert!(began.elapsed() < Duration::from_secs(30), "it still listens");
        std::thread::sleep(Duration::from_millis(20));
    }
}

#[test]
fn an_address_of_everything_is_refused_and_a_certificate_is_kept() {
    let url = cluster().database().expect("a database");
    db::migrate(&mut PgConnection::establish(&url).expect("connects")).expect("migrates");
    let folder = std::env::temp_dir().join(format!("oak-drum-phones-{}", std::process::id()));
    actix_web::rt::System::new().block_on(async {
        let compute = Compute::new(1).expect("threads");
        let everywhere = Options { address: SocketAddr::from(([0, 0, 0, 0], 0)), ..options(companion::IDLE) };
        let error = companion::start(&url, compute.clone(), &everywhere).expect_err("refused");
        assert!(
            matches!(error, CompanionError::Everywhere(_)) && error.to_string().contains("name the address")
        );
        let keeping = Options { keys: Some(folder.clone()), ..options(companion::IDLE) };
        let start = |options: &Options| {
            companion::start(&url, compute.clone(), options).expect("starts").fingerprint.clone()
        };
        let first = start(&keeping);
        assert_eq!(first.len(), 32 * 3 - 1);
        assert_eq!(start(&keeping), first);
        assert_ne!(start(&options(companion::IDLE)), first);
    });
    let file = std::fs::read_dir(&folder).expect("kept").next().expect("a file").expect("read").path();
    let mode =
        std::os::unix::fs::PermissionsExt::mode(&std::fs::metadata(&file).expect("there").permissions());
    assert_eq!(mode & 0o777, 0o600);
    std::fs::remove_dir_all(&folder).expect("removed");
}
