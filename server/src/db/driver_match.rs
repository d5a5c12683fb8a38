//! What a driver match is stored as.

use oak_design::file::RawBrief;
use serde::{Deserialize, Serialize};

/// Its kind of job, in the database and in answers.
pub const ID: &str = "driver_match";
/// The kind for people.
pub const NAME: &str = "Drivers for a brief";

/// What is looked for.
#[derive(Debug, Clone, Serialize, Deserialize)]
pub struct Input {
    /// What must be reached.
    pub brief: RawBrief,
    /// How many equal drivers each cabinet has.
    pub drivers: u32,
}

/// What was found so far.
#[derive(Debug, Clone, Copy, Default, Serialize, Deserialize)]
pub struct Tally {
    /// Cabinets.
    pub found: i32,
    /// Of these, such that reach all that is asked.
    pub complete: i32,
}
