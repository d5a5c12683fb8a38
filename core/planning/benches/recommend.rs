//! A hundred recommendations, each beside all that could have been recommended instead, and how long one waits.

#[path = "../tests/all/support/mod.rs"]
mod support;

use std::time::Instant;

use oak_acoustics::Stop;
use oak_planning::recommend::recommend;
use support::recommended::{asks, best_of};

fn main() {
    let asks = asks(100);
    let began = Instant::now();
    for ask in &asks {
        recommend(ask, &Stop::default()).expect("answers");
    }
    println!("{:.2} s each", began.elapsed().as_secs_f64() / asks.len() as f64);
    println!("{} of {} are the best there is, or the words name what is", best_of(&asks), asks.len());
}
