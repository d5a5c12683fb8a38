//! Arithmetic at one frequency, or at four side by side in the processor's wide registers.

use simba::simd::{SimdRealField, WideF64x4};

use crate::Complex;
use crate::element::{At, Element};

/// Real numbers at four frequencies.
pub type Four = WideF64x4;

/// What the physics is written in: one real number, or several side by side.
pub trait Real: SimdRealField<Element = f64> + Copy {
    /// Asks an element, see [`Element::admit`].
    fn admit(element: &dyn Element, at: &At<'_, Self>, admittance: &mut [Complex<Self>]) -> Self;

    /// The same number in every lane.
    fn of(value: f64) -> Self {
        Self::splat(value)
    }

    /// A number for every lane, by its position.
    fn by_lane(value: impl Fn(usize) -> f64) -> Self {
        let mut lanes = Self::splat(0.0);
        for lane in 0..Self::LANES {
            lanes.replace(lane, value(lane));
        }
        lanes
    }

    /// The largest lane.
    fn largest(self) -> f64 {
        self.simd_horizontal_max()
    }
}

impl Real for f64 {
    fn admit(element: &dyn Element, at: &At<'_, Self>, admittance: &mut [Complex<Self>]) -> Self {
        element.admit(at, admittance)
    }
}

impl Real for Four {
    fn admit(element: &dyn Element, at: &At<'_, Self>, admittance: &mut [Complex<Self>]) -> Self {
        element.admit_four(at, admittance)
    }
}

/// One lane of a complex number.
pub(crate) fn lane<T: Real>(z: Complex<T>, lane: usize) -> Complex {
    Complex::new(z.re.extract(lane), z.im.extract(lane))
}

/// Applies a function of a real number lane by lane, where it branches too much to be computed side by side.
pub(crate) fn each<T: Real>(x: T, function: impl Fn(f64) -> Complex) -> Complex<T> {
    let (mut re, mut im) = (T::of(0.0), T::of(0.0));
    for lane in 0..T::LANES {
        let value = function(x.extract(lane));
        re.replace(lane, value.re);
        im.replace(lane, value.im);
    }
    Complex::new(re, im)
}

/// A constant as a complex one.
pub(crate) fn constant<T: Real>(z: Complex) -> Complex<T> {
    Complex::new(T::of(z.re), T::of(z.im))
}
