//! Levels of several traces beside each other: smoothed or in bands, at equal level, with what tells them apart.

use oak_design::Problem;
use oak_design::file::RawMeasurement;
use oak_design::problem::ProblemKind;
use oak_design::resolve::resolve_measurement;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use crate::process::{average, bands, difference, matched, smooth, value_at};

/// How traces are compared.
#[derive(Debug, Clone, PartialEq, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct RawComparedTraces {
    /// The traces; levels alone.
    #[schema(max_items = 12)]
    pub traces: Vec<RawNamedTrace>,
    /// Over which part of an octave they are smoothed, or how wide the bands are: 1, 2, 3, 6, 12, 24 or 48; nothing leaves them as they are.
    #[serde(default)]
    pub part: Option<u32>,
    /// Whether bands of IEC 61260 stand in place of smoothed lines.
    #[serde(default)]
    pub banded: bool,
    /// The band over which all are laid on the first, Hz; nothing leaves them as they were measured.
    #[serde(default)]
    pub equal: Option<[f64; 2]>,
}

/// A trace with a name.
#[derive(Debug, Clone, PartialEq, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct RawNamedTrace {
    /// What it is called.
    #[schema(max_length = 200)]
    pub name: String,
    /// The trace.
    pub measurement: RawMeasurement,
}

/// Traces beside each other.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct ComparedTraces {
    /// Each, in the order that was asked for.
    pub traces: Vec<ComparedTrace>,
    /// The mean power of all, Hz and dB.
    pub average: Vec<[f64; 2]>,
}

/// A trace beside others.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct ComparedTrace {
    /// What it is called.
    pub name: String,
    /// Hz and dB.
    pub points: Vec<[f64; 2]>,
    /// What was added to lay it on the first, dB.
    pub shift: f64,
    /// By how much it lies over the first, Hz and dB; empty of the first itself.
    pub difference: Vec<[f64; 2]>,
    /// Mean power over the band that is judged, dB.
    pub level: f64,
    /// Lowest frequencies within 3 and 10 dB of that, Hz; absent where it does not fall so far within the trace.
    pub f3: Option<f64>,
    /// See `f3`.
    pub f10: Option<f64>,
    /// How even it is: standard deviation of the level over the band that is judged, dB.
    pub evenness: f64,
}

/// Parts of an octave that can be asked for.
pub const PARTS: [u32; 7] = [1, 2, 3, 6, 12, 24, 48];
/// Most traces at once.
pub const MOST: usize = 12;
/// The band that is judged, Hz: what a subwoofer or bass cabinet plays by itself, common practice.
const JUDGED: [f64; 2] = [40.0, 120.0];
/// Steps of an octave that a level is judged at.
const STEPS: f64 = 24.0;

/// Lays traces beside each other.
///
/// # Errors
/// A trace that is none, or is an impedance; a part of an octave or a band that there is not.
pub fn compare_traces(raw: &RawComparedTraces) -> Result<ComparedTraces, Vec<Problem>> {
    let wrong = |field: &str, reason: String| vec![Problem::new(field, ProblemKind::Unshapeable { reason })];
    if raw.traces.is_empty() || raw.traces.len() > MOST {
        return Err(wrong("traces", format!("{} traces; 1 to {MOST} can be compared", raw.traces.len())));
    }
    if let Some(part) = raw.part
        && !PARTS.contains(&part)
    {
        return Err(wrong("part", format!("1/{part} of an octave is not among 1/{PARTS:?}")));
    }
    if let Some([low, high]) = raw.equal
        && !(low >= 1.0 && high > low && high <= 20_000.0)
    {
        return Err(wrong("equal", format!("{low} to {high} Hz is no band within 1 and 20000 Hz")));
    }
    let mut all: Vec<Vec<[f64; 2]>> = Vec::new();
    for (index, one) in raw.traces.iter().enumerate() {
        let place = format!("traces[{index}].measurement");
        let measurement = resolve_measurement(&one.measurement).map_err(|problems| {
            problems.into_iter().map(|problem| problem.within(&place)).collect::<Vec<_>>()
        })?;
        if measurement.of.is_impedance() {
            return Err(wrong(&place, "it is an impedance, and levels are compared here".to_owned()));
        }
        all.push(measurement.points.iter().map(|[frequency, level, _]| [*frequency, *level]).collect());
    }
    let shaped: Vec<Vec<[f64; 2]>> = all.iter().map(|points| shape(points, raw)).collect();
    let first = shaped.first().cloned().unwrap_or_default();
    let traces: Vec<ComparedTrace> = shaped
        .iter()
        .zip(&all)
        .zip(&raw.traces)
        .enumerate()
        .map(|(index, ((points, whole), one))| {
            let shift = match raw.equal {
                Some(band) if index > 0 => matched(whole, &all[0], band).unwrap_or(0.0),
                _ => 0.0,
            };
            let points: Vec<[f64; 2]> = points.iter().map(|[f, level]| [*f, level + shift]).collect();
            let difference = if index > 0 { difference(&points, &first) } else { Vec::new() };
            judged(one.name.clone(), points, shift, difference)
        })
        .collect();
    let lines: Vec<&[[f64; 2]]> = traces.iter().map(|trace| trace.points.as_slice()).collect();
    Ok(ComparedTraces { average: if lines.len() > 1 { average(&lines) } else { Vec::new() }, traces })
}

fn shape(points: &[[f64; 2]], raw: &RawComparedTraces) -> Vec<[f64; 2]> {
    match (raw.part, raw.banded) {
        (Some(part), true) => bands(points, part).iter().map(|band| [band.middle, band.level]).collect(),
        (Some(part), false) => smooth(points, part),
        (None, _) => points.to_vec(),
    }
}

/// What tells a level from others: its mean power, where it falls from that, how even it is.
fn judged(name: String, points: Vec<[f64; 2]>, shift: f64, difference: Vec<[f64; 2]>) -> ComparedTrace {
    let count = ((JUDGED[1] / JUDGED[0]).log2() * STEPS).round() as u32;
    let at = |k: u32| JUDGED[0] * (JUDGED[1] / JUDGED[0]).powf(f64::from(k) / f64::from(count));
    let levels: Vec<f64> = (0..=count).filter_map(|k| value_at(&points, at(k))).collect();
    let total = levels.len().max(1) as f64;
    let power = levels.iter().map(|level| 10f64.powf(level / 10.0)).sum::<f64>() / total;
    let mean = levels.iter().sum::<f64>() / total;
    let evenness = (levels.iter().map(|level| (level - mean).powi(2)).sum::<f64>() / total).sqrt();
    let level = 10.0 * power.log10();
    let falls = |by: f64| {
        // From the band that is judged downwards, the first place where it has fallen so far.
        let below = points.iter().rposition(|[f, at]| *f < JUDGED[0] && *at < level - by)?;
        let [[f, a], [g, b]] = [points[below], *points.get(below + 1)?];
        Some(f * (g / f).powf(((level - by - a) / (b - a)).clamp(0.0, 1.0)))
    };
    ComparedTrace { name, shift, difference, level, f3: falls(3.0), f10: falls(10.0), evenness, points }
}
