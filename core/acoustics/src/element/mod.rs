//! Physical effects, one file each.
//!
//! An element stands between nodes. At a frequency it states, for its terminals, the volume
//! velocity that flows into it: `u = Y p + s`. That is the whole contract; the solver needs nothing
//! else, and a new effect is a new file here.

mod chamber;
mod diaphragm;
mod duct;
mod moving_coil;
mod radiation;
mod resistance;

pub use chamber::Chamber;
pub use diaphragm::Diaphragm;
pub use duct::{Duct, End, Mass};
pub use moving_coil::MovingCoil;
pub(crate) use moving_coil::coil_current;
pub use radiation::{piston_impedance, piston_resistance};
pub use resistance::Resistance;

use crate::Complex;
use crate::medium::Air;
use crate::node::Node;

/// The frequency, drive and air an element is asked at.
#[derive(Debug, Clone, Copy)]
pub struct At<'a> {
    /// Angular frequency, rad/s.
    pub omega: f64,
    /// Drive at the coil's terminals, V RMS.
    pub volts: f64,
    /// The air.
    pub air: &'a Air,
}

/// One physical effect between nodes.
pub trait Element: std::fmt::Debug + Send + Sync {
    /// The nodes it stands between; at most 8.
    fn terminals(&self) -> &[Node];

    /// Writes every admittance, m3/(s Pa), row-major `[n * n]` for `n` terminals, and the source
    /// flows, m3/s, `[n]`, which are zero on entry. Flow counts as positive into the element.
    fn admit(&self, at: &At<'_>, admittance: &mut [Complex], source: &mut [Complex]);
}
