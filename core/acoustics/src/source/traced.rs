//! A transfer function as it was measured.

use crate::Complex;

/// Magnitude and phase over frequency; between the points straight over the logarithm of frequency, beyond the ends held.
#[derive(Debug, Clone, PartialEq)]
pub struct Traced {
    /// Natural logarithm of frequency in Hz, rising.
    log_frequency: Vec<f64>,
    /// Natural logarithm of the magnitude.
    log_magnitude: Vec<f64>,
    /// rad, without jumps.
    phase: Vec<f64>,
}

/// Why points are no transfer function.
#[derive(Debug, Clone, Copy, PartialEq, thiserror::Error)]
pub enum TracedError {
    /// Fewer than two points.
    #[error("a trace needs at least two points")]
    TooShort,
    /// Frequencies that do not rise, or are not above zero.
    #[error("frequencies must be above zero and rise; at point {0} they do not")]
    NotRising(usize),
    /// A value that is no number.
    #[error("point {0} is not a number")]
    NotANumber(usize),
}

impl Traced {
    /// From points of frequency (Hz), magnitude (dB) and phase (degrees, wrapped or not).
    ///
    /// # Errors
    /// See [`TracedError`].
    pub fn new(points: &[[f64; 3]]) -> Result<Self, TracedError> {
        if points.len() < 2 {
            return Err(TracedError::TooShort);
        }
        if let Some(bad) = points.iter().position(|point| point.iter().any(|value| !value.is_finite())) {
            return Err(TracedError::NotANumber(bad));
        }
        let falls = |k: &usize| points[*k][0] <= if *k == 0 { 0.0 } else { points[*k - 1][0] };
        if let Some(bad) = (0..points.len()).find(falls) {
            return Err(TracedError::NotRising(bad));
        }
        let mut phase: Vec<f64> = Vec::with_capacity(points.len());
        for [_, _, degrees] in points {
            let wrapped = degrees.to_radians();
            let turns = phase.last().map_or(0.0, |last| ((last - wrapped) / std::f64::consts::TAU).round());
            phase.push(wrapped + turns * std::f64::consts::TAU);
        }
        Ok(Self {
            log_frequency: points.iter().map(|point| point[0].ln()).collect(),
            log_magnitude: points.iter().map(|point| point[1] * std::f64::consts::LN_10 / 20.0).collect(),
            phase,
        })
    }

    /// Transfer at an angular frequency, rad/s.
    pub fn transfer(&self, omega: f64) -> Complex {
        let (index, part) = self.place(omega);
        let between = |of: &[f64]| of[index] + part.clamp(0.0, 1.0) * (of[index + 1] - of[index]);
        Complex::from_polar(between(&self.log_magnitude).exp(), between(&self.phase))
    }

    /// `-d arg H/d omega` at an angular frequency (rad/s), s; none beyond the ends.
    pub fn group_delay(&self, omega: f64) -> f64 {
        let (index, part) = self.place(omega);
        if !(0.0..=1.0).contains(&part) {
            return 0.0;
        }
        let step = self.log_frequency[index + 1] - self.log_frequency[index];
        (self.phase[index] - self.phase[index + 1]) / (step * omega)
    }

    /// The stretch that holds a frequency or lies nearest, and where in it.
    fn place(&self, omega: f64) -> (usize, f64) {
        let x = (omega / std::f64::consts::TAU).ln();
        let after = self.log_frequency.partition_point(|at| *at <= x);
        let index = after.clamp(1, self.log_frequency.len() - 1) - 1;
        let [low, high] = [index, index + 1].map(|k| self.log_frequency[k]);
        (index, (x - low) / (high - low))
    }
}
