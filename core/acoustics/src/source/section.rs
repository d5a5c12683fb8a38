//! A rational function of frequency: what active filters are made of.

use crate::Complex;
use crate::lanes::Real;

/// `(b0 + b1 s + b2 s^2)/(a0 + a1 s + a2 s^2)` with `s = j f/f0`.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Section {
    /// Frequency that `s` is normalised to, Hz.
    pub frequency: f64,
    /// `b0`, `b1`, `b2`.
    pub numerator: [f64; 3],
    /// `a0`, `a1`, `a2`.
    pub denominator: [f64; 3],
}

impl Section {
    /// The same above and below its frequency changed: `s -> 1/s`, which makes a high-pass of a low-pass.
    #[must_use]
    pub fn mirrored(self) -> Self {
        // A section of first order stays one.
        let order = if self.numerator[2] == 0.0 && self.denominator[2] == 0.0 { 1 } else { 2 };
        let turn = |mut of: [f64; 3]| {
            of[..=order].reverse();
            of
        };
        Self { numerator: turn(self.numerator), denominator: turn(self.denominator), ..self }
    }

    /// Numerator and denominator at an angular frequency, rad/s.
    #[inline(always)]
    pub fn parts<T: Real>(&self, omega: T) -> [Complex<T>; 2] {
        let x = omega * T::of((std::f64::consts::TAU * self.frequency).recip());
        let square = x * x;
        let value = |[zeroth, first, second]: [f64; 3]| {
            Complex::new(T::of(zeroth) - T::of(second) * square, T::of(first) * x)
        };
        [value(self.numerator), value(self.denominator)]
    }

    /// `-d arg H/d omega` at an angular frequency (rad/s), s, of the rational function itself.
    pub fn group_delay(&self, omega: f64) -> f64 {
        let scale = (std::f64::consts::TAU * self.frequency).recip();
        let x = omega * scale;
        // d arg P/dx = Im(P'/P) with P' = dP/dx.
        let turn = |[zeroth, first, second]: [f64; 3]| {
            let value = Complex::new(zeroth - second * x * x, first * x);
            let slope = Complex::new(-2.0 * second * x, first);
            // A zero on the axis turns the phase by a jump, not by a slope.
            if value.norm_sqr() > 0.0 { (slope / value).im } else { 0.0 }
        };
        (turn(self.denominator) - turn(self.numerator)) * scale
    }
}
