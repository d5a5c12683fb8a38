//! Numbers as people write them.

use std::fmt;

/// Why a text is not a number.
#[derive(Debug, Clone, PartialEq, Eq)]
pub enum NumberError {
    /// Nothing was written.
    Empty,
    /// Not a number at all (this includes "NaN" and "inf").
    NotANumber(String),
    /// `1,000` could mean one or a thousand.
    Ambiguous(String),
    /// A fraction over zero.
    ZeroDenominator(String),
}

impl fmt::Display for NumberError {
    fn fmt(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
        match self {
            Self::Empty => write!(f, "nothing was written"),
            Self::NotANumber(text) => write!(f, "\"{text}\" is not a number"),
            Self::Ambiguous(text) => write!(
                f,
                "the comma in \"{text}\" may mark thousands or decimals; write a point, or leave the comma out"
            ),
            Self::ZeroDenominator(text) => write!(f, "\"{text}\" divides by zero"),
        }
    }
}

impl std::error::Error for NumberError {}

/// Reads `12`, `-3.5`, `0,9`, `1.2e-3`, `5/16`, `11 5/16` and `11-5/16`.
///
/// # Errors
/// See [`NumberError`]. A comma before exactly three digits is refused unless the whole part is
/// zero: `1,000` is a thousand to some and one to others.
pub fn parse_number(text: &str) -> Result<f64, NumberError> {
    let text = text.trim();
    if text.is_empty() {
        return Err(NumberError::Empty);
    }
    if !text.contains('/') {
        return decimal(text);
    }
    let (sign, unsigned) = match text.strip_prefix(['-', '−']) {
        Some(rest) => (-1.0, rest.trim_start()),
        None => (1.0, text),
    };
    let (whole, fraction) = match unsigned.rsplit_once([' ', '-']) {
        Some((whole, fraction)) => (unsigned_integer(whole, text)?, fraction),
        None => (0.0, unsigned),
    };
    let (top, bottom) = fraction.split_once('/').ok_or_else(|| NumberError::NotANumber(text.to_owned()))?;
    let bottom = unsigned_integer(bottom, text)?;
    if bottom < 1.0 {
        return Err(NumberError::ZeroDenominator(text.to_owned()));
    }
    Ok(sign * (whole + unsigned_integer(top, text)? / bottom))
}

fn decimal(text: &str) -> Result<f64, NumberError> {
    let plain: String = text
        .chars()
        .map(|c| match c {
            ',' => '.',
            '−' => '-',
            other => other,
        })
        .collect();
    let allowed = |c: char| c.is_ascii_digit() || matches!(c, '.' | '-' | '+' | 'e' | 'E');
    if !plain.chars().all(allowed) {
        return Err(NumberError::NotANumber(text.to_owned()));
    }
    let value: f64 = plain.parse().map_err(|_| NumberError::NotANumber(text.to_owned()))?;
    if let Some((whole, after)) = text.split_once(',') {
        let zero = whole.trim_start_matches(['-', '+', '−']).trim_matches('0').is_empty();
        if !zero && after.len() == 3 && after.bytes().all(|b| b.is_ascii_digit()) {
            return Err(NumberError::Ambiguous(text.to_owned()));
        }
    }
    if value.is_finite() { Ok(value) } else { Err(NumberError::NotANumber(text.to_owned())) }
}

fn unsigned_integer(text: &str, whole_text: &str) -> Result<f64, NumberError> {
    text.trim().parse::<u32>().map(f64::from).map_err(|_| NumberError::NotANumber(whole_text.to_owned()))
}
