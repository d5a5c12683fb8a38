//! Dry air, by the formulas of any handbook of acoustics.

use std::f64::consts::TAU;

use crate::Complex;

/// Air of a temperature.
#[derive(Debug, Clone, Copy)]
pub struct Air {
    /// kg/m3.
    pub density: f64,
    /// m/s.
    pub speed: f64,
}

/// Kinematic viscosity, m2/s, and what conduction adds to the loss at a wall, `(gamma - 1)/sqrt(Pr)`.
const VISCOSITY: f64 = 1.5e-5;
const CONDUCTION: f64 = 0.4 / 0.843;

impl Air {
    /// At a temperature (degC) and 101.325 kPa.
    pub fn at(celsius: f64) -> Self {
        let kelvin = celsius + 273.15;
        Self { density: 101_325.0 / (287.05 * kelvin), speed: (1.4 * 287.05 * kelvin).sqrt() }
    }

    /// What a round duct (radius and length, m) sets against a flow with a pressure behind it: series and characteristic impedance as `[tanh(g l)·Zc, Zc/tanh(g l)]`, Pa s/m3.
    /// Wide ducts by the boundary layer (Kirchhoff 1868; Pierce, Acoustics, section 10-5).
    pub fn duct(&self, radius: f64, length: f64, frequency: f64) -> [Complex; 2] {
        let omega = TAU * frequency;
        let layer = (2.0 * VISCOSITY / omega).sqrt() / radius;
        let j = Complex::i();
        let [rubs, warms] = [layer, CONDUCTION * layer].map(|thick| Complex::new(thick, -thick));
        let inertance = self.density * (1.0 + rubs);
        let compliance = (1.0 + warms) / (self.density * self.speed * self.speed);
        let wave = j * omega * (inertance * compliance).sqrt();
        let characteristic = (inertance / compliance).sqrt() / (std::f64::consts::PI * radius * radius);
        let turn = (wave * length).tanh();
        [characteristic * turn, characteristic / turn]
    }
}
