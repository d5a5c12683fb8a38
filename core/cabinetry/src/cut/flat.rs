//! A board as it is cut.

use crate::body::Panel;
use crate::geometry::Face;

/// Which boards reach over the edges of the others, glued blunt.
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

/// How two boards meet at an edge.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum EdgeJoint {
    /// This board reaches over the edge of the other.
    Over,
    /// This board ends at the inner side of the other.
    Under,
    /// Both are cut to half the angle.
    Mitre,
    /// It meets a rounded corner or a pipe.
    Round,
    /// It meets nothing, or stands blunt against another board.
    Free,
}

/// One edge of a flat part.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Edge {
    /// What it meets.
    pub meets: Option<Face>,
    /// How.
    pub joint: EdgeJoint,
    /// Tilt of the cut from square, rad: positive where the outer side is the longer one.
    pub bevel: f64,
}

/// What is cut or drilled into a flat part.
#[derive(Debug, Clone, PartialEq)]
pub struct FlatHole {
    /// For what.
    pub what: String,
    /// Its middle from the lowest corner of the part, m.
    pub at: [f64; 2],
    /// Width and height, m.
    pub size: [f64; 2],
    /// Whether it is round.
    pub round: bool,
    /// How deep it goes, m; through where absent.
    pub depth: Option<f64>,
}

/// A board as it is cut.
#[derive(Debug, Clone, PartialEq)]
pub struct FlatPart {
    /// What it is called.
    pub name: String,
    /// Of what and how thick.
    pub panel: Panel,
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
    /// A window that a brace has: lowest and highest corner, m.
    pub window: Option<[[f64; 2]; 2]>,
    /// What it is cut from, without its holes, m3.
    pub volume: f64,
}

impl FlatPart {
    /// Width and height of the blank that it is cut from, m.
    pub fn size(&self) -> [f64; 2] {
        let [low, high] = bounds(self.outer.iter().chain(&self.inner));
        [high[0] - low[0], high[1] - low[1]]
    }

    /// Wood around its holes and window, m3.
    pub fn wood(&self) -> f64 {
        let thickness = self.panel.total();
        let hole = |hole: &FlatHole| {
            let [w, h] = hole.size;
            let area = if hole.round { std::f64::consts::FRAC_PI_4 * w * h } else { w * h };
            area * hole.depth.unwrap_or(thickness)
        };
        self.volume - self.holes.iter().map(hole).sum::<f64>()
    }

    /// Whether it is cut square all round.
    pub fn is_square(&self) -> bool {
        self.edges.iter().all(|edge| edge.bevel.abs() < 1e-6)
    }
}

pub(super) fn bounds<'a>(points: impl Iterator<Item = &'a [f64; 2]>) -> [[f64; 2]; 2] {
    points.fold([[f64::INFINITY; 2], [f64::NEG_INFINITY; 2]], |[low, high], point| {
        [[0, 1].map(|k| low[k].min(point[k])), [0, 1].map(|k| high[k].max(point[k]))]
    })
}
