//! An exponential sweep, a recording of it, and what lies between them.

mod response;
mod signal;
mod wav;

pub use response::{Impulse, Window, deconvolve};
pub use signal::Sweep;
pub use wav::{Depth, Recording, read_wav, write_wav};
