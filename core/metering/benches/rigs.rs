//! How near a fit comes to hidden cabinets of both rigs, 200 of each: `cargo bench --workspace --profile dev --bench rigs`. Prints the table; asserts nothing.

#[path = "../tests/scoreboard/mod.rs"]
mod scoreboard;

use oak_rig::Kind;
use scoreboard::{score, tried};

fn main() {
    let count: u64 = std::env::var("RIGS").ok().and_then(|count| count.parse().ok()).unwrap_or(200);
    for kind in [Kind::Ideal, Kind::Rough] {
        for noise in [60.0, 40.0, 25.0] {
            println!("{kind:?}, {noise} dB, all traces\n{}", score(&tried(kind, noise, 0..count, &[])));
        }
    }
    for noise in [40.0, 25.0] {
        println!(
            "Rough, {noise} dB, impedance of the box alone\n{}",
            score(&tried(Kind::Rough, noise, 0..count, &["impedance_box"]))
        );
    }
}
