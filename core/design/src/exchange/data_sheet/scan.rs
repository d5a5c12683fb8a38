//! Numbers with their units in running text.

use std::ops::Range;

use oak_units::{Unit, unit_named};

use super::words::UNITS;

/// What a comma in a number is on this sheet.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub(super) enum Comma {
    Decimal,
    Thousands,
    /// Nothing on the sheet tells.
    Unknown,
}

/// A number in a text.
#[derive(Debug, Clone, PartialEq)]
pub(super) struct Number {
    /// Where it stands, with its unit, in bytes.
    pub at: Range<usize>,
    /// `None` where a comma may mean either.
    pub value: Option<f64>,
    /// As it stands.
    pub unit: Option<&'static Unit>,
    /// Whether it is said of two: `2 x 3.6`, `3.6 + 3.6`.
    pub twice: bool,
}

/// A character as it counts: subscripts as letters, all dashes as one.
pub(super) fn simple(c: char) -> char {
    match c {
        'ₐ' => 'a',
        'ₑ' => 'e',
        'ₛ' => 's',
        'ₜ' => 't',
        'ₘ' => 'm',
        'ₓ' => 'x',
        '₀' => '0',
        '−' | '–' | '—' | '‐' | '‑' => '-',
        '\u{a0}' | '\u{202f}' | '\u{2009}' => ' ',
        other => other.to_lowercase().next().unwrap_or(other),
    }
}

/// What commas are, from all numbers of a text.
pub(super) fn commas(text: &str) -> Comma {
    let mut points = false;
    for piece in text.split(|c: char| !(c.is_ascii_digit() || matches!(c, '.' | ','))) {
        let piece = piece.trim_matches(['.', ',']);
        let after = |sign: char| piece.rsplit_once(sign).map(|(whole, after)| (whole, after.len()));
        match (after(','), after('.')) {
            (Some((whole, digits)), None) if digits != 3 || whole == "0" => return Comma::Decimal,
            (None, Some(_)) => points = true,
            _ => {}
        }
    }
    if points { Comma::Thousands } else { Comma::Unknown }
}

/// The unit of a spelling as sheets have it.
pub(super) fn unit_of(spelt: &str) -> Option<&'static Unit> {
    let spelt = spelt.trim().trim_end_matches('.');
    unit_named(spelt).or_else(|| {
        let plain: String =
            spelt.chars().map(simple).filter(|c| !matches!(c, ' ' | '.' | '-' | '\t')).collect();
        let listed = UNITS.iter().find(|(name, _)| *name == plain).map(|(_, symbol)| *symbol);
        unit_named(listed.unwrap_or(&plain))
    })
}

/// Longest spelling of a unit, bytes.
const LONGEST: usize = 18;

/// The unit that a text begins with, and where it ends: the longest there is.
fn unit_at(text: &str) -> Option<(&'static Unit, usize)> {
    let skipped =
        text.len() - text.trim_start_matches([' ', '\t', '|', ';', '(', '[', '\u{a0}', '\u{202f}']).len();
    let rest = &text[skipped..];
    let line = rest.find('\n').unwrap_or(rest.len());
    let ends = rest[..line].char_indices().map(|(at, c)| at + c.len_utf8()).take_while(|end| *end <= LONGEST);
    let whole = |end: usize| {
        rest[end..].chars().next().is_none_or(|next| !next.is_alphanumeric() && next != '²' && next != '³')
    };
    ends.collect::<Vec<_>>()
        .into_iter()
        .rev()
        .filter(|end| whole(*end))
        .find_map(|end| unit_of(&rest[..end]).map(|unit| (unit, skipped + end)))
}

fn read(digits: &str, comma: Comma) -> Option<f64> {
    let groups = |sign: char| digits.split(sign).skip(1).all(|group| group.len() == 3);
    let plain = match (digits.rfind(','), digits.rfind('.')) {
        (Some(comma), Some(point)) if comma > point => digits.replace('.', "").replace(',', "."),
        (Some(_), Some(_)) => digits.replace(',', ""),
        (Some(_), None) => match comma {
            Comma::Decimal => digits.replace(',', "."),
            _ if !groups(',') => digits.replace(',', "."),
            Comma::Thousands => digits.replace(',', ""),
            Comma::Unknown => return None,
        },
        _ => digits.to_owned(),
    };
    plain.parse().ok()
}

/// A power of ten behind a number: `x 10^-4`, `× 10⁻⁴`, `e-4`; with where it ends.
fn power(text: &str) -> Option<(i32, usize)> {
    let raised = |c: char| match c {
        '⁻' => '-',
        '⁰' => '0',
        '¹' => '1',
        '²' => '2',
        '³' => '3',
        '⁴' => '4',
        '⁵' => '5',
        '⁶' => '6',
        other => simple(other),
    };
    let (head, rest) = if let Some(rest) = text.strip_prefix(['e', 'E']) {
        (1, rest)
    } else {
        let times = text.trim_start().strip_prefix(['x', '×', '*', '·'])?.trim_start();
        let rest = times.strip_prefix("10")?;
        (text.len() - rest.len(), rest)
    };
    let caret = usize::from(rest.starts_with('^'));
    let mut digits = String::new();
    let mut end = head + caret;
    for c in rest[caret..].chars() {
        let plain = raised(c);
        if plain.is_ascii_digit() || (plain == '-' && digits.is_empty()) {
            digits.push(plain);
            end += c.len_utf8();
        } else {
            break;
        }
    }
    digits.parse().ok().map(|exponent| (exponent, end))
}

/// All numbers of a text, in their order.
pub(super) fn numbers(text: &str, comma: Comma) -> Vec<Number> {
    let mut found: Vec<Number> = Vec::new();
    let mut at = 0;
    while let Some(offset) = text[at..].find(|c: char| c.is_ascii_digit()) {
        let start = at + offset;
        let before = text[..start].chars().next_back();
        let run = text[start..]
            .find(|c: char| !(c.is_ascii_digit() || matches!(c, '.' | ',')))
            .map_or(text.len(), |end| start + end);
        let mut end = start + text[start..run].trim_end_matches(['.', ',']).len();
        at = run.max(start + 1);
        // Digits within a word are none: m3, Le2.
        if start > 0 && before.is_some_and(|c| c.is_alphanumeric() || c == '^') {
            continue;
        }
        let mut value = read(&text[start..end], comma);
        if let Some((fraction, after)) = fraction(&text[end..]) {
            value = value.map(|value| value + fraction);
            end += after;
        } else if let Some((exponent, after)) = power(&text[end..]) {
            value = value.map(|value| value * 10f64.powi(exponent));
            end += after;
        }
        at = at.max(end);
        let unit = unit_at(&text[end..]);
        let stop = unit.map_or(end, |(_, after)| end + after);
        at = at.max(stop);
        let number = Number { at: start..stop, value, unit: unit.map(|(unit, _)| unit), twice: false };
        match found.last_mut() {
            Some(last) if joined(&text[last.at.end..start], last, &number) => {
                let times = last.value == Some(2.0) && last.unit.is_none();
                last.value = if times { number.value } else { last.value };
                last.unit = number.unit.or(last.unit);
                last.at.end = number.at.end;
                last.twice = true;
            }
            _ => found.push(number),
        }
    }
    found
}

/// ` 5/16` behind a whole number, and where it ends.
fn fraction(text: &str) -> Option<(f64, usize)> {
    let rest = text.strip_prefix([' ', '-'])?;
    let (top, rest) = rest.split_once('/')?;
    let digits = rest.find(|c: char| !c.is_ascii_digit()).unwrap_or(rest.len());
    let (top, bottom): (f64, f64) =
        (top.parse::<u16>().ok()?.into(), rest[..digits].parse::<u16>().ok()?.into());
    (top > 0.0 && bottom > top).then(|| (top / bottom, text.len() - rest.len() + digits))
}

/// Whether two numbers are one that is said of two: `2 x 3.6` or `3.6 + 3.6`.
fn joined(between: &str, last: &Number, next: &Number) -> bool {
    let between = between.trim();
    let times = last.value == Some(2.0) && last.unit.is_none() && matches!(between, "x" | "X" | "×" | "*");
    times || (between == "+" && last.value == next.value)
}
