//! A plan made larger or smaller: every length of the box by one factor.

use oak_design::Problem;
use oak_design::field::{self, FIELDS, Field};
use oak_design::file::{RawBrief, RawDesign};
use oak_design::problem::{ProblemKind, Range};
use oak_design::resolve::{Brief, resolve_brief};
use oak_units::{Dimension, format_in, parse_quantity};
use serde::{Deserialize, Serialize};
use serde_json::Value;
use utoipa::ToSchema;

use crate::Case;
use crate::check::size;

/// A design to be scaled.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct RawScale {
    /// The design.
    pub design: RawDesign,
    /// What it must reach, for the figures and for its place.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub brief: Option<RawBrief>,
    /// By what its lengths are multiplied, 0.2 to 5; absent to fit the place of the brief.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub factor: Option<f64>,
}

/// A design scaled, with what becomes of it.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Scaled {
    /// By what its lengths were multiplied.
    pub factor: f64,
    /// The design; boards, drivers and radiators stay as they are sold.
    pub design: RawDesign,
    /// As it was.
    pub before: ScaleOutcome,
    /// As it becomes.
    pub after: ScaleOutcome,
}

/// What a scaled design comes to.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, ToSchema)]
pub struct ScaleOutcome {
    /// What it takes of its place, m3.
    pub outside: Option<f64>,
    /// Air in it, m3.
    pub air: f64,
    /// −3 dB frequency, Hz.
    pub f3: Option<f64>,
    /// Tuning, Hz.
    pub tuning: Option<f64>,
    /// Maximum clean level over the band at the listener, dB; absent where nothing limits it or no band is asked for.
    pub clean: Option<f64>,
    /// Passband level at the drive, dB at 1 m.
    pub level: f64,
    /// Fastest air at the drive, peak m/s.
    pub air_speed: Option<f64>,
    /// Whether it can be built as it is drawn.
    pub buildable: bool,
}

/// Lowest and highest factor.
const FACTORS: [f64; 2] = [0.2, 5.0];
/// Halvings of the way between them when a place is to be filled.
const HALVINGS: u32 = 20;
/// What is bought as it is.
const KEPT: [&str; 12] = [
    "enclosure.radiator",
    "body.thickness",
    "body.partition",
    "body.panels.thickness",
    "body.ports.wall",
    "body.ports.socket",
    "body.ports.coupling",
    "body.ports.cap",
    "body.braces.thickness",
    "body.recess",
    "body.fold.thickness",
    "body.items",
];

/// Scales a design by a factor, or into its brief's place.
///
/// # Errors
/// Every problem with what was given, or that there is no place to fit.
pub fn scale(ask: &RawScale) -> Result<Scaled, Vec<Problem>> {
    let raw = ask.brief.clone().unwrap_or_default();
    let within = |problem: Problem| problem.within("brief");
    let brief =
        resolve_brief(&raw).map_err(|problems| problems.into_iter().map(within).collect::<Vec<_>>())?;
    let before = Case::of(&brief, &ask.design)?;
    let factor = match ask.factor {
        Some(factor) if (FACTORS[0]..=FACTORS[1]).contains(&factor) => factor,
        Some(factor) => {
            let [min, max] = FACTORS;
            let range = Range { min, max, field: &field::GAIN };
            let kind = ProblemKind::OutOfRange { given: factor.to_string(), range };
            return Err(vec![Problem::new("factor", kind)]);
        }
        None => fitting(&brief, &ask.design)?,
    };
    let design = scaled(&ask.design, factor);
    let after = outcome(&Case::of(&brief, &design)?);
    let before = outcome(&before);
    Ok(Scaled { factor, design, before, after })
}

/// The largest factor with which it goes into the place of the brief. Boards keep their thickness, so the outside does not follow the
/// factor exactly.
fn fitting(brief: &Brief, design: &RawDesign) -> Result<f64, Vec<Problem>> {
    if brief.free.is_none() && brief.outside.iter().all(Option::is_none) {
        let wanted = &field::BRIEF_WIDTH;
        let range = Range { min: wanted.min, max: wanted.max, field: wanted };
        return Err(vec![Problem::new("brief.width", ProblemKind::Missing { range })]);
    }
    let fits = |factor: f64| {
        let scaled = scaled(design, factor);
        let ratio = Case::of(brief, &scaled).ok().and_then(|case| size::ratio(brief, case.built()));
        ratio.is_some_and(|ratio| ratio >= 1.0)
    };
    let [mut low, mut high] = FACTORS;
    for _ in 0..HALVINGS {
        let middle = (low * high).sqrt();
        if fits(middle) {
            low = middle;
        } else {
            high = middle;
        }
    }
    Ok(low)
}

/// Every length, area and volume of the box by the factor to its power, and tunings to the note of the other size.
fn scaled(design: &RawDesign, factor: f64) -> RawDesign {
    let mut document = serde_json::to_value(design).unwrap_or(Value::Null);
    for branch in ["enclosure", "body"] {
        if let Some(value) = document.get_mut(branch) {
            walk(value, branch, factor);
        }
    }
    serde_json::from_value(document).unwrap_or_else(|_| design.clone())
}

fn walk(value: &mut Value, path: &str, factor: f64) {
    if KEPT.contains(&path) {
        return;
    }
    match value {
        Value::Object(members) => {
            for (name, member) in members {
                walk(member, &format!("{path}.{name}"), factor);
            }
        }
        // Lists have no places in the table of fields.
        Value::Array(items) => {
            for item in items {
                walk(item, path, factor);
            }
        }
        Value::String(text) => {
            if let Some(next) = known(path).and_then(|field| times(field, text, factor)) {
                *text = next;
            }
        }
        Value::Null | Value::Bool(_) | Value::Number(_) => {}
    }
}

/// The field of a place; a front chamber has those of the rear one.
fn known(path: &str) -> Option<&'static Field> {
    let path = path.replace("enclosure.front", "enclosure").replace("body.front_ports", "body.ports");
    FIELDS.iter().copied().find(|field| field.path == path)
}

fn times(field: &Field, text: &str, factor: f64) -> Option<String> {
    let power = match field.dimension {
        Dimension::Length => 1,
        Dimension::Area => 2,
        Dimension::Volume => 3,
        Dimension::Frequency => -1,
        _ => return None,
    };
    let read = parse_quantity(text, field.dimension).ok()?;
    let si = (read.si * factor.powi(power)).clamp(field.min, field.max);
    Some(format_in(si, read.unit.or(field.usual_unit())?, 4))
}

fn outcome(case: &Case<'_>) -> ScaleOutcome {
    let built = case.built();
    let figures = &case.computed.figures;
    let levels = case.computed.max_output.level[case.band.clone()].iter().copied();
    let clean = levels.fold(f64::INFINITY, f64::min) - 20.0 * case.brief.distance.log10();
    let port = built.compiled.port_tuning.as_ref().map(|tuning| tuning.reactance);
    ScaleOutcome {
        outside: built.boxed.as_ref().map(|boxed| boxed.cabinet.outer.volume()),
        air: case.air(),
        f3: figures.f3,
        tuning: port.or(built.compiled.radiator_tuning.as_ref().map(|tuning| tuning.tuning)),
        clean: clean.is_finite().then_some(clean),
        level: figures.reference_level,
        air_speed: figures.air_speed.map(|speed| speed.value),
        buildable: built.forbids().is_empty(),
    }
}
