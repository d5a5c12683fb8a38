//! Impedance of a driver in free air.

use std::f64::consts::LN_10;

use super::coil::{Coil, Inductive};
use crate::Complex;

/// The band that is fitted, as parts of Fs: above, waves in the cone itself begin.
pub(crate) const BAND: [f64; 2] = [0.2, 12.0];
/// Creep is some per cent of a decade, and what it rubs away follows from it in part; one standard deviation.
const CREEP: f64 = 0.06;
const RUBBED: f64 = 0.06;
/// How far either may be off what was measured before.
const AGAIN: f64 = 0.05;

/// Values of the circuit: the coil, and the suspended mass as a resonance.
///
/// The suspension gives way more the slower it is pushed: its compliance falls by a share `creep` of itself for each decade of frequency, and what it gives in creeping it loses in part (Knudsen and
/// Jensen, JAES 41, 1993).
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Model {
    /// Ohm.
    pub re: f64,
    /// What else the coil does.
    pub coil: Inductive,
    /// Hz.
    pub fs: f64,
    /// By friction alone, at Fs.
    pub qms: f64,
    /// By the coil's resistance alone.
    pub qes: f64,
    /// Share of a decade.
    pub creep: f64,
    /// The part of the compliance that is turned into friction.
    pub rubbed: f64,
}

impl Model {
    /// How many values of a fit it has.
    pub const VALUES: usize = Coil::VALUES + 5;
    /// Where they stand: after those of the coil.
    pub const FS: usize = Coil::VALUES;
    /// See above.
    pub const QMS: usize = Self::FS + 1;
    /// See above.
    pub const QES: usize = Self::FS + 2;

    /// Values to begin with.
    pub fn start(coil: &Coil, fs: f64, qms: f64, qes: f64) -> Vec<f64> {
        let mut start = coil.values().to_vec();
        start.extend([fs.ln(), qms.ln(), qes.ln(), 0.0, 0.0]);
        start
    }

    /// From the values of a fit.
    pub fn of(values: &[f64]) -> Self {
        let (re, coil) = Coil::of(values);
        let [fs, qms, qes] = [Self::FS, Self::QMS, Self::QES].map(|which| values[which].exp());
        Self { re, coil, fs, qms, qes, creep: values[Self::QES + 1], rubbed: values[Self::QES + 2] }
    }

    /// Keeps coil and creep near what is known of them: where the driver was `measured` by itself, near what it was then.
    pub fn hold(coil: &Coil, measured: Option<&Self>, all: &mut Vec<f64>, values: &[f64]) {
        coil.hold(all, values);
        let [creep, rubbed] = [values[Self::QES + 1], values[Self::QES + 2]];
        match measured {
            Some(of) => all.extend([(creep - of.creep) / AGAIN, (rubbed - of.rubbed) / AGAIN]),
            None => all.extend([creep / CREEP, rubbed / RUBBED]),
        }
    }

    /// Impedance at a frequency (Hz) with the moving mass made larger by a share, ohm.
    pub fn impedance(&self, frequency: f64, more: f64) -> Complex {
        self.still(frequency) + self.motion(frequency, more, Complex::from(0.0))
    }

    /// What the coil is while the cone is held, ohm.
    pub fn still(&self, frequency: f64) -> Complex {
        self.re + self.coil.impedance(frequency)
    }

    /// What the motion adds, with what the air behind the cone sets against it over the impedance of the suspension's compliance at Fs, ohm.
    pub fn motion(&self, frequency: f64, more: f64, air: Complex) -> Complex {
        let x = frequency / self.fs;
        let gives = Complex::new(1.0 - self.creep * x.ln() / LN_10, -self.rubbed);
        let spring = (Complex::i() * x * gives).inv();
        // Qms is all friction there is at Fs.
        let rubs = 1.0 / self.qms - self.rubbed / (1.0 + self.rubbed * self.rubbed);
        self.re / self.qes / (Complex::new(rubs, x * (1.0 + more)) + spring + air)
    }
}
