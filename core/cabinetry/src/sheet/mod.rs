//! Boards laid out on the sheets they are cut from, by cuts that a saw can make: each from one side of a piece to the other.
//!
//! [`tree`] is a sheet with its cuts, [`pack`] lays boards out in one order, [`search`] looks for the best of many, [`order`] says in
//! which order one cuts. Lengths in m.

mod order;
mod pack;
mod search;
mod tree;

pub use order::{CutStep, steps};
pub use search::{Effort, Recipe, Search, is_no_worse, lay_out, lay_out_as};
pub use tree::{Content, Laid, Node, Rect, Split};

/// A board to be cut.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Blank {
    /// Which board it is, for whoever asks.
    pub number: u32,
    /// Width and height, m.
    pub size: [f64; 2],
    /// Whether it may be turned by a right angle.
    pub turns: bool,
}

/// A sheet that boards can be cut from.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Sheet {
    /// Width and height, m; grain runs along the height.
    pub size: [f64; 2],
    /// How many there are; as many as are needed where absent.
    pub at_hand: Option<u32>,
    /// What one costs.
    pub price: f64,
}

/// How sheets are cut.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Saw {
    /// Width of the cut, m.
    pub kerf: f64,
    /// What is taken off every edge of a sheet first, m.
    pub trim: f64,
    /// Largest width and height that a piece may have after the first cuts, at the shop; as large as it is where absent.
    pub transport: Option<[f64; 2]>,
}

/// One sheet with what is cut from it.
#[derive(Debug, Clone, PartialEq)]
pub struct SheetLayout {
    /// Which of the sheets that were offered.
    pub sheet: usize,
    /// Its cuts.
    pub root: Node,
}

/// What was found.
#[derive(Debug, Clone, PartialEq)]
pub struct Layout {
    /// The sheets that are cut.
    pub sheets: Vec<SheetLayout>,
    /// Boards that no sheet holds, as positions.
    pub left: Vec<usize>,
}

impl Layout {
    /// Boards as they lie, with the sheet of each.
    pub fn laid(&self) -> impl Iterator<Item = (usize, Laid)> + '_ {
        self.sheets.iter().enumerate().flat_map(|(at, sheet)| sheet.root.laid().map(move |laid| (at, laid)))
    }

    /// Area of the largest piece that is left of a sheet, m2.
    pub fn largest_offcut(&self) -> f64 {
        self.sheets.iter().flat_map(|sheet| sheet.root.offcuts()).map(Rect::area).fold(0.0, f64::max)
    }

    /// What the sheets cost.
    pub fn cost(&self, sheets: &[Sheet]) -> f64 {
        self.sheets.iter().map(|one| sheets[one.sheet].price).sum()
    }
}
