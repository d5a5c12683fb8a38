//! A driver measured in free air, alone and with a mass on its cone.

use std::f64::consts::TAU;

use super::model::Model;
use super::points::{Points, points};
use crate::fit::{Fit, fit};
use crate::trace::Impedance;

/// What was measured of a driver.
#[derive(Debug, Clone)]
pub struct Bench<'a> {
    /// In free air.
    pub free: &'a Impedance,
    /// The same with a mass (kg) on the cone.
    pub loaded: Option<(&'a Impedance, f64)>,
}

/// What a driver is, each with its standard error. What the traces do not contain is `None`.
#[derive(Debug, Clone)]
pub struct Measured {
    /// Ohm.
    pub re: (f64, f64),
    /// Hz.
    pub fs: (f64, f64),
    /// By the coil's resistance alone.
    pub qes: (f64, f64),
    /// By friction alone.
    pub qms: (f64, f64),
    /// kg.
    pub mms: Option<(f64, f64)>,
    /// m/N.
    pub cms: Option<(f64, f64)>,
    /// N/A.
    pub bl: Option<(f64, f64)>,
    /// The circuit that was fitted.
    pub model: Model,
    /// What the classic way by three points says of the same trace.
    pub points: Option<Points>,
    /// What is left between circuit and trace, as a share of the impedance.
    pub left: f64,
}

/// The band that is fitted, as parts of Fs: above, eddies in the iron follow laws of their own.
const BAND: [f64; 2] = [0.2, 12.0];
/// How far what is known beforehand may be off: two resistances of one coil that warms between sweeps, and creep, which is some per cent of a decade.
const WARMING: f64 = 0.01;
const CREEP: f64 = 0.06;
/// How far a first guess at the parts of the coil may be off, as a logarithm.
const WIDE: f64 = 2.0;
/// Corners of what eddies in the iron that are tried first, over Fs.
const CORNERS: [f64; 2] = [3.0, 20.0];
/// Marked resistor of a jig: 1 % is its range; one standard deviation.
const JIG: f64 = 0.006;
/// Scales of what is weighed on a kitchen or letter balance, kg; one standard deviation.
const SCALES: f64 = 5e-5;

/// Positions of the logarithms and of creep among the values of a fit.
const RE: usize = 0;
const LE: usize = 1;
const EDDIES: [[usize; 2]; 2] = [[2, 3], [4, 5]];
const FS: usize = 6;
const QMS: usize = 7;
const QES: usize = 8;
const CREEPS: usize = 9;
/// By what the coil's resistance differs in the second trace, and the added mass over the moving one.
const WARMER: usize = 10;
const MORE: usize = 11;

fn model(values: &[f64]) -> Model {
    let at = |which: usize| values[which].exp();
    Model {
        re: at(RE),
        le: at(LE),
        eddies: EDDIES.map(|pair| pair.map(at)),
        fs: at(FS),
        qms: at(QMS),
        qes: at(QES),
        creep: values[CREEPS],
    }
}

/// Fits the circuit to the complex impedance, both traces at once; to the magnitude where no phase was measured. `None` where there is no resonance, or
/// the traces leave a value open.
///
/// The added mass, and it alone, tells the moving mass (Small 1972).
pub fn measure(bench: &Bench<'_>) -> Option<Measured> {
    let by_hand = points(bench.free, None)?;
    let [low, high] = BAND.map(|part| part * by_hand.fs);
    let free = bench.free.between(low, high);
    let inductance = (free.value.last()?.im / (TAU * free.frequency.last()?)).max(1e-5);
    let free = Weighed::of(free);
    let mut start = vec![0.0; 10];
    start[RE] = (by_hand.re * 0.98).ln();
    start[LE] = (0.3 * inductance).ln();
    for (pair, corner) in EDDIES.into_iter().zip(CORNERS) {
        let [own, beside] = [0.5 * inductance, TAU * corner * by_hand.fs * 0.5 * inductance];
        (start[pair[0]], start[pair[1]]) = (own.ln(), beside.ln());
    }
    (start[FS], start[QMS], start[QES]) = (by_hand.fs.ln(), by_hand.qms.ln(), by_hand.qes.ln());
    let loaded = bench.loaded.and_then(|(trace, mass)| {
        let peak = points(trace, None)?;
        let more = (by_hand.fs / peak.fs).powi(2) - 1.0;
        start.extend([0.0, more.max(1e-3).ln()]);
        Some((Weighed::of(trace.between(low, high)), mass))
    });
    let coil: Vec<(usize, f64)> =
        [LE].into_iter().chain(EDDIES.into_iter().flatten()).map(|at| (at, start[at])).collect();
    let residuals = |values: &[f64]| {
        let of = model(values);
        let mut all = Vec::new();
        each(&mut all, &free, |frequency| of.impedance(frequency, 0.0));
        if let Some((trace, _)) = &loaded {
            let (warm, more) = (values[WARMER], values[MORE].exp());
            each(&mut all, trace, |frequency| of.impedance(frequency, more) + of.re * warm);
            all.push(warm / WARMING);
        }
        all.push(of.creep / CREEP);
        // Which of the inductances is which is open where the trace ends early.
        all.extend(coil.iter().map(|(at, guess)| (values[*at] - guess) / WIDE));
        all
    };
    let priors = 6 + usize::from(loaded.is_some());
    let found = fit(&start, priors, &residuals)?;
    let of = model(&found.values);
    let re = found.of(|values| values[RE].exp());
    let masses = loaded.map(|(_, mass)| masses(&found, mass));
    Some(Measured {
        re: (re.0, re.1.hypot(JIG * re.0)),
        fs: found.of(|values| values[FS].exp()),
        qes: found.of(|values| values[QES].exp()),
        qms: found.of(|values| values[QMS].exp()),
        mms: masses.map(|[mms, _, _]| mms),
        cms: masses.map(|[_, cms, _]| cms),
        bl: masses.map(|[_, _, bl]| bl),
        model: of,
        points: Some(by_hand),
        left: share_left(&free, &of),
    })
}

/// Moving mass, compliance and force factor, with what the scales and the jig leave open.
fn masses(found: &Fit, added: f64) -> [(f64, f64); 3] {
    let mms = |values: &[f64]| added / values[MORE].exp();
    let cms = |values: &[f64]| ((TAU * values[FS].exp()).powi(2) * mms(values)).recip();
    let bl =
        |values: &[f64]| (TAU * values[FS].exp() * mms(values) * values[RE].exp() / values[QES].exp()).sqrt();
    let scales = SCALES / added;
    let wider = |(value, error): (f64, f64), share: f64| (value, error.hypot(share * value));
    [wider(found.of(mms), scales), wider(found.of(cms), scales), wider(found.of(bl), 0.5 * scales.hypot(JIG))]
}

/// A trace with what each of its values is measured by: the mean size of its neighbours, which noise moves less than its own.
struct Weighed {
    trace: Impedance,
    size: Vec<f64>,
}

/// Neighbours on either side.
const BESIDE: usize = 3;

impl Weighed {
    fn of(trace: Impedance) -> Self {
        let count = trace.value.len();
        let mean = |at: usize| {
            let near = at.saturating_sub(BESIDE)..(at + BESIDE + 1).min(count);
            let all = near.len() as f64;
            near.map(|at| trace.value[at].norm()).sum::<f64>() / all
        };
        let size = (0..count).map(mean).collect();
        Self { trace, size }
    }
}

/// What a trace is off by, as a share of the impedance: both parts, or the magnitude where there is no phase.
fn each(all: &mut Vec<f64>, weighed: &Weighed, of: impl Fn(f64) -> crate::Complex) {
    let Weighed { trace, size } = weighed;
    for ((frequency, value), size) in trace.frequency.iter().zip(&trace.value).zip(size) {
        let ours = of(*frequency);
        if trace.phased {
            let off = (ours - value) / size;
            all.extend([off.re, off.im]);
        } else {
            all.push((ours.norm() - value.norm()) / size);
        }
    }
}

fn share_left(trace: &Weighed, of: &Model) -> f64 {
    let mut all = Vec::new();
    each(&mut all, trace, |frequency| of.impedance(frequency, 0.0));
    (all.iter().map(|one| one * one).sum::<f64>() / all.len().max(1) as f64).sqrt()
}
