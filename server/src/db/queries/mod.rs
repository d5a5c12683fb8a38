//! One file a table, and one for what is asked of several columns at once.

pub mod build;
pub mod companion;
pub mod document;
pub mod driver;
pub mod driver_match;
pub mod job;
pub mod library;
pub mod photo;
pub mod recording;
pub mod scenario;
