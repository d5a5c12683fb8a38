//! What the physics is written in, and what may be carried out with it.

use std::ops::Neg;

use num_complex::Complex;
use num_traits::{Num, NumAssignOps};

/// Something to be carried out in registers that not every processor has. Its `run` is marked `inline(always)`.
pub(crate) trait Task {
    /// What it comes to.
    type Output;

    /// Carries it out.
    fn run(self) -> Self::Output;
}

/// What the physics is written in: one real number, or several side by side.
pub trait Real: Num + NumAssignOps + Copy + Neg<Output = Self> + std::fmt::Debug + 'static {
    /// How many numbers stand side by side.
    const LANES: usize;

    /// The same number in every lane.
    fn of(value: f64) -> Self;

    /// A number for every lane, by its position.
    fn by_lane(value: impl Fn(usize) -> f64) -> Self;

    /// One lane.
    fn extract(self, lane: usize) -> f64;

    /// Puts a number into one lane.
    fn replace(&mut self, lane: usize, value: f64);

    /// Square root.
    fn root(self) -> Self;

    /// One over it.
    fn reciprocal(self) -> Self;

    /// The larger of two, lane by lane.
    fn or_larger(self, other: Self) -> Self;

    /// A function of every lane.
    #[inline(always)]
    fn map_lanes(self, function: impl Fn(f64) -> f64) -> Self {
        Self::by_lane(|lane| function(self.extract(lane)))
    }

    /// The largest lane.
    #[inline(always)]
    fn largest(self) -> f64 {
        (1..Self::LANES).fold(self.extract(0), |largest, lane| largest.max(self.extract(lane)))
    }

    /// The smallest lane.
    #[inline(always)]
    fn smallest(self) -> f64 {
        (1..Self::LANES).fold(self.extract(0), |smallest, lane| smallest.min(self.extract(lane)))
    }
}

impl Real for f64 {
    const LANES: usize = 1;

    #[inline(always)]
    fn of(value: f64) -> Self {
        value
    }

    #[inline(always)]
    fn by_lane(value: impl Fn(usize) -> f64) -> Self {
        value(0)
    }

    #[inline(always)]
    fn extract(self, _: usize) -> f64 {
        self
    }

    #[inline(always)]
    fn replace(&mut self, _: usize, value: f64) {
        *self = value;
    }

    #[inline(always)]
    fn root(self) -> Self {
        self.sqrt()
    }

    #[inline(always)]
    fn reciprocal(self) -> Self {
        self.recip()
    }

    #[inline(always)]
    fn or_larger(self, other: Self) -> Self {
        self.max(other)
    }
}

/// One lane of a complex number.
#[inline(always)]
pub(crate) fn lane<T: Real>(z: Complex<T>, lane: usize) -> Complex<f64> {
    Complex::new(z.re.extract(lane), z.im.extract(lane))
}

/// Applies a function of a real number lane by lane, where it branches too much to be computed side by side.
#[inline(always)]
pub(crate) fn each<T: Real>(x: T, function: impl Fn(f64) -> Complex<f64>) -> Complex<T> {
    let (mut re, mut im) = (T::of(0.0), T::of(0.0));
    for lane in 0..T::LANES {
        let value = function(x.extract(lane));
        re.replace(lane, value.re);
        im.replace(lane, value.im);
    }
    Complex::new(re, im)
}

/// A constant as a complex one.
#[inline(always)]
pub(crate) fn constant<T: Real>(z: Complex<f64>) -> Complex<T> {
    Complex::new(T::of(z.re), T::of(z.im))
}
