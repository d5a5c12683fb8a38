//! How the boards of a box are joined.

use serde::Serialize;
use utoipa::ToSchema;

use std::cmp::Ordering;

use crate::geometry::{Face, Point};

/// Which boards reach over the edges of the others.
#[derive(Debug, Clone, Copy, Default, PartialEq, Eq)]
pub enum Overlap {
    /// Front and back over all others, top and bottom over the sides.
    #[default]
    FrontAndBack,
    /// The sides over all others, top and bottom over front and back.
    Sides,
    /// Top and bottom over all others, the sides over front and back.
    TopAndBottom,
    /// None: every edge is mitred.
    Mitred,
}

/// What holds a joint beside glue.
#[derive(Debug, Clone, Copy, Default, PartialEq, Eq, Serialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Joinery {
    /// Nothing: the edge stands blunt on the other board.
    #[default]
    Butt,
    /// Dowels.
    Dowels,
    /// The edge stands in a rabbet, half as deep as the board that has it.
    Rabbet,
    /// A tongue, half as thick as its board on the inner side, stands in a groove.
    Tongue,
    /// Both edges are cut to half the angle.
    Mitre,
}

impl Joinery {
    /// What to call it.
    pub fn name(self) -> &'static str {
        match self {
            Self::Butt => "butt",
            Self::Dowels => "dowels",
            Self::Rabbet => "rabbet",
            Self::Tongue => "tongue",
            Self::Mitre => "mitre",
        }
    }
}

/// The joints of a box.
#[derive(Debug, Clone, Default, PartialEq)]
pub struct Joints {
    /// Which boards reach over which.
    pub overlap: Overlap,
    /// What holds the outer ones.
    pub usual: Joinery,
    /// Edges that are joined otherwise.
    pub pairs: Vec<([Face; 2], Joinery)>,
    /// Whether braces and partitions stand in dadoes, by a third of the board that has them.
    pub housed: bool,
}

/// Share of a layer of a board that a rabbet, and that a groove or dado goes deep (common practice).
const RABBET: f64 = 0.5;
const DADO: f64 = 1.0 / 3.0;

/// Dowels from the end of an edge, and apart from each other at most, m (common practice).
const FROM_END: f64 = 0.05;
const APART: f64 = 0.2;

/// A dowel for boards of a thickness.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Dowel {
    /// m.
    pub diameter: f64,
    /// m.
    pub length: f64,
    /// How deep its hole goes into a face, m; the rest and a little for glue goes into the edge.
    pub in_face: f64,
}

impl Dowel {
    /// Less than half as thick as the thinner board, two thirds into the face (common practice: 6 by 30, 8 by 40 and 10 by 40 mm are sold).
    pub fn of(thickness: f64) -> Self {
        let (diameter, length) = match thickness {
            ..0.0145 => (0.006, 0.030),
            ..0.0215 => (0.008, 0.040),
            _ => (0.010, 0.040),
        };
        Self { diameter, length, in_face: (2.0 / 3.0 * thickness).min(length / 2.0) }
    }

    /// Where they stand along an edge so long (m) from its end, m.
    pub fn along(length: f64) -> Vec<f64> {
        let from = FROM_END.min(length / 4.0);
        let between = length - 2.0 * from;
        let gaps = (between / APART).ceil().max(1.0);
        (0..=gaps as u32).map(|index| from + between * f64::from(index) / gaps).collect()
    }
}

impl Joints {
    /// What holds the joint of two boards.
    pub(super) fn between(&self, one: Face, other: Face) -> Joinery {
        let found = self.pairs.iter().find(|(pair, _)| *pair == [one, other] || *pair == [other, one]);
        found.map_or(self.usual, |(_, joinery)| *joinery)
    }
}

impl Joinery {
    /// How far a board reaches into the one that it ends at, which has layers of a thickness (m), m.
    pub(super) fn depth(self, thickness: f64) -> f64 {
        match self {
            Self::Rabbet => RABBET * thickness,
            Self::Tongue => DADO * thickness,
            Self::Butt | Self::Dowels | Self::Mitre => 0.0,
        }
    }
}

/// How deep a dado goes into layers of a thickness (m), m.
pub(super) fn dado(thickness: f64) -> f64 {
    DADO * thickness
}

/// Of two boards the lower reaches over the higher; equal ones are mitred.
pub(super) fn rank(face: Face, overlap: Overlap, polygon: bool, inset: f64) -> u32 {
    // What is set back stands between its neighbours.
    let back = if inset > 0.0 { 10 } else { 0 };
    let group = match face {
        // The first side of a polygon looks to the front, and is one of its sides.
        Face::Front | Face::Back if polygon => 5,
        Face::Front | Face::Back => 0,
        Face::Left | Face::Right => 1,
        Face::Top | Face::Bottom => 2,
        Face::Riser => 3,
        Face::Tread => 4,
        Face::Side(_) => 5,
        Face::Shell => return 100,
    };
    let order = match overlap {
        Overlap::Mitred => [0, 0, 0, 0, 0, 0],
        Overlap::FrontAndBack => [0, 2, 1, 3, 4, 5],
        Overlap::Sides => [2, 0, 1, 3, 4, 5],
        Overlap::TopAndBottom => [2, 1, 0, 3, 4, 5],
    };
    back + order[group]
}

/// Whether two boards of these ranks can be mitred with each other: every third board that meets both (ranks) lies over both or under both.
pub(super) fn can_mitre(pair: [u32; 2], mut thirds: impl Iterator<Item = u32>) -> bool {
    thirds.all(|third| pair[0].cmp(&third) == pair[1].cmp(&third) && pair[0].cmp(&third) != Ordering::Equal)
}

/// Where a board inside stands in an outer one.
pub(super) struct Housed {
    /// Which board inside.
    pub what: String,
    /// In which outer board.
    pub face: Face,
    /// Corners of where it stands, in space, m.
    pub outline: [Point; 4],
    /// m.
    pub depth: f64,
}
