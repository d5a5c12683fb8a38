//! The one place that the compiler does not check: four numbers in AVX2's registers.
//!
//! [`work`] carries the attribute by which everything that is inlined into it may use these registers; what is written over
//! [`Real`] is marked `inline(always)` for that. Calling it, and the instructions, is sound where the processor has AVX2.
//! [`work_in_avx2`] asks it each time, and [`Avx2`] has no public constructor: numbers of it exist only within such work.
#![allow(unsafe_code)]

use std::arch::x86_64::{
    __m256d, _mm256_add_pd, _mm256_div_pd, _mm256_max_pd, _mm256_mul_pd, _mm256_set1_pd, _mm256_sqrt_pd,
    _mm256_sub_pd, _mm256_xor_pd,
};
use std::ops::{Add, AddAssign, Div, DivAssign, Mul, MulAssign, Neg, Rem, RemAssign, Sub, SubAssign};

use num_traits::{Num, One, Zero};

use super::real::{Real, Task};

/// Four numbers in one of AVX2's registers.
#[derive(Debug, Clone, Copy)]
pub struct Avx2(__m256d);

/// Whether this processor has AVX2.
#[inline]
pub(super) fn there() -> bool {
    std::arch::is_x86_feature_detected!("avx2")
}

#[target_feature(enable = "avx2")]
fn work<T: Task>(task: T) -> T::Output {
    task.run()
}

/// Carries out what may compute in AVX2's registers.
///
/// # Panics
/// The processor has no AVX2.
pub(crate) fn work_in_avx2<T: Task>(task: T) -> T::Output {
    assert!(there(), "this processor has no AVX2");
    // SAFETY: the processor has AVX2.
    unsafe { work(task) }
}

/// The same within such work, of which a number is the evidence.
#[inline(always)]
pub(crate) fn on_in_avx2<T: Task>(_evidence: Avx2, task: T) -> T::Output {
    // SAFETY: there are numbers of `Avx2`, so `work_in_avx2` has asked the processor.
    unsafe { work(task) }
}

impl Avx2 {
    #[inline(always)]
    fn lanes(self) -> [f64; 4] {
        // SAFETY: both are four f64 and any bits are a value of either.
        unsafe { std::mem::transmute(self.0) }
    }

    #[inline(always)]
    fn from_lanes(lanes: [f64; 4]) -> Self {
        // SAFETY: see `lanes`.
        Self(unsafe { std::mem::transmute::<[f64; 4], __m256d>(lanes) })
    }
}

macro_rules! lane_by_lane {
    ($($operation:ident $method:ident $assign:ident $assigned:ident $instruction:ident;)*) => {$(
        impl $operation for Avx2 {
            type Output = Self;

            #[inline(always)]
            fn $method(self, other: Self) -> Self {
                // SAFETY: there are numbers of `Avx2`, so the processor has it.
                Self(unsafe { $instruction(self.0, other.0) })
            }
        }

        impl $assign for Avx2 {
            #[inline(always)]
            fn $assigned(&mut self, other: Self) {
                *self = $operation::$method(*self, other);
            }
        }
    )*};
}

lane_by_lane! {
    Add add AddAssign add_assign _mm256_add_pd;
    Sub sub SubAssign sub_assign _mm256_sub_pd;
    Mul mul MulAssign mul_assign _mm256_mul_pd;
    Div div DivAssign div_assign _mm256_div_pd;
}

impl Neg for Avx2 {
    type Output = Self;

    #[inline(always)]
    fn neg(self) -> Self {
        // SAFETY: there are numbers of `Avx2`, so the processor has it.
        Self(unsafe { _mm256_xor_pd(self.0, _mm256_set1_pd(-0.0)) })
    }
}

impl Rem for Avx2 {
    type Output = Self;

    fn rem(self, other: Self) -> Self {
        Self::by_lane(|lane| self.extract(lane) % other.extract(lane))
    }
}

impl RemAssign for Avx2 {
    fn rem_assign(&mut self, other: Self) {
        *self = *self % other;
    }
}

impl PartialEq for Avx2 {
    fn eq(&self, other: &Self) -> bool {
        self.lanes() == other.lanes()
    }
}

impl Zero for Avx2 {
    #[inline(always)]
    fn zero() -> Self {
        Self::of(0.0)
    }

    fn is_zero(&self) -> bool {
        self.lanes().iter().all(Zero::is_zero)
    }
}

impl One for Avx2 {
    #[inline(always)]
    fn one() -> Self {
        Self::of(1.0)
    }
}

impl Num for Avx2 {
    type FromStrRadixErr = <f64 as Num>::FromStrRadixErr;

    fn from_str_radix(text: &str, radix: u32) -> Result<Self, Self::FromStrRadixErr> {
        f64::from_str_radix(text, radix).map(Self::of)
    }
}

impl Real for Avx2 {
    const LANES: usize = 4;

    #[inline(always)]
    fn of(value: f64) -> Self {
        // SAFETY: called only in work that `work_in_avx2` began.
        Self(unsafe { _mm256_set1_pd(value) })
    }

    #[inline(always)]
    fn by_lane(value: impl Fn(usize) -> f64) -> Self {
        Self::from_lanes([value(0), value(1), value(2), value(3)])
    }

    #[inline(always)]
    fn extract(self, lane: usize) -> f64 {
        self.lanes()[lane]
    }

    #[inline(always)]
    fn replace(&mut self, lane: usize, value: f64) {
        let mut lanes = self.lanes();
        lanes[lane] = value;
        *self = Self::from_lanes(lanes);
    }

    #[inline(always)]
    fn root(self) -> Self {
        // SAFETY: there are numbers of `Avx2`, so the processor has it.
        Self(unsafe { _mm256_sqrt_pd(self.0) })
    }

    #[inline(always)]
    fn reciprocal(self) -> Self {
        Self::of(1.0) / self
    }

    #[inline(always)]
    fn or_larger(self, other: Self) -> Self {
        // SAFETY: there are numbers of `Avx2`, so the processor has it.
        Self(unsafe { _mm256_max_pd(self.0, other.0) })
    }
}
