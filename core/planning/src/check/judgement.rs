//! What a rule says.

use serde::Serialize;
use utoipa::ToSchema;

/// How a design stands to one thing that the brief asks.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Check {
    /// Which rule: `lowest`, `loudness`, `loudest`, `even`, `size`, `fits`, `place`, `weight`, `air`, `cone`, `load`, `cost`, `family`.
    pub id: &'static str,
    /// What is asked about, in words.
    pub name: &'static str,
    /// What is reached.
    pub reached: String,
    /// What was asked, or by how much it is short.
    pub words: String,
    /// Whether it is reached.
    pub verdict: Verdict,
    /// How far: 1 is just reached, 0.5 half of what was asked, 2 twice as much.
    pub ratio: f64,
    /// Why it matters, and what fixes it where it is short.
    pub why: String,
}

impl Check {
    /// Nothing can be said: a value is missing.
    pub(super) fn unknown(id: &'static str, name: &'static str, words: &str, why: &str) -> Self {
        let (reached, words, why) = ("–".to_owned(), words.to_owned(), why.to_owned());
        Self { id, name, reached, words, verdict: Verdict::Unknown, ratio: 1.0, why }
    }
}

/// How a design stands.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Verdict {
    /// Reached.
    Met,
    /// Not reached.
    Short,
    /// It cannot be said, because a value is missing.
    Unknown,
}

impl Verdict {
    pub(super) fn of(met: bool) -> Self {
        if met { Self::Met } else { Self::Short }
    }
}
