//! The design file: one variant.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use super::{RawBody, RawDriver, RawDriverArray, RawEnclosure, RawMeasurements, RawSignal, Typed};

/// What the `format` of a design file says.
pub const DESIGN_FORMAT: &str = "oak-drum/design";

/// One candidate design: a driver, a cabinet and what drives it.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct RawDesign {
    /// Always `oak-drum/design`.
    #[schema(pattern = "^oak-drum/design$")]
    pub format: String,
    /// Version of the format.
    #[schema(minimum = 2, maximum = 2)]
    pub version: u32,
    /// What to call it.
    #[serde(default)]
    #[schema(max_length = 120)]
    pub name: String,
    /// The driver, whole, so that the file stands alone.
    pub driver: RawDriver,
    /// What is done to it, and how many there are; one as it is where absent.
    #[serde(default, alias = "motor", skip_serializing_if = "Option::is_none")]
    pub driver_array: Option<RawDriverArray>,
    /// The cabinet.
    pub enclosure: RawEnclosure,
    /// The box itself; of usual proportions where absent.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub body: Option<RawBody>,
    /// What comes before it: filters, its amplifier and how far that is turned up, passive parts.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub signal: Option<RawSignal>,
    /// The space that loads its openings; half where absent.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub space: Option<RawSpace>,
    /// The air; 20 degC, 101.325 kPa, dry where absent.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub air: Option<RawAir>,
    /// What was measured in the workshop; it stands over what is typed above.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub measured: Option<RawMeasurements>,
    /// Anything worth keeping.
    #[serde(default, skip_serializing_if = "String::is_empty")]
    #[schema(max_length = 10000)]
    pub notes: String,
}

/// The air it plays in.
#[derive(Debug, Clone, Default, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct RawAir {
    /// Temperature.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub temperature: Option<Typed>,
    /// Static pressure.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub pressure: Option<Typed>,
    /// Relative humidity.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub humidity: Option<Typed>,
}

/// The solid angle that walls and ground leave open.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum RawSpace {
    /// Free on all sides: 4 pi.
    Full,
    /// On the ground or in a wall: 2 pi.
    Half,
    /// On the ground against a wall: pi.
    Quarter,
    /// In a corner: pi/2.
    Eighth,
}

/// What is played, by its crest factor.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum RawProgramme {
    /// A held tone: 3 dB.
    Sine,
    /// Music: 10 dB.
    Music,
    /// Film: 12 dB.
    Film,
}

impl RawProgramme {
    /// Peak over RMS, dB (common practice for music and film).
    pub fn crest(self) -> f64 {
        match self {
            Self::Sine => 20.0 * std::f64::consts::SQRT_2.log10(),
            Self::Music => 10.0,
            Self::Film => 12.0,
        }
    }
}
