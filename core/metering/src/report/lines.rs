//! What was measured as lines for the lanes.

use oak_acoustics::enclosure::Enclosure;
use oak_acoustics::response::Response;
use oak_design::built::Built;
use oak_design::file::RawTraceKind;
use oak_design::resolve::Measurement;
use oak_design::response::FrequencyGrid;
use oak_design::trace::{Quantity, Trace, TraceOrigin};

use crate::process::{Opening, highest, joined, matched, over, smooth};

/// A level is laid on the prediction over this band, Hz, or the octave below the highest that the near fields tell.
const LAID: [f64; 2] = [100.0, 200.0];
/// Near fields are smoothed over so small a part of an octave.
const SMOOTHED: u32 = 24;
/// Where the lanes end, Hz.
const SHOWN: [f64; 2] = [5.0, 1000.0];

/// Each impedance of the box, and the near fields put together and laid on the predicted level.
pub(super) fn lines(
    measured: &[Measurement],
    built: &Built,
    grid: &FrequencyGrid,
    predicted: &Response,
) -> Vec<Trace> {
    let mut all: Vec<Trace> = measured.iter().filter_map(impedance).collect();
    let level: Vec<[f64; 2]> = grid
        .frequencies()
        .iter()
        .zip(predicted.level())
        .map(|(frequency, level)| [*frequency, level])
        .collect();
    all.extend(near(measured, built, &level));
    all.extend(measured.iter().filter_map(|one| seat(one, &level)));
    all
}

fn impedance(one: &Measurement) -> Option<Trace> {
    let label = match one.of {
        RawTraceKind::ImpedanceBox => "measured",
        RawTraceKind::ImpedanceBlocked => "measured, port shut",
        _ => return None,
    };
    let points = shown(&one.points);
    let [frequency, size, phase] = [0, 1, 2].map(|k| points.iter().map(|point| point[k]).collect::<Vec<_>>());
    let trace = Trace::new(Quantity::Impedance, TraceOrigin::Measured, &frequency, &size).labelled(label);
    Some(if one.phased { trace.with_phase(&phase) } else { trace })
}

fn shown(points: &[[f64; 3]]) -> Vec<[f64; 3]> {
    points.iter().copied().filter(|point| (SHOWN[0]..=SHOWN[1]).contains(&point[0])).collect()
}

/// All near fields as one response of the box.
fn near(measured: &[Measurement], built: &Built, predicted: &[[f64; 2]]) -> Option<Trace> {
    let design = &built.design;
    let of = |kind: RawTraceKind| measured.iter().find(|one| one.of == kind);
    let opening = |one: &Measurement, area: f64, count: f64| Opening {
        area,
        count,
        points: shown(&one.points),
        phased: one.phased,
    };
    let cones = f64::from(design.driver_array.wiring.count());
    let cone = of(RawTraceKind::NearfieldCone)?;
    // What came another way had another gain, and cannot be joined.
    let beside = |kind: RawTraceKind| of(kind).filter(|one| one.source == cone.source);
    let mut openings = vec![opening(cone, design.driver.driver.sd, cones)];
    let mut label = "near field of the cone";
    if let (Enclosure::Ported(ported), Some(one)) = (&design.enclosure, beside(RawTraceKind::NearfieldPort)) {
        let port = ported.ports.first()?;
        let count = ported.ports.iter().map(|port| port.count).sum::<u32>();
        openings.push(opening(one, port.section.area(), f64::from(count)));
        label = "near fields, cone and port";
    }
    if let (Some(cabinet), Some(one)) =
        (design.enclosure.radiators(), beside(RawTraceKind::NearfieldRadiator))
    {
        openings.push(opening(one, cabinet.radiator.area, f64::from(cabinet.radiator.count)));
        label = "near fields, cone and radiator";
    }
    let common = common(&openings);
    for one in &mut openings {
        one.points = over(&one.points, common.iter().copied());
    }
    let widest = openings.iter().map(|one| one.area).fold(0.0, f64::max);
    let most = highest(widest, design.air.speed);
    let mut points = smooth(&joined(&openings, 1.0)?, SMOOTHED);
    points.retain(|[frequency, _]| *frequency <= most);
    laid(&points, predicted, most, Quantity::Level, label)
}

/// The frequencies of the first that lie within all.
fn common(openings: &[Opening]) -> Vec<f64> {
    let ends = |one: &Opening| Some([one.points.first()?[0], one.points.last()?[0]]);
    let within = |frequency: f64| {
        openings.iter().filter_map(ends).all(|[low, high]| (low..=high).contains(&frequency))
    };
    let first = openings.first().map(|one| one.points.as_slice()).unwrap_or_default();
    first.iter().map(|point| point[0]).filter(|frequency| within(*frequency)).collect()
}

/// What was measured at a seat, laid on the predicted level.
fn seat(one: &Measurement, predicted: &[[f64; 2]]) -> Option<Trace> {
    if one.of != RawTraceKind::Seat {
        return None;
    }
    let points =
        shown(&one.points).iter().map(|[frequency, level, _]| [*frequency, *level]).collect::<Vec<_>>();
    laid(&smooth(&points, SMOOTHED), predicted, SHOWN[1], Quantity::Level, "measured at the seat")
}

fn laid(
    points: &[[f64; 2]],
    predicted: &[[f64; 2]],
    most: f64,
    quantity: Quantity,
    label: &str,
) -> Option<Trace> {
    let band = if most < LAID[1] { [0.5 * most, most] } else { LAID };
    let by = matched(points, predicted, band)?;
    let [frequency, level] = [0, 1].map(|k| points.iter().map(|point| point[k]).collect::<Vec<_>>());
    let level: Vec<f64> = level.iter().map(|level| level + by).collect();
    Some(Trace::new(quantity, TraceOrigin::Measured, &frequency, &level).labelled(label))
}
