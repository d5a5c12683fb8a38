//! Arithmetic at one frequency, or at four side by side in the processor's wide registers.
//!
//! The physics is written once over [`Real`]. It is compiled for one number, which every processor can, and for four in AVX2's
//! registers; [`Path::best`] says what this processor can, and [`crate::solve::Sweep`] takes it once for a whole sweep. No
//! multiplications are fused, so the results are the same.

#[cfg(target_arch = "x86_64")]
mod avx2;
#[cfg(not(target_arch = "x86_64"))]
#[path = "no_avx2.rs"]
mod avx2;

pub use avx2::Avx2;
pub(crate) use avx2::{flows_in_avx2, work_in_avx2};

use std::cell::Cell;
use std::ops::Neg;

use num_traits::{Num, NumAssignOps};

use crate::Complex;
use crate::element::{At, Element};

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

    /// Asks an element, see [`Element::admit`].
    fn admit(element: &dyn Element, at: &At<'_, Self>, admittance: &mut [Complex<Self>]) -> Self;

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

    fn admit(element: &dyn Element, at: &At<'_, Self>, admittance: &mut [Complex]) -> Self {
        element.admit(at, admittance)
    }
}

/// How a sweep is computed.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Path {
    /// One frequency at a time.
    Scalar,
    /// Four in AVX2's registers.
    Avx2,
}

thread_local! {
    static FORCED: Cell<Option<Path>> = const { Cell::new(None) };
}

impl Path {
    /// The quickest that this processor has.
    pub fn best() -> Self {
        FORCED.get().unwrap_or(if avx2::there() { Self::Avx2 } else { Self::Scalar })
    }

    /// All that this processor has.
    pub fn all() -> Vec<Self> {
        let mut all = vec![Self::Scalar];
        all.extend(avx2::there().then_some(Self::Avx2));
        all
    }

    /// Has everything on this thread computed in one way, to compare it with another. A path that the processor has not is passed over.
    pub fn forced<T>(self, work: impl FnOnce() -> T) -> T {
        let before = FORCED.replace(Some(self).filter(|path| *path != Self::Avx2 || avx2::there()));
        let done = work();
        FORCED.set(before);
        done
    }
}

/// One lane of a complex number.
#[inline(always)]
pub(crate) fn lane<T: Real>(z: Complex<T>, lane: usize) -> Complex {
    Complex::new(z.re.extract(lane), z.im.extract(lane))
}

/// Applies a function of a real number lane by lane, where it branches too much to be computed side by side.
#[inline(always)]
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
#[inline(always)]
pub(crate) fn constant<T: Real>(z: Complex) -> Complex<T> {
    Complex::new(T::of(z.re), T::of(z.im))
}
