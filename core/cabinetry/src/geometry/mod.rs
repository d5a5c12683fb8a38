//! Where the boards stand: shapes, panels, and what is mounted in them.
//!
//! Lengths in m. `x` runs across from left to right as seen from the front, `y` up from the floor, `z` forward
//! from the back.

mod frame;
mod outline;
mod shape;
mod solid;
mod vector;

pub use frame::{Frame, area_vector};
pub use outline::area;
pub use shape::{EnclosureShape, EnclosureShapeError, Measured, Sizes};
pub use solid::{Axis, Facet, Solid};
pub use vector::{Point, dot, minus};
pub(crate) use vector::{along, bounds, cross, length, unit};

/// A side of a cabinet.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Hash)]
pub enum Face {
    /// Towards the listener.
    Front,
    /// Away from the listener.
    Back,
    /// Left as seen from the front.
    Left,
    /// Right as seen from the front.
    Right,
    /// Above.
    Top,
    /// Below.
    Bottom,
    /// The level board of an L's step.
    Tread,
    /// The upright board of an L's step.
    Riser,
    /// One of the sides of a prism, counted from the front, from 1.
    Side(u8),
    /// The wall of a pipe, or a rounded corner.
    Shell,
}

impl Face {
    /// What to call it.
    pub fn name(self) -> String {
        match self {
            Self::Front => "front".to_owned(),
            Self::Back => "back".to_owned(),
            Self::Left => "left".to_owned(),
            Self::Right => "right".to_owned(),
            Self::Top => "top".to_owned(),
            Self::Bottom => "bottom".to_owned(),
            Self::Tread => "tread".to_owned(),
            Self::Riser => "riser".to_owned(),
            Self::Side(number) => format!("side {number}"),
            Self::Shell => "shell".to_owned(),
        }
    }
}
