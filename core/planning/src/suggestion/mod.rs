//! What would fix a design that falls short of its brief: changes found by simulating them.

mod attempt;
mod bench;
mod moved;
mod trial;

use oak_acoustics::Stop;
use oak_design::Problem;
use rayon::prelude::*;
use serde::Serialize;
use utoipa::ToSchema;

use crate::check::Check;

use attempt::attempts;
use bench::{Bench, Found};
pub use bench::{Cost, Effect, RawSuggestionRequest, Suggestion, Turn};

/// What fixes a design.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Suggestions {
    /// As it stands.
    pub check: Check,
    /// What fixes it: first what is all it seems; of that the least harm, then the least change.
    pub suggestions: Vec<Suggestion>,
    /// Where nothing does: the single change that comes nearest.
    pub nearest: Option<Suggestion>,
}

/// Most that are told.
const MOST: usize = 6;
/// Most ways out of a box that does not fit.
const MOST_WAYS_OUT: usize = 12;

/// Looks for what fixes one check of a design.
///
/// # Errors
/// What is wrong with brief or design, or that there is no such check.
pub fn suggest(ask: &RawSuggestionRequest, stop: &Stop) -> Result<Suggestions, Vec<Problem>> {
    let bench = Bench::of(ask, stop)?;
    let mut found: Vec<Found> =
        attempts(&bench).into_par_iter().filter_map(|attempt| attempt.run(&bench)).collect();
    found.sort_by(|a, b| {
        let key = |found: &Found| {
            let Suggestion { harms, caveat, .. } = &found.suggestion;
            (!caveat.is_empty(), *harms, found.effort)
        };
        key(a).partial_cmp(&key(b)).expect("finite")
    });
    let (mut suggestions, mut short): (Vec<_>, Vec<_>) = found.into_iter().partition(|found| found.met);
    let most = if bench.check.id == "fits" { MOST_WAYS_OUT } else { MOST };
    // That the brief may give way is always told.
    let gives = suggestions.iter().position(|found| found.suggestion.brief.is_some());
    if let Some(gives) = gives.filter(|gives| *gives >= most) {
        suggestions.swap(most - 1, gives);
    }
    short.sort_by(|a, b| b.ratio.total_cmp(&a.ratio));
    let nearest =
        if suggestions.is_empty() { short.into_iter().next().map(|found| found.suggestion) } else { None };
    Ok(Suggestions {
        check: bench.check.clone(),
        suggestions: suggestions.into_iter().take(most).map(|found| found.suggestion).collect(),
        nearest,
    })
}
