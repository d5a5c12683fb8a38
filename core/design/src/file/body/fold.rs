//! The folded path of a line or horn.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use super::contents::RawFace;
use crate::file::Typed;

/// How the way of a line or horn is folded into its box.
#[derive(Debug, Clone, Default, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct RawFold {
    /// How often it turns back; found where absent.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub folds: Option<Typed>,
    /// How its channels lie.
    #[serde(default)]
    pub stack: RawStack,
    /// How its corners are built.
    #[serde(default)]
    pub corner: RawCorner,
    /// At which end of the channels it opens; in front, of upright ones below, where absent.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub mouth: Option<RawFace>,
    /// Thickness of the boards between the channels; as the others where absent.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub thickness: Option<Typed>,
    /// These boards, from where the way begins.
    #[serde(default, alias = "boards", skip_serializing_if = "Vec::is_empty")]
    #[schema(max_items = 12)]
    pub panels: Vec<RawFoldPanel>,
}

/// A board between two channels.
#[derive(Debug, Clone, Default, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct RawFoldPanel {
    /// Its middle, from the top or the front of the path's room; found where absent.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub at: Option<Typed>,
}

/// How channels lie.
#[derive(Debug, Clone, Copy, Default, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum RawStack {
    /// One below the other; each runs from front to back or back to front.
    #[default]
    Level,
    /// One behind the other; each runs up or down.
    Upright,
}

/// How corners are built.
#[derive(Debug, Clone, Copy, Default, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum RawCorner {
    /// Left square, the way measured along its middle.
    #[default]
    Square,
    /// With a board across the outer corner.
    Mitred,
    /// Rounded outside.
    Curved,
}
