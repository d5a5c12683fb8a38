//! What a session comes to, as one document.

use serde::Serialize;
use utoipa::ToSchema;

use crate::loopback::Lowpass;

/// A number with its standard error.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, ToSchema)]
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
#[derive(Debug, Clone, Default, PartialEq, Serialize, ToSchema)]
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

/// Something that would fix a box.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct RemedyAnswer {
    /// What is done.
    pub what: String,
    /// How much of it.
    pub by: String,
    /// What it comes to then.
    pub predicted: Prediction,
}

/// What a remedy comes to.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, ToSchema)]
pub struct Prediction {
    /// The tuning; nothing where there is none to tell.
    pub tuning_hz: Option<f64>,
}

/// The answer to a session.
#[derive(Debug, Clone, Default, PartialEq, Serialize, ToSchema)]
pub struct Answer {
    /// Where box and port are in balance with every loss taken out; of a closed box its Fc.
    pub tuning_hz: Option<Estimate>,
    /// Leaks.
    pub ql: Option<Estimate>,
    /// What is absorbed.
    pub qa: Option<Estimate>,
    /// Of a closed box.
    pub qtc: Option<Estimate>,
    /// How large the box seems, its fill included.
    pub effective_volume_l: Option<Estimate>,
    /// Whether it leaks more than a sound one.
    pub leak: Option<bool>,
    /// Whether one of several drivers is wired backwards.
    pub reversed: Option<bool>,
    /// A filter hidden in the chain.
    pub lowpass: Option<Lowpass>,
    /// A standing wave that is in the traces.
    pub box_mode_hz: Option<Estimate>,
    /// What is taken off each port for the design's own tuning; minus is to be added.
    pub port_cut_mm: Option<Estimate>,
    /// How long each port is, by tuning and volume.
    pub port_length_mm: Option<Estimate>,
    /// The driver.
    pub driver: DriverAnswer,
    /// What wants a look.
    pub alarms: Vec<String>,
    /// What would mend it.
    pub remedies: Vec<RemedyAnswer>,
    /// Values that the traces leave open against each other.
    pub cannot_tell_apart: Vec<[String; 2]>,
    /// What was found while reading, and why something is null.
    pub notes: Vec<String>,
}
