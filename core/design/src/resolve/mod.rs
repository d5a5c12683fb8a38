//! From the raw form to the complete one.

mod body;
mod brief;
mod design;
mod driver;
mod driver_array;
mod enclosure;
mod listening_place;
mod measured;
mod measurement;
mod plausible;
mod playing;
mod progress;
mod reading;
mod sheet;
mod signal;
mod slip;
mod workshop;

pub use brief::{Brief, resolve_brief};
pub use design::{ResolvedDesign, check_title, read_wishes, resolve_design};
pub use driver::{Reconciled, Record, ResolvedDriver, SheetDoubt, resolve_driver};
pub use driver_array::resolve_driver_array;
pub use enclosure::ChamberFill;
pub use listening_place::{Battery, ListeningPlace, Seat, Standing, resolve_listening_place};
pub use measured::{FOUND_DIFFERENCE, MeasuredDriver};
pub use measurement::{Measurement, resolve_measurement};
pub use playing::Playing;
pub use progress::{check_entry, check_progress};
pub use sheet::SheetHint;
pub use signal::{Mains, resolve_filter, resolve_filters, resolve_parts, resolve_preset};
pub use workshop::{OfferedSheet, Stocked, Workshop, resolve_workshop};
