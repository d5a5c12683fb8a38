//! From the raw form to the complete one.

mod design;
mod driver;
mod enclosure;
mod motor;
mod reading;

pub use design::{ResolvedDesign, check_build, read_wishes, resolve_design};
pub use driver::{Doubt, ResolvedDriver, resolve_driver};
