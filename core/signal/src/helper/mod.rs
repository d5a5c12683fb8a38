//! Filters that the program proposes, each from what was computed.

mod flatten;
mod protect;
mod transform;

pub use flatten::{Flattening, flatten};
pub use protect::{HIGHEST_CORNER, LOWEST_CORNER, Protection, protect};
pub use transform::{Transform, transform};
