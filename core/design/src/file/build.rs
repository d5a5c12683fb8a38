//! The build file: a cabinet project with its variants.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use super::{
    RawBrief, RawDesign, RawEntry, RawListeningPlace, RawMeasurement, RawPreset, RawProgress, RawWorkshop,
};

/// What the `format` of a build file says.
pub const BUILD_FORMAT: &str = "oak-drum/build";

/// One cabinet project with its candidate designs.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct RawBuild {
    /// Always `oak-drum/build`.
    #[schema(pattern = "^oak-drum/build$")]
    pub format: String,
    /// Version of the format.
    #[schema(minimum = 2, maximum = 2)]
    pub version: u32,
    /// What to call it.
    #[schema(max_length = 120)]
    pub name: String,
    /// What it is for.
    #[serde(default, skip_serializing_if = "String::is_empty")]
    #[schema(max_length = 10000)]
    pub notes: String,
    /// What it must reach.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub brief: Option<RawBrief>,
    /// Its candidates.
    #[serde(default)]
    #[schema(max_items = 100)]
    pub variants: Vec<RawDesign>,
    /// Filters kept by name.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    #[schema(max_items = 50)]
    pub presets: Vec<RawPreset>,
    /// Where it is listened to.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    #[schema(max_items = 20)]
    pub places: Vec<RawListeningPlace>,
    /// How it is made.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub workshop: Option<RawWorkshop>,
    /// What has been done of it.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub progress: Option<RawProgress>,
    /// Its logbook.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    #[schema(max_items = 2000)]
    pub log: Vec<RawEntry>,
    /// What was measured of it.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    #[schema(max_items = 500)]
    pub measurements: Vec<RawMeasurement>,
}
