//! From traces to numbers: what was measured of a driver or a box, read, fitted, and said with its error.
//!
//! `session` is a design with what was measured of it, `folder` such a session in files; `trace` an impedance over frequency; `fit` least squares with errors; `loopback` a filter hidden in the chain; `sweep` a sound to measure with, and the response in its recording; `driver` what a
//! driver's impedance says, `cabinet` what that of a finished box does; `answer` all of it as one document; `plan` what is measured of a build; `compare` levels beside each other; `process` what is done with a trace before it is looked at; `remedy` designs that would fix a box, `learned` what a workshop's own builds say of the next, `report` all of this in words and lines. Nothing here reads a file.

pub mod answer;
pub mod cabinet;
pub mod compare;
pub mod driver;
pub mod fit;
pub mod folder;
pub mod learned;
pub mod loopback;
pub mod plan;
pub mod process;
pub mod reading;
pub mod remedy;
pub mod report;
pub mod session;
pub mod sweep;
pub mod trace;

/// A complex number.
pub type Complex = num_complex::Complex<f64>;
