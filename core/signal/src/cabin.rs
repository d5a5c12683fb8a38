//! A car's cabin: small against the wave, so that its pressure follows the volume that the cone moves.

use std::f64::consts::{PI, TAU};

use oak_acoustics::Complex;
use oak_acoustics::medium::Air;

/// The simple curve that builders draw (a rule of thumb): `(s^2 + sqrt2 wc s + wc^2)/(s^2 + sqrt2 wl s + wl^2)` with `fc = c/(2 L)`, `L` the longest
/// inside length, and the corner of the leak.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct SimpleLift {
    /// Above it nothing is lifted, Hz.
    pub upper: f64,
    /// Below it the lift stays at `40 lg(upper/leak)` dB, Hz.
    pub leak: f64,
}

impl SimpleLift {
    /// Of a cabin with a longest inside length (m).
    pub fn of(length: f64, leak: f64, air: &Air) -> Self {
        Self { upper: air.speed / (2.0 * length), leak }
    }

    /// Factor at a frequency, Hz.
    pub fn at(&self, frequency: f64) -> Complex {
        let s = Complex::new(0.0, frequency);
        let second = |corner: f64| s * s + s * (std::f64::consts::SQRT_2 * corner) + corner * corner;
        second(self.upper) / second(self.leak)
    }
}

/// Pressure of a sealed cabin over that at 1 m in half space: `2 pi c^2/(V w^2)`, with a resistive leak `1/(j w) -> 1/(j w + 2 pi fl)`.
pub fn pressure_zone(volume: f64, leak: f64, frequency: f64, air: &Air) -> Complex {
    let omega = TAU * frequency;
    let leaking = Complex::new(0.0, omega) * Complex::new(TAU * leak, omega);
    Complex::from(TAU * air.speed.powi(2) / volume) / leaking
}

/// Where a sealed cabin (m3) is as loud as 1 m in half space: `(c/2 pi) sqrt(2 pi/V)`, Hz.
pub fn crossing(volume: f64, air: &Air) -> f64 {
    air.speed / TAU * (TAU / volume).sqrt()
}

/// Resonance of a hole (m2) through a wall (effective length, m) with the air of a cabin (m3): `c sqrt(S/(V l))/2 pi`, Hz. Below it the lift is flat.
pub fn hole_resonance(area: f64, length: f64, volume: f64, air: &Air) -> f64 {
    air.speed * (area / (volume * length)).sqrt() / (2.0 * PI)
}
