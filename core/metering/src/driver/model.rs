//! Impedance of a driver in free air.

use std::f64::consts::{LN_10, TAU};

use crate::Complex;

/// The band that is fitted, as parts of Fs: above, eddies in the iron follow laws of their own.
pub(crate) const BAND: [f64; 2] = [0.2, 12.0];
/// Creep is some per cent of a decade; one standard deviation of it.
pub(crate) const CREEP: f64 = 0.06;

/// Values of the circuit: the coil's resistance, an inductance, what eddies in the iron as two inductances with a resistance beside each (any law of eddies is a
/// sum of such, and two serve for the decades around a resonance), and the suspended mass as a resonance.
///
/// The suspension gives way more the slower it is pushed: its compliance falls by a share `creep` of itself for each decade of frequency (Knudsen and
/// Jensen, JAES 41, 1993, the part in phase).
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Model {
    /// Ohm.
    pub re: f64,
    /// H.
    pub le: f64,
    /// H and ohm of inductances with a resistance beside each.
    pub eddies: [[f64; 2]; 2],
    /// Hz.
    pub fs: f64,
    /// By friction alone.
    pub qms: f64,
    /// By the coil's resistance alone.
    pub qes: f64,
    /// Share of a decade.
    pub creep: f64,
}

impl Model {
    /// Impedance at a frequency (Hz) with the moving mass made larger by a share, ohm.
    pub fn impedance(&self, frequency: f64, more: f64) -> Complex {
        self.loaded(frequency, more, Complex::from(0.0))
    }

    /// The same with what the air behind the cone sets against it, over the impedance of the suspension's compliance at Fs.
    pub fn loaded(&self, frequency: f64, more: f64, air: Complex) -> Complex {
        let j = Complex::i();
        let omega = TAU * frequency;
        let x = frequency / self.fs;
        let gives = 1.0 - self.creep * x.ln() / LN_10;
        let motion = self.re * self.qms / self.qes;
        let off = self.qms * (x * (1.0 + more) - 1.0 / (x * gives));
        let eddies = self.eddies.map(|[inductance, resistance]| {
            let reactance = j * omega * inductance;
            reactance * resistance / (reactance + resistance)
        });
        Complex::from(self.re)
            + j * omega * self.le
            + eddies[0]
            + eddies[1]
            + motion / (1.0 + j * off + self.qms * air)
    }
}
