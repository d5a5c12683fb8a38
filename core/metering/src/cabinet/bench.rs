//! A finished box, measured by the impedance of its drivers.

use super::model::Boxed;
use crate::driver::{BAND, CREEP, Coil, Model};
use crate::fit::fit;
use crate::trace::{Impedance, Weighed};

/// What is known before the box is measured. Of each: a value and how far it may be off, as a share (one standard deviation).
#[derive(Debug, Clone, Copy)]
pub struct Believed {
    /// Hz.
    pub fs: (f64, f64),
    /// By friction alone.
    pub qms: (f64, f64),
    /// By the coil's resistance alone.
    pub qes: (f64, f64),
    /// Stiffness of the air over that of the suspension.
    pub alpha: f64,
    /// Hz; nothing where there is no port.
    pub tuning: Option<f64>,
}

/// What a box is, each with its standard error.
#[derive(Debug, Clone, Copy)]
pub struct Found {
    /// Hz; of a closed box Fc.
    pub tuning: (f64, f64),
    /// Leaks.
    pub ql: (f64, f64),
    /// Stiffness of the air over that of the suspension.
    pub alpha: (f64, f64),
    /// Total Q of a closed box at Fc.
    pub qtc: Option<(f64, f64)>,
    /// The circuit that was fitted.
    pub model: Boxed,
}

/// Tunings and stiffnesses that are tried first, over what is believed.
const STARTS: [f64; 3] = [1.0, 0.8, 1.25];
/// Of so many points one is taken for that.
const COARSE: usize = 5;
/// What absorbs and rubs, and how far either may be off, as a logarithm (common practice).
const ABSORBS: (f64, f64) = (100.0, 0.5);
const RUBS: (f64, f64) = (60.0, 0.4);

/// Positions among the values: those of the coil come first.
const FS: usize = Coil::VALUES;
const QMS: usize = FS + 1;
const QES: usize = FS + 2;
const CREEPS: usize = FS + 3;
const ALPHA: usize = FS + 4;
const QL: usize = FS + 5;
const QA: usize = FS + 6;
const TUNING: usize = FS + 7;
const QP: usize = FS + 8;

fn model(values: &[f64]) -> Boxed {
    let at = |which: usize| values[which].exp();
    let driver = Coil::driver(values, at(FS), [at(QMS), at(QES)], values[CREEPS]);
    Boxed {
        driver,
        alpha: at(ALPHA),
        tuning: values.get(TUNING).map(|value| value.exp()),
        ql: at(QL),
        qa: at(QA),
        qp: values.get(QP).map_or(f64::INFINITY, |value| value.exp()),
    }
}

/// Fits the circuit to the impedance of a closed or ported box. `None` where the trace is too short, or leaves a value open.
///
/// What is believed of the driver keeps what one trace cannot tell apart from wandering; the tuning, the leaks and the ratio of stiffnesses come from the trace.
pub fn measure(trace: &Impedance, believed: &Believed) -> Option<Found> {
    let [low, high] = BAND.map(|part| part * believed.fs.0);
    let trace = trace.between(low, high);
    let least = trace.value.iter().map(|value| value.norm()).fold(f64::INFINITY, f64::min);
    let coil = Coil::guess(&trace, 0.95 * least, believed.fs.0)?;
    let fitted = |trace: Impedance, start: &[f64]| {
        let weighed = Weighed::of(trace);
        let residuals = |values: &[f64]| {
            let of = model(values);
            let mut all = Vec::new();
            weighed.off(&mut all, |frequency| of.impedance(frequency));
            let known = |at: usize, (value, share): (f64, f64)| (values[at] - value.ln()) / share;
            all.extend([known(FS, believed.fs), known(QMS, believed.qms), known(QES, believed.qes)]);
            all.extend([values[CREEPS] / CREEP, known(QA, ABSORBS)]);
            if believed.tuning.is_some() {
                all.push(known(QP, RUBS));
            }
            coil.hold(&mut all, values);
            all
        };
        let priors = 5 + usize::from(believed.tuning.is_some()) + Coil::HELD;
        let found = fit(start, priors, &residuals)?;
        let of = model(&found.values);
        Some((weighed.left(|frequency| of.impedance(frequency)), found))
    };
    // A few of the points say which beginning is the right one.
    let coarse = trace.every(COARSE);
    let tries = STARTS.into_iter().filter_map(|off| {
        let mut start = coil.values().to_vec();
        start.extend([believed.fs.0.ln(), believed.qms.0.ln(), believed.qes.0.ln(), 0.0]);
        start.extend([believed.alpha.ln(), 10f64.ln(), ABSORBS.0.ln()]);
        start.extend(believed.tuning.iter().flat_map(|tuning| [(off * tuning).ln(), RUBS.0.ln()]));
        if believed.tuning.is_none() {
            start[ALPHA] += 2.0 * off.ln();
        }
        fitted(coarse.clone(), &start)
    });
    let (_, best) = tries.min_by(|a, b| a.0.total_cmp(&b.0))?;
    let (_, found) = fitted(trace, &best.values)?;
    let of = model(&found.values);
    let fc = |values: &[f64]| values[FS].exp() * (1.0 + values[ALPHA].exp()).sqrt();
    let closed = believed.tuning.is_none();
    Some(Found {
        tuning: if closed { found.of(fc) } else { found.of(|values| values[TUNING].exp()) },
        ql: found.of(|values| values[QL].exp()),
        alpha: found.of(|values| values[ALPHA].exp()),
        qtc: closed.then(|| found.of(|values| qtc(&model(values)))),
        model: of,
    })
}

/// Total Q at Fc with the coil's resistance, friction, leaks and absorption: what stops the motion there over what stiffens it.
fn qtc(of: &Boxed) -> f64 {
    let Model { fs, qms, qes, .. } = of.driver;
    let raised = of.fc() / fs;
    // Leaks and absorption act on the air's share of the stiffness alone.
    let air = of.alpha / (1.0 + of.alpha);
    (1.0 / (qms * raised) + 1.0 / (qes * raised) + air / of.ql + air / of.qa).recip()
}

/// What is taken off a port of an effective length (m), or added where less than nothing, so that a tuning (Hz) becomes another: with the volume
/// as it is, the square of the tuning goes with one over the length.
pub fn port_cut(effective: f64, (tuning, error): (f64, f64), wanted: f64) -> (f64, f64) {
    let share = (tuning / wanted).powi(2);
    (effective * (1.0 - share), effective * 2.0 * share * error / tuning)
}
