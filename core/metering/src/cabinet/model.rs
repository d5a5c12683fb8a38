//! Impedance of a driver in a closed or ported box.

use std::f64::consts::TAU;

use crate::Complex;
use crate::driver::Model;

/// A driver with its box behind it (Small, JAES 20 and 21, 1972 and 1973).
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Boxed {
    /// The driver as it moves there.
    pub driver: Model,
    /// Stiffness of the air over that of the suspension.
    pub alpha: f64,
    /// Hz, where box and port are in balance with every loss taken out; nothing where there is no port.
    pub tuning: Option<f64>,
    /// Leaks at the tuning, or at Fc of a closed box.
    pub ql: f64,
    /// What the air and its fill absorb.
    pub qa: f64,
    /// Friction in the port at the tuning.
    pub qp: f64,
}

impl Boxed {
    /// Resonance of the closed box, Hz.
    pub fn fc(&self) -> f64 {
        self.driver.fs * (1.0 + self.alpha).sqrt()
    }

    /// Impedance at a frequency, ohm.
    pub fn impedance(&self, frequency: f64) -> Complex {
        let j = Complex::i();
        let omega = TAU * frequency;
        let at = TAU * self.tuning.unwrap_or_else(|| self.fc());
        let port = self.tuning.map_or(Complex::from(0.0), |_| at * at / (j * omega + at / self.qp));
        let gives = j * omega + omega / self.qa + at / self.ql + port;
        self.driver.loaded(frequency, 0.0, TAU * self.driver.fs * self.alpha / gives)
    }
}
