//! What changes with level and with angle.

use oak_design::file::RawTraceKind;
use oak_design::resolve::Measurement;
use serde::Serialize;
use utoipa::ToSchema;

use crate::process::{smooth, value_at};

/// One opening at several levels, the softest first.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Linearity {
    /// What was measured.
    pub of: RawTraceKind,
    /// Which driver, counted from 1.
    pub driver: u32,
    /// Each level.
    pub steps: Vec<LinearityStep>,
    /// The highest level that is clean enough for music: 3 % of harmonics and 1 dB of compression at most (common practice); absent where none is.
    pub music: Option<f64>,
    /// The highest level that passes as a maximum: 10 % and 3 dB (common practice).
    pub maximum: Option<f64>,
}

/// One level.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, ToSchema)]
pub struct LinearityStep {
    /// Of the sweep, dB of full scale.
    pub level: f64,
    /// Second harmonic at its worst: Hz that was played, and percent of the fundamental.
    pub second: Option<[f64; 2]>,
    /// Third harmonic at its worst.
    pub third: Option<[f64; 2]>,
    /// Second and third together at their worst.
    pub both: Option<[f64; 2]>,
    /// By how much it is softer than the softest would have it, at its worst: Hz and dB.
    pub compression: Option<[f64; 2]>,
}

/// One angle beside the axis.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct AngleLoss {
    /// Off the axis, degrees.
    pub angle: f64,
    /// What is lost against the trace on the axis, Hz and dB, over a third of an octave.
    pub lost: Vec<[f64; 2]>,
    /// From where on more than 3 dB are lost: it beams, Hz.
    pub beams: Option<f64>,
}

/// Below this a bass note is felt more than heard, Hz; what is judged begins here.
const LOWEST: f64 = 20.0;
/// And ends here, Hz: what a subwoofer or bass cabinet plays.
const HIGHEST: f64 = 200.0;
/// What music and a maximum allow: percent of harmonics and dB of compression (common practice).
const MUSIC: [f64; 2] = [3.0, 1.0];
const MAXIMUM: [f64; 2] = [10.0, 3.0];
/// So much less on the side is beaming, dB.
const BEAM: f64 = 3.0;
/// Compression is read off over this part of an octave.
const PART: u32 = 6;

type Points = Vec<[f64; 2]>;

fn level(one: &Measurement) -> Points {
    one.points.iter().map(|[frequency, level, _]| [*frequency, *level]).collect()
}

/// Every opening that was measured with harmonics or at several levels.
pub(super) fn linearity(measured: &[Measurement]) -> Vec<Linearity> {
    let told = |one: &&Measurement| one.sweep_level.is_some() && !one.of.is_impedance();
    let mut all: Vec<&Measurement> = measured.iter().filter(told).collect();
    let key = |one: &Measurement| (one.of, one.driver);
    all.sort_by(|a, b| {
        key(a).cmp(&key(b)).then(a.sweep_level.unwrap_or(0.0).total_cmp(&b.sweep_level.unwrap_or(0.0)))
    });
    all.chunk_by(|a, b| key(a) == key(b)).filter_map(of_one).collect()
}

fn of_one(group: &[&Measurement]) -> Option<Linearity> {
    let softest = *group.first()?;
    let reference = smooth(&level(softest), PART);
    let step = |one: &&Measurement| {
        let played = one.sweep_level.unwrap_or(0.0);
        let more = played - softest.sweep_level.unwrap_or(0.0);
        let worst = |of: &dyn Fn(&[f64; 3]) -> f64| {
            let inside = one.harmonics.iter().filter(|point| (LOWEST..=HIGHEST).contains(&point[0]));
            inside.map(|point| [point[0], of(point)]).max_by(|a, b| a[1].total_cmp(&b[1]))
        };
        let percent = |decibels: f64| 100.0 * 10f64.powf(decibels / 20.0);
        let compression = (more > 0.1).then(|| {
            let lost = smooth(&level(one), PART).into_iter().filter_map(|[frequency, level]| {
                let wanted = value_at(&reference, frequency)? + more;
                (LOWEST..=HIGHEST).contains(&frequency).then_some([frequency, wanted - level])
            });
            lost.max_by(|a, b| a[1].total_cmp(&b[1]))
        });
        LinearityStep {
            level: played,
            second: worst(&|point| percent(point[1])),
            third: worst(&|point| percent(point[2])),
            both: worst(&|point| percent(point[1]).hypot(percent(point[2]))),
            compression: compression.flatten(),
        }
    };
    let steps: Vec<LinearityStep> = group.iter().map(step).collect();
    let passes = |step: &LinearityStep, [percent, decibels]: [f64; 2]| {
        step.both.is_some_and(|[_, both]| both <= percent)
            && step.compression.is_none_or(|[_, lost]| lost <= decibels)
    };
    // Up to the first that does not pass.
    let up_to =
        |limit: [f64; 2]| steps.iter().take_while(|step| passes(step, limit)).last().map(|step| step.level);
    Some(Linearity {
        of: softest.of,
        driver: softest.driver,
        music: up_to(MUSIC),
        maximum: up_to(MAXIMUM),
        steps,
    })
}

/// What is lost beside the axis, by the traces of one set-up.
pub(super) fn angles(measured: &[Measurement]) -> Vec<AngleLoss> {
    let seats: Vec<&Measurement> = measured.iter().filter(|one| one.of == RawTraceKind::Seat).collect();
    let on_axis = |one: &&&Measurement| one.angle.is_none_or(|angle| angle.abs() < 1e-6);
    let Some(axis) = seats.iter().find(on_axis).map(|one| smooth(&level(one), 3)) else { return Vec::new() };
    let mut all: Vec<AngleLoss> = seats
        .iter()
        .filter_map(|one| {
            let angle = one.angle.filter(|angle| angle.abs() >= 1e-6)?.to_degrees();
            let lost: Points = smooth(&level(one), 3)
                .into_iter()
                .filter_map(|[frequency, level]| Some([frequency, value_at(&axis, frequency)? - level]))
                .collect();
            // From where on it stays so.
            let last = lost.iter().rposition(|[_, lost]| *lost < BEAM).map_or(0, |at| at + 1);
            let beams = lost.get(last).map(|[frequency, _]| *frequency);
            Some(AngleLoss { angle, lost, beams })
        })
        .collect();
    all.sort_by(|a, b| a.angle.abs().total_cmp(&b.angle.abs()));
    all
}
