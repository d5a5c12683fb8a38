//! Panels: what they are of, and how they ring.

mod boards;
mod material;
mod plate;

pub use boards::{Panel, inner_mass, panels, propose, weakest_of};
pub use material::{MATERIALS, Material};
pub use plate::{GLUED, Plate};
