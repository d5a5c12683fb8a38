//! The coil of a driver among the values of a fit: logarithms, the first of them.

use std::f64::consts::TAU;

use super::model::Model;
use crate::trace::Impedance;

/// A first guess at a coil: the logarithms of its resistance, its inductance, and of two inductances with a resistance beside each.
#[derive(Debug, Clone, Copy)]
pub struct Coil {
    guess: [f64; Self::VALUES],
}

/// How far a guess at the inductances may be off, as a logarithm.
const WIDE: f64 = 2.0;
/// Corners of what eddies in the iron that are tried first, over Fs.
const CORNERS: [f64; 2] = [3.0, 20.0];

impl Coil {
    /// How many values it has.
    pub const VALUES: usize = 6;
    /// How many of them [`Self::hold`] keeps near the guess.
    pub const HELD: usize = Self::VALUES - 1;

    /// From the upper end of a trace, with about so much resistance (ohm), of a driver with a resonance (Hz). `None` of an empty trace.
    pub fn guess(trace: &Impedance, re: f64, fs: f64) -> Option<Self> {
        let (top, frequency) = (trace.value.last()?, trace.frequency.last()?);
        let inductance = (top.im / (TAU * frequency)).max(1e-5);
        let beside = |corner: f64| TAU * corner * fs * 0.5 * inductance;
        let values = [
            re,
            0.3 * inductance,
            0.5 * inductance,
            beside(CORNERS[0]),
            0.5 * inductance,
            beside(CORNERS[1]),
        ];
        Some(Self { guess: values.map(f64::ln) })
    }

    /// The guess as values of a fit.
    pub fn values(&self) -> &[f64] {
        &self.guess
    }

    /// Keeps the inductances near the guess where a trace ends too early to tell them apart.
    pub fn hold(&self, all: &mut Vec<f64>, values: &[f64]) {
        all.extend((1..Self::VALUES).map(|at| (values[at] - self.guess[at]) / WIDE));
    }

    /// A driver whose coil is the first values of a fit.
    pub fn driver(values: &[f64], fs: f64, [qms, qes]: [f64; 2], creep: f64) -> Model {
        let at = |which: usize| values[which].exp();
        Model { re: at(0), le: at(1), eddies: [[at(2), at(3)], [at(4), at(5)]], fs, qms, qes, creep }
    }
}
