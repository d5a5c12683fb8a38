//! What the coil does besides resist.

use std::f64::consts::PI;

use crate::lanes::{Real, constant};
use crate::{Complex, inverse};

/// Inductive part of the blocked impedance.
#[derive(Debug, Clone, Copy, PartialEq)]
pub enum Inductance {
    /// A plain inductance.
    Plain {
        /// H.
        le: f64,
    },
    /// A second inductance with eddy currents across it, in series with the first: `j w Le + (j w L2 || R2)`.
    Shunted {
        /// H.
        le: f64,
        /// H.
        l2: f64,
        /// ohm.
        r2: f64,
    },
    /// `K (j w)^n`, n between 0.5 for a solid iron pole (Vanderkooy 1989) and 1 for none.
    PowerLaw {
        /// ohm s^n.
        k: f64,
        /// Exponent.
        n: f64,
    },
}

impl Inductance {
    /// Impedance at an angular frequency (rad/s), ohm.
    #[inline(always)]
    pub fn impedance<T: Real>(&self, omega: T) -> Complex<T> {
        let coil = |henry: f64| Complex::new(T::of(0.0), omega * T::of(henry));
        match *self {
            Self::Plain { le } => coil(le),
            Self::Shunted { le, l2, r2 } => {
                let second = coil(l2);
                coil(le) + second * T::of(r2) * inverse(second + T::of(r2))
            }
            Self::PowerLaw { k, n } => {
                constant::<T>(Complex::cis(n * PI / 2.0)) * omega.map_lanes(|omega| k * omega.powf(n))
            }
        }
    }

    /// As many times the impedance.
    #[must_use]
    pub fn scaled(self, factor: f64) -> Self {
        match self {
            Self::Plain { le } => Self::Plain { le: le * factor },
            Self::Shunted { le, l2, r2 } => {
                Self::Shunted { le: le * factor, l2: l2 * factor, r2: r2 * factor }
            }
            Self::PowerLaw { k, n } => Self::PowerLaw { k: k * factor, n },
        }
    }

    /// The inductance that has the same reactance at 1 kHz, H.
    pub fn at_one_kilohertz(&self) -> f64 {
        let omega = 2000.0 * PI;
        self.impedance(omega).im / omega
    }
}
