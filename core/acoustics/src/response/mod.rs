//! What a solved network sounds, moves and draws like.

mod curves;
mod figures;
mod grid;
mod limits;
mod passband;
mod transient;

pub use curves::{Response, SoundSource};
pub(crate) use figures::deepest_dip;
pub use figures::{Figures, Peak};
pub use grid::{FrequencyGrid, GridError};
pub use limits::{Allowance, Limit, MaxOutput, mean_share};
pub use passband::LevelBand;
pub(crate) use passband::Passband;
pub use transient::{Burst, Excitation, Transient};
