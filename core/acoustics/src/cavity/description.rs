//! A chamber as it is described: its size, its fill and its openings.

use crate::medium::Fill;

/// A box of fill in the room, m from its lowest corner.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Block {
    /// Lowest corner.
    pub low: [f64; 3],
    /// Highest corner.
    pub high: [f64; 3],
    /// What it is of.
    pub fill: Fill,
}

/// A flat rectangle that air passes through evenly.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Patch {
    /// Lowest corner, m from that of the room.
    pub low: [f64; 3],
    /// Highest corner; along one axis the same.
    pub high: [f64; 3],
}

impl Patch {
    /// Where elements begin and end beside it along an axis, m: half its size beyond its edges, where the air still crowds; from a wall
    /// as far as it is wide.
    pub(super) fn beside(&self, axis: usize) -> [f64; 2] {
        let size = [0, 1, 2].map(|k| self.high[k] - self.low[k]);
        let [low, high] = [self.low[axis], self.high[axis]];
        let (widest, smallest) = size
            .iter()
            .filter(|size| **size > 0.0)
            .fold((0.0_f64, f64::INFINITY), |(a, b), size| (a.max(*size), b.min(*size)));
        if size[axis] > 0.0 {
            let beyond = 0.5 * size[axis].min(smallest);
            [low - beyond, high + beyond]
        } else {
            let near = 0.5 * smallest.min(widest);
            [low - near, low + near]
        }
    }
}

/// A rectangular chamber.
#[derive(Debug, Clone, PartialEq)]
pub struct Cavity {
    /// Width, height and depth, m.
    pub size: [f64; 3],
    /// Fill; where blocks overlap the first counts.
    pub blocks: Vec<Block>,
    /// Openings, each of one or several patches that move alike.
    pub openings: Vec<Vec<Patch>>,
    /// Share of the room that is air; what stands in it narrows it evenly.
    pub free: f64,
}

/// Most unknowns of a chamber: what is solved for them at two frequencies at a time stays below half a gigabyte.
pub const MOST_UNKNOWNS: usize = 90_000;

/// Why a chamber was not solved.
#[derive(Debug, Clone, Copy, PartialEq, Eq, thiserror::Error)]
pub enum CavityError {
    /// It has more unknowns than [`MOST_UNKNOWNS`].
    #[error("a model in three directions would have {unknowns} unknowns; {MOST_UNKNOWNS} are the most")]
    TooLarge {
        /// How many.
        unknowns: usize,
    },
    /// Nobody wants it any more.
    #[error("stopped")]
    Stopped,
}

pub(super) fn dot(a: &[f64], b: &[f64]) -> f64 {
    a.iter().zip(b).map(|(a, b)| a * b).sum()
}
