//! What stands at the terminals of a design.

use serde::Serialize;
use utoipa::ToSchema;

/// What stands at the terminals.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Drive {
    /// V RMS.
    pub volts: f64,
    /// As power (W) into a load (ohm), where it was said so.
    pub power: Option<(f64, f64)>,
    /// Where it is from.
    pub origin: DriveOrigin,
}

/// Where a drive is from.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum DriveOrigin {
    /// The bench: 2.83 V.
    Bench,
    /// The same, because nothing else is said.
    Usual,
    /// The design says so itself.
    Typed,
    /// It is all that the amplifier gives.
    Amplifier,
}

impl Drive {
    /// 1 W into 8 ohm: what data sheets are measured with.
    pub const BENCH: Self = Self { volts: 2.83, power: None, origin: DriveOrigin::Bench };
    /// As on the bench where nothing is said.
    pub const USUAL: Self = Self { origin: DriveOrigin::Usual, ..Self::BENCH };

    /// Power (W) into a load (ohm).
    pub fn power(watts: f64, load: f64) -> Self {
        Self { volts: (watts * load).sqrt(), power: Some((watts, load)), origin: DriveOrigin::Amplifier }
    }
}
