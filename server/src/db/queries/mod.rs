//! One file a table.

pub mod build;
pub mod driver;
pub mod scenario;
pub mod variant;
