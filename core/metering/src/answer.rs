//! What a session comes to, as one document.

use serde::Serialize;

/// A number with its standard error.
#[derive(Debug, Clone, Copy, PartialEq, Serialize)]
pub struct Estimate {
    /// In the unit that its name ends in.
    pub value: f64,
    /// Its standard error, in the same unit.
    pub se: f64,
}

impl Estimate {
    /// A value and its error (SI) in another unit.
    pub fn times((value, se): (f64, f64), factor: f64) -> Self {
        Self { value: value * factor, se: se * factor }
    }
}

/// A driver as it was measured; the mean of several.
#[derive(Debug, Clone, Default, PartialEq, Serialize)]
pub struct DriverAnswer {
    /// Resonance in free air.
    pub fs_hz: Option<Estimate>,
    /// By the coil's resistance alone.
    pub qes: Option<Estimate>,
    /// By friction alone.
    pub qms: Option<Estimate>,
    /// Air as stiff as the suspension, of one driver.
    pub vas_l: Option<Estimate>,
    /// Coil.
    pub re_ohm: Option<Estimate>,
    /// Force factor, N/A.
    pub bl: Option<Estimate>,
    /// Of several, by how much each differs from the mean: standard deviation of Fs, Hz.
    pub spread_fs_hz: Option<f64>,
}

/// The answer to a session.
#[derive(Debug, Clone, Default, PartialEq, Serialize)]
pub struct Answer {
    /// The driver.
    pub driver: DriverAnswer,
    /// Values that the traces leave open against each other.
    pub cannot_tell_apart: Vec<[String; 2]>,
    /// What was found while reading, and why something is null.
    pub notes: Vec<String>,
}
