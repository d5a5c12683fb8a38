//! A simulated measuring box. What it measures is computed here, apart from the solver that the program predicts and fits with, so that neither is tested on itself.

mod air;
mod cabinet;
mod chain;
mod draw;
mod folder;
mod listen;
mod measure;
mod render;
mod scenario;

pub use air::Air;
pub use cabinet::{Cabinet, Coil, Driver, Flows, Mode, Port};
pub use chain::{Chain, Lowpass, normal};
pub use draw::{Hidden, Kind, Setup, Sheet, draw};
pub use folder::{Folder, Truth, folder, truth};
pub use listen::listen;
pub use measure::Wired;
pub use render::{Played, wav};
pub use scenario::{Act, Bench, Scenario};

/// A complex number.
pub type Complex = num_complex::Complex64;
