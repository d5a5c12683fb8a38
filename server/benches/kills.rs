//! A worker, the server or the database killed during a job, a thousand times, or as many times as `-- NUMBER` says:
//! `cargo bench --workspace --profile dev --bench kills`.

#[path = "../tests/support/mod.rs"]
mod support;

fn main() {
    let kills = std::env::args().filter_map(|word| word.parse().ok()).next().unwrap_or(1000);
    let begun = std::time::Instant::now();
    support::chaos::run(kills, 7);
    println!("{kills} kills, every job ended whole, {:.0} s", begun.elapsed().as_secs_f64());
}
