//! How well a design does for its brief.

use oak_design::file::{RawBody, RawDriverArray, RawEnclosure};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use crate::Case;
use crate::build_plan::Cost;
use crate::check::{Check, Verdict, judge, size};

/// Rules that count: travel and air noise at the asked level are within the loudness.
const COUNTED: [&str; 10] =
    ["lowest", "loudness", "loudest", "even", "size", "fits", "place", "weight", "load", "cost"];
/// More than this of what is asked is no better.
const PLENTY: f64 = 2.0;

/// A cabinet that was found for a driver, with everything that a list says about it.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct Found {
    /// What it began with: a starting point by its name, or the brief.
    #[serde(alias = "school")]
    pub starting_point: String,
    /// Where it comes from.
    pub reason: String,
    /// The cabinet as a design file has it.
    pub enclosure: RawEnclosure,
    /// Its box, where its sizes are chosen for the place.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub body: Option<RawBody>,
    /// Whether the box has been drawn and judged; until then its size is an estimate.
    #[serde(default)]
    pub box_checked: bool,
    /// How the drivers are wired.
    #[serde(default, alias = "motor", skip_serializing_if = "Option::is_none")]
    pub driver_array: Option<RawDriverArray>,
    /// How well the brief is met, per cent: 100 where nothing is short. The geometric mean of the parts.
    pub score: f64,
    /// By how much what is asked is exceeded, as a geometric mean; 1 is just so.
    pub spare: f64,
    /// What the score is made of.
    pub parts: Vec<Part>,
    /// What holds it back, in words; empty where nothing is short.
    pub holds_back: String,
    /// Air in the cabinet, m3.
    pub volume: f64,
    /// −3 dB frequency, Hz.
    pub f3: Option<f64>,
    /// Largest clean level over the whole band at the listener, dB; absent where nothing limits it.
    pub loudness: Option<f64>,
    /// What its parts cost.
    pub cost: Option<f64>,
}

/// One part of a score.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct Part {
    /// Which rule.
    pub id: String,
    /// What is asked about.
    pub name: String,
    /// What is reached.
    pub reached: String,
    /// What was asked, or by how much it is short.
    pub words: String,
    /// 1 where it is met; else the share that is reached.
    pub part: f64,
}

impl Found {
    /// Judges a finished design.
    pub(super) fn of(case: &Case<'_>, starting_point: &str, reason: Option<String>) -> Self {
        let boxed = case.built().boxed.is_some();
        let estimate = if boxed { None } else { size::estimated(case) };
        let all = judge(case).into_iter().chain(estimate);
        let checks: Vec<Check> = all.filter(|check| COUNTED.contains(&check.id)).collect();
        let known = || checks.iter().filter(|check| check.verdict != Verdict::Unknown);
        let mean = |value: fn(f64) -> f64| {
            let logs: Vec<f64> = known().map(|check| value(share(check)).max(1e-3).ln()).collect();
            (logs.iter().sum::<f64>() / logs.len().max(1) as f64).exp()
        };
        let loudness =
            case.band.clone().map(|k| case.computed.max_output.level[k]).fold(f64::INFINITY, f64::min)
                - 20.0 * case.brief.distance.log10();
        Self {
            starting_point: starting_point.to_owned(),
            reason: reason.unwrap_or_else(|| tuned(case)),
            enclosure: case.raw.enclosure.clone(),
            body: case.raw.body.clone(),
            box_checked: boxed,
            driver_array: case.raw.driver_array.clone(),
            score: 100.0 * mean(|share| share.min(1.0)),
            spare: mean(|share| share.min(PLENTY)),
            parts: checks.iter().map(Part::of).collect(),
            holds_back: holds_back(&checks),
            volume: case.air(),
            f3: case.computed.figures.f3,
            loudness: loudness.is_finite().then_some(loudness),
            cost: Cost::of(case).map(|cost| cost.total),
        }
    }
}

/// What is reached of what is asked; 1 at least where it is met.
fn share(check: &Check) -> f64 {
    if check.verdict == Verdict::Met { check.ratio.max(1.0) } else { check.ratio.min(1.0) }
}

impl Part {
    fn of(check: &Check) -> Self {
        Self {
            id: check.id.to_owned(),
            name: check.name.to_owned(),
            reached: check.reached.clone(),
            words: check.words.clone(),
            part: share(check).min(1.0),
        }
    }
}

/// Names what is farthest from what was asked, and how many others are short too.
fn holds_back(checks: &[Check]) -> String {
    let mut short: Vec<&Check> = checks.iter().filter(|check| check.verdict == Verdict::Short).collect();
    short.sort_by(|a, b| a.ratio.total_cmp(&b.ratio));
    let Some((worst, others)) = short.split_first() else { return String::new() };
    let more = match others {
        [] => String::new(),
        [one] => format!("; {} too", uncapitalised(one.name)),
        many => format!("; {} more", many.len()),
    };
    format!("{}: {}, {}{more}", worst.name, worst.reached, worst.words)
}

/// As it stands within a sentence.
fn uncapitalised(name: &str) -> String {
    let mut letters = name.chars();
    letters.next().map_or_else(String::new, |first| first.to_lowercase().chain(letters).collect())
}

fn tuned(case: &Case<'_>) -> String {
    let figures = &case.computed.figures;
    let compiled = &case.computed.built.compiled;
    let f3 = figures.f3.map_or(String::new(), |f3| format!(", −3 dB at {f3:.1} Hz"));
    let port = compiled.port_tuning.as_ref().and_then(|tuning| {
        let port = tuning.ports.first()?;
        let diameter = (4.0 * port.area / std::f64::consts::PI).sqrt();
        Some(format!(
            ", tuned to {:.1} Hz by a port {:.0} mm wide and {:.0} mm long",
            tuning.reactance,
            diameter * 1e3,
            port.length * 1e3
        ))
    });
    let radiator = compiled.radiator_tuning.as_ref();
    let radiator = radiator.map(|tuning| format!(", radiators tuned to {:.1} Hz", tuning.tuning));
    let line = compiled.passage.as_ref().map(|passage| format!(", {:.2} m long", passage.length));
    format!(
        "Tuned to the brief: the values that reach most of it within the place, level within +3 and −6 dB. {:.1} l{}{f3}.",
        case.air() * 1e3,
        port.or(radiator).or(line).unwrap_or_default()
    )
}
