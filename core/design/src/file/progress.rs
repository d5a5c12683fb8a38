//! What has been done in the workshop, and what came of it.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use super::Typed;

/// Which steps are done, and what was printed.
#[derive(Debug, Clone, Default, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct RawProgress {
    /// Steps that are done or that failed.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    #[schema(max_items = 400)]
    pub ticks: Vec<RawTick>,
    /// What the design was when pages of it were printed.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    #[schema(max_items = 20)]
    pub printed: Vec<RawPrinted>,
}

/// Most steps that are ticked.
pub const MOST_TICKS: usize = 400;
/// Most prints that are remembered.
pub const MOST_PRINTED: usize = 20;

/// What became of a step.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct RawTick {
    /// Which step, by its name in the plan.
    #[schema(max_length = 80)]
    pub step: String,
    /// When, in RFC 3339.
    #[schema(max_length = 40)]
    pub at: String,
    /// Whether its check failed.
    #[serde(default, skip_serializing_if = "std::ops::Not::not")]
    pub failed: bool,
}

/// What was printed.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct RawPrinted {
    /// Which pages, such as `book` or `panels`.
    #[schema(max_length = 40)]
    pub page: String,
    /// When, in RFC 3339.
    #[schema(max_length = 40)]
    pub at: String,
    /// What the pages said, as a line a thing.
    #[schema(max_items = 200)]
    pub said: Vec<RawSaid>,
}

/// One thing that a page said.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct RawSaid {
    /// Of what.
    #[schema(max_length = 80)]
    pub what: String,
    /// What.
    #[schema(max_length = 120)]
    pub value: String,
}

/// An entry of the logbook.
#[derive(Debug, Clone, Default, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct RawEntry {
    /// When, in RFC 3339.
    #[schema(max_length = 40)]
    pub at: String,
    /// At which step, by its name in the plan.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(max_length = 80)]
    pub step: Option<String>,
    /// What was done or what happened.
    #[schema(max_length = 10000)]
    pub text: String,
    /// What went wrong.
    #[serde(default, skip_serializing_if = "String::is_empty")]
    #[schema(max_length = 2000)]
    pub mistake: String,
    /// Why.
    #[serde(default, skip_serializing_if = "String::is_empty")]
    #[schema(max_length = 2000)]
    pub cause: String,
    /// How it was put right.
    #[serde(default, skip_serializing_if = "String::is_empty")]
    #[schema(max_length = 2000)]
    pub fix: String,
    /// How long it took.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub hours: Option<Typed>,
    /// What it cost.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub cost: Option<Typed>,
    /// Pictures, by the hash of their content.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    #[schema(max_items = 8)]
    pub photos: Vec<String>,
}

/// Most pictures of an entry.
pub const MOST_PHOTOS: usize = 8;
/// Longest account of a mistake, its cause or its fix, in characters.
pub const LONGEST_ACCOUNT: usize = 2000;
