//! Reading typed values against the field table, collecting every problem.

use oak_acoustics::medium::Space;
use oak_units::{Dimension, parse_quantity};

use crate::field::Field;
use crate::file::{RawSpace, Typed};
use crate::problem::{Problem, ProblemKind, Range};

/// Collects problems while values are read.
#[derive(Debug, Default)]
pub(super) struct Reading {
    pub problems: Vec<Problem>,
}

impl Reading {
    /// Value in SI; `None` where it is absent or wrong, the latter with a problem noted.
    pub fn optional(&mut self, place: &str, field: &'static Field, typed: &Option<Typed>) -> Option<f64> {
        let typed = typed.as_ref()?;
        let range = Range { min: field.min, max: field.max, field };
        let given = typed.to_string();
        let read = match typed {
            Typed::Number(number) if field.dimension == Dimension::Number => Ok(*number),
            _ => parse_quantity(&given, field.dimension).map(|parsed| parsed.si),
        };
        let kind = match read {
            // Typed limits such as "20 kW" must not fail on the last bit of a unit's factor.
            Ok(si) if si >= field.min - 1e-12 * field.min.abs() && si <= field.max * (1.0 + 1e-12) => {
                return Some(si);
            }
            Ok(_) => ProblemKind::OutOfRange { given, range },
            Err(reason) => ProblemKind::Unreadable { given, reason, range },
        };
        self.note(place, kind);
        None
    }

    /// As [`Self::optional`], and absence is a problem too.
    pub fn required(&mut self, place: &str, field: &'static Field, typed: &Option<Typed>) -> Option<f64> {
        if typed.is_none() {
            let range = Range { min: field.min, max: field.max, field };
            self.note(place, ProblemKind::Missing { range });
        }
        self.optional(place, field, typed)
    }

    /// A whole number, 1 where absent; `None` with a problem noted where it is wrong.
    pub fn count(&mut self, place: &str, field: &'static Field, typed: &Option<Typed>) -> Option<u32> {
        if typed.is_none() {
            return Some(1);
        }
        let count = self.optional(place, field, typed)?;
        if count.fract().abs() > 0.0 {
            let range = Range { min: field.min, max: field.max, field };
            self.note(place, ProblemKind::NotWhole { given: count.to_string(), range });
            return None;
        }
        Some(count as u32)
    }

    /// A name or a note.
    pub fn text(&mut self, place: &str, text: &str, min: usize, max: usize) {
        let found = text.trim().chars().count();
        if found < min || text.chars().count() > max {
            self.note(place, ProblemKind::Length { found: text.chars().count(), min, max });
        }
    }

    pub fn note(&mut self, place: &str, kind: ProblemKind) {
        self.problems.push(Problem::new(place, kind));
    }
}

pub(super) fn space(raw: RawSpace) -> Space {
    match raw {
        RawSpace::Full => Space::Full,
        RawSpace::Half => Space::Half,
        RawSpace::Quarter => Space::Quarter,
        RawSpace::Eighth => Space::Eighth,
    }
}
