//! Panels: what they are of, and how they ring.

mod all;
mod inner;
mod plate;
mod propose;
mod wall;

pub use crate::material::{MATERIALS, Material};
pub use all::walls;
pub use plate::{GLUED, Plate};
pub use propose::{propose, weakest_of};
pub use wall::{Location, Wall};
