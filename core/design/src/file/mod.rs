//! Raw forms: what is in a file, as typed.

mod body;
mod brief;
mod build;
mod design;
mod driver;
mod driver_array;
mod enclosure;
mod family;
mod listening_place;
mod measured;
mod measurement;
mod open;
mod progress;
mod restore;
mod signal;
mod workshop;

pub use crate::typed::Typed;
pub use body::{
    RawAxis, RawBody, RawBrace, RawCorner, RawEnclosureShape, RawFace, RawFold, RawFoldPanel, RawItem,
    RawJoinery, RawJoint, RawLayer, RawLinked, RawMaterial, RawMeasured, RawOpening, RawOverlap, RawPanel,
    RawPlace, RawPortBuild, RawRatio, RawStack, RawWashers,
};
pub use brief::{RawAirNoise, RawBrief};
pub use build::{BUILD_FORMAT, RawBuild};
pub use design::{DESIGN_FORMAT, RawAir, RawDesign, RawProgramme, RawSpace};
pub use driver::{DRIVER_FORMAT, RawDriver, RawSheetCoils, RawSource, RawSourceKind};
pub use driver_array::{RawArrangement, RawCoils, RawDriverArray, RawIsobaric};
pub use enclosure::{
    RawChamber, RawEnclosure, RawEnd, RawFillMaterial, RawFlare, RawFrame, RawMouth, RawPassage, RawPort,
    RawPortSection, RawRadiator, RawSegment, RawStuffing,
};
pub use family::RawFamily;
pub use listening_place::{
    MOST_AREAS, MOST_SEATS, MOST_STANDS, RawArea, RawBattery, RawListening, RawListeningPlace, RawSeat,
    RawStand, RawWalls,
};
pub use measured::{
    MOST_MEASURED, RawFoundBox, RawFoundValue, RawMeasuredBoard, RawMeasuredVolume, RawMeasurements,
};
pub use measurement::{MOST_HARMONICS, MOST_MEASURED_POINTS, RawMeasurement, RawTraceKind, RawTraceSource};
pub use open::{open_build, open_design, open_driver, open_value, plain_text, read_json, read_value};
pub use progress::{
    LONGEST_ACCOUNT, MOST_PHOTOS, MOST_PRINTED, MOST_TICKS, RawEntry, RawPrinted, RawProgress, RawSaid,
    RawTick,
};
pub use restore::restore;
pub use signal::{
    MOST_BUILT_IN, MOST_FILTERS, MOST_PARTS, MOST_TRACE_POINTS, RawAlignment, RawAmplifier, RawDrive,
    RawFilter, RawFilterKind, RawMains, RawMounting, RawPart, RawPartWiring, RawPreset, RawSignal,
};
pub use workshop::{
    MOST_LAID, MOST_LAYOUTS, MOST_SHEETS, MOST_STOCK, RawAssembly, RawFeet, RawFinish, RawFixing, RawGlue,
    RawLayout, RawLeads, RawPaper, RawSheet, RawStock, RawTerminal, RawWorkshop,
};

/// Version of all file formats that this program writes.
pub const VERSION: u32 = 2;

/// Longest name, in characters.
pub const LONGEST_NAME: usize = 120;
/// Longest note, in characters.
pub const LONGEST_NOTE: usize = 10_000;
/// Most tags of one driver.
pub const MOST_TAGS: usize = 20;
/// Longest tag, in characters.
pub const LONGEST_TAG: usize = 40;
