//! A library of 10,000 made-up drivers: a filter answered over loopback, and searches for a brief through the queue on all
//! cores: `cargo bench --workspace --bench library`.
//!
//! A search of 10,000 takes about a minute, so each is run once; the filter is Criterion's.

use std::fmt::Write;
use std::sync::mpsc;
use std::time::Duration;

use criterion::Criterion;
use diesel::{Connection, PgConnection};
use oak_cluster::Throwaway;
use oak_server::app;
use oak_server::state::State;
use oak_server::{db, jobs};
use serde_json::{Value, json};

const DRIVERS: &str = include_str!("../../demo/drivers.csv");
const BUILD: &str = include_str!("../../demo/builds/narrowboat-nook.json");
/// Columns that are varied: Fs, Qms, Qes, Vas.
const VARIED: [usize; 4] = [6, 7, 8, 9];
/// Columns that would contradict them, or that nothing here needs: Mms, Bl, and those behind Pe.
const LEFT_OUT: [usize; 2] = [10, 11];

/// A table of the demo's drivers with values up to a fifth off, numbered.
fn table(count: usize) -> String {
    let (header, rows) = DRIVERS.split_once('\n').expect("rows");
    let rows: Vec<Vec<&str>> = rows.lines().map(|row| row.split(',').take(15).collect()).collect();
    let kept = |cells: &[String]| {
        let kept = cells.iter().enumerate().filter(|(at, _)| !LEFT_OUT.contains(at));
        kept.map(|(_, cell)| cell.as_str()).collect::<Vec<_>>().join(",")
    };
    let header: Vec<String> = header.split(',').take(15).map(str::to_owned).collect();
    let mut table = kept(&header) + "\n";
    for number in 0..count {
        let mut cells: Vec<String> = rows[number % rows.len()].iter().map(ToString::to_string).collect();
        cells[0] = format!("Made {number}");
        for (turn, at) in VARIED.into_iter().enumerate() {
            let off = ((number * (17 + 6 * turn)) % 400) as f64 / 1000.0 - 0.2;
            let value: f64 = cells[at].parse().expect("a number");
            cells[at] = format!("{:.4}", value * (1.0 + off));
        }
        writeln!(table, "{}", kept(&cells)).expect("a text");
    }
    table
}

/// A server on a database of its own with a worker on every core.
fn server() -> (Throwaway, String) {
    let cluster = Throwaway::start().expect("a cluster");
    let url = cluster.database().expect("a database");
    db::migrate(&mut PgConnection::establish(&url).expect("connects")).expect("migrates");
    let (sender, receiver) = mpsc::channel();
    std::thread::spawn(move || {
        actix_web::rt::System::new().block_on(async move {
            let state = State::new(&url, 4).expect("a state");
            let threads = std::thread::available_parallelism().map_or(1, usize::from);
            // For as long as the program runs.
            std::mem::forget(jobs::start_workers(&url, threads, 10.0).expect("workers"));
            let (server, port) = app::start(state, 0, 1).expect("starts");
            sender.send(port).expect("somebody waits");
            server.await.expect("runs");
        });
    });
    let port = receiver.recv().expect("a port");
    (cluster, format!("http://127.0.0.1:{port}/api/v1"))
}

fn post(address: &str, kind: &str, body: &str) -> Value {
    let request = ureq::post(address).content_type(kind);
    request.send(body).expect("an answer").body_mut().read_json().expect("JSON")
}

fn get(address: &str) -> Value {
    ureq::get(address).call().expect("an answer").body_mut().read_json().expect("JSON")
}

/// Seconds from the start of a driver match to its end, by the database's clock.
fn look(api: &str, build: &str, brief: &Value) -> f64 {
    let ask = json!({ "brief": brief, "drivers": 1 }).to_string();
    let id = post(&format!("{api}/builds/{build}/driver-matches"), "application/json", &ask)["id"].clone();
    let address = format!("{api}/driver-matches/{}", id.as_str().expect("id"));
    loop {
        let job = get(&address)["job"].clone();
        if job["state"] == "finished" {
            let at = |name: &str| {
                let written = job[name].as_str().expect("a time");
                chrono::DateTime::parse_from_rfc3339(written).expect("a time")
            };
            return (at("finished_at") - at("created_at")).as_seconds_f64();
        }
        std::thread::sleep(Duration::from_millis(200));
    }
}

fn main() {
    let (_cluster, api) = server();
    let file: Value = serde_json::from_str(BUILD).expect("demo");
    let build = post(&format!("{api}/builds/import"), "application/json", BUILD);
    let build = build["id"].as_str().expect("id");
    post(&format!("{api}/drivers/import?take=all"), "text/csv", &table(500));
    println!("driver match, 500 drivers, five families: {:.1} s", look(&api, build, &file["brief"]));
    post(&format!("{api}/drivers/import?take=all"), "text/csv", &table(9500).replace("Made ", "More "));
    let mut criterion = Criterion::default().configure_from_args();
    let filter = format!("{api}/drivers?fs_max=30&qts_min=0.3&qts_max=0.4&vas_max=0.08&sort=level&limit=50");
    criterion.bench_function("filter, 10,000 drivers", |b| b.iter(|| get(&filter)));
    println!("driver match, 10,000 drivers, five families: {:.1} s", look(&api, build, &file["brief"]));
}
