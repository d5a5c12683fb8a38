//! Whether a design reaches its brief: one rule a file, and the list of them.

mod air;
mod cone;
mod cost;
pub(crate) mod even;
mod family;
mod fits;
mod judgement;
mod load;
mod loudest;
mod loudness;
mod lowest;
mod opening;
pub(crate) mod place;
pub(crate) mod size;
mod weight;

pub use judgement::{Check, Verdict};
pub(crate) use load::load_stands;
pub use lowest::{Above, above};

use crate::Case;

/// A rule says nothing where the brief leaves its matter open.
type Rule = fn(&Case<'_>) -> Option<Check>;

/// All rules, in the order of the strip.
const RULES: [Rule; 13] = [
    lowest::judge,
    loudness::judge,
    loudest::judge,
    even::judge,
    size::judge,
    fits::judge,
    place::judge,
    weight::judge,
    air::judge,
    cone::judge,
    load::judge,
    cost::judge,
    family::judge,
];

/// Everything that the brief asks of the design.
pub fn judge(case: &Case<'_>) -> Vec<Check> {
    RULES.iter().filter_map(|rule| rule(case)).collect()
}
