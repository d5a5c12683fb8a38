//! Light requests beside a hundred long ones: `cargo bench --workspace --profile dev --bench load`.

#[path = "../tests/support/mod.rs"]
mod support;

use std::sync::atomic::{AtomicBool, AtomicUsize, Ordering};
use std::thread;
use std::time::Instant;

use support::{Site, asked};

/// Long requests under way at the same time, and rounds of light ones beside them.
const LONG: usize = 100;
const ROUNDS: usize = 200;

fn main() {
    let site = Site::start();
    let ask = asked();
    let (over, done, refused) = (AtomicBool::new(false), AtomicUsize::new(0), AtomicUsize::new(0));
    let mut times: [Vec<f64>; 3] = Default::default();
    thread::scope(|scope| {
        for _ in 0..LONG {
            scope.spawn(|| {
                // They stand for other machines, so they take no processor from what is measured.
                rustix::process::nice(19).expect("may give way");
                while !over.load(Ordering::Relaxed) {
                    match site.post("/api/v1/tolerance", &ask).status {
                        200 => done.fetch_add(1, Ordering::Relaxed),
                        _ => refused.fetch_add(1, Ordering::Relaxed),
                    };
                    thread::sleep(std::time::Duration::from_millis(50));
                }
            });
        }
        for _ in 0..ROUNDS {
            for (kind, times) in times.iter_mut().enumerate() {
                let begun = Instant::now();
                let answer = match kind {
                    0 => site.get("/api/v1/health"),
                    1 => site.get("/api/v1/drivers?limit=50"),
                    _ => site.post("/api/v1/simulate", &asked()),
                };
                answer.expect(200);
                times.push(begun.elapsed().as_secs_f64() * 1e3);
            }
        }
        over.store(true, Ordering::Relaxed);
    });
    println!("long: {} done, {} turned away", done.into_inner(), refused.into_inner());
    for (name, mut times) in ["health", "drivers", "simulate"].into_iter().zip(times) {
        times.sort_by(f64::total_cmp);
        let at = |part: f64| times[((times.len() - 1) as f64 * part) as usize];
        println!(
            "{name}: median {:.1} ms, 95th percentile {:.1} ms, largest {:.1} ms",
            at(0.5),
            at(0.95),
            at(1.0)
        );
    }
}
