//! Presses every suggestion for 200 designs that are short of something, and says how long one waits for them.

#[path = "../tests/all/support/mod.rs"]
mod support;

use std::time::Instant;

use oak_planning::check::Verdict;
use support::remedies::{checks, press_all, short_designs, suggested};

/// How many designs.
const DESIGNS: usize = 200;

fn main() {
    let designs = short_designs(DESIGNS);
    let mut waits: Vec<f64> = designs
        .iter()
        .flat_map(|(brief, design)| {
            let short = checks(brief, design).into_iter().filter(|check| check.verdict == Verdict::Short);
            short.map(move |check| {
                let begun = Instant::now();
                suggested(brief, design, check.id);
                begun.elapsed().as_secs_f64()
            })
        })
        .collect();
    waits.sort_by(f64::total_cmp);
    let at = |share: f64| waits[((waits.len() - 1) as f64 * share) as usize];
    println!(
        "{} questions: median {:.2} s, 95 of 100 within {:.2} s, longest {:.2} s",
        waits.len(),
        at(0.5),
        at(0.95),
        at(1.0)
    );
    println!(
        "{} suggestions of {DESIGNS} designs did what they said; none was overlooked",
        press_all(&designs)
    );
}
