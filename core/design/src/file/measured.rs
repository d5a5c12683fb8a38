//! What was measured in the workshop: it stands over what was typed before.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use super::{RawMaterial, Typed};

/// What was measured in the workshop of a design that is being built.
#[derive(Debug, Clone, Default, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct RawMeasurements {
    /// Boards.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    #[schema(max_items = 12)]
    pub boards: Vec<RawMeasuredBoard>,
    /// Diameter of the hole that the driver really needs.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub cutout: Option<Typed>,
    /// How deep the driver really is, from the front of its frame.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub depth: Option<Typed>,
    /// Net volume behind the drivers.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub volume: Option<RawMeasuredVolume>,
    /// How much longer each port behind the drivers acts than its length and the formulas of its ends say; less than nothing where it acts shorter.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub port_ends: Option<Typed>,
    /// What the traces of the finished box said, with how sure: the workshop's own defaults are learned from it.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub found: Option<RawFoundBox>,
}

/// What the traces of a finished box said.
#[derive(Debug, Clone, Default, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct RawFoundBox {
    /// The variant whose box was measured, by its name.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(max_length = 120)]
    pub of: Option<String>,
    /// Leakage QL.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub ql: Option<RawFoundValue>,
    /// Absorption QA.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub qa: Option<RawFoundValue>,
    /// How much longer each port acts than the formulas of its ends say.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub port_ends: Option<RawFoundValue>,
}

/// A value that was found.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct RawFoundValue {
    /// What was found.
    pub value: Typed,
    /// Its standard error.
    pub error: Typed,
    /// What was expected by tables and formulas alone, where they say something.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub expected: Option<Typed>,
}

/// A board as it was measured.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct RawMeasuredBoard {
    /// What it is of.
    pub material: RawMaterial,
    /// The thickness that the design has.
    pub nominal: Typed,
    /// The thickness of the board in hand.
    pub measured: Typed,
}

/// A volume as it was measured.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct RawMeasuredVolume {
    /// What was found.
    pub measured: Typed,
    /// What the design had there at that time.
    pub expected: Typed,
}

/// Most boards that are measured.
pub const MOST_MEASURED: usize = 12;
