//! Physical effects, one file each.
//!
//! An element stands between nodes. At a frequency it states, for its terminals, what flows into it:
//! `u = Y p`, volume velocity from pressure, on the electrical side current from voltage. That is the
//! whole contract; the solver needs nothing else, and a new effect is a new file here. It is written once, for
//! one frequency or four side by side.

mod chamber;
mod diaphragm;
mod duct;
mod electrical;
mod end;
mod moving_coil;
mod passage;
mod radiation;
mod resistance;

pub use chamber::Chamber;
pub use diaphragm::Diaphragm;
pub use duct::{Duct, Mass};
pub use electrical::ElectricalBranch;
pub use end::{End, FLANGED, FREE, before_wall};
pub use moving_coil::{Loads, MovingCoil};
pub use passage::{Passage, Slice};
pub use radiation::{mouth_impedance, pipe_impedance, piston_impedance, radiation_resistance};
pub use resistance::Resistance;

use crate::Complex;
use crate::lanes::{Avx2, Real, Task, on_in_avx2};
use crate::medium::{Air, Space};
use crate::node::Node;

/// The frequency and surroundings an element is asked at.
#[derive(Debug, Clone, Copy)]
pub struct At<'a, T = f64> {
    /// Angular frequency, rad/s.
    pub omega: T,
    /// The air.
    pub air: &'a Air,
    /// The space it radiates into.
    pub space: Space,
}

/// One physical effect between nodes: what a new file here says.
pub trait Effect: std::fmt::Debug + Send + Sync {
    /// The nodes it stands between; at most 8.
    fn terminals(&self) -> &[Node];

    /// Writes every admittance, row-major `[n * n]` for `n` terminals: m3/(s Pa), for electrical
    /// terminals A/V, between both m3/(s V) and A/Pa. Flow counts as positive into the element.
    ///
    /// Returns the resistance that the open air sets against what leaves its first terminal at the outside, Pa s/m3;
    /// 0 where there is none.
    fn flows<T: Real>(&self, at: &At<'_, T>, admittance: &mut [Complex<T>]) -> T;

    /// How many equal faces sound at the outside, each against the open air; 0 where none does.
    fn faces(&self) -> u32 {
        0
    }

    /// Whether what leaves at the outside has spread on its way, so that it is heard by its power over the open space and
    /// not, as a piston, on its axis.
    fn spreads(&self) -> bool {
        false
    }
}

/// Any [`Effect`], as the solver sees it.
pub trait Element: std::fmt::Debug + Send + Sync {
    /// See [`Effect::terminals`].
    fn terminals(&self) -> &[Node];

    /// See [`Effect::flows`], at one frequency.
    fn admit(&self, at: &At<'_>, admittance: &mut [Complex]) -> f64;

    /// See [`Effect::flows`], at four frequencies in AVX2's registers; only within such work.
    fn admit_avx2(&self, at: &At<'_, Avx2>, admittance: &mut [Complex<Avx2>]) -> Avx2;

    /// See [`Effect::faces`].
    fn faces(&self) -> u32;

    /// See [`Effect::spreads`].
    fn spreads(&self) -> bool;
}

impl<E: Effect> Element for E {
    fn terminals(&self) -> &[Node] {
        Effect::terminals(self)
    }

    fn admit(&self, at: &At<'_>, admittance: &mut [Complex]) -> f64 {
        self.flows(at, admittance)
    }

    fn admit_avx2(&self, at: &At<'_, Avx2>, admittance: &mut [Complex<Avx2>]) -> Avx2 {
        on_in_avx2(at.omega, Flows { effect: self, at, admittance })
    }

    fn faces(&self) -> u32 {
        Effect::faces(self)
    }

    fn spreads(&self) -> bool {
        Effect::spreads(self)
    }
}

/// What flows into an effect, to be carried out in AVX2's registers.
struct Flows<'a, E> {
    effect: &'a E,
    at: &'a At<'a, Avx2>,
    admittance: &'a mut [Complex<Avx2>],
}

impl<E: Effect> Task for Flows<'_, E> {
    type Output = Avx2;

    #[inline(always)]
    fn run(self) -> Avx2 {
        self.effect.flows(self.at, self.admittance)
    }
}

/// Numbers that elements can be asked in.
pub trait Asking: Real {
    /// See [`Element::admit`].
    fn admit(element: &dyn Element, at: &At<'_, Self>, admittance: &mut [Complex<Self>]) -> Self;
}

impl Asking for f64 {
    fn admit(element: &dyn Element, at: &At<'_, Self>, admittance: &mut [Complex]) -> Self {
        element.admit(at, admittance)
    }
}

#[cfg(target_arch = "x86_64")]
impl Asking for Avx2 {
    #[inline(always)]
    fn admit(element: &dyn Element, at: &At<'_, Self>, admittance: &mut [Complex<Self>]) -> Self {
        element.admit_avx2(at, admittance)
    }
}
