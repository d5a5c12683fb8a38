//! Drawings as data: views of a cabinet from its one geometry, for the screen, for SVG and for DXF.
//!
//! A sheet has `x` to the right and `y` up, in m.

mod cut;
mod dxf;
mod exploded;
mod svg;
mod views;

pub use cut::cut;
pub use dxf::write_dxf;
pub use exploded::exploded;
pub use svg::write_svg;
pub use views::view;

/// What a drawing shows.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum View {
    /// Cut through the middle, seen from the left: front to the right.
    Side,
    /// From the front.
    Front,
    /// Cut at the height of the drivers, seen from above: front below.
    Plan,
    /// All boards drawn apart.
    Exploded,
}

impl View {
    /// All of them, in order.
    pub const ALL: [Self; 4] = [Self::Side, Self::Front, Self::Plan, Self::Exploded];

    /// Its name in addresses.
    pub fn id(self) -> &'static str {
        match self {
            Self::Side => "side",
            Self::Front => "front",
            Self::Plan => "plan",
            Self::Exploded => "exploded",
        }
    }

    /// Its name for people.
    pub fn name(self) -> &'static str {
        match self {
            Self::Side => "Side section",
            Self::Front => "Front",
            Self::Plan => "Plan",
            Self::Exploded => "Exploded",
        }
    }
}

/// How a line is meant.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Line {
    /// Wood that the section cuts.
    Cut,
    /// An edge that is seen.
    Seen,
    /// An edge behind something.
    Hidden,
    /// Air that a part holds: a port's passage.
    Air,
    /// Metal that the section cuts or shows: drivers.
    Metal,
    /// Fill.
    Fill,
    /// A middle line.
    Middle,
    /// What is milled to a depth.
    Recess,
    /// What is drilled.
    Drill,
    /// Lines to work by: where a board stands, tabs that hold a small part.
    Mark,
    /// Words.
    Label,
}

impl Line {
    /// Its name, for layers and styles.
    pub fn name(self) -> &'static str {
        match self {
            Self::Cut => "cut",
            Self::Seen => "seen",
            Self::Hidden => "hidden",
            Self::Air => "air",
            Self::Metal => "metal",
            Self::Fill => "fill",
            Self::Middle => "middle",
            Self::Recess => "recess",
            Self::Drill => "drill",
            Self::Mark => "mark",
            Self::Label => "label",
        }
    }
}

/// A closed polygon or an open line.
#[derive(Debug, Clone, PartialEq)]
pub struct Stroke {
    /// What it belongs to: `panel front`, `driver`, `port`, `brace 2`.
    pub part: String,
    /// How it is meant.
    pub line: Line,
    /// Whether it closes.
    pub closed: bool,
    /// Its corners, m.
    pub points: Vec<[f64; 2]>,
}

/// A circle.
#[derive(Debug, Clone, PartialEq)]
pub struct Ring {
    /// What it belongs to.
    pub part: String,
    /// How it is meant.
    pub line: Line,
    /// Its middle, m.
    pub middle: [f64; 2],
    /// m.
    pub radius: f64,
}

/// A measure between two places along the sheet's width or height.
#[derive(Debug, Clone, PartialEq)]
pub struct Measure {
    /// Whether it is measured up; else across.
    pub upright: bool,
    /// Where it begins and ends along that direction, m.
    pub between: [f64; 2],
    /// How many rows outside the drawing it stands, from 0.
    pub row: usize,
    /// What it is of.
    pub of: &'static str,
}

/// One drawing.
#[derive(Debug, Clone, PartialEq)]
pub struct Drawing {
    /// What it shows of a cabinet; nothing of boards laid flat.
    pub view: Option<View>,
    /// Lowest and highest coordinates of what is drawn, without measures, m.
    pub extent: [[f64; 2]; 2],
    /// Lines, in the order of drawing.
    pub strokes: Vec<Stroke>,
    /// Circles, after them.
    pub rings: Vec<Ring>,
    /// Measures.
    pub measures: Vec<Measure>,
    /// Words at a place.
    pub labels: Vec<([f64; 2], String)>,
}

impl Drawing {
    fn empty(view: View) -> Self {
        Self { view: Some(view), ..Self::plain() }
    }

    /// An empty sheet, for boards laid flat.
    pub fn plain() -> Self {
        Self {
            view: None,
            extent: [[0.0; 2]; 2],
            strokes: Vec::new(),
            rings: Vec::new(),
            measures: Vec::new(),
            labels: Vec::new(),
        }
    }

    /// Finds the extent of what is drawn.
    #[must_use]
    pub fn bounded(mut self) -> Self {
        let points = self.strokes.iter().flat_map(|stroke| stroke.points.iter().copied());
        let rings = self.rings.iter().flat_map(|ring| {
            [-ring.radius, ring.radius].map(|far| [ring.middle[0] + far, ring.middle[1] + far])
        });
        self.extent =
            points.chain(rings).fold([[f64::INFINITY; 2], [f64::NEG_INFINITY; 2]], |[low, high], at| {
                [[low[0].min(at[0]), low[1].min(at[1])], [high[0].max(at[0]), high[1].max(at[1])]]
            });
        self
    }

    /// Draws a closed line.
    pub fn polygon(&mut self, part: &str, line: Line, points: Vec<[f64; 2]>) {
        self.strokes.push(Stroke { part: part.to_owned(), line, closed: true, points });
    }

    /// Draws an open line.
    pub fn line(&mut self, part: &str, line: Line, points: Vec<[f64; 2]>) {
        self.strokes.push(Stroke { part: part.to_owned(), line, closed: false, points });
    }

    /// Draws a circle.
    pub fn ring(&mut self, part: &str, line: Line, middle: [f64; 2], radius: f64) {
        self.rings.push(Ring { part: part.to_owned(), line, middle, radius });
    }
}

/// A length in mm as drawings have it.
pub fn millimetres(metres: f64) -> String {
    let tenths = (metres * 1e4).round() / 10.0;
    format!("{tenths}")
}
