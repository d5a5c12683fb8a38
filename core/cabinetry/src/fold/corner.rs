//! Right-angled corners of a way.

use std::f64::consts::{FRAC_PI_2, PI};

/// How a corner is built, and with it how long the way through it is.
#[derive(Debug, Clone, Copy, Default, PartialEq, Eq)]
pub enum Corner {
    /// Left square; the way follows the middle into the corner and out of it.
    #[default]
    Square,
    /// A board across the outer corner that leaves the passage as wide on the diagonal as before it.
    Mitred,
    /// Rounded outside, so that the passage keeps its width all the way.
    Curved,
}

/// Legs of the triangle a mitre cuts off over the width: a square corner is wider on its diagonal by `sqrt 2`.
const CUT: f64 = 2.0 - std::f64::consts::SQRT_2;
const ARC: usize = 8;

impl Corner {
    /// The middle line from a passage of width `before` into one of width `after` (m): places outward along the first and across it
    /// from the inner corner, first to last.
    pub fn line(self, before: f64, after: f64) -> Vec<[f64; 2]> {
        let (first, last) = ([0.0, before / 2.0], [after / 2.0, 0.0]);
        let through: Vec<[f64; 2]> = match self {
            Self::Square => vec![[after / 2.0, before / 2.0]],
            // Halfway between the inner corner and the board across the outer one.
            Self::Mitred => {
                let share = (1.0 - CUT / 2.0) / 2.0;
                vec![[share * after, share * before]]
            }
            Self::Curved => (1..ARC)
                .map(|step| {
                    let (sin, cos) = (FRAC_PI_2 * step as f64 / ARC as f64).sin_cos();
                    [after / 2.0 * sin, before / 2.0 * cos]
                })
                .collect(),
        };
        std::iter::once(first).chain(through).chain([last]).collect()
    }

    /// How long that line is, m.
    pub fn length(self, before: f64, after: f64) -> f64 {
        if self == Self::Square {
            return (before + after) / 2.0;
        }
        self.line(before, after)
            .windows(2)
            .map(|pair| (pair[1][0] - pair[0][0]).hypot(pair[1][1] - pair[0][1]))
            .sum()
    }

    /// Area of what fills the outer corner, m2.
    pub fn filler(self, before: f64, after: f64) -> f64 {
        let share = match self {
            Self::Square => 0.0,
            Self::Mitred => CUT * CUT / 2.0,
            Self::Curved => 1.0 - PI / 4.0,
        };
        share * before * after
    }

    /// Outline of that, as [`Self::line`]; empty of a square corner.
    pub fn outline(self, before: f64, after: f64) -> Vec<[f64; 2]> {
        match self {
            Self::Square => Vec::new(),
            Self::Mitred => {
                vec![[after, before], [after * (1.0 - CUT), before], [after, before * (1.0 - CUT)]]
            }
            Self::Curved => std::iter::once([after, before])
                .chain((0..=ARC).map(|step| {
                    let (sin, cos) = (FRAC_PI_2 * step as f64 / ARC as f64).sin_cos();
                    [after * sin, before * cos]
                }))
                .collect(),
        }
    }
}
