//! What the columns of a driver table mean: guessed from header and unit, or said by whoever imports it.

use oak_units::{Unit, unit_named};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use crate::field::{Field, driver_fields};

/// What a column holds.
#[derive(Debug, Clone, Copy, PartialEq)]
pub(super) enum Column {
    /// A text of the driver, by its name in files.
    Text(&'static str),
    /// A quantity, with the unit that bare numbers have.
    Value(&'static Field, Option<&'static Unit>),
    Ignored,
}

/// What a column shall hold.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct ColumnChoice {
    /// A field of the driver file; empty leaves the column out.
    pub field: String,
    /// Unit of bare numbers; empty takes the usual one.
    #[serde(default)]
    pub unit: String,
}

/// How a column was understood.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct ColumnReport {
    /// Its header.
    pub header: String,
    /// What it was taken for; empty where it means nothing here.
    pub field: &'static str,
    /// Unit of bare numbers; empty for texts and plain numbers.
    pub unit: &'static str,
    /// The first cells that hold something, at most three.
    pub samples: Vec<String>,
}

/// Texts of a driver that a column can hold.
const TEXTS: [&str; 6] = ["name", "maker", "coils", "frequency_range", "tags", "notes"];

/// Other words for fields, without spaces and signs, as data sheets and shops print them (common practice).
const ALSO: &[(&str, &[&str])] = &[
    ("name", &["model", "driver", "woofer", "type", "partnumber", "sku"]),
    ("maker", &["brand", "manufacturer", "make", "vendor"]),
    ("frequency_range", &["range", "frequencyresponse", "bandwidth"]),
    ("tags", &["tag", "keywords", "category"]),
    ("notes", &["note", "comment", "comments", "remarks"]),
    ("size", &["diameter", "nominaldiameter", "nominalsize"]),
    ("nominal", &["z", "znom", "impedance", "nominalimpedance"]),
    ("re", &["rdc", "dcr", "dcresistance", "revc"]),
    ("le", &["inductance", "voicecoilinductance", "levc", "l"]),
    ("fs", &["f0", "fo", "resonance", "resonancefrequency", "resonantfrequency", "freeairresonance"]),
    ("qms", &["qm", "mechanicalq"]),
    ("qes", &["qe", "electricalq"]),
    ("qts", &["qt", "totalq"]),
    ("vas", &["equivalentvolume", "equivalentairvolume", "compliancevolume"]),
    ("cms", &["compliance", "suspensioncompliance", "mechanicalcompliance"]),
    ("mms", &["movingmass", "mass"]),
    ("bl", &["bxl", "forcefactor", "motorstrength"]),
    ("sd", &["conearea", "effectivearea", "pistonarea", "surfacearea"]),
    ("xmax", &["excursion", "linearexcursion", "maxlinearexcursion", "maxexcursion"]),
    ("pe", &["power", "rmspower", "powerhandling", "ratedpower", "prms", "pmax"]),
    ("depth", &["mountingdepth", "overalldepth"]),
    ("cutout", &["cutoutdiameter", "bafflecutout", "baffleopening", "hole"]),
    ("magnet", &["magnetdiameter"]),
    ("displacement", &["drivervolume", "volumeoccupied", "volumedisplacement"]),
    ("rim", &["framethickness", "flangethickness"]),
    ("bolt_circle", &["boltcirclediameter", "pcd", "pitchcircle"]),
    ("bolts", &["boltcount", "numberofbolts", "mountingholes"]),
    ("bolt_hole", &["boltholediameter", "mountingholediameter"]),
    ("sealed_volume", &["recommendedsealedvolume", "sealedbox"]),
    ("ported_volume", &["recommendedportedvolume", "portedbox", "ventedvolume"]),
    ("ported_tuning", &["recommendedtuning", "portedtuning", "ventedtuning"]),
    ("level_1w", &["sensitivity", "spl", "sensitivity1w", "spl1w", "efficiency"]),
    ("level_2v83", &["sensitivity283v", "spl283v", "sensitivity2v83"]),
    ("price", &["cost"]),
    ("on_hand", &["stock", "qty", "quantity", "count"]),
];

fn plain(text: &str) -> String {
    text.chars().filter(|c| c.is_alphanumeric()).flat_map(char::to_lowercase).collect()
}

/// The field of a word, spelt as in files or as data sheets do.
fn field_named(word: &str) -> Option<&'static str> {
    let word = plain(word);
    let names = TEXTS.iter().copied().chain(driver_fields().map(Field::name));
    names
        .into_iter()
        .find(|name| plain(name) == word)
        .or_else(|| ALSO.iter().find(|(_, others)| others.contains(&word.as_str())).map(|(name, _)| *name))
}

fn quantity(name: &str) -> Option<&'static Field> {
    driver_fields().find(|field| field.name() == name)
}

impl Column {
    /// Guesses from a header: `Vas (l)`, `Vas [l]`, `vas_l`, `Vas, l`, `Equivalent volume l`.
    ///
    /// # Errors
    /// A unit that is none of what the column measures, in words.
    pub fn guess(header: &str) -> Result<Self, String> {
        let bracketed = header
            .split_once(['(', '['])
            .map(|(word, unit)| (word, unit.trim_end_matches([')', ']']).trim()));
        if let Some((word, unit)) = bracketed {
            return match field_named(word).and_then(|name| Some((name, quantity(name)?))) {
                Some((_, field)) if !unit.is_empty() => Self::in_unit(field, unit).ok_or_else(|| {
                    format!("the unit in \"{header}\" is not one of {}", field.dimension.noun())
                }),
                _ => Ok(field_named(word).map_or(Self::Ignored, Self::of)),
            };
        }
        if let Some(name) = field_named(header) {
            return Ok(Self::of(name));
        }
        let apart = header.match_indices([' ', '_', ',', '/', '-']);
        let mut with_unit = apart.filter_map(|(at, sign)| {
            Self::in_unit(quantity(field_named(&header[..at])?)?, &header[at + sign.len()..])
        });
        Ok(with_unit.next().unwrap_or(Self::Ignored))
    }

    /// As somebody chose it.
    ///
    /// # Errors
    /// No such field, or a unit that does not fit it.
    pub fn chosen(choice: &ColumnChoice) -> Result<Self, String> {
        if choice.field.is_empty() {
            return Ok(Self::Ignored);
        }
        if let Some(text) = TEXTS.iter().find(|text| **text == choice.field) {
            return Ok(Self::Text(text));
        }
        let field =
            quantity(&choice.field).ok_or(format!("\"{}\" is not a field of a driver", choice.field))?;
        if choice.unit.is_empty() {
            return Ok(Self::Value(field, None));
        }
        Self::in_unit(field, &choice.unit).ok_or(format!(
            "\"{}\" is not a unit of {}",
            choice.unit,
            field.dimension.noun()
        ))
    }

    fn of(name: &'static str) -> Self {
        quantity(name).map_or(Self::Text(name), |field| Self::Value(field, None))
    }

    fn in_unit(field: &'static Field, unit: &str) -> Option<Self> {
        let unit = unit_named(unit.trim()).filter(|unit| unit.dimension == field.dimension)?;
        Some(Self::Value(field, Some(unit)))
    }

    /// Name of the field; empty where it is left out.
    pub fn field(&self) -> &'static str {
        match self {
            Self::Text(name) => name,
            Self::Value(field, _) => field.name(),
            Self::Ignored => "",
        }
    }

    /// Symbol of the unit of bare numbers.
    pub fn unit(&self) -> &'static str {
        match self {
            Self::Value(field, unit) => unit.or(field.usual_unit()).map_or("", |unit| unit.symbol),
            _ => "",
        }
    }
}
