//! Raw forms: what is in a file, as typed.

mod build;
mod design;
mod driver;
mod family;
mod motor;
mod open;
mod typed;

pub use build::{BUILD_FORMAT, RawBuild};
pub use design::{
    DESIGN_FORMAT, RawAir, RawChamber, RawDesign, RawDrive, RawEnclosure, RawEnd, RawFlare, RawFrame,
    RawLimits, RawMouth, RawPassage, RawPort, RawProgramme, RawRadiator, RawSegment, RawShape, RawSpace,
    RawStuffing,
};
pub use driver::{DRIVER_FORMAT, RawDriver, RawSheetCoils};
pub use family::RawFamily;
pub use motor::{RawArrangement, RawCoils, RawIsobaric, RawMotor};
pub use open::{open_build, open_design, open_driver, read_json};
pub use typed::Typed;

/// Version of all file formats that this program writes.
pub const VERSION: u32 = 1;

/// Longest name, in characters.
pub const LONGEST_NAME: usize = 120;
/// Longest note, in characters.
pub const LONGEST_NOTE: usize = 10_000;
