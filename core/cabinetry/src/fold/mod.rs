//! Ways folded into a box: a line or horn laid back and forth between straight boards.
//!
//! The channels of a fold lie one after the other along the `stack` (from the top down, or from the front back); in each of
//! them the way runs along the `run`, there and back. Between two channels stands a board that ends before the wall: there the way
//! turns. All channels are as wide as the room. Where the ends of the channels do not add up to the same height, as in a horn that opens
//! fast, a slanting board closes the last channel on its outer side and leaves a dead space behind it.

mod corner;
mod lay;

pub use corner::Corner;
pub(crate) use lay::runs_up;
pub use lay::{Closing, FoldPanel, Laid, Plan, Spot, Stretch, Turn};

use crate::geometry::{Axis, Face, Point, Solid};

/// How a way is to be folded.
#[derive(Debug, Clone, PartialEq)]
pub struct Fold {
    /// How often it turns back; found where absent.
    pub folds: Option<u32>,
    /// Along what the channels lie: up (from the top down) or forward (from the front back).
    pub stack: Axis,
    /// How the corners are built.
    pub corner: Corner,
    /// In which end of the channels the mouth is; in front, or below, where absent.
    pub mouth: Option<Face>,
    /// Thickness of the boards between channels, m.
    pub thickness: f64,
    /// Middle of each of these boards from where the stack begins, m; found where absent.
    pub panels: Vec<Option<f64>>,
}

/// Where the drivers of a way sit.
#[derive(Debug, Clone, Copy, PartialEq)]
pub enum Seat {
    /// In a board of the chamber that the way begins at.
    Chamber,
    /// Between that chamber and the way.
    Throat,
    /// In the way, so far from its beginning, m.
    Along(f64),
    /// In a board between two channels, each side so far from the beginning, m.
    Between([f64; 2]),
}

/// A way as the design asks for it.
#[derive(Debug, Clone, PartialEq)]
pub struct DuctPath {
    /// Places along it and the area there, m and m2, from the beginning to the mouth.
    pub areas: Vec<[f64; 2]>,
    /// Where the drivers sit.
    pub seat: Seat,
    /// What belongs to it and is not folded with it.
    pub apart: Vec<&'static str>,
}

/// Most folds that are tried where none are stated.
pub const MOST_FOLDS: u32 = 6;

impl DuctPath {
    /// m.
    pub fn length(&self) -> f64 {
        self.areas.last().map_or(0.0, |last| last[0])
    }

    /// Area at a place (m), m2.
    pub fn area(&self, at: f64) -> f64 {
        let next = self.areas.partition_point(|[x, _]| *x < at).clamp(1, self.areas.len() - 1);
        let ([x0, a], [x1, b]) = (self.areas[next - 1], self.areas[next]);
        if x1 <= x0 {
            return b;
        }
        a + (b - a) * ((at - x0) / (x1 - x0)).clamp(0.0, 1.0)
    }

    /// Air in it, m3.
    pub fn volume(&self) -> f64 {
        self.areas.windows(2).map(|pair| (pair[1][0] - pair[0][0]) * (pair[0][1] + pair[1][1]) / 2.0).sum()
    }
}

impl Fold {
    /// Along what the channels run.
    pub fn run(&self) -> Axis {
        if self.stack == Axis::Y { Axis::Z } else { Axis::Y }
    }

    /// The face that the mouth opens in.
    pub fn mouth_face(&self) -> Face {
        let [low, high] = self.ends();
        let usual = if self.stack == Axis::Y { high } else { low };
        self.mouth.filter(|face| *face == low || *face == high).unwrap_or(usual)
    }

    /// The faces at the ends of the channels, low and high.
    pub fn ends(&self) -> [Face; 2] {
        if self.stack == Axis::Y { [Face::Back, Face::Front] } else { [Face::Bottom, Face::Top] }
    }

    /// The faces where the stack begins and ends.
    pub fn outsides(&self) -> [Face; 2] {
        if self.stack == Axis::Y { [Face::Top, Face::Bottom] } else { [Face::Front, Face::Back] }
    }

    /// The room of a way as the fold sees it.
    pub fn plan(&self, interior: &Solid) -> Plan {
        let [low, high] = interior.bounds();
        let size = |axis: Axis| high[axis.index()] - low[axis.index()];
        Plan {
            width: size(Axis::X),
            run: size(self.run()),
            stack: size(self.stack),
            mouth_high: self.mouth_face() == self.ends()[1],
        }
    }

    /// A place of the plan in space, so far (m) across the room from its middle.
    pub fn point(&self, interior: &Solid, [run, stack]: [f64; 2], across: f64) -> Point {
        let [low, high] = interior.bounds();
        let mut point = [f64::midpoint(low[0], high[0]) + across; 3];
        point[self.run().index()] = low[self.run().index()] + run;
        point[self.stack.index()] = high[self.stack.index()] - stack;
        point
    }
}
