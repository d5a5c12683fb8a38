//! Panels: what they are of, and how they ring.

mod inner;
mod material;
mod plate;
mod wall;

pub use material::{MATERIALS, Material};
pub use plate::{GLUED, Plate};
pub use wall::{Location, Wall, braces_and_strips, propose, walls, weakest_of};
