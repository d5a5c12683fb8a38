//! What the impedance of a finished box says of it.

mod bench;
mod model;

pub use bench::{Believed, Found, measure, port_cut};
pub use model::Boxed;
