//! What the impedance of a finished box says of it.

mod bench;
mod model;
mod ports;
mod sound;

pub use bench::{Believed, Found, Seen, Trim, measure, trim};
pub use model::{Against, Boxed, Moves, Wave};
pub use ports::Ports;
pub use sound::Near;
