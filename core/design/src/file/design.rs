//! The design file: one variant.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use super::{RawDriver, Typed};

/// What the `format` of a design file says.
pub const DESIGN_FORMAT: &str = "oak-drum/design";

/// One candidate design: a driver, a cabinet and a drive.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct RawDesign {
    /// Always `oak-drum/design`.
    #[schema(pattern = "^oak-drum/design$")]
    pub format: String,
    /// Version of the format.
    #[schema(minimum = 1, maximum = 1)]
    pub version: u32,
    /// What to call it.
    #[serde(default)]
    #[schema(max_length = 120)]
    pub name: String,
    /// The driver, whole, so that the file stands alone.
    pub driver: RawDriver,
    /// The cabinet.
    pub enclosure: RawEnclosure,
    /// What drives it; 2.83 V where absent.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub drive: Option<RawDrive>,
    /// The air; 20 degC, 101.325 kPa, dry where absent.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub air: Option<RawAir>,
    /// Anything worth keeping.
    #[serde(default, skip_serializing_if = "String::is_empty")]
    #[schema(max_length = 10000)]
    pub notes: String,
}

/// Kind of cabinet.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum RawFamily {
    /// A closed box.
    Sealed,
    /// A box with ports.
    Ported,
}

/// The cabinet. Values that the family does not use are kept and ignored, so that trying another
/// family loses nothing.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct RawEnclosure {
    /// Kind of cabinet.
    pub family: RawFamily,
    /// Net inside volume, without what driver, ports and braces take.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub volume: Option<Typed>,
    /// Leakage Q at the tuning; lossless where absent.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub ql: Option<Typed>,
    /// Absorption Q at the tuning; lossless where absent.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub qa: Option<Typed>,
    /// Ported: the tuning that ports without a length are made for.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub tuning: Option<Typed>,
    /// Ported: the ports.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    #[schema(max_items = 8)]
    pub ports: Vec<RawPort>,
}

/// Shape of a port's cross-section.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum RawShape {
    /// A tube, by its inside diameter.
    Round,
    /// A rectangle, by its inside width and height.
    Slot,
}

/// How a port ends.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum RawEnd {
    /// In open air.
    Free,
    /// In a wide wall.
    Flanged,
    /// Along one wall of the box; inner end only.
    OneWall,
    /// Along two walls; inner end only.
    TwoWalls,
    /// Along three walls; inner end only.
    ThreeWalls,
}

/// A port, or several equal ones.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct RawPort {
    /// Shape of its cross-section.
    pub shape: RawShape,
    /// Round: inside diameter.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub diameter: Option<Typed>,
    /// Slot: inside width.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub width: Option<Typed>,
    /// Slot: inside height.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub height: Option<Typed>,
    /// Length; found from the tuning where absent.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub length: Option<Typed>,
    /// How many equal ones; 1 where absent.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub count: Option<Typed>,
    /// The end in the box; free where absent.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub inner_end: Option<RawEnd>,
    /// The end outside; flanged where absent.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub outer_end: Option<RawEnd>,
}

/// What drives it: one of the two.
#[derive(Debug, Clone, Default, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct RawDrive {
    /// Power into the nominal impedance.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub power: Option<Typed>,
    /// Voltage at the terminals, RMS.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub voltage: Option<Typed>,
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
