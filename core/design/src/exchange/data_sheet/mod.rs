//! The values of a driver out of a data sheet that was typed or pasted as text.

mod scan;
mod words;

use std::ops;

use oak_units::{Dimension, Unit, significant, units_of};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use self::scan::{Comma, Number, commas, numbers, simple, unit_of};
use self::words::{Label, TELLING, label_at};
use crate::field::{Field, driver_fields};
use crate::file::{RawDriver, RawSheetCoils, Typed};
use crate::problem::{Problem, ProblemKind, Range};

/// A data sheet as text.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct RawDataSheet {
    /// As typed or pasted.
    #[schema(max_length = 20000)]
    pub text: String,
}

/// A value that was found.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct SheetValue {
    /// The field of the driver file.
    pub field: &'static str,
    /// As it is taken.
    pub typed: String,
    /// Where it stands in the text: from and to, in UTF-16 units.
    pub at: [usize; 2],
    /// What was made of it that the text does not say; empty where nothing was.
    pub note: String,
}

/// What a text holds of a driver.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct SheetReading {
    /// The driver with the values that were found; everything is absent where the text is no data sheet.
    pub driver: RawDriver,
    /// Each of them, in the order of the text.
    pub found: Vec<SheetValue>,
    /// What was not taken, and why.
    pub left: Vec<String>,
}

/// Fewer values that only a loudspeaker has than these make no data sheet.
const ENOUGH: usize = 3;
/// Two statements of one value that differ by a larger share are told.
const SAME: f64 = 0.02;
/// Fields of which two coils may have each their own.
const OF_A_COIL: [&str; 4] = ["re", "le", "nominal", "bl"];

/// Longest text that is read, characters.
const LONGEST: usize = 20_000;

impl RawDataSheet {
    /// Reads it.
    ///
    /// # Errors
    /// A text that is too long.
    pub fn read(&self) -> Result<SheetReading, Problem> {
        let found = self.text.chars().count();
        if found > LONGEST {
            return Err(Problem::new("text", ProblemKind::Length { found, min: 0, max: LONGEST }));
        }
        Ok(read_data_sheet(&self.text))
    }
}

/// A label in the text, in bytes.
#[derive(Debug, Clone)]
struct Found {
    label: Label,
    at: ops::Range<usize>,
}

/// Reads what a text says of a driver.
pub fn read_data_sheet(text: &str) -> SheetReading {
    let mut reader =
        Reader { text, comma: commas(text), values: Vec::new(), left: Vec::new(), printed: String::new() };
    reader.read(&labels(text));
    reader.finish()
}

/// All labels of a text, in their order.
fn labels(text: &str) -> Vec<Found> {
    let mut found = Vec::new();
    let mut start = 0;
    for line in text.split_inclusive('\n') {
        let mut letters = Vec::new();
        let mut places = Vec::new();
        let mut apart = true;
        for (at, c) in line.char_indices() {
            let plain = simple(c);
            if plain.is_alphanumeric() {
                letters.push((plain, apart));
                places.push(start + at..start + at + c.len_utf8());
            }
            apart = !plain.is_alphanumeric();
        }
        let mut at = 0;
        while at < letters.len() {
            let word = letters[at].1 || !letters[at - 1].0.is_alphabetic();
            match label_at(&letters[at..]).filter(|_| word) {
                Some((label, count)) => {
                    let range = places[at].start..places[at + count - 1].end;
                    found.push(Found { label, at: range });
                    at += count;
                }
                None => at += 1,
            }
        }
        start += line.len();
    }
    found
}

/// A value while the sheet is read.
struct Taken {
    field: &'static Field,
    si: f64,
    typed: String,
    at: ops::Range<usize>,
    twice: bool,
    note: String,
}

struct Reader<'a> {
    text: &'a str,
    comma: Comma,
    values: Vec<Taken>,
    left: Vec<String>,
    /// The frequency range as printed.
    printed: String,
}

impl Reader<'_> {
    fn read(&mut self, labels: &[Found]) {
        let mut next = 0;
        while next < labels.len() {
            // Labels that follow each other without a number between them share the numbers behind the last.
            let mut last = next;
            while last + 1 < labels.len() && !self.has_digit(labels[last].at.end..labels[last + 1].at.start) {
                last += 1;
            }
            let group = &labels[next..=last];
            let behind = self.behind(labels[last].at.end, labels.get(last + 1).map(|label| label.at.start));
            self.read_group(group, behind);
            next = last + 1;
        }
    }

    fn has_digit(&self, range: ops::Range<usize>) -> bool {
        self.text[range].contains(|c: char| c.is_ascii_digit())
    }

    /// What stands behind a label: to the next one, at most to the end of the line, or of the next with a number.
    fn behind(&self, from: usize, next: Option<usize>) -> ops::Range<usize> {
        let most = next.unwrap_or(self.text.len());
        let mut end = from;
        for line in self.text[from..most].split_inclusive('\n').take(3) {
            end += line.len();
            if line.contains(|c: char| c.is_ascii_digit()) {
                break;
            }
        }
        from..end
    }

    fn read_group(&mut self, group: &[Found], behind: ops::Range<usize>) {
        let mut distinct: Vec<&Found> = Vec::new();
        for label in group {
            if distinct.last().is_none_or(|last| last.label != label.label) {
                distinct.push(label);
            }
        }
        let values: Vec<_> = distinct.iter().filter(|found| matches!(found.label, Label::Value(_))).collect();
        let found = self.numbers(behind.clone());
        let listed = values.len() > 1 && values.len() == distinct.len() && found.len() == values.len();
        if listed {
            for (label, number) in values.into_iter().zip(found) {
                let Label::Value(name) = label.label else { continue };
                let said = label.at.start..behind.end;
                self.take(name, &[number], None, said);
            }
            return;
        }
        let Some(last) = distinct.last() else { return };
        let said = group[0].at.start..behind.end;
        match last.label {
            Label::Other => {}
            Label::Text(_) => self.text_of(last, &behind),
            Label::Sensitivity => {
                let words = self.plain(said.clone());
                let at_two_volts = words.contains("2.83") || words.contains("2,83");
                let name = if at_two_volts { "level_2v83" } else { "level_1w" };
                self.take(name, &found, None, said);
            }
            Label::Value(name) => {
                let bracketed = self.bracketed(last.at.start..behind.end);
                self.take(name, &found, bracketed.as_deref(), said);
            }
        }
    }

    fn plain(&self, range: ops::Range<usize>) -> String {
        self.text[range].chars().map(simple).collect()
    }

    fn numbers(&self, range: ops::Range<usize>) -> Vec<Number> {
        let mut found = numbers(&self.text[range.clone()], self.comma);
        for number in &mut found {
            number.at = number.at.start + range.start..number.at.end + range.start;
        }
        found
    }

    /// What stands in the first brackets, or behind a slash or comma, before the first digit: a unit perhaps.
    fn bracketed(&self, range: ops::Range<usize>) -> Option<String> {
        let text = &self.text[range];
        let head = &text[..text.find(|c: char| c.is_ascii_digit()).unwrap_or(text.len())];
        let whole = &text[..text.find('\n').unwrap_or(text.len())];
        for (open, close) in [('(', ')'), ('[', ']'), ('{', '}')] {
            if let Some(from) = head.find(open)
                && let Some(to) = whole[from..].find(close)
            {
                return Some(whole[from + 1..from + to].to_owned());
            }
        }
        let words = head.trim_end_matches([' ', '\t', ':', '=', '|', ';', '.']);
        words.rsplit_once(['/', ',', '|', '\t', '\n', ' ']).map(|(_, unit)| unit.to_owned())
    }

    fn text_of(&mut self, label: &Found, behind: &ops::Range<usize>) {
        let Label::Text("frequency_range") = label.label else { return };
        let text = self.text[behind.clone()].trim_start_matches([':', ' ', '\t', '=', '|', '.', '\n']);
        let line = text.lines().next().unwrap_or_default().trim();
        if line.contains(|c: char| c.is_ascii_digit()) && line.chars().count() <= 120 {
            self.printed = line.to_owned();
        }
    }

    /// Takes a value for a field from the numbers behind its label.
    fn take(&mut self, name: &'static str, found: &[Number], unit: Option<&str>, said: ops::Range<usize>) {
        let Some(field) = driver_fields().find(|field| field.name() == name) else { return };
        let own = |number: &&Number| number.unit.is_some_and(|unit| unit.dimension == field.dimension);
        let bare = |number: &&Number| number.unit.is_none();
        let Some(number) = found.iter().find(own).or_else(|| found.iter().find(bare)) else { return };
        let Some(value) = number.value else {
            let stands = &self.text[number.at.clone()];
            self.left.push(format!("{} {stands}: the comma may mark thousands or decimals", field.symbol));
            return;
        };
        let named = unit.and_then(unit_of).filter(|unit| unit.dimension == field.dimension);
        let mut notes: Vec<String> = Vec::new();
        let mut used = number.unit.or(named);
        if used.is_none() && field.dimension != Dimension::Number {
            // The usual unit, or the first in which the value can be.
            let can = |unit: &&Unit| (field.min..=field.max).contains(&(value * unit.factor));
            let usual = field.usual_unit().filter(|unit| can(unit));
            used = usual.or_else(|| units_of(field.dimension).find(can)).or(field.usual_unit());
            if let Some(unit) = used {
                notes.push(format!("no unit is given: read as {}", unit.symbol));
            }
        }
        let mut value = value;
        let words = self.plain(said);
        let whole_way = ["p-p", "peak-peak", "peak to peak", "peak-to-peak", "(pp)", " pp"];
        if name == "xmax" && whole_way.iter().any(|way| words.contains(way)) {
            value /= 2.0;
            notes.push("half of what is given from peak to peak".to_owned());
        }
        let si = used.map_or(value, |unit| value * unit.factor);
        if !(field.min..=field.max).contains(&si) {
            let stands = self.text[number.at.clone()].trim();
            let range = Range { min: field.min, max: field.max, field };
            self.left.push(format!("{} {stands}: allowed is {range}", field.symbol));
            return;
        }
        if let Some(before) = self.values.iter().find(|taken| taken.field.name() == name) {
            if (si / before.si - 1.0).abs() > SAME {
                let stands = self.text[number.at.clone()].trim();
                self.left.push(format!("{} is given again as {stands}: the first is taken", field.symbol));
            }
            return;
        }
        let typed = match used {
            Some(unit) => format!("{} {}", written(value), unit.symbol),
            None => written(value),
        };
        let twice = number.twice || words.contains("per coil") || words.contains("each coil");
        self.values.push(Taken { field, si, typed, at: number.at.clone(), twice, note: notes.join("; ") });
    }

    fn finish(self) -> SheetReading {
        let telling = self.values.iter().filter(|taken| TELLING.contains(&taken.field.name())).count();
        if telling < ENOUGH {
            return SheetReading { driver: RawDriver::default(), found: Vec::new(), left: Vec::new() };
        }
        let coils = self.coils();
        let mut driver = RawDriver { name: self.name(), coils, ..RawDriver::default() };
        driver.frequency_range.clone_from(&self.printed);
        let mut found = Vec::new();
        for taken in &self.values {
            let (mut typed, mut note) = (taken.typed.clone(), taken.note.clone());
            // A file with two coils that are wired has their impedance together.
            let wired = match coils {
                Some(RawSheetCoils::DualSeries) => Some(2.0),
                Some(RawSheetCoils::DualParallel) => Some(0.5),
                _ => None,
            };
            if let Some(wired) = wired.filter(|_| taken.field.name() == "nominal" && self.nominal_of_each()) {
                typed = format!("{} ohm", written(taken.si * wired));
                note = format!("{} ohm each, wired", written(taken.si));
            }
            if let Some(slot) = driver.value_mut(taken.field.name()) {
                *slot = Some(Typed::from(typed.as_str()));
            }
            let units = |to: usize| self.text[..to].encode_utf16().count();
            let at = [units(taken.at.start), units(taken.at.end)];
            found.push(SheetValue { field: taken.field.name(), typed, at, note });
        }
        SheetReading { driver, found, left: self.left }
    }

    /// Whether the nominal impedance is said of each of two coils: `2 x 4 ohm`, `dual 4 ohm`.
    fn nominal_of_each(&self) -> bool {
        let nominal = self.values.iter().find(|taken| taken.field.name() == "nominal");
        nominal.is_some_and(|taken| {
            let before = self.plain(0..taken.at.start);
            taken.twice || before.trim_end().ends_with("dual")
        })
    }

    /// The first line, where it holds no value.
    fn name(&self) -> String {
        let first = self.text.lines().map(str::trim).find(|line| !line.is_empty()).unwrap_or_default();
        let end = self.text.find(first).unwrap_or(0) + first.len();
        let free = self.values.iter().all(|taken| taken.at.start >= end);
        let words = first.trim_start_matches(|c: char| !c.is_alphanumeric());
        let named = words.split_once(':').filter(|(label, _)| {
            matches!(labels(label).first(), Some(Found { label: Label::Text("name"), .. }))
        });
        let name = named.map_or(words, |(_, name)| name.trim());
        if free && name.chars().count() <= 60 { name.to_owned() } else { String::new() }
    }

    /// Whether it has two coils, and how its values were taken: by the ratio of its resistance to the nominal one of each.
    fn coils(&self) -> Option<RawSheetCoils> {
        let words = self.plain(0..self.text.len());
        let of_coil = |taken: &&Taken| OF_A_COIL.contains(&taken.field.name());
        let each =
            self.values.iter().filter(of_coil).any(|taken| taken.twice && taken.field.name() != "nominal");
        let nominal = self.values.iter().find(|taken| taken.field.name() == "nominal");
        let said =
            ["dual voice coil", "dual coil", "dvc", "two coils", "double coil", "2 coils", "twin coil"];
        let dual =
            each || nominal.is_some_and(|taken| taken.twice) || said.iter().any(|way| words.contains(way));
        if !dual {
            return None;
        }
        if each {
            return Some(RawSheetCoils::DualEach);
        }
        if words.contains("in series") || words.contains("coils series") {
            return Some(RawSheetCoils::DualSeries);
        }
        if words.contains("in parallel") || words.contains("coils parallel") {
            return Some(RawSheetCoils::DualParallel);
        }
        let re = self.values.iter().find(|taken| taken.field.name() == "re");
        Some(match (re, nominal) {
            (Some(re), Some(nominal)) if re.si > 1.15 * nominal.si => RawSheetCoils::DualSeries,
            (Some(re), Some(nominal)) if re.si < 0.55 * nominal.si => RawSheetCoils::DualParallel,
            _ => RawSheetCoils::DualEach,
        })
    }
}

/// A number without what rounding adds.
fn written(value: f64) -> String {
    significant(value, 6)
}
