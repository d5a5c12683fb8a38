//! From the raw form to the complete one.

mod body;
mod brief;
mod design;
mod driver;
mod enclosure;
mod motor;
mod reading;
mod slip;

pub use brief::{Brief, resolve_brief};
pub use design::{ResolvedDesign, check_build, read_wishes, resolve_design};
pub use driver::{Reconciled, Record, ResolvedDriver, SheetDoubt, SheetHint, resolve_driver};
pub use motor::resolve_motor;
