//! The tables of units and of fields as one document, for programs in other languages.

use oak_units::UNITS;
use serde_json::{Value, json};

use crate::field::FIELDS;

/// Every unit with its spellings and SI factor, and every field with its usual unit, range (SI) and
/// meaning.
pub fn quantities() -> Value {
    let units: Vec<_> = UNITS
        .iter()
        .map(|unit| {
            json!({
                "dimension": unit.dimension.noun(),
                "symbol": unit.symbol,
                "aliases": unit.aliases,
                "factor": unit.factor,
            })
        })
        .collect();
    let fields: Vec<_> = FIELDS
        .iter()
        .map(|field| {
            json!({
                "path": field.path,
                "symbol": field.symbol,
                "dimension": field.dimension.noun(),
                "unit": field.unit,
                "min": field.min,
                "max": field.max,
                "meaning": field.meaning,
            })
        })
        .collect();
    json!({ "units": units, "fields": fields })
}
