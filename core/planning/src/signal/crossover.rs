//! The sub and the main loudspeakers together.

use std::f64::consts::TAU;

use oak_acoustics::Complex;
use oak_acoustics::driver::REFERENCE_PRESSURE;
use oak_acoustics::response::{FrequencyGrid, Response};
use oak_design::conditions::{Question, RawQuestion};
use oak_design::field;
use oak_design::file::{RawFilter, RawFilterKind};
use oak_design::problem::{Problem, ProblemKind};
use oak_signal::crossover::{EITHER, ON_THE_SUB, align, evenness, frequencies, travelled};
use serde::Serialize;
use utoipa::ToSchema;

/// How sub and mains add up around the crossover.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct CrossoverReport {
    /// Hz.
    pub crossover: f64,
    /// `f0/2` to `2 f0`, 24 an octave, Hz.
    pub frequency: Vec<f64>,
    /// The sub over its passband level, dB.
    pub sub: Vec<f64>,
    /// The mains over theirs, dB.
    pub mains: Vec<f64>,
    /// Both as they are set now.
    pub now: SumReport,
    /// Both with the best delay, on the sub or on the mains, and the best polarity.
    pub best: SumReport,
    /// The best that can be set on the sub alone.
    pub settable: SumReport,
    /// What being wrong costs.
    pub sensitivity: String,
    /// What to set.
    pub words: String,
    /// To be added to the filters of the sub; empty where nothing is to be changed there.
    pub filters: Vec<RawFilter>,
}

/// The sum for one delay and polarity.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct SumReport {
    /// More delay on the sub, s; negative: on the mains.
    pub delay: f64,
    /// Whether the sub is inverted besides.
    pub inverted: bool,
    /// Standard deviation of the level, dB.
    pub flatness: f64,
    /// Highest less lowest level, dB.
    pub span: f64,
    /// dB.
    pub level: Vec<f64>,
}

/// Where the crossover is looked for when neither brief nor filters say so, Hz.
const USUAL: f64 = 80.0;
/// A better setting is worth telling from here, dB of flatness.
const WORTH: f64 = 0.05;

/// How the sub of a design and its mains add up.
///
/// # Errors
/// Every problem with design or brief; no mains are described.
pub fn crossover(question: &RawQuestion) -> Result<CrossoverReport, Vec<Problem>> {
    let Question { design, brief } = question.resolve()?;
    let Some(mains) = design.mains.clone() else {
        let names = &["signal.mains.frequency"];
        return Err(vec![Problem::new("signal.mains", ProblemKind::MissingOneOf { names, needed: 1 })]);
    };
    let own =
        question.filters().iter().find(|filter| filter.kind == RawFilterKind::LowPass && !filter.bypassed);
    let corners = field::BRIEF_CROSSOVER.min..=field::BRIEF_CROSSOVER.max;
    let own = own.and_then(|filter| field::FILTER_FREQUENCY.read(filter.frequency.as_ref()));
    let own = own.filter(|corner| corners.contains(corner));
    let corner = brief.and_then(|brief| brief.crossover).or(own).unwrap_or(USUAL);
    let grid = frequencies(corner);
    let built = design.built().map_err(|problem| vec![problem])?;
    let network = &built.compiled.network;
    let ends = [grid[0], grid[grid.len() - 1]];
    let spaced = FrequencyGrid::logarithmic(ends[0], ends[1], grid.len()).expect("within the allowed range");
    let response = Response::without_delay(network, &spaced, design.drive.volts);
    let passband = REFERENCE_PRESSURE * 10f64.powf(network.piston_level(design.drive.volts) / 20.0);
    let late = |frequency: f64| Complex::from_polar(1.0, -TAU * frequency * mains.link_delay);
    let sub: Vec<Complex> =
        response.pressure.iter().zip(&grid).map(|(p, f)| p / passband * late(*f)).collect();
    let sub = travelled(&sub, &grid, mains.sub_distance, design.air.speed);
    let top: Vec<Complex> = grid.iter().map(|frequency| mains.chain.transfer(TAU * frequency)).collect();
    let top = travelled(&top, &grid, mains.distance, design.air.speed);

    let summed = |delay: f64, inverted: bool| {
        let sign = if inverted { -1.0 } else { 1.0 };
        let level = grid
            .iter()
            .zip(sub.iter().zip(&top))
            .map(|(f, (sub, top))| decibels(top + sub * Complex::from_polar(sign, -TAU * f * delay)));
        let even = evenness(&sub, &top, &grid, delay, inverted);
        SumReport { delay, inverted, flatness: even.flatness, span: even.span, level: level.collect() }
    };
    let now = summed(0.0, false);
    let [best, settable] = [EITHER, ON_THE_SUB].map(|range| {
        let found = align(&sub, &top, &grid, range);
        // Rounded as devices take it.
        summed((found.delay * 1e4).round() / 1e4, found.inverted)
    });
    let worth = now.flatness - settable.flatness > WORTH;
    let off = |delay: f64| summed(settable.delay + delay, settable.inverted).span;
    let milli = off(1e-3).max(off(-1e-3));
    let sensitivity = format!(
        "With a millisecond more or less, {:.2} m of path, highest and lowest level are {milli:.1} dB apart; with the other polarity {:.1} dB.",
        design.air.speed * 1e-3,
        summed(settable.delay, !settable.inverted).span
    );
    Ok(CrossoverReport {
        crossover: corner,
        sub: sub.iter().map(|value| decibels(*value)).collect(),
        mains: top.iter().map(|value| decibels(*value)).collect(),
        frequency: grid.clone(),
        words: words(&now, &best, &settable),
        filters: if worth { setting(&settable) } else { Vec::new() },
        now,
        best,
        settable,
        sensitivity,
    })
}

fn words(now: &SumReport, best: &SumReport, settable: &SumReport) -> String {
    let on_the_sub = if now.flatness - settable.flatness > WORTH {
        let polarity = if settable.inverted { "the sub inverted" } else { "the polarity as it is" };
        let delay = if settable.delay >= 5e-5 {
            format!("{:.1} ms more delay on the sub", settable.delay * 1e3)
        } else {
            "No more delay".to_owned()
        };
        format!(
            "{delay}, {polarity}: highest and lowest level {:.1} dB apart instead of {:.1}.",
            settable.span, now.span
        )
    } else {
        format!(
            "As they are, highest and lowest level are {:.1} dB apart; no setting of the sub does better.",
            now.span
        )
    };
    if best.delay >= 0.0 || settable.flatness - best.flatness <= WORTH {
        return on_the_sub;
    }
    let inverted = if best.inverted { " and the sub inverted" } else { "" };
    format!(
        "{on_the_sub} With {:.1} ms of delay on the mains{inverted} it would be {:.1} dB: the sub comes late, and delay can only be added.",
        -best.delay * 1e3,
        best.span
    )
}

/// What of it can be set on the sub.
fn setting(best: &SumReport) -> Vec<RawFilter> {
    let delay = (best.delay >= 5e-5).then(|| RawFilter {
        kind: RawFilterKind::Delay,
        delay: Some(field::FILTER_DELAY.typed(best.delay, 4)),
        ..RawFilter::default()
    });
    let invert = best.inverted.then(|| RawFilter { kind: RawFilterKind::Invert, ..RawFilter::default() });
    delay.into_iter().chain(invert).collect()
}

fn decibels(value: Complex) -> f64 {
    10.0 * value.norm_sqr().max(1e-20).log10()
}
