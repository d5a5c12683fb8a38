//! A driver measured in free air, alone and with a mass on its cone.

use std::f64::consts::TAU;

use super::coil::Coil;
use super::model::{BAND, Model};
use super::points::{Points, points};
use crate::fit::{Fit, fit};
use crate::trace::{Impedance, Weighed};

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
    pub points: Points,
    /// What is left between circuit and trace, as a share of the impedance.
    pub left: f64,
}

/// How far apart the resistances of one coil may be that warms between sweeps, as a share.
const WARMING: f64 = 0.01;
/// Marked resistor of a jig: 1 % is its range; one standard deviation.
const JIG: f64 = 0.006;
/// Scales of what is weighed on a kitchen or letter balance, kg; one standard deviation.
const SCALES: f64 = 5e-5;

/// What laws of coils that are not the fit's leave in Qes, as a share; one standard deviation.
const COIL: f64 = 0.003;

/// Positions among the values: by what the coil's resistance differs in the second trace, and the added mass over the moving one.
const WARMER: usize = Model::VALUES;
const MORE: usize = WARMER + 1;

/// Fits the circuit to the complex impedance, both traces at once; to the magnitude where no phase was measured. `None` where there is no resonance, or
/// the traces leave a value open.
///
/// The added mass, and it alone, tells the moving mass (Small 1972).
pub fn measure(bench: &Bench<'_>) -> Option<Measured> {
    let by_hand = points(bench.free, None)?;
    let [low, high] = BAND.map(|part| part * by_hand.fs);
    let free = bench.free.between(low, high);
    let coil = Coil::guess(&free, 0.95 * by_hand.re, by_hand.fs)?;
    let free = Weighed::of(free);
    let mut start = Model::start(&coil, by_hand.fs, by_hand.qms, by_hand.qes);
    let loaded = bench.loaded.and_then(|(trace, mass)| {
        let peak = points(trace, None)?;
        let more = (by_hand.fs / peak.fs).powi(2) - 1.0;
        start.extend([0.0, more.max(1e-3).ln()]);
        Some((Weighed::of(trace.between(low, high)), mass))
    });
    let residuals = |values: &[f64]| {
        let of = Model::of(values);
        let mut all = Vec::new();
        free.off(&mut all, |_, frequency| of.impedance(frequency, 0.0));
        if let Some((trace, _)) = &loaded {
            let (warm, more) = (values[WARMER], values[MORE].exp());
            trace.off(&mut all, |_, frequency| of.impedance(frequency, more) + of.re * warm);
        }
        if loaded.is_some() {
            all.push(values[WARMER] / WARMING);
        }
        Model::hold(&coil, None, &mut all, values);
        all
    };
    let data = free.parts() + loaded.as_ref().map_or(0, |(trace, _)| trace.parts());
    let found = fit(&start, data, &residuals)?;
    let of = Model::of(&found.values);
    let re = found.of(|values| values[0].exp());
    let masses = loaded.map(|(_, mass)| masses(&found, mass));
    Some(Measured {
        re: (re.0, re.1.hypot(JIG * re.0)),
        fs: found.of(|values| values[Model::FS].exp()),
        qes: {
            let qes = found.of(|values| values[Model::QES].exp());
            (qes.0, qes.1.hypot(COIL * qes.0))
        },
        qms: found.of(|values| values[Model::QMS].exp()),
        mms: masses.map(|[mms, _, _]| mms),
        cms: masses.map(|[_, cms, _]| cms),
        bl: masses.map(|[_, _, bl]| bl),
        model: of,
        points: by_hand,
        left: free.left(|_, frequency| of.impedance(frequency, 0.0)),
    })
}

/// Moving mass, compliance and force factor, with what the scales and the jig leave open.
fn masses(found: &Fit, added: f64) -> [(f64, f64); 3] {
    let mms = |values: &[f64]| added / values[MORE].exp();
    let cms = |values: &[f64]| ((TAU * values[Model::FS].exp()).powi(2) * mms(values)).recip();
    let bl = |values: &[f64]| {
        (TAU * values[Model::FS].exp() * mms(values) * values[0].exp() / values[Model::QES].exp()).sqrt()
    };
    let scales = SCALES / added;
    let wider = |(value, error): (f64, f64), share: f64| (value, error.hypot(share * value));
    [wider(found.of(mms), scales), wider(found.of(cms), scales), wider(found.of(bl), 0.5 * scales.hypot(JIG))]
}
