//! Time of `/simulate` on loopback, answer read whole: `cargo bench --workspace --profile dev --bench simulate`.

use std::sync::mpsc;

use criterion::{Criterion, criterion_group, criterion_main};
use oak_server::app;
use oak_server::state::State;
use serde_json::Value;

const DEMO: &str = include_str!("../../demo/builds/narrowboat-nook.json");

/// A server in this process; `/simulate` needs no database, so none is there.
fn address() -> String {
    let (sender, receiver) = mpsc::channel();
    std::thread::spawn(move || {
        actix_web::rt::System::new().block_on(async move {
            let state = State::new("postgres://", 1).expect("a state");
            let (server, port) = app::start(state, 0, 1).expect("starts");
            sender.send(port).expect("somebody waits");
            server.await.expect("runs");
        });
    });
    format!("http://127.0.0.1:{}/api/v1/simulate", receiver.recv().expect("a port"))
}

fn simulate(criterion: &mut Criterion) {
    let build: Value = serde_json::from_str(DEMO).expect("demo");
    let address = address();
    let agent = ureq::agent();
    for (name, place) in [("ported", 0), ("sealed", 1)] {
        let asked = serde_json::json!({ "design": build["variants"][place] }).to_string();
        criterion.bench_function(&format!("/simulate, 600 points: {name}"), |b| {
            b.iter(|| {
                let request = agent.post(&address).content_type("application/json");
                let mut answer = request.send(&asked).expect("an answer");
                answer.body_mut().read_to_vec().expect("read whole")
            });
        });
    }
}

criterion_group!(benches, simulate);
criterion_main!(benches);
