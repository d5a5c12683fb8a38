//! What a search for places is stored as: its input is an `oak_planning::place::RawPlaceSearch`, its result a `BestPlaces`.

/// Its kind of job, in the database and in answers.
pub const ID: &str = "best_places";
/// The kind for people.
pub const NAME: &str = "Best places in a room";
