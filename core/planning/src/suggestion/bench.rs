//! What is tried against, and what a trial comes to.

use oak_acoustics::Stop;
use oak_design::Problem;
use oak_design::conditions::RawConditions;
use oak_design::field::Field;
use oak_design::file::{RawBrief, RawDesign};
use oak_design::problem::ProblemKind;
use oak_design::resolve::Brief;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use crate::Case;
use crate::check::{Check, Verdict, judge};
use crate::parameter::{Held, PARAMETERS};

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
    /// In which conditions: what it is played through and where it is heard.
    #[serde(default)]
    pub conditions: RawConditions,
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
    pub(super) fn of(id: &'static str, name: &'static str, field: &Field, before: f64, after: f64) -> Self {
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

/// What a change costs or gains that the brief does not ask about.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Cost {
    /// `sensitivity` or `max_output`.
    pub id: &'static str,
    /// What it is called.
    pub name: &'static str,
    /// As it stands, dB.
    pub before: f64,
    /// As it would be, dB.
    pub after: f64,
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
    /// What else it does to how loud the design plays.
    pub costs: Vec<Cost>,
    /// Why it is not what it seems, in words: it only lowers what the note is compared with, or makes a port that cannot be built. Empty
    /// otherwise.
    pub caveat: String,
    /// How many things that were met would be short.
    pub harms: usize,
    /// The changed design; absent where it is the brief that changes.
    pub design: Option<RawDesign>,
    /// The changed brief; absent where it is the design.
    pub brief: Option<RawBrief>,
}

/// What is fixed, computed as it stands.
pub(super) struct Bench<'a> {
    pub(super) ask: &'a RawSuggestionRequest,
    pub(super) stop: &'a Stop,
    pub(super) held: Held<'a>,
    pub(super) brief: Brief,
    pub(super) now: Seen,
    pub(super) check: Check,
}

/// How a design stands to a brief.
pub(super) struct Seen {
    pub(super) checks: Vec<Check>,
    pub(super) loud: Loud,
    /// Lowest note that is heard in full, Hz.
    pub(super) lowest: Option<f64>,
}

/// How loud it plays, dB at 1 m.
#[derive(Debug, Clone, Copy)]
pub(super) struct Loud {
    /// In its passband for 2.83 V.
    pub(super) sensitivity: f64,
    /// At the lowest note that is asked for, for 2.83 V.
    pub(super) lowest: Option<f64>,
    /// Most that is clean there.
    pub(super) most: Option<f64>,
}

impl Seen {
    pub(super) fn of(
        brief: &RawBrief,
        design: &RawDesign,
        conditions: &RawConditions,
    ) -> Result<Self, Vec<Problem>> {
        let brief = conditions.asked(brief)?;
        let case = Case::of(&brief, design)?;
        let per_volt = 20.0 * (case.design.drive.volts / BENCH_VOLTS).log10();
        let at = (!case.band.is_empty()).then_some(case.band.start);
        let loud = Loud {
            sensitivity: case.computed.figures.reference_level - per_volt,
            lowest: at.and_then(|at| case.computed.response.level().nth(at)).map(|level| level - per_volt),
            most: at.map(|at| case.computed.max_output.level[at]).filter(|level| level.is_finite()),
        };
        Ok(Self { checks: judge(&case), loud, lowest: case.computed.figures.f3 })
    }

    pub(super) fn check(&self, id: &str) -> Option<&Check> {
        self.checks.iter().find(|check| check.id == id)
    }
}

/// What sensitivities are stated for, V.
pub(super) const BENCH_VOLTS: f64 = 2.83;

/// Less than this is not told, dB.
pub(super) const HEARD: f64 = 0.1;

/// A change that was simulated.
pub(super) struct Found {
    pub(super) met: bool,
    pub(super) ratio: f64,
    /// How much is changed, in nepers; whole drivers and other briefs count more.
    pub(super) effort: f64,
    pub(super) suggestion: Suggestion,
}

impl<'a> Bench<'a> {
    pub(super) fn of(ask: &'a RawSuggestionRequest, stop: &'a Stop) -> Result<Self, Vec<Problem>> {
        let held = Held::of(&ask.design)?;
        let now = Seen::of(&ask.brief, &ask.design, &ask.conditions)?;
        let check = now.check(&ask.check).cloned().ok_or_else(|| {
            vec![Problem::new("check", ProblemKind::NoSuchField { name: ask.check.clone() })]
        })?;
        let brief = ask.conditions.asked(&ask.brief)?;
        Ok(Self { ask, stop, held, brief, now, check })
    }

    /// How a changed brief or design stands; nothing where it cannot be computed, or nobody waits for it any more.
    pub(super) fn look(&self, brief: &RawBrief, design: &RawDesign) -> Option<(Check, Seen)> {
        if self.stop.stopped() {
            return None;
        }
        let seen = Seen::of(brief, design, &self.ask.conditions).ok()?;
        Some((seen.check(self.check.id).cloned().unwrap_or_else(|| self.at_rest(design)), seen))
    }

    /// A check that nothing is left to say about: rules speak of what is there.
    pub(super) fn at_rest(&self, design: &RawDesign) -> Check {
        let reached = match self.check.id {
            "air" => "no port".to_owned(),
            "even" => "even".to_owned(),
            "family" => design.enclosure.family.name().to_owned(),
            _ => "met".to_owned(),
        };
        Check { reached, words: String::new(), verdict: Verdict::Met, ratio: 1.0, ..self.check.clone() }
    }

    pub(super) fn found(&self, change: Change, effort: f64, check: &Check, seen: &Seen) -> Found {
        let notes = self.notes(&change);
        let Change { words, turns, mut design, brief } = change;
        // A starting point has a reason of its own; any other was the reason of what is changed.
        if let Some(design) = design.as_mut().filter(|design| design.notes == self.ask.design.notes) {
            design.notes = notes;
        }
        let effects: Vec<Effect> = seen
            .checks
            .iter()
            .filter(|other| other.id != self.check.id)
            .filter_map(|after| self.now.check(after.id).map(|before| (before, after)))
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
        let broken: Vec<&Check> = seen
            .checks
            .iter()
            .filter(|after| {
                after.verdict == Verdict::Short
                    && self.now.check(after.id).is_none_or(|before| before.verdict != Verdict::Short)
            })
            .collect();
        let costs = self.costs(seen.loud);
        let caveat = self.caveat(check, seen, &broken);
        let harms = broken.len();
        let reached = check.reached.clone();
        let suggestion = Suggestion { words, turns, reached, effects, costs, caveat, harms, design, brief };
        Found { met: check.verdict == Verdict::Met, ratio: check.ratio, effort, suggestion }
    }

    /// What was changed, for the notes of the changed design.
    pub(super) fn notes(&self, change: &Change) -> String {
        let typed =
            |turn: &Turn, value: f64| match PARAMETERS.iter().find(|parameter| parameter.id == turn.id) {
                Some(parameter) => parameter.field.typed(value, 4).to_string(),
                None => value.to_string(),
            };
        let turned = |turn: &Turn| {
            format!("{} {} instead of {}", turn.name, typed(turn, turn.after), typed(turn, turn.before))
        };
        let words = Some(change.words.clone()).filter(|words| !words.is_empty());
        let all: Vec<String> = words.into_iter().chain(change.turns.iter().map(turned)).collect();
        let (from, what) = (&self.ask.design.name, self.check.name.to_lowercase());
        format!("Made from \"{from}\" to fix its {what}: {}.", all.join(", "))
    }

    pub(super) fn costs(&self, after: Loud) -> Vec<Cost> {
        let before = self.now.loud;
        let pairs = [
            ("sensitivity", "Sensitivity", Some(before.sensitivity), Some(after.sensitivity)),
            ("max_output", "Max. clean SPL at the lowest note", before.most, after.most),
        ];
        let told = |(id, name, before, after): (_, _, Option<f64>, Option<f64>)| {
            let (before, after) = before.zip(after)?;
            ((after - before).abs() >= HEARD).then_some(Cost { id, name, before, after })
        };
        pairs.into_iter().filter_map(told).collect()
    }

    /// Why a change is not all it seems.
    pub(super) fn caveat(&self, check: &Check, seen: &Seen, broken: &[&Check]) -> String {
        if let Some(fits) = broken.iter().find(|broken| broken.id == "fits") {
            return format!("The box can then not be built: {}.", fits.words);
        }
        let (before, after) = (self.now.loud, seen.loud);
        let fallen = before.sensitivity - after.sensitivity;
        let lower = check.id == "lowest" && check.ratio > self.check.ratio;
        match (before.lowest.zip(after.lowest), self.brief.lowest) {
            // Most of what brings the note within reach is what the rest has lost.
            (Some((was, is)), Some(lowest)) if lower && fallen > HEARD && is - was <= fallen / 4.0 => {
                let louder = is - was;
                let there = if louder <= HEARD {
                    "no louder than before".to_owned()
                } else {
                    format!("only {louder:.1} dB louder")
                };
                format!(
                    "At {lowest:.0} Hz it is {there}; the figure is lower only because the level above it falls by {fallen:.1} dB."
                )
            }
            _ => String::new(),
        }
    }
}

/// What is changed, before it is known what it does.
pub(super) struct Change {
    pub(super) words: String,
    pub(super) turns: Vec<Turn>,
    pub(super) design: Option<RawDesign>,
    pub(super) brief: Option<RawBrief>,
}
