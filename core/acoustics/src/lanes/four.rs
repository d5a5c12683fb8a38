//! Four numbers side by side.

use std::ops::{Add, AddAssign, Div, DivAssign, Mul, MulAssign, Neg, Rem, RemAssign, Sub, SubAssign};

use num_traits::{Num, One, Zero};

use super::Real;
use crate::Complex;
use crate::element::{At, Element};

/// Four numbers in whatever registers every processor has: the compiler lays plain arithmetic into those.
#[derive(Debug, Clone, Copy, PartialEq)]
#[repr(C, align(16))]
pub struct Four([f64; 4]);

impl From<[f64; 4]> for Four {
    #[inline(always)]
    fn from(lanes: [f64; 4]) -> Self {
        Self(lanes)
    }
}

macro_rules! lane_by_lane {
    ($($operation:ident $method:ident $assign:ident $assigned:ident $sign:tt;)*) => {$(
        impl $operation for Four {
            type Output = Self;

            #[inline(always)]
            fn $method(self, other: Self) -> Self {
                let ([a, b, c, d], [e, f, g, h]) = (self.0, other.0);
                Self([a $sign e, b $sign f, c $sign g, d $sign h])
            }
        }

        impl $assign for Four {
            #[inline(always)]
            fn $assigned(&mut self, other: Self) {
                *self = *self $sign other;
            }
        }
    )*};
}

lane_by_lane! {
    Add add AddAssign add_assign +;
    Sub sub SubAssign sub_assign -;
    Mul mul MulAssign mul_assign *;
    Div div DivAssign div_assign /;
}

impl Rem for Four {
    type Output = Self;

    fn rem(self, other: Self) -> Self {
        Self([0, 1, 2, 3].map(|lane| self.0[lane] % other.0[lane]))
    }
}

impl RemAssign for Four {
    fn rem_assign(&mut self, other: Self) {
        *self = *self % other;
    }
}

impl Neg for Four {
    type Output = Self;

    #[inline(always)]
    fn neg(self) -> Self {
        let [a, b, c, d] = self.0;
        Self([-a, -b, -c, -d])
    }
}

impl Zero for Four {
    #[inline(always)]
    fn zero() -> Self {
        Self([0.0; 4])
    }

    fn is_zero(&self) -> bool {
        self.0.iter().all(Zero::is_zero)
    }
}

impl One for Four {
    #[inline(always)]
    fn one() -> Self {
        Self([1.0; 4])
    }
}

impl Num for Four {
    type FromStrRadixErr = <f64 as Num>::FromStrRadixErr;

    fn from_str_radix(text: &str, radix: u32) -> Result<Self, <f64 as Num>::FromStrRadixErr> {
        f64::from_str_radix(text, radix).map(|value| Self([value; 4]))
    }
}

impl Real for Four {
    const LANES: usize = 4;

    #[inline(always)]
    fn of(value: f64) -> Self {
        Self([value; 4])
    }

    #[inline(always)]
    fn by_lane(value: impl Fn(usize) -> f64) -> Self {
        Self([value(0), value(1), value(2), value(3)])
    }

    #[inline(always)]
    fn extract(self, lane: usize) -> f64 {
        self.0[lane]
    }

    #[inline(always)]
    fn replace(&mut self, lane: usize, value: f64) {
        self.0[lane] = value;
    }

    #[inline(always)]
    fn root(self) -> Self {
        let [a, b, c, d] = self.0;
        Self([a.sqrt(), b.sqrt(), c.sqrt(), d.sqrt()])
    }

    #[inline(always)]
    fn reciprocal(self) -> Self {
        Self::of(1.0) / self
    }

    #[inline(always)]
    fn or_larger(self, other: Self) -> Self {
        Self::by_lane(|lane| self.0[lane].max(other.0[lane]))
    }

    #[inline(always)]
    fn admit(element: &dyn Element, at: &At<'_, Self>, admittance: &mut [Complex<Self>]) -> Self {
        element.admit_four(at, admittance)
    }
}
