//! Physical effects, one file each.
//!
//! An element stands between nodes. At a frequency it states, for its terminals, what flows into it:
//! `u = Y p`, volume velocity from pressure, on the electrical side current from voltage. That is the
//! whole contract; the solver needs nothing else, and a new effect is a new file here.

mod chamber;
mod diaphragm;
mod duct;
mod end;
mod moving_coil;
mod passage;
mod radiation;
mod resistance;

pub use chamber::Chamber;
pub use diaphragm::Diaphragm;
pub use duct::{Duct, Mass};
pub use end::End;
pub use moving_coil::{Loads, MovingCoil};
pub use passage::{Passage, Slice};
pub use radiation::{mouth_impedance, pipe_impedance, piston_impedance, radiation_resistance};
pub use resistance::Resistance;

use crate::Complex;
use crate::medium::{Air, Space};
use crate::node::Node;

/// The frequency and surroundings an element is asked at.
#[derive(Debug, Clone, Copy)]
pub struct At<'a> {
    /// Angular frequency, rad/s.
    pub omega: f64,
    /// The air.
    pub air: &'a Air,
    /// The space it radiates into.
    pub space: Space,
}

/// One physical effect between nodes.
pub trait Element: std::fmt::Debug + Send + Sync {
    /// The nodes it stands between; at most 8.
    fn terminals(&self) -> &[Node];

    /// Writes every admittance, row-major `[n * n]` for `n` terminals: m3/(s Pa), for electrical
    /// terminals A/V, between both m3/(s V) and A/Pa. Flow counts as positive into the element.
    fn admit(&self, at: &At<'_>, admittance: &mut [Complex]);

    /// Whether what leaves at the outside has spread on its way, so that it is heard by its power over the open space and
    /// not, as a piston, on its axis.
    fn spreads(&self) -> bool {
        false
    }

    /// Resistance that the open air sets against what leaves a terminal at the outside, Pa s/m3.
    fn radiation(&self, at: &At<'_>) -> f64 {
        let _ = at;
        0.0
    }
}
