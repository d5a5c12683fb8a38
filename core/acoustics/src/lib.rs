//! Air, drivers, the acoustic network and its solution.
//!
//! SI throughout, time factor `exp(+j omega t)`, phasors are RMS. Excursions and air speeds are
//! reported as one-way peak values, levels in dB re 20 uPa at 1 m in the space that the setting names, half
//! space where none is named.
//!
//! The path through the crate is `enclosure` (a cabinet becomes a network) -> `network` (what was
//! compiled) -> `solve` (flows and pressures at a frequency) -> `response` (curves and figures).
//! Only `enclosure` knows cabinet families; only `element` knows physical effects.

pub mod cavity;
pub mod driver;
pub mod element;
pub mod enclosure;
pub mod lanes;
pub mod medium;
pub mod network;
mod node;
pub mod profile;
pub mod response;
pub mod root;
pub mod solve;
pub mod starting_point;
mod stop;

pub use stop::Stop;

use lanes::Real;

/// Complex phasor, at one frequency or at several side by side.
pub type Complex<T = f64> = num_complex::Complex<T>;

#[cfg(test)]
pub(crate) const J: Complex = Complex::new(0.0, 1.0);

/// Principal square root, by real roots only: several times quicker than the general polar route and as
/// exact where the real part is not negative, which is where every medium property lies.
#[inline(always)]
pub(crate) fn root<T: Real>(z: Complex<T>) -> Complex<T> {
    let half = T::of(0.5);
    let real = (half * (z.norm_sqr().root() + z.re)).root();
    Complex::new(real, half * z.im / real)
}

/// One over z with a single division, which is what costs.
#[inline(always)]
pub(crate) fn inverse<T: Real>(z: Complex<T>) -> Complex<T> {
    let scale = z.norm_sqr().reciprocal();
    Complex::new(z.re * scale, -z.im * scale)
}
