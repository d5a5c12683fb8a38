//! The coil of a driver among the values of a fit.

use std::f64::consts::{FRAC_PI_2, TAU};

use super::model::Model;
use crate::Complex;
use crate::trace::Impedance;

/// What a coil does besides resist: an inductance, a power of frequency, and inductances with a resistance beside each, in series. Iron under a coil gives
/// any of these (Vanderkooy, JAES 37, 1989; Wright, JAES 38, 1990).
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Inductive {
    /// H.
    pub le: f64,
    /// `K (j w)^n`: ohm at 1 rad/s, and n.
    pub power: [f64; 2],
    /// Twice H and ohm beside each other.
    pub eddies: [[f64; 2]; 2],
}

impl Inductive {
    /// Impedance at a frequency (Hz), ohm.
    pub fn impedance(&self, frequency: f64) -> Complex {
        let omega = TAU * frequency;
        let [k, n] = self.power;
        let beside = self.eddies.map(|[inductance, resistance]| {
            let reactance = Complex::new(0.0, omega * inductance);
            reactance * resistance / (reactance + resistance)
        });
        Complex::new(0.0, omega * self.le)
            + Complex::from_polar(k * omega.powf(n), n * FRAC_PI_2)
            + beside[0]
            + beside[1]
    }
}

/// What is known of a coil beforehand, as values of a fit: the logarithms of its resistance, its inductance, its power law's size, the exponent, and the logarithms of
/// inductance and resistance of the two pairs. How far each may be off.
#[derive(Debug, Clone, Copy)]
pub struct Coil {
    known: [f64; Self::VALUES],
    off: [f64; Self::VALUES],
}

/// Exponents of the power law lie here (Vanderkooy 1989: 0.5 for a solid pole, 1 for none).
const EXPONENT: (f64, f64) = (0.7, 0.1);
/// How far a guess at the rest may be off, as a logarithm; the resistance is as the trace has it.
const WIDE: f64 = 1.5;
/// The same of a coil that was measured by itself: its iron stays, its wire warms.
const SAME: [f64; 8] = [0.012, 0.3, 0.3, 0.03, 0.3, 0.3, 0.3, 0.3];
/// Where the corners of the pairs are tried first, over Fs.
const CORNERS: [f64; 2] = [3.0, 15.0];

impl Coil {
    /// How many values it has.
    pub const VALUES: usize = 8;

    /// From the upper end of a trace, with about so much resistance (ohm), of a driver with a resonance (Hz). `None` of an empty trace.
    pub fn guess(trace: &Impedance, re: f64, fs: f64) -> Option<Self> {
        let (top, frequency) = (trace.value.last()?, trace.frequency.last()?);
        let omega = TAU * frequency;
        let rest = if trace.phased { top.im } else { (top.norm().powi(2) - re * re).max(0.0).sqrt() };
        let inductance = (rest / omega).max(1e-5);
        let (power, beside) = (0.4 * inductance * omega.powf(1.0 - EXPONENT.0), 0.2 * inductance);
        let [low, high] = CORNERS.map(|corner| TAU * corner * fs * beside);
        let known = [re, 0.3 * inductance, power, 1.0, beside, low, beside, high].map(f64::ln);
        let mut known = Self { known, off: [10.0, WIDE, WIDE, EXPONENT.1, WIDE, WIDE, WIDE, WIDE] };
        known.known[3] = EXPONENT.0;
        Some(known)
    }

    /// A coil that was measured by itself, so many of it in series less those in parallel: `times` its impedance.
    pub fn measured(of: &Model, times: f64) -> Self {
        let Inductive { le, power: [k, n], eddies: [low, high] } = of.coil;
        let mut known =
            [of.re, le, k, 1.0, low[0], low[1], high[0], high[1]].map(|value| (value * times).ln());
        known[3] = n;
        Self { known, off: SAME }
    }

    /// What is known, as values of a fit.
    pub fn values(&self) -> &[f64] {
        &self.known
    }

    /// Keeps the values near what is known of them.
    pub fn hold(&self, all: &mut Vec<f64>, values: &[f64]) {
        all.extend((0..Self::VALUES).map(|at| (values[at] - self.known[at]) / self.off[at]));
    }

    /// The coil's resistance and the rest of it from the values of a fit.
    pub fn of(values: &[f64]) -> (f64, Inductive) {
        let at = |which: usize| values[which].exp();
        (at(0), Inductive { le: at(1), power: [at(2), values[3]], eddies: [[at(4), at(5)], [at(6), at(7)]] })
    }
}
