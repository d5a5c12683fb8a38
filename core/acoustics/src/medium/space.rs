//! How much of the full space a cabinet radiates into.

use std::f64::consts::PI;

/// The solid angle left open by walls and ground.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Default)]
pub enum Space {
    /// Free on all sides: 4 pi.
    Full,
    /// On the ground or in a wall: 2 pi.
    #[default]
    Half,
    /// On the ground against a wall: pi.
    Quarter,
    /// In a corner: pi/2.
    Eighth,
}

impl Space {
    /// Solid angle, sr.
    pub fn angle(self) -> f64 {
        match self {
            Self::Full => 4.0 * PI,
            Self::Half => 2.0 * PI,
            Self::Quarter => PI,
            Self::Eighth => PI / 2.0,
        }
    }
}
