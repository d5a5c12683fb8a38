//! A value as typed.

use std::fmt;

use serde::{Deserialize, Serialize, Serializer};
use utoipa::ToSchema;

/// A value as typed: a text with its unit (`"1.5 cuft"`), or a bare number where the quantity has no
/// unit (Q values, counts).
#[derive(Debug, Clone, PartialEq, Deserialize, ToSchema)]
#[serde(untagged)]
#[schema(examples("44 l", "11 5/16 in", 0.38))]
pub enum Typed {
    /// A bare number.
    Number(f64),
    /// Anything else; read by the units crate.
    Text(String),
}

/// Largest number whose whole neighbours are all exact.
const WHOLE: f64 = 9_007_199_254_740_992.0;

impl Serialize for Typed {
    /// Whole numbers are written as they were typed, `7` and not `7.0`.
    fn serialize<S: Serializer>(&self, serializer: S) -> Result<S::Ok, S::Error> {
        match self {
            Self::Number(number) if number.fract() == 0.0 && number.abs() < WHOLE => {
                serializer.serialize_i64(*number as i64)
            }
            Self::Number(number) => serializer.serialize_f64(*number),
            Self::Text(text) => serializer.serialize_str(text),
        }
    }
}

impl fmt::Display for Typed {
    fn fmt(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
        match self {
            Self::Number(number) => number.fmt(f),
            Self::Text(text) => f.write_str(text),
        }
    }
}

impl From<&str> for Typed {
    fn from(text: &str) -> Self {
        Self::Text(text.to_owned())
    }
}

impl From<f64> for Typed {
    fn from(number: f64) -> Self {
        Self::Number(number)
    }
}
