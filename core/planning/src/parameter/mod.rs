//! Values of a design that can be turned one at a time: by what fixes it, and to see what each does.

mod list;

pub use list::PARAMETERS;

use oak_design::Problem;
use oak_design::built::Built;
use oak_design::field::Field;
use oak_design::file::RawDesign;
use oak_design::resolve::resolve_design;

/// A value that can be turned.
#[derive(Debug)]
pub struct Parameter {
    /// Its name in requests.
    pub id: &'static str,
    /// What it is called.
    pub name: &'static str,
    /// What it measures, and how far it may go.
    pub field: &'static Field,
    /// What it stands at, SI; `None` where the design has no such value.
    read: fn(&Held<'_>) -> Option<f64>,
    /// Sets it, SI; `false` where it cannot be.
    write: fn(&mut RawDesign, &Held<'_>, f64) -> bool,
    /// What is there anyway and added to it before it is scaled: a bare mass beside an added one.
    base: fn(&Held<'_>) -> f64,
    /// How far it is turned to see what it does.
    pub span: Span,
    /// Whether a builder turns it to fix a design; the others say how things are.
    pub suggestions: bool,
}

/// How far a parameter is turned to see what it does.
#[derive(Debug, Clone, Copy, PartialEq)]
pub enum Span {
    /// From and to these times where it stands, its base counted.
    Times(f64, f64),
    /// From and to these values, SI.
    Between(f64, f64),
    /// One of these choices, by position.
    Choices(&'static [&'static str]),
}

/// A design with what it comes to, as parameters need it.
#[derive(Debug)]
pub struct Held<'a> {
    /// As typed.
    pub raw: &'a RawDesign,
    /// As it is built.
    pub built: Built,
}

impl<'a> Held<'a> {
    /// Resolves a design and settles it with its box.
    ///
    /// # Errors
    /// What is wrong with it.
    pub fn of(raw: &'a RawDesign) -> Result<Self, Vec<Problem>> {
        let built = resolve_design(raw)?.built().map_err(|problem| vec![problem])?;
        Ok(Self { raw, built })
    }
}

impl Parameter {
    /// Where it stands, SI; `None` where the design has no such value.
    pub fn value(&self, held: &Held<'_>) -> Option<f64> {
        (self.read)(held)
    }

    /// The design with another value (SI); `None` where it is out of range or cannot be.
    pub fn set(&self, held: &Held<'_>, value: f64) -> Option<RawDesign> {
        if !(self.field.min..=self.field.max).contains(&value) && !matches!(self.span, Span::Choices(_)) {
            return None;
        }
        let mut raw = held.raw.clone();
        (self.write)(&mut raw, held, value).then_some(raw)
    }

    /// A value so many times where it stands, what is there anyway counted, SI.
    pub fn times(&self, held: &Held<'_>, factor: f64) -> Option<f64> {
        let base = (self.base)(held);
        Some(((self.read)(held)? + base) * factor - base)
    }

    /// A value as people read it.
    pub fn label(&self, value: f64) -> String {
        match self.span {
            Span::Choices(names) => names.get(value as usize).copied().unwrap_or_default().to_owned(),
            _ => self.field.typed(value, 3).to_string(),
        }
    }
}
