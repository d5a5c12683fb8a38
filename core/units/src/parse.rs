//! A number with its unit.

use std::fmt;

use crate::Dimension;
use crate::number::{NumberError, parse_number};
use crate::table::{Unit, unit_named, units_of};

/// A quantity as read.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Parsed {
    /// Value in the SI unit of the dimension.
    pub si: f64,
    /// The unit it was written in; `None` for plain numbers.
    pub unit: Option<&'static Unit>,
}

/// Why a text is not a quantity of the wanted dimension.
#[derive(Debug, Clone, PartialEq)]
pub enum QuantityError {
    /// The number cannot be read.
    Number(NumberError),
    /// A number without a unit where one is needed.
    MissingUnit(Dimension),
    /// A unit nobody knows.
    UnknownUnit {
        /// What was written.
        unit: String,
        /// What was wanted.
        wanted: Dimension,
    },
    /// A unit of another dimension.
    WrongDimension {
        /// What was written.
        unit: String,
        /// What that unit measures.
        found: Dimension,
        /// What was wanted.
        wanted: Dimension,
    },
}

impl fmt::Display for QuantityError {
    fn fmt(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
        match self {
            Self::Number(error) => error.fmt(f),
            Self::MissingUnit(wanted) => {
                write!(f, "a unit is missing; write it with {}", choices(*wanted))
            }
            Self::UnknownUnit { unit, wanted } => {
                write!(f, "\"{unit}\" is not a unit of {wanted}; write it with {}", choices(*wanted))
            }
            Self::WrongDimension { unit, found, wanted } => write!(
                f,
                "\"{unit}\" is a unit of {found}, not of {wanted}; write it with {}",
                choices(*wanted)
            ),
        }
    }
}

impl std::error::Error for QuantityError {}

fn choices(dimension: Dimension) -> String {
    let symbols: Vec<_> = units_of(dimension).map(|unit| unit.symbol).collect();
    match symbols.split_last() {
        None => "no unit".to_owned(),
        Some((last, [])) => (*last).to_owned(),
        Some((last, rest)) => format!("{} or {last}", rest.join(", ")),
    }
}

/// Reads a quantity of a known dimension and returns it in SI.
///
/// A unit must be written for every dimension but [`Dimension::Number`]: "44" litres and "44"
/// cubic feet look the same and are not.
///
/// # Errors
/// See [`QuantityError`].
pub fn parse_quantity(text: &str, dimension: Dimension) -> Result<Parsed, QuantityError> {
    let text = text.trim();
    if dimension == Dimension::Frequency
        && let Some(si) = note_named(text)
    {
        return Ok(Parsed { si, unit: unit_named("Hz") });
    }
    if dimension == Dimension::Area
        && let Some(si) = gauge_named(text)
    {
        return Ok(Parsed { si, unit: unit_named("mm2") });
    }
    let split = unit_start(text);
    let (number, unit) = (text[..split].trim_end(), text[split..].trim());
    let number = match parse_number(number) {
        Err(NumberError::Empty) if !unit.is_empty() => Err(NumberError::NotANumber(text.to_owned())),
        read => read,
    }
    .map_err(QuantityError::Number)?;
    if unit.is_empty() {
        return if dimension == Dimension::Number {
            Ok(Parsed { si: number, unit: None })
        } else {
            Err(QuantityError::MissingUnit(dimension))
        };
    }
    match unit_named(unit) {
        Some(found) if found.dimension == dimension => {
            Ok(Parsed { si: number * found.factor, unit: Some(found) })
        }
        Some(found) => Err(QuantityError::WrongDimension {
            unit: unit.to_owned(),
            found: found.dimension,
            wanted: dimension,
        }),
        None => Err(QuantityError::UnknownUnit { unit: unit.to_owned(), wanted: dimension }),
    }
}

/// Frequency (Hz) of a note written as in `E1`, `Bb0`, `F#2`: equal temperament, A4 at 440 Hz.
pub fn note_named(text: &str) -> Option<f64> {
    let mut letters = text.chars();
    let step = match letters.next()?.to_ascii_uppercase() {
        'C' => 0,
        'D' => 2,
        'E' => 4,
        'F' => 5,
        'G' => 7,
        'A' => 9,
        'B' => 11,
        _ => return None,
    };
    let rest = letters.as_str();
    let (bend, octave) = match rest.chars().next()? {
        '#' | '♯' => (1, rest.chars().skip(1).collect::<String>()),
        'b' | '♭' => (-1, rest.chars().skip(1).collect()),
        _ => (0, rest.to_owned()),
    };
    let octave: i32 = octave.parse().ok().filter(|octave| (-1..=9).contains(octave))?;
    let semitones = 12 * octave + step + bend - 57;
    Some(440.0 * (f64::from(semitones) / 12.0).exp2())
}

/// Cross-section (m2) of a wire gauge written as in `AWG 16` or `16 AWG`: `0.127 mm * 92^((36 - n)/39)` thick (ASTM B258).
pub fn gauge_named(text: &str) -> Option<f64> {
    let lower = text.to_ascii_lowercase();
    let number = lower.strip_prefix("awg").or_else(|| lower.strip_suffix("awg"))?.trim();
    let gauge: f64 = number.parse::<u8>().ok().filter(|gauge| *gauge <= 40)?.into();
    let diameter = 0.127e-3 * 92f64.powf((36.0 - gauge) / 39.0);
    Some(std::f64::consts::FRAC_PI_4 * diameter * diameter)
}

/// Byte offset at which the number ends and the unit begins.
fn unit_start(text: &str) -> usize {
    let bytes = text.as_bytes();
    text.char_indices()
        .find(|&(at, c)| {
            let exponent = matches!(c, 'e' | 'E')
                && at > 0
                && bytes[at - 1].is_ascii_digit()
                && bytes.get(at + 1).is_some_and(|next| next.is_ascii_digit() || matches!(next, b'-' | b'+'));
            !(exponent || c.is_ascii_digit() || c.is_whitespace() || "+-−.,/".contains(c))
        })
        .map_or(text.len(), |(at, _)| at)
}
