//! Complex numbers, at one frequency or at several side by side.

use crate::lanes::Real;

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
