//! A measured trace as text: frequency, magnitude and, or not, phase, in whatever columns and numbers a program wrote them.

use std::f64::consts::PI;

use serde::Serialize;
use utoipa::ToSchema;

use crate::file::plain_text;
use crate::problem::{Problem, ProblemKind};

/// Most rows of a trace.
pub const MOST_TRACE_ROWS: usize = 200_000;

/// A trace that was read from text.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct TraceReading {
    /// Hz, rising.
    pub frequency: Vec<f64>,
    /// In the unit that was found.
    pub magnitude: Vec<f64>,
    /// Degrees; nothing where the text has none.
    pub phase: Option<Vec<f64>>,
    /// What the magnitude is in.
    pub unit: TraceUnit,
    /// What was between the numbers, and how decimals were written, in words.
    pub form: String,
    /// What was found out of order, left out or taken for granted.
    pub notes: Vec<String>,
}

/// What the magnitude of a trace is in.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum TraceUnit {
    /// Level.
    Decibel,
    /// Impedance.
    Ohm,
    /// Pressure, or a plain ratio.
    Linear,
}

/// How numbers stand in a line.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
struct Form {
    between: char,
    decimal: char,
}

/// Every usual one, the surest first: a space stands for any white space.
const FORMS: [Form; 7] = [
    Form { between: '\t', decimal: '.' },
    Form { between: '\t', decimal: ',' },
    Form { between: ';', decimal: '.' },
    Form { between: ';', decimal: ',' },
    Form { between: ' ', decimal: '.' },
    Form { between: ' ', decimal: ',' },
    Form { between: ',', decimal: '.' },
];
/// Lines that decide about the form.
const LOOKED_AT: usize = 200;
/// What a comment begins with.
const COMMENT: [char; 7] = ['*', '#', ';', '"', '\'', '%', '/'];

impl Form {
    /// The numbers of a line; nothing where it holds anything else, or fewer than two.
    fn numbers(self, line: &str) -> Option<Vec<f64>> {
        let number = |cell: &str| -> Option<f64> {
            let cell = cell.trim().trim_matches('"');
            // The other sign would be a separator of thousands, or of columns.
            if cell.contains(if self.decimal == ',' { '.' } else { ',' }) {
                return None;
            }
            cell.replace(self.decimal, ".").parse().ok()
        };
        let numbers: Option<Vec<f64>> = if self.between == ' ' {
            line.split_whitespace().map(number).collect()
        } else {
            let line = line.trim_end().trim_end_matches(self.between);
            line.split(self.between).filter(|cell| !cell.trim().is_empty()).map(number).collect()
        };
        numbers.filter(|numbers| numbers.len() >= 2)
    }

    /// How many of some lines are rows of it, all of as many columns as the first.
    fn fits(self, lines: &[&str]) -> usize {
        let mut columns = None;
        let row = |line: &&&str| {
            self.numbers(line).is_some_and(|row| row.len() == *columns.get_or_insert(row.len()))
        };
        lines.iter().filter(row).count()
    }

    fn words(self) -> String {
        let between = match self.between {
            '\t' => "tabs",
            ';' => "semicolons",
            ',' => "commas",
            _ => "spaces",
        };
        format!("{between} between, decimal {}", if self.decimal == ',' { "comma" } else { "point" })
    }
}

/// Reads a trace.
///
/// # Errors
/// Where no rows of frequency and magnitude are found, too many, or a character that no text needs.
pub fn read_trace_text(text: &str) -> Result<TraceReading, Problem> {
    plain_text("text", text)?;
    let lines: Vec<&str> =
        text.trim_start_matches('\u{feff}').lines().filter(|line| !line.trim().is_empty()).collect();
    if lines.len() > MOST_TRACE_ROWS {
        return Err(Problem::new("text", ProblemKind::TooMany { found: lines.len(), max: MOST_TRACE_ROWS }));
    }
    let commented = |line: &str| line.trim_start().starts_with(COMMENT);
    let begin: Vec<&str> = lines.iter().copied().filter(|line| !commented(line)).take(LOOKED_AT).collect();
    let best = FORMS.into_iter().rev().max_by_key(|form| form.fits(&begin));
    let form = best.filter(|form| form.fits(&begin) >= 2).ok_or_else(|| {
        Problem::new(
            "text",
            ProblemKind::Unshapeable { reason: "no rows of frequency and magnitude were found".to_owned() },
        )
    })?;
    let first = lines.iter().position(|line| !commented(line) && form.numbers(line).is_some()).unwrap_or(0);
    let head: String = lines[..first].iter().map(|line| line.to_lowercase()).collect::<Vec<_>>().join(" ");
    let mut rows: Vec<[f64; 3]> = Vec::with_capacity(lines.len());
    let (mut other, mut broken, mut phased) = (0usize, 0usize, true);
    for line in lines[first..].iter().filter(|line| !commented(line)) {
        match form.numbers(line) {
            None => other += 1,
            Some(row) if row.iter().take(3).any(|value| !value.is_finite()) => broken += 1,
            Some(row) => {
                phased &= row.len() > 2;
                rows.push([row[0], row[1], row.get(2).copied().unwrap_or(0.0)]);
            }
        }
    }
    settled(rows, &head, phased, form, [other, broken])
}

/// Rows in order, in the units that head and values tell.
fn settled(
    mut rows: Vec<[f64; 3]>,
    head: &str,
    phased: bool,
    form: Form,
    [other, broken]: [usize; 2],
) -> Result<TraceReading, Problem> {
    let mut notes = Vec::new();
    let mut say = |words: String| notes.push(words);
    if head.contains("khz") {
        rows.iter_mut().for_each(|row| row[0] *= 1e3);
        say("Frequencies in kHz, as its header says.".to_owned());
    }
    if broken > 0 {
        say(format!("{broken} rows that hold no finite number are left out."));
    }
    if other > 0 {
        say(format!("{other} lines among the rows hold no numbers and are left out."));
    }
    let before = rows.len();
    rows.retain(|row| row[0] > 0.0);
    if rows.len() < before {
        say(format!("{} rows at or below 0 Hz are left out.", before - rows.len()));
    }
    if rows.windows(2).any(|two| two[1][0] < two[0][0]) {
        rows.sort_by(|a, b| a[0].total_cmp(&b[0]));
        say("Put in the order of rising frequencies.".to_owned());
    }
    let before = rows.len();
    rows.dedup_by(|later, first| (later[0] - first[0]).abs() < 1e-9 * first[0]);
    if rows.len() < before {
        say(format!("{} frequencies that are there twice are taken once.", before - rows.len()));
    }
    if rows.len() < 2 {
        let reason = "fewer than two rows of frequency and magnitude were found".to_owned();
        return Err(Problem::new("text", ProblemKind::Unshapeable { reason }));
    }
    let unit = unit(head, &rows);
    if unit == TraceUnit::Linear {
        say("Magnitudes taken as linear, as its header says.".to_owned());
    }
    let radians = phased && head.contains("rad") && rows.iter().all(|row| row[2].abs() < 4.0 * PI);
    if radians {
        rows.iter_mut().for_each(|row| row[2] = row[2].to_degrees());
        say("Phase in radians, as its header says.".to_owned());
    }
    Ok(TraceReading {
        frequency: rows.iter().map(|row| row[0]).collect(),
        magnitude: rows.iter().map(|row| row[1]).collect(),
        phase: phased.then(|| rows.iter().map(|row| row[2]).collect()),
        unit,
        form: form.words(),
        notes,
    })
}

fn unit(head: &str, rows: &[[f64; 3]]) -> TraceUnit {
    let says = |words: &[&str]| words.iter().any(|word| head.contains(word));
    let positive = rows.iter().all(|row| row[1] > 0.0);
    if says(&["ohm", "\u{3c9}", "\u{2126}", "impedance"]) && positive {
        TraceUnit::Ohm
    } else if positive && says(&["(pa", "[pa", " pa", "linear", "ratio", "v/v"]) && !says(&["db"]) {
        TraceUnit::Linear
    } else {
        TraceUnit::Decibel
    }
}

impl TraceReading {
    /// Frequency (Hz), level (dB) and phase (degrees) at no more points than some, those between left out evenly on a logarithmic axis; nothing for an
    /// impedance.
    pub fn levels(&self, most: usize) -> Option<Vec<[f64; 3]>> {
        let level = |magnitude: f64| match self.unit {
            TraceUnit::Decibel => Some(magnitude),
            TraceUnit::Linear => Some(20.0 * magnitude.log10()),
            TraceUnit::Ohm => None,
        };
        let count = self.frequency.len();
        let phase = |k: usize| self.phase.as_ref().map_or(0.0, |phase| phase[k]);
        let all: Option<Vec<[f64; 3]>> =
            (0..count).map(|k| Some([self.frequency[k], level(self.magnitude[k])?, phase(k)])).collect();
        let all = all?;
        if count <= most {
            return Some(all);
        }
        let (low, high) = (self.frequency[0].ln(), self.frequency[count - 1].ln());
        let slot =
            |frequency: f64| (((frequency.ln() - low) / (high - low)) * (most - 1) as f64).floor() as usize;
        let mut thinned: Vec<[f64; 3]> = Vec::with_capacity(most);
        let mut last = None;
        for row in all {
            let here = slot(row[0]);
            if last != Some(here) {
                thinned.push(row);
                last = Some(here);
            }
        }
        Some(thinned)
    }
}
