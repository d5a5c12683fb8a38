//! What is wrong with a file: values first, words last.

use std::fmt;

use oak_units::{QuantityError, format_in};

use crate::field::{self, Field};

/// One thing wrong, with its place.
#[derive(Debug, Clone, PartialEq)]
pub struct Problem {
    /// Where: `enclosure.ports[0].diameter`; empty for the document as a whole.
    pub field: String,
    /// What.
    pub kind: ProblemKind,
}

/// An allowed range, in the field's usual unit.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Range {
    /// Smallest allowed value, SI.
    pub min: f64,
    /// Largest allowed value, SI.
    pub max: f64,
    /// The field, for its unit.
    pub field: &'static Field,
}

/// What can be wrong.
#[derive(Debug, Clone, PartialEq)]
pub enum ProblemKind {
    /// A value is needed and absent.
    Missing {
        /// What is allowed.
        range: Range,
    },
    /// None of several values is there, and one is needed.
    MissingOneOf {
        /// Their names.
        names: &'static [&'static str],
        /// How many are needed.
        needed: usize,
    },
    /// A text that is not a quantity of the right kind.
    Unreadable {
        /// What was written.
        given: String,
        /// Why it cannot be read.
        reason: QuantityError,
        /// What is allowed.
        range: Range,
    },
    /// A value outside what makes sense.
    OutOfRange {
        /// What was written.
        given: String,
        /// What is allowed.
        range: Range,
    },
    /// A count that is not whole.
    NotWhole {
        /// What was written.
        given: String,
        /// What is allowed.
        range: Range,
    },
    /// A name or note that is too long or empty.
    Length {
        /// Characters found.
        found: usize,
        /// Fewest allowed.
        min: usize,
        /// Most allowed.
        max: usize,
    },
    /// A character that no text needs.
    ControlCharacter {
        /// Its code.
        code: u32,
    },
    /// A text that is no date, or no moment.
    NotDate {
        /// As written.
        given: String,
    },
    /// No day on which work can be done.
    NoHours,
    /// A text that is not the hash of a picture.
    NotHash {
        /// As written.
        given: String,
    },
    /// A list that is too long.
    TooMany {
        /// How many there are.
        found: usize,
        /// Most allowed.
        max: usize,
    },
    /// A name of no field.
    NoSuchField {
        /// As written.
        name: String,
    },
    /// Two values that exclude each other.
    Excludes {
        /// The other field.
        other: &'static str,
    },
    /// Qts at or above another Q.
    QtsNotBelow {
        /// The Qts, as given.
        qts: f64,
        /// The Q it must be below.
        other: f64,
    },
    /// Values that are allowed one by one and make no driver together.
    Inconsistent {
        /// What comes out of them.
        derived: &'static Field,
        /// Its value, SI.
        value: f64,
        /// Which value was probably meant to be another, why, and what it then is, SI.
        likeliest: Option<(&'static Field, &'static str, f64)>,
    },
    /// A tuning above what the ports allow.
    TuningTooHigh {
        /// What was asked, as written.
        given: String,
        /// Highest tuning these ports allow, and the lowest that is allowed at all.
        range: Range,
    },
    /// A tuning below what the ports of known length allow.
    TuningTooLow {
        /// What was asked, as written.
        given: String,
        /// Lowest tuning these ports allow, and the highest that is allowed at all.
        range: Range,
    },
    /// Ports that resonate as pipes before they tune their chamber.
    Untunable,
    /// Coils are to be connected and the driver has one.
    NotDual,
    /// A way that the kind of cabinet needs and that has no stretch.
    NoWay,
    /// A flare that cannot be shaped.
    Unshapeable {
        /// Why, with the least that would do.
        reason: String,
    },
    /// A place beyond the end of the way.
    BeyondEnd {
        /// Length of the path, m.
        length: f64,
    },
    /// A place before another that must come first.
    NotBeyond {
        /// Where the other is, m.
        other: f64,
    },
    /// A choice that is not open here.
    NotHere {
        /// What was chosen.
        given: &'static str,
        /// What can be chosen.
        allowed: &'static str,
    },
    /// A box that cannot be built.
    Unbuildable {
        /// Why.
        reason: String,
    },
    /// Not the JSON it should be.
    Malformed {
        /// What the reader says.
        reason: String,
    },
    /// A file of another kind.
    OtherFormat {
        /// What it says it is.
        found: String,
        /// What is wanted.
        wanted: &'static str,
    },
    /// A file of a version this program does not know.
    OtherVersion {
        /// What it says.
        found: u64,
        /// The newest version known here.
        known: u32,
    },
}

impl Problem {
    /// A problem at a place.
    pub fn new(field: impl Into<String>, kind: ProblemKind) -> Self {
        Self { field: field.into(), kind }
    }

    /// The same problem inside a larger document.
    #[must_use]
    pub fn within(self, outer: &str) -> Self {
        let field = match (outer.is_empty(), self.field.is_empty()) {
            (true, _) => self.field,
            (_, true) => outer.to_owned(),
            _ => format!("{outer}.{}", self.field),
        };
        Self { field, ..self }
    }

    /// What is allowed at this place, where that is a range.
    pub fn range(&self) -> Option<Range> {
        match &self.kind {
            ProblemKind::Missing { range }
            | ProblemKind::Unreadable { range, .. }
            | ProblemKind::OutOfRange { range, .. }
            | ProblemKind::NotWhole { range, .. }
            | ProblemKind::TuningTooHigh { range, .. }
            | ProblemKind::TuningTooLow { range, .. } => Some(*range),
            _ => None,
        }
    }
}

impl fmt::Display for Range {
    fn fmt(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
        write!(f, "{} to {}", self.field.write(self.min), self.field.write(self.max))
    }
}

impl Field {
    /// Writes an SI value in this field's usual unit.
    pub fn write(&self, si: f64) -> String {
        match self.usual_unit() {
            Some(unit) => format_in(si, unit, 4),
            None => oak_units::significant(si, 4),
        }
    }
}

impl fmt::Display for Problem {
    fn fmt(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
        if !self.field.is_empty() {
            write!(f, "{}: ", self.field)?;
        }
        self.kind.fmt(f)
    }
}

impl fmt::Display for ProblemKind {
    fn fmt(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
        match self {
            Self::Missing { range } => write!(f, "is missing; {range} is allowed"),
            Self::MissingOneOf { names, needed: 1 } => {
                write!(f, "one of {} is needed", names.join(", "))
            }
            Self::MissingOneOf { names, needed } => write!(f, "{needed} of {} are needed", names.join(", ")),
            Self::Unreadable { reason, range, .. } => write!(f, "{reason}; {range} is allowed"),
            Self::OutOfRange { given, range } => write!(f, "{given} is outside {range}"),
            Self::NotWhole { given, range } => write!(f, "{given} is not a whole number; {range} is allowed"),
            Self::Length { found, min, max } => {
                write!(f, "is {found} characters long; {min} to {max} are allowed")
            }
            Self::NotDate { given } => {
                write!(
                    f,
                    "{given:?} is no date; years 2000 to 2199 are allowed, such as 2026-05-01, and moments such as 2026-05-01T18:30:00Z"
                )
            }
            Self::NoHours => write!(f, "leaves no hour of the week to work in; give one day more than 0"),
            Self::NotHash { given } => {
                write!(f, "{given:?} is not the name of a picture: 64 digits 0 to 9 and a to f are allowed")
            }
            Self::TooMany { found, max } => write!(f, "holds {found} entries; at most {max} are allowed"),
            Self::ControlCharacter { code } => {
                write!(f, "holds the control character U+{code:04X}; only line ends and tabs are allowed")
            }
            Self::NoSuchField { name } => write!(f, "\"{name}\" is not a value of a driver"),
            Self::Excludes { other } => write!(f, "cannot be given together with {other}; leave one out"),
            Self::QtsNotBelow { qts, other } => {
                write!(f, "Qts {qts} must be below the Qms or Qes of {other} that it is part of")
            }
            Self::Inconsistent { derived, value, likeliest } => {
                write!(
                    f,
                    "these values together give {} = {}, which no driver has; allowed is {} to {}. ",
                    derived.symbol,
                    derived.write(*value),
                    derived.write(derived.min),
                    derived.write(derived.max)
                )?;
                match likeliest {
                    Some((field, slip, value)) => {
                        write!(f, "{} {slip}; then it is {}", field.symbol, field.write(*value))
                    }
                    None => write!(f, "Check the units of Fs, Sd and Vas"),
                }
            }
            Self::TuningTooHigh { given, range } => write!(
                f,
                "{given} is higher than these ports reach even with no length; {range} is allowed. Make the ports wider or more, or the box smaller"
            ),
            Self::TuningTooLow { given, range } => write!(
                f,
                "{given} is lower than these ports reach: those of known length alone tune the box to {}, however long the others are; {range} is \
                 allowed. Make the ports of known length longer or narrower, or the box larger",
                range.field.write(range.min)
            ),
            Self::Untunable => write!(
                f,
                "the ports are so long that they resonate as pipes before they tune the box. Make them shorter, or the box larger"
            ),
            Self::NotDual => write!(
                f,
                "this driver has one coil; say in the driver whether its sheet is for two coils in series or in parallel"
            ),
            Self::NoWay => {
                write!(f, "1 to 8 stretches are needed, from the closed end or the throat to the mouth")
            }
            Self::Unshapeable { reason } => write!(f, "cannot be shaped: {reason}"),
            Self::BeyondEnd { length } => {
                write!(
                    f,
                    "must lie before the end of the path, which is {} long",
                    field::DRIVER_AT.write(*length)
                )
            }
            Self::NotBeyond { other } => {
                write!(
                    f,
                    "must lie beyond the other side of the drivers at {}",
                    field::DRIVER_AT.write(*other)
                )
            }
            Self::NotHere { given, allowed } => {
                write!(f, "\"{given}\" is not possible here; allowed are {allowed}")
            }
            Self::Unbuildable { reason } => write!(f, "cannot be built: {reason}"),
            Self::Malformed { reason } => write!(f, "is not as it should be: {reason}"),
            Self::OtherFormat { found, wanted } if found.is_empty() => {
                write!(f, "is missing; \"{wanted}\" is wanted")
            }
            Self::OtherFormat { found, wanted } => {
                write!(f, "\"{found}\" was found and \"{wanted}\" is wanted")
            }
            Self::OtherVersion { found, known } if *found > u64::from(*known) => {
                write!(f, "version {found} was written by a newer program; this one knows up to {known}")
            }
            Self::OtherVersion { found, known } => {
                write!(f, "version {found} is not known; allowed is 1 to {known}")
            }
        }
    }
}
