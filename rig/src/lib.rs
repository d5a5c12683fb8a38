//! A simulated measuring box. What it measures is computed here, apart from the solver that the program predicts and fits with, so that neither is tested on itself.

mod air;
mod cabinet;
mod chain;
mod draw;
mod folder;

pub use air::Air;
pub use cabinet::{Cabinet, Coil, Driver, Flows, Mode, Port};
pub use chain::{Chain, Lowpass, normal};
pub use draw::{Hidden, Kind, Setup, Sheet, draw};
pub use folder::{Folder, Truth, folder, truth};

/// A complex number.
pub type Complex = num_complex::Complex64;
