//! A page as marks on it. Points of 1/72 inch, `y` down from the top.

use oak_design::file::RawPaper;

use crate::face::Face;

/// Points in a millimetre.
pub(crate) const MM: f64 = 72.0 / 25.4;

/// A colour of the page.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub(crate) enum Tone {
    Ink,
    Soft,
    Rule,
    Wood,
    Oak,
    Short,
    River,
    White,
}

impl Tone {
    pub(crate) fn rgb(self) -> [u8; 3] {
        match self {
            Self::Ink => [0x22, 0x26, 0x1F],
            Self::Soft => [0x5D, 0x5B, 0x51],
            Self::Rule => [0xB9, 0xAE, 0x98],
            Self::Wood => [0xF3, 0xE9, 0xD6],
            Self::Oak => [0xA8, 0x57, 0x1B],
            Self::Short => [0xA3, 0x34, 0x1F],
            Self::River => [0x1F, 0x5F, 0x8B],
            Self::White => [0xFF, 0xFF, 0xFF],
        }
    }
}

/// How a line is drawn.
#[derive(Debug, Clone, Copy, PartialEq)]
pub(crate) struct Pen {
    pub tone: Tone,
    pub width: f64,
    /// Dash and gap; drawn through where absent.
    pub dash: Option<[f64; 2]>,
}

impl Pen {
    pub(crate) fn fine(tone: Tone) -> Self {
        Self { tone, width: 0.6, dash: None }
    }
}

/// Something on a page.
#[derive(Debug, Clone, PartialEq)]
pub(crate) enum Mark {
    /// Words, from the left end of their base line; turned to the left by a right angle where said.
    Words { at: [f64; 2], face: Face, size: f64, words: String, tone: Tone, turned: bool },
    /// A line through points.
    Line { points: Vec<[f64; 2]>, closed: bool, fill: Option<Tone>, pen: Option<Pen> },
    /// A circle.
    Circle { middle: [f64; 2], radius: f64, pen: Pen },
}

/// One page.
#[derive(Debug, Clone, Default, PartialEq)]
pub(crate) struct Page {
    pub marks: Vec<Mark>,
}

/// A size of paper.
#[derive(Debug, Clone, Copy, PartialEq)]
pub(crate) struct Paper {
    /// Width and height, points.
    pub size: [f64; 2],
}

impl Paper {
    pub(crate) fn of(paper: RawPaper) -> Self {
        let size = match paper {
            RawPaper::A4 => [210.0 * MM, 297.0 * MM],
            RawPaper::Letter => [8.5 * 72.0, 11.0 * 72.0],
        };
        Self { size }
    }
}
