//! What a solved network sounds, moves and draws like.

mod curves;
mod figures;
mod grid;

pub use curves::Response;
pub use figures::{Figures, Peak};
pub use grid::{FrequencyGrid, GridError};
