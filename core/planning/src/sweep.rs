//! One value turned step by step, and what a design comes to at each.

use oak_acoustics::Stop;
use oak_acoustics::response::FrequencyGrid;
use oak_design::Problem;
use oak_design::conditions::{RawConditions, RawQuestion};
use oak_design::file::{RawBrief, RawDesign};
use oak_design::problem::{ProblemKind, Range};
use oak_design::report::{Computed, compute};
use rayon::prelude::*;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use crate::parameter::{Held, PARAMETERS, Parameter, Span};

/// Which value of a design is turned, and how far.
#[derive(Debug, Clone, PartialEq, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct RawSweep {
    /// Value to vary.
    pub design: RawDesign,
    /// What it is made for.
    #[serde(default)]
    pub brief: Option<RawBrief>,
    /// In which conditions.
    #[serde(default)]
    pub conditions: RawConditions,
    /// Which value; the first that the design has where absent.
    #[serde(default)]
    pub parameter: Option<String>,
    /// From where, SI; about where it stands where absent.
    #[serde(default)]
    pub from: Option<f64>,
    /// How far, SI.
    #[serde(default)]
    pub to: Option<f64>,
}

/// What a value does.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Sweep {
    /// What can be turned.
    pub parameters: Vec<ParameterReport>,
    /// What was.
    pub parameter: &'static str,
    /// From where, SI.
    pub from: f64,
    /// How far, SI.
    pub to: f64,
    /// Frequencies of the curves, Hz.
    pub frequency: Vec<f32>,
    /// Each step, from low to high.
    pub steps: Vec<SweepStep>,
}

/// A value that can be turned.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct ParameterReport {
    /// Its name in requests.
    pub id: &'static str,
    /// What it is called.
    pub name: &'static str,
    /// What it measures: the noun of a dimension.
    pub dimension: &'static str,
    /// The unit it is usually read in.
    pub unit: &'static str,
    /// Where it stands, SI.
    pub value: f64,
    /// As read.
    pub label: String,
    /// Whether only whole choices can be made.
    pub choices: bool,
}

/// The design with one value of it turned.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct SweepStep {
    /// SI.
    pub value: f64,
    /// As read.
    pub label: String,
    /// The whole design, to go on with.
    pub design: Option<RawDesign>,
    /// Why there is none, or nothing comes of it.
    pub problem: Option<String>,
    /// What it comes to.
    pub outcome: Option<Outcome>,
}

/// Curves and figures at the drive of the design.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Outcome {
    /// dB at 1 m.
    pub level: Vec<f32>,
    /// mm, one way.
    pub excursion: Vec<f32>,
    /// ohm.
    pub impedance: Vec<f32>,
    /// ms.
    pub group_delay: Vec<f32>,
    /// Hz.
    pub f3: Option<f64>,
    /// Tuning, or resonance of a closed box, Hz.
    pub tuning: Option<f64>,
    /// How far the highest level stands above the reference, dB.
    pub peak: f64,
    /// Reference level, dB.
    pub reference_level: f64,
    /// Largest travel from F3 up, m.
    pub excursion_in_band: Option<f64>,
    /// Fastest air, peak m/s.
    pub air_speed: Option<f64>,
    /// Length of the first port, m.
    pub port_length: Option<f64>,
    /// Largest delay from F10 up, s.
    pub group_delay_most: f64,
    /// Largest clean level at F3, dB.
    pub clean: Option<f64>,
}

impl RawSweep {
    fn question(&self) -> RawQuestion {
        let Self { design, brief, conditions, .. } = self.clone();
        RawQuestion { design, brief, conditions }
    }
}

/// How many steps there are.
const STEPS: usize = 7;
const POINTS: usize = 240;

/// Turns one value.
///
/// # Errors
/// What is wrong with the design, the name of the value, or its ends.
pub fn sweep(ask: &RawSweep, stop: &Stop) -> Result<Sweep, Vec<Problem>> {
    let held = Held::of(&ask.design)?;
    let question = ask.question();
    question.resolve()?;
    let usable: Vec<(&'static Parameter, f64)> =
        PARAMETERS.iter().filter_map(|parameter| Some((parameter, parameter.value(&held)?))).collect();
    let parameter = match &ask.parameter {
        Some(id) => usable
            .iter()
            .find(|(parameter, _)| parameter.id == id)
            .map(|(parameter, _)| *parameter)
            .ok_or_else(|| vec![Problem::new("parameter", ProblemKind::NoSuchField { name: id.clone() })])?,
        None => usable.first().map(|(parameter, _)| *parameter).expect("every design has a temperature"),
    };
    let (from, to) = ends(ask, parameter, &held)?;
    let grid = FrequencyGrid::logarithmic(10.0, 500.0, POINTS).expect("within the allowed range");
    let values = values(parameter, &held, from, to).into_par_iter().filter(|_| !stop.stopped());
    let steps = values.map(|value| step(parameter, &held, value, &question, &grid));
    Ok(Sweep {
        parameters: usable
            .iter()
            .map(|(parameter, value)| ParameterReport {
                id: parameter.id,
                name: parameter.name,
                dimension: parameter.field.dimension.noun(),
                unit: parameter.field.unit,
                value: *value,
                label: parameter.label(*value),
                choices: matches!(parameter.span, Span::Choices(_)),
            })
            .collect(),
        parameter: parameter.id,
        from,
        to,
        frequency: grid.frequencies().iter().map(|frequency| *frequency as f32).collect(),
        steps: steps.collect(),
    })
}

fn ends(ask: &RawSweep, parameter: &Parameter, held: &Held<'_>) -> Result<(f64, f64), Vec<Problem>> {
    let (from, to) = match parameter.span {
        Span::Times(low, high) => {
            let at = |factor| {
                parameter.times(held, factor).unwrap_or(parameter.field.min).max(parameter.field.min)
            };
            (at(low), at(high).min(parameter.field.max))
        }
        Span::Between(low, high) => (low, high),
        Span::Choices(names) => return Ok((0.0, (names.len() - 1) as f64)),
    };
    let (from, to) = (ask.from.unwrap_or(from), ask.to.unwrap_or(to));
    let range = Range { min: parameter.field.min, max: parameter.field.max, field: parameter.field };
    for (place, value) in [("from", from), ("to", to)] {
        if !(range.min..=range.max).contains(&value) {
            let given = parameter.field.write(value);
            return Err(vec![Problem::new(place, ProblemKind::OutOfRange { given, range })]);
        }
    }
    if to <= from {
        return Err(vec![Problem::new("to", ProblemKind::NotBeyond { other: from })]);
    }
    Ok((from, to))
}

/// Even steps, and where it stands among them, in order.
fn values(parameter: &Parameter, held: &Held<'_>, from: f64, to: f64) -> Vec<f64> {
    if let Span::Choices(names) = parameter.span {
        return (0..names.len()).map(|at| at as f64).collect();
    }
    let stands = parameter.value(held).filter(|value| (from..=to).contains(value));
    let even = |k: usize| from + (to - from) * k as f64 / (STEPS - 1) as f64;
    let mut values: Vec<f64> = (0..STEPS).map(even).collect();
    if let Some(stands) = stands {
        // Its neighbour gives way, so that the steps stay apart.
        let near =
            (0..STEPS).min_by(|a, b| (values[*a] - stands).abs().total_cmp(&(values[*b] - stands).abs()));
        if let Some(near) = near {
            values[near] = stands;
        }
    }
    values
}

fn step(
    parameter: &Parameter,
    held: &Held<'_>,
    value: f64,
    question: &RawQuestion,
    grid: &FrequencyGrid,
) -> SweepStep {
    let label = parameter.label(value);
    // Where it stands it is the design itself, not one with what it has written out.
    let stands = parameter.value(held) == Some(value);
    let design = if stands { Some(held.raw.clone()) } else { parameter.set(held, value) };
    let Some(design) = design else {
        let problem = Some("There is no such design.".to_owned());
        return SweepStep { value, label, design: None, problem, outcome: None };
    };
    let told =
        |problems: Vec<Problem>| problems.iter().map(ToString::to_string).collect::<Vec<_>>().join("; ");
    let computed = question
        .about(&design)
        .map_err(told)
        .and_then(|question| compute(&question.design, grid).map_err(|problem| problem.to_string()));
    match computed {
        Ok(computed) => SweepStep {
            value,
            label,
            design: Some(design),
            problem: None,
            outcome: Some(Outcome::of(&computed)),
        },
        Err(problem) => {
            SweepStep { value, label, design: Some(design), problem: Some(problem), outcome: None }
        }
    }
}

impl Outcome {
    fn of(computed: &Computed) -> Self {
        let Computed { built, response, figures, .. } = computed;
        let compiled = &built.compiled;
        let single = |values: &mut dyn Iterator<Item = f64>| values.map(|value| value as f32).collect();
        let closed = compiled.closed_box.as_ref().map(|closed| closed.fc);
        let tuned = compiled.port_tuning.as_ref().or(compiled.rear_tuning.as_ref());
        Self {
            level: single(&mut response.level()),
            excursion: single(&mut response.excursion().map(|travel| travel * 1e3)),
            impedance: single(&mut response.impedance.iter().map(|z| z.norm())),
            group_delay: single(&mut response.group_delay.iter().map(|delay| delay * 1e3)),
            f3: figures.f3,
            tuning: tuned.map(|tuning| tuning.reactance).or(closed).or(figures.impedance_dip),
            peak: figures.level_peak.value - figures.reference_level,
            reference_level: figures.reference_level,
            excursion_in_band: figures.excursion_in_band.map(|peak| peak.value),
            air_speed: figures.air_speed.map(|peak| peak.value),
            port_length: tuned.and_then(|tuning| tuning.ports.first()).map(|port| port.length),
            group_delay_most: figures.group_delay.value,
            clean: crate::compare::clean(computed),
        }
    }
}
