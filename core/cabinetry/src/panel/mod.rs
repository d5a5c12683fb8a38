//! Panels: what they are of, and how they ring.

mod material;
mod plate;
mod wall;

pub use material::{MATERIALS, Material};
pub use plate::{GLUED, Plate};
pub use wall::{Wall, inner_mass, propose, walls, weakest_of};
