//! What sound travels in.

mod air;
mod viscothermal;

pub use air::Air;
pub use viscothermal::{CrossSection, WallLosses};
