//! What the measurements of a build say, in words and lines, beside what was predicted.

mod finding;
mod hand;
mod linear;
mod lines;

use oak_acoustics::medium::Air;
use oak_design::Problem;
use oak_design::built::Built;
use oak_design::conditions::RawQuestion;
use oak_design::file::{RawDesign, RawMeasurement};
use oak_design::report::compute;
use oak_design::resolve::{Measurement, resolve_design, resolve_measurement};
use oak_design::trace::Trace;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

pub use finding::{Finding, FindingVerdict};
pub use hand::{ByHand, TuningWay};
pub use linear::{AngleLoss, Linearity, LinearityStep};

use crate::answer::Answer;
use crate::remedy::{BoxRemedy, as_found, grid, named, remedies};
use crate::session::{Session, Taken};

/// A design with what was measured of it.
#[derive(Debug, Clone, PartialEq, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct RawMeasuredQuestion {
    /// The design, and the conditions that lines are drawn in.
    pub question: RawQuestion,
    /// What was measured, the newest first; what is left out of use is left out of the answer.
    #[schema(max_items = 60)]
    pub measurements: Vec<RawMeasurement>,
    /// The day, as adopted values have it: `2026-05-01`.
    #[schema(max_length = 40)]
    pub on: String,
}

/// Most measurements that are worked out together.
pub const MOST_MEASUREMENTS: usize = 60;

/// What was found.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct MeasuringReport {
    /// Every number with its standard error.
    pub answer: Answer,
    /// The same in words, what wants a look first.
    pub findings: Vec<Finding>,
    /// Each driver by the classic three points beside the fit.
    pub by_hand: Vec<ByHand>,
    /// The tuning by several ways, each of which is somewhere else.
    pub tunings: Vec<TuningWay>,
    /// What changes with level, where that was told.
    pub linearity: Vec<Linearity>,
    /// What is lost beside the axis, where traces at angles were taken.
    pub angles: Vec<AngleLoss>,
    /// What would fix it, the easiest first.
    pub remedies: Vec<BoxRemedy>,
    /// The design as it was measured; absent where nothing of it was.
    pub as_found: Option<RawDesign>,
    /// What was measured, for the lanes; a level lies on the prediction over a band that both hold.
    pub traces: Vec<Trace>,
    /// How many measurements were used.
    pub used: usize,
}

/// Works out what was measured of a design.
///
/// # Errors
/// Every problem of the design or a measurement, with its place.
pub fn measure_report(raw: &RawMeasuredQuestion) -> Result<MeasuringReport, Vec<Problem>> {
    let one = |problem| vec![problem];
    if raw.measurements.len() > MOST_MEASUREMENTS {
        let kind = oak_design::problem::ProblemKind::TooMany {
            found: raw.measurements.len(),
            max: MOST_MEASUREMENTS,
        };
        return Err(vec![Problem::new("measurements", kind)]);
    }
    let measured = resolved(&raw.measurements)?;
    let design = &raw.question.design;
    let built = resolve_design(design)?.built().map_err(one)?;
    let air = air(&measured, &built);
    let traces: Vec<Taken> = measured.iter().map(Taken::from).collect();
    let session = Session { built: &built, air, traces: &traces };
    let mut worked = session.work_out();
    let remedies = remedies(&raw.question, &built, &worked, &raw.on)?;
    worked.answer.remedies = remedies.iter().map(Into::into).collect();
    let found = worked.found.is_some() || !worked.drivers.is_empty();
    let as_found = if found {
        let mut of = as_found(design, &built, &worked, &raw.on).map_err(one)?;
        of.name = named(&design.name, "as measured");
        Some(of)
    } else {
        None
    };
    let grid = grid();
    let predicted = compute(&raw.question.resolve()?.design, &grid).map_err(one)?;
    let tunings = hand::tunings(&traces, &worked.answer, &built);
    Ok(MeasuringReport {
        findings: finding::findings(&worked, &built, &air, &tunings),
        by_hand: hand::by_hand(&traces, &worked.drivers),
        tunings,
        linearity: linear::linearity(&measured),
        angles: linear::angles(&measured),
        remedies,
        as_found,
        traces: lines::lines(&measured, &built, &grid, &predicted.response),
        used: traces.len(),
        answer: worked.answer,
    })
}

fn resolved(raw: &[RawMeasurement]) -> Result<Vec<Measurement>, Vec<Problem>> {
    let (mut measured, mut problems) = (Vec::new(), Vec::new());
    for (index, one) in raw.iter().enumerate().filter(|(_, one)| !one.left_out) {
        match resolve_measurement(one) {
            Ok(one) => measured.push(one),
            Err(found) => problems
                .extend(found.into_iter().map(|problem| problem.within(&format!("measurements[{index}]")))),
        }
    }
    if problems.is_empty() { Ok(measured) } else { Err(problems) }
}

/// The air of the day: the design's, as warm as the room was at the newest measurement of the box that says so.
fn air(measured: &[Measurement], built: &Built) -> Air {
    let own = built.design.air;
    let said = |boxed: bool| {
        measured.iter().filter(|one| !boxed || one.of.is_of_box()).find_map(|one| one.room_temperature)
    };
    said(true).or_else(|| said(false)).map_or(own, |degrees| Air::new(degrees, own.pressure, 0.0))
}
