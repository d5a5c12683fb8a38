//! Values written for people.

use crate::Unit;

/// Writes a number with `digits` significant digits, without exponent and without trailing noise.
///
/// Whole digits are never dropped: 12345 with three digits stays `12345`.
pub fn significant(value: f64, digits: u32) -> String {
    if value.abs() < f64::MIN_POSITIVE {
        return "0".to_owned();
    }
    let exponent = value.abs().log10().floor();
    let decimals = (f64::from(digits) - 1.0 - exponent).clamp(0.0, 12.0);
    let text = format!("{value:.*}", decimals as usize);
    if text.contains('.') { text.trim_end_matches('0').trim_end_matches('.').to_owned() } else { text }
}

/// Writes an SI value in a unit: `format_in(0.044, litre, 3)` is `"44 l"`.
pub fn format_in(si: f64, unit: &Unit, digits: u32) -> String {
    format!("{} {}", significant(si / unit.factor, digits), unit.symbol)
}
