//! What would fix a design that falls short of its brief: changes found by simulating them.

mod attempt;

use oak_acoustics::Stop;
use oak_design::Problem;
use oak_design::field::Field;
use oak_design::file::{RawBrief, RawDesign};
use oak_design::problem::ProblemKind;
use oak_design::resolve::{Brief, resolve_brief};
use rayon::prelude::*;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use crate::Case;
use crate::check::{Check, Verdict, judge};
use crate::parameter::Held;

use attempt::attempts;

/// What is to be fixed.
#[derive(Debug, Clone, PartialEq, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct RawSuggestionRequest {
    /// What must be reached.
    pub brief: RawBrief,
    /// What falls short.
    pub design: RawDesign,
    /// Of what: the id of a check.
    pub check: String,
}

/// One value that is changed.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Turn {
    /// Which parameter, or `amplifier_power` and `loudness` of the brief.
    pub id: &'static str,
    /// What it is called.
    pub name: &'static str,
    /// What it measures: the noun of a dimension.
    pub dimension: &'static str,
    /// The unit it is usually read in.
    pub unit: &'static str,
    /// As it stands, SI.
    pub before: f64,
    /// As it would be, SI.
    pub after: f64,
}

impl Turn {
    fn of(id: &'static str, name: &'static str, field: &Field, before: f64, after: f64) -> Self {
        Self { id, name, dimension: field.dimension.noun(), unit: field.unit, before, after }
    }
}

/// What a change does to another thing that the brief asks.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Effect {
    /// Which check.
    pub id: &'static str,
    /// What it is called.
    pub name: &'static str,
    /// What was reached.
    pub before: String,
    /// What would be.
    pub after: String,
    /// How it would stand.
    pub verdict: Verdict,
}

/// A change that fixes one thing, simulated.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Suggestion {
    /// In words, where it is more than values turned; empty otherwise.
    pub words: String,
    /// The values that are turned.
    pub turns: Vec<Turn>,
    /// What is then reached of what was short.
    pub reached: String,
    /// What else of the brief changes by it.
    pub effects: Vec<Effect>,
    /// How many things that were met would be short.
    pub harms: usize,
    /// The changed design; absent where it is the brief that changes.
    pub design: Option<RawDesign>,
    /// The changed brief; absent where it is the design.
    pub brief: Option<RawBrief>,
}

/// What fixes a design.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Suggestions {
    /// As it stands.
    pub check: Check,
    /// What fixes it, the least harm and then the least change first.
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
        (a.suggestion.harms, a.effort).partial_cmp(&(b.suggestion.harms, b.effort)).expect("finite")
    });
    let (suggestions, mut short): (Vec<_>, Vec<_>) = found.into_iter().partition(|found| found.met);
    short.sort_by(|a, b| b.ratio.total_cmp(&a.ratio));
    let nearest =
        if suggestions.is_empty() { short.into_iter().next().map(|found| found.suggestion) } else { None };
    Ok(Suggestions {
        check: bench.check.clone(),
        suggestions: suggestions
            .into_iter()
            .take(if bench.check.id == "fits" { MOST_WAYS_OUT } else { MOST })
            .map(|found| found.suggestion)
            .collect(),
        nearest,
    })
}

/// What is fixed, computed as it stands.
struct Bench<'a> {
    ask: &'a RawSuggestionRequest,
    stop: &'a Stop,
    held: Held<'a>,
    brief: Brief,
    checks: Vec<Check>,
    check: Check,
}

/// A change that was simulated.
struct Found {
    met: bool,
    ratio: f64,
    /// How much is changed, in nepers; whole drivers and other briefs count more.
    effort: f64,
    suggestion: Suggestion,
}

impl<'a> Bench<'a> {
    fn of(ask: &'a RawSuggestionRequest, stop: &'a Stop) -> Result<Self, Vec<Problem>> {
        let held = Held::of(&ask.design)?;
        let checks = checks(&ask.brief, &ask.design)?;
        let check = checks.iter().find(|check| check.id == ask.check).cloned().ok_or_else(|| {
            vec![Problem::new("check", ProblemKind::NoSuchField { name: ask.check.clone() })]
        })?;
        let brief = resolve_brief(&ask.brief)?;
        Ok(Self { ask, stop, held, brief, checks, check })
    }

    /// How a changed brief or design stands; nothing where it cannot be computed, or nobody waits for it any more.
    fn look(&self, brief: &RawBrief, design: &RawDesign) -> Option<(Check, Vec<Check>)> {
        if self.stop.stopped() {
            return None;
        }
        let checks = checks(brief, design).ok()?;
        Some((checks.iter().find(|check| check.id == self.check.id)?.clone(), checks))
    }

    fn found(&self, change: Change, effort: f64, check: &Check, checks: &[Check]) -> Found {
        let Change { words, turns, design, brief } = change;
        let was = |id: &str| self.checks.iter().find(|check| check.id == id);
        let effects: Vec<Effect> = checks
            .iter()
            .filter(|other| other.id != self.check.id)
            .filter_map(|after| was(after.id).map(|before| (before, after)))
            .filter(|(before, after)| before.reached != after.reached || before.verdict != after.verdict)
            .map(|(before, after)| Effect {
                id: after.id,
                name: after.name,
                before: before.reached.clone(),
                after: after.reached.clone(),
                verdict: after.verdict,
            })
            .collect();
        // A rule may show only once it is broken.
        let broken = checks.iter().filter(|after| {
            after.verdict == Verdict::Short
                && was(after.id).is_none_or(|before| before.verdict != Verdict::Short)
        });
        let harms = broken.count();
        let suggestion =
            Suggestion { words, turns, reached: check.reached.clone(), effects, harms, design, brief };
        Found { met: check.verdict == Verdict::Met, ratio: check.ratio, effort, suggestion }
    }
}

fn checks(brief: &RawBrief, design: &RawDesign) -> Result<Vec<Check>, Vec<Problem>> {
    let brief = resolve_brief(brief).map_err(|problems| {
        problems.into_iter().map(|problem| problem.within("brief")).collect::<Vec<_>>()
    })?;
    Ok(judge(&Case::of(&brief, design)?))
}

/// What is changed, before it is known what it does.
struct Change {
    words: String,
    turns: Vec<Turn>,
    design: Option<RawDesign>,
    brief: Option<RawBrief>,
}
