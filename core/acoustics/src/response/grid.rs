//! The frequencies a response is computed at.

/// Logarithmically spaced frequencies.
#[derive(Debug, Clone, PartialEq)]
pub struct FrequencyGrid(Vec<f64>);

/// Why a grid cannot be made.
#[derive(Debug, Clone, Copy, PartialEq, thiserror::Error)]
pub enum GridError {
    /// An end is outside 1 Hz to 20 kHz.
    #[error("frequency {0} Hz is outside {low} to {high} Hz", low = FrequencyGrid::LOWEST, high = FrequencyGrid::HIGHEST)]
    OutOfRange(f64),
    /// The upper end is not above the lower one.
    #[error("the upper frequency {to} Hz is not above the lower one {from} Hz")]
    Reversed {
        /// Lower end, Hz.
        from: f64,
        /// Upper end, Hz.
        to: f64,
    },
    /// Too few or too many points.
    #[error("{0} points are outside 2 to {max}", max = FrequencyGrid::MOST_POINTS)]
    Points(usize),
}

impl FrequencyGrid {
    /// Lowest frequency allowed, Hz.
    pub const LOWEST: f64 = 1.0;
    /// Highest frequency allowed, Hz.
    pub const HIGHEST: f64 = 20_000.0;
    /// Most points allowed.
    pub const MOST_POINTS: usize = 20_000;

    /// `points` frequencies from `from` to `to` (Hz), both included.
    ///
    /// # Errors
    /// See [`GridError`].
    pub fn logarithmic(from: f64, to: f64, points: usize) -> Result<Self, GridError> {
        for end in [from, to] {
            if !(Self::LOWEST..=Self::HIGHEST).contains(&end) {
                return Err(GridError::OutOfRange(end));
            }
        }
        if to <= from {
            return Err(GridError::Reversed { from, to });
        }
        if !(2..=Self::MOST_POINTS).contains(&points) {
            return Err(GridError::Points(points));
        }
        let step = (to / from).ln() / (points - 1) as f64;
        Ok(Self((0..points).map(|k| from * (step * k as f64).exp()).collect()))
    }

    /// One frequency, Hz; it must be above 0.
    pub(super) fn single(frequency: f64) -> Self {
        Self(vec![frequency])
    }

    /// The frequencies, Hz, rising.
    pub fn frequencies(&self) -> &[f64] {
        &self.0
    }
}
