//! The box as wished.

use oak_acoustics::medium::Fill;

use crate::fold::Fold;
use crate::geometry::{Axis, EnclosureShape, Face, Frame, Measured, Point, Solid};
use crate::material::Material;
use crate::pipe::Fittings;

/// A board.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Panel {
    /// Thickness of one layer as measured, m.
    pub thickness: f64,
    /// How many lie on each other.
    pub layers: u32,
    /// How far it is set back from the edges of its neighbours, m.
    pub inset: f64,
    /// What it is of.
    pub material: &'static Material,
}

/// Where something is mounted.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Place {
    /// In which face.
    pub face: Face,
    /// Its middle from the left as seen from the front (in a side from the back), m; found where absent.
    pub across: Option<f64>,
    /// Its middle from below (in a lid or floor from the back), m; found where absent.
    pub up: Option<f64>,
}

/// How ports are built.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct PortBuild {
    /// Where the first of them comes out; the drivers' face where absent.
    pub face: Option<Face>,
    /// As [`Place::across`].
    pub across: Option<f64>,
    /// As [`Place::up`].
    pub up: Option<f64>,
    /// Pipe wall, or board of the slot, m.
    pub wall: f64,
    /// How often it turns by a right angle on its way in.
    pub turns: u32,
    /// Radius of its rounded edge outside and inside, m; 0 is sharp.
    pub flares: [f64; 2],
    /// Across its flange on the outside, m; none where absent.
    pub flange: Option<f64>,
    /// What its tube is joined and closed with; the usual sizes where they are not said.
    pub fittings: Fittings<Option<f64>>,
    /// Whether it is a slot as wide as the room, whatever that comes to.
    pub full_width: bool,
}

/// A board across the room that braces the panels.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Brace {
    /// What it stands square to.
    pub axis: Axis,
    /// Its middle from the lowest, leftmost or hindmost point of the room, m; in the middle where absent.
    pub at: Option<f64>,
    /// m.
    pub thickness: f64,
    /// Share of its area that is cut out, as one window in its middle.
    pub open: f64,
}

/// Anything else that takes up volume.
#[derive(Debug, Clone, PartialEq)]
pub struct Item {
    /// What it is.
    pub name: String,
    /// m3.
    pub volume: f64,
    /// Where it stands and how large it is, where that is said.
    pub block: Option<ItemBlock>,
}

/// Something of its own size that stands against a board.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct ItemBlock {
    /// Against which board, and its middle there.
    pub place: Place,
    /// Across and up that board, and into the room, m.
    pub size: [f64; 3],
    /// What is cut out of the board for it; none where it only stands there.
    pub opening: Option<Opening>,
}

/// What is cut out of a board for an amplifier, a terminal or a handle.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Opening {
    /// Width and height, m.
    pub size: [f64; 2],
    /// Whether it is round, as wide as its width.
    pub round: bool,
    /// How far the plate over it reaches beyond it on every side, m.
    pub rim: f64,
}

/// What is screwed to each radiator, kg.
#[derive(Debug, Clone, Copy, Default, PartialEq)]
pub struct Washers {
    /// One washer.
    pub each: f64,
    /// Bolt and nut.
    pub bolt: f64,
    /// What all together is to weigh.
    pub added: f64,
}

impl Washers {
    /// How many washers come nearest, and what they weigh with their bolt, kg; no bolt where nothing is to be added.
    pub fn nearest(&self) -> (u32, f64) {
        if self.added < self.bolt / 2.0 {
            return (0, 0.0);
        }
        let count = ((self.added - self.bolt) / self.each).round().max(0.0);
        (count as u32, self.bolt + count * self.each)
    }
}

/// A layer of fill on a board.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Layer {
    /// On which board.
    pub face: Face,
    /// How thick it is, m.
    pub thickness: f64,
    /// What it is of.
    pub fill: Fill,
}

impl Layer {
    /// Where it lies within the bounds of a room, m; `None` on a wall that is not square.
    pub fn bounds(&self, interior: &Solid) -> Option<[Point; 2]> {
        let frame = Frame::of(interior, self.face)?;
        let axis = frame.axis()?.index();
        let [mut low, mut high] = interior.bounds();
        let thick = self.thickness.min(high[axis] - low[axis]);
        if frame.normal[axis] > 0.0 {
            low[axis] = high[axis] - thick;
        } else {
            high[axis] = low[axis] + thick;
        }
        Some([low, high])
    }
}

impl Brace {
    /// Where its middle is along its axis in a room, m.
    pub fn place(&self, interior: &Solid) -> f64 {
        let [low, high] = interior.bounds().map(|point| point[self.axis.index()]);
        self.at.map_or(f64::midpoint(low, high), |at| low + at)
    }

    /// What it takes of a room, m3.
    pub fn volume(&self, interior: &Solid) -> f64 {
        self.volume_across(interior.area_at(self.axis, self.place(interior)))
    }

    /// The same of a room that is so large across its axis where it stands, m2.
    pub(crate) fn volume_across(&self, area: f64) -> f64 {
        area * self.thickness * (1.0 - self.open)
    }
}

/// The box as wished: what is not said is found.
#[derive(Debug, Clone, PartialEq)]
pub struct Body {
    /// Its shape.
    pub shape: EnclosureShape,
    /// Width, height and depth, m; those absent are solved for the wanted volume.
    pub sizes: [Option<f64>; 3],
    /// What width, height and depth are of each other where they are solved.
    pub proportions: [f64; 3],
    /// What the sizes are of.
    pub measured: Measured,
    /// Its boards, but for those named apart.
    pub panel: Panel,
    /// Boards that differ.
    pub panels: Vec<(Face, Panel)>,
    /// Between two chambers.
    pub partition: Panel,
    /// Where the drivers sit.
    pub drivers: Place,
    /// The ports of the chamber behind the drivers, in the order of the design.
    pub ports: Vec<PortBuild>,
    /// Those of the chamber before them.
    pub front_ports: Vec<PortBuild>,
    /// Where radiators sit; the second opposite the first.
    pub radiators: Place,
    /// How deep the frames of drivers and radiators are let into their boards, m.
    pub recess: f64,
    /// Braces.
    pub braces: Vec<Brace>,
    /// Side of the square strips along the inside edges, m; 0 is none.
    pub strips: f64,
    /// What else takes up volume in the chamber behind the drivers.
    pub items: Vec<Item>,
    /// Fill, board by board.
    pub fills: Vec<Layer>,
    /// How the way of a line or horn is folded.
    pub fold: Fold,
    /// What the mass on radiators is made of.
    pub washers: Washers,
}

impl Panel {
    /// All layers together, m.
    pub fn total(&self) -> f64 {
        self.thickness * f64::from(self.layers)
    }

    /// What it and its setting back take off the outside, m.
    pub fn taken(&self) -> f64 {
        self.total() + self.inset
    }
}

impl Body {
    /// Whether every size that its shape asks for is stated.
    pub fn sized(&self) -> bool {
        let free = self.shape.free();
        (0..3).all(|k| self.sizes[k].is_some() || !free[k])
    }

    /// The board of a face.
    pub fn panel(&self, face: Face) -> &Panel {
        self.panels.iter().find(|(at, _)| *at == face).map_or(&self.panel, |(_, panel)| panel)
    }
}
