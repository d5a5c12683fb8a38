//! Panels: what they are of, and how they ring.

mod material;
mod panels;
mod plate;

pub use material::{MATERIALS, Material};
pub use panels::{Wall, inner_mass, panels, propose, weakest_of};
pub use plate::{GLUED, Plate};
