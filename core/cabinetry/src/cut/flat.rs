//! A board as it is cut.

use serde::Serialize;
use utoipa::ToSchema;

use super::joint::Joinery;
use crate::body::Panel;
use crate::geometry::{Face, area};

/// How two boards meet at an edge.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum EdgeJoint {
    /// This board reaches over the edge of the other.
    Over,
    /// This board ends at the inner side of the other, or in it.
    Under,
    /// Both are cut to half the angle.
    Mitre,
    /// It meets a rounded corner or a pipe.
    Round,
    /// It meets nothing, or stands blunt against another board.
    Free,
}

/// One edge of a flat part.
#[derive(Debug, Clone, PartialEq)]
pub struct Edge {
    /// What it meets.
    pub meets: Option<Face>,
    /// How.
    pub joint: EdgeJoint,
    /// What holds the joint beside glue.
    pub joinery: Joinery,
    /// Tilt of the cut from square, rad: positive where the outer side is the longer one.
    pub bevel: f64,
    /// Middles of dowels along it from its first corner, m.
    pub dowels: Vec<f64>,
}

impl Edge {
    /// A square one that meets nothing.
    pub(super) fn free() -> Self {
        Self { meets: None, joint: EdgeJoint::Free, joinery: Joinery::Butt, bevel: 0.0, dowels: Vec::new() }
    }
}

/// What a hole is for.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum HoleKind {
    /// A driver.
    Driver,
    /// A passive radiator.
    Radiator,
    /// A port.
    Port,
    /// The mouth of a line or horn.
    Mouth,
    /// The frame of a driver or radiator, let into the board.
    Recess,
    /// A bolt or screw of a driver.
    Bolt,
    /// An amplifier, a terminal, a handle.
    Item,
    /// A dowel.
    Dowel,
}

/// What is cut or drilled into a flat part.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct FlatHole {
    /// For what.
    pub what: String,
    /// What kind of thing that is.
    pub kind: HoleKind,
    /// Its middle from the lowest corner of the part, m.
    pub at: [f64; 2],
    /// Width and height, m.
    pub size: [f64; 2],
    /// Whether it is round.
    pub round: bool,
    /// Whether it is the half of its width and height that lies in a corner; towards which side it looks from there, -1 to the right.
    #[serde(skip)]
    pub corner: Option<f64>,
    /// How deep it goes, m; through where absent.
    pub depth: Option<f64>,
}

impl FlatHole {
    /// m2.
    pub fn area(&self) -> f64 {
        let share = match (self.round, self.corner) {
            (true, _) => std::f64::consts::FRAC_PI_4,
            (false, Some(_)) => 0.5,
            (false, None) => 1.0,
        };
        share * self.size[0] * self.size[1]
    }
}

/// A side of a board.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum BoardSide {
    /// Away from the room.
    Outer,
    /// Towards the room.
    Inner,
}

/// What is milled away along a strip, for another board to stand in.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Groove {
    /// Which board stands in it.
    pub what: String,
    /// Its outline, from the lowest corner of the part, as seen from outside, m.
    pub outline: Vec<[f64; 2]>,
    /// m.
    pub depth: f64,
    /// From which side.
    pub side: BoardSide,
}

/// Where another board stands on the inner side of a board, to be marked there.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Stand {
    /// Which.
    pub what: String,
    /// Its outline, from the lowest corner of the part, as seen from outside, m.
    pub outline: Vec<[f64; 2]>,
}

/// A board as it is cut.
#[derive(Debug, Clone, PartialEq)]
pub struct FlatPart {
    /// What it is called.
    pub name: String,
    /// Of what and how thick; one layer.
    pub panel: Panel,
    /// Which layer of how many, the outermost first; none of a board that is one.
    pub layer: Option<[u32; 2]>,
    /// In which face; of a board inside none.
    pub face: Option<Face>,
    /// How many alike there are.
    pub count: u32,
    /// Outline of its outer side, counter-clockwise as seen from there, from its lowest corner, m.
    pub outer: Vec<[f64; 2]>,
    /// The same of its inner side, in the same coordinates.
    pub inner: Vec<[f64; 2]>,
    /// Its edges, from each corner of the outline to the next.
    pub edges: Vec<Edge>,
    /// What is cut out of it, and recesses.
    pub holes: Vec<FlatHole>,
    /// What other boards stand in.
    pub grooves: Vec<Groove>,
    /// Where boards inside stand on it.
    pub stands: Vec<Stand>,
    /// Outline of the window that a brace has, m.
    pub window: Option<Vec<[f64; 2]>>,
    /// What it is cut from, without its holes, m3.
    pub volume: f64,
}

impl FlatPart {
    /// A board of square cut.
    pub(super) fn rectangle(name: &str, panel: Panel, [width, height]: [f64; 2]) -> Self {
        let outline = vec![[0.0, 0.0], [width, 0.0], [width, height], [0.0, height]];
        Self {
            name: name.to_owned(),
            panel,
            layer: None,
            face: None,
            count: 1,
            inner: outline.clone(),
            outer: outline,
            edges: vec![Edge::free(); 4],
            holes: Vec::new(),
            grooves: Vec::new(),
            stands: Vec::new(),
            window: None,
            volume: width * height * panel.total(),
        }
    }

    /// Width and height of the blank that it is cut from, m.
    pub fn size(&self) -> [f64; 2] {
        let [low, high] = bounds(self.outer.iter().chain(&self.inner));
        [high[0] - low[0], high[1] - low[1]]
    }

    /// Wood that is left around its holes, grooves and window, m3.
    pub fn wood(&self) -> f64 {
        let thickness = self.panel.total();
        let through = |at: [f64; 2]| {
            let same = |hole: &&FlatHole| hole.depth.is_none() && near(hole.at, at);
            self.holes.iter().find(same).map_or(0.0, FlatHole::area)
        };
        let cut = |hole: &FlatHole| match (hole.kind, hole.depth) {
            // Dowels fill their holes.
            (HoleKind::Dowel, _) => 0.0,
            // What is let into a board is a ring around what goes through.
            (HoleKind::Recess, Some(depth)) => (hole.area() - through(hole.at)) * depth,
            (_, depth) => hole.area() * depth.unwrap_or(thickness),
        };
        let milled = |groove: &Groove| area(&groove.outline).abs() * groove.depth;
        self.volume - self.holes.iter().map(cut).sum::<f64>() - self.grooves.iter().map(milled).sum::<f64>()
    }

    /// Whether it is cut square all round.
    pub fn is_square(&self) -> bool {
        self.edges.iter().all(|edge| edge.bevel.abs() < 1e-6)
    }

    /// Whether it is so much like another that one is cut for the other.
    pub(super) fn is_alike(&self, other: &Self) -> bool {
        let outlines = |part: &Self| [part.outer.clone(), part.inner.clone()].concat();
        let (mine, theirs) = (outlines(self), outlines(other));
        self.panel == other.panel
            && self.name == other.name
            && self.window.is_some() == other.window.is_some()
            && self.holes.len() == other.holes.len()
            && mine.len() == theirs.len()
            && mine.iter().zip(&theirs).all(|(a, b)| near(*a, *b))
    }
}

fn near(a: [f64; 2], b: [f64; 2]) -> bool {
    a.iter().zip(b).all(|(a, b)| (a - b).abs() < 1e-6)
}

pub(super) fn bounds<'a>(points: impl Iterator<Item = &'a [f64; 2]>) -> [[f64; 2]; 2] {
    points.fold([[f64::INFINITY; 2], [f64::NEG_INFINITY; 2]], |[low, high], point| {
        [[0, 1].map(|k| low[k].min(point[k])), [0, 1].map(|k| high[k].max(point[k]))]
    })
}
