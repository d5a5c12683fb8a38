//! From traces to numbers: what was measured of a driver or a box, read, fitted, and said with its error.
//!
//! `session` is a folder of traces with what is known of each; `trace` an impedance over frequency; `fit` least squares with errors; `loopback` a filter hidden in the chain; `sweep` a sound to measure with, and the response in its recording; `driver` what a
//! driver's impedance says, `cabinet` what that of a finished box does; `answer` all of it as one document. Nothing here reads a file.

pub mod answer;
pub mod cabinet;
pub mod driver;
pub mod fit;
pub mod loopback;
pub mod session;
pub mod sweep;
pub mod trace;

/// A complex number.
pub type Complex = num_complex::Complex<f64>;
