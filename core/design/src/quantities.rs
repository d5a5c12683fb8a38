//! The tables of units, fields and families, and what they mean, as documents for programs in other languages.

use oak_acoustics::medium::{Frame, Stuffing, fill_materials};
use oak_cabinetry::{PIPES, Pipe};
use oak_units::UNITS;
use serde_json::{Map, Value, json};

use crate::field::FIELDS;
use crate::file::RawFamily;
use crate::glossary::TERMS;
use crate::start::starting_points;

/// To a tenth of a millimetre.
fn rounded(metres: f64) -> f64 {
    (metres * 1e4).round() / 1e4
}

/// Every unit with its spellings and SI factor, every field with its usual unit and range (SI), every family of cabinets with its starting
/// points, and the fills that are easily had.
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
            })
        })
        .collect();
    let families: Vec<_> = RawFamily::ALL
        .iter()
        .map(|family| {
            let starting_points = starting_points(*family).iter();
            json!({
                "id": family.id(),
                "name": family.name(),
                "good": family.good(),
                "bad": family.bad(),
                "starting_points": starting_points.map(|starting_point| json!({ "id": starting_point.id, "name": starting_point.name })).collect::<Vec<_>>(),
            })
        })
        .collect();
    let amounts = ["none", "lined", "half", "full", "packed"].into_iter().zip(Stuffing::ALL);
    let amounts: Vec<_> = amounts.map(|(id, one)| json!({ "id": id, "density": one.density() })).collect();
    let fills: Vec<_> = fill_materials()
        .iter()
        .map(|material| {
            json!({
                "id": material.id,
                "name": material.name,
                "density": material.fill.bulk_density,
                "resistivity": material.fill.resistivity,
                "frame": if material.fill.frame == Frame::Limp { "limp" } else { "rigid" },
                "source": material.source,
            })
        })
        .collect();
    json!({ "units": units, "fields": fields, "families": families, "fills": fills, "amounts": amounts })
}

/// What every field means, by its path, the glossary, and the pipes that are easily had.
pub fn meanings() -> Value {
    let fields: Map<String, Value> =
        FIELDS.iter().map(|field| (field.path.to_owned(), json!(field.meaning))).collect();
    let terms: Vec<_> =
        TERMS.iter().map(|(term, meaning)| json!({ "term": term, "meaning": meaning })).collect();
    let pipes: Vec<_> = PIPES
        .iter()
        .map(|Pipe { name, outside, inside, flare, flange, fittings }| {
            json!({
                "name": name, "outside": outside, "inside": inside, "flare": flare, "flange": flange,
                "elbow": rounded(fittings.elbow), "socket": rounded(fittings.socket),
                "coupling": rounded(fittings.coupling), "cap": rounded(fittings.cap),
            })
        })
        .collect();
    json!({ "fields": fields, "terms": terms, "pipes": pipes })
}
