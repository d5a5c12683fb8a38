//! A duct whose cross-section changes along its way: a line, a horn.

use std::f64::consts::PI;

use super::duct::Meeting;
use super::{At, Element, End};
use crate::medium::{CrossSection, Fill, WallLosses};
use crate::node::Node;
use crate::{Complex, J};

/// A short piece of a passage, straight-sided: its root of area changes evenly.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Slice {
    /// Length along the way, m.
    pub length: f64,
    /// Area where it begins, m2.
    pub start: f64,
    /// Area where it ends, m2.
    pub end: f64,
    /// Width of a rectangular section, m; `None` is round.
    pub width: Option<f64>,
    /// What fills it.
    pub fill: Option<Fill>,
}

/// A chain of slices between two nodes; terminal 0 is where it begins.
///
/// Each slice has the exact matrix of a cone in which spherical waves travel (Mapes-Riordan 1993), with the
/// density and modulus of its fill, or of air with the wall losses of its middle.
#[derive(Debug, Clone)]
pub struct Passage {
    nodes: [Node; 2],
    slices: Vec<Slice>,
    ends: [Meeting; 2],
    walls: bool,
}

/// Chain matrix `p1 = a p2 + b u2`, `u1 = c p2 + d u2`, every entry times `exp(damping)`: a long way full of dense
/// wool damps beyond what a number can hold.
#[derive(Debug, Clone, Copy)]
struct Chain {
    a: Complex,
    b: Complex,
    c: Complex,
    d: Complex,
    /// Np.
    damping: f64,
}

impl Passage {
    /// Slices one after the other. `ends` says what the air meets at either end, `None` where it goes straight on
    /// or stops at a wall; without `walls` there is no friction at them.
    pub fn new(nodes: [Node; 2], slices: Vec<Slice>, ends: [Option<End>; 2], walls: bool) -> Self {
        let areas =
            [slices.first().map_or(1.0, |slice| slice.start), slices.last().map_or(1.0, |slice| slice.end)];
        let meets = |side: usize| match ends[side] {
            Some(end) => Meeting::new(nodes[side], end, areas[side]),
            None => Meeting::joined(areas[side]),
        };
        Self { nodes, slices, ends: [meets(0), meets(1)], walls }
    }

    fn chain(&self, at: &At<'_>) -> Chain {
        let mut whole = Chain::series(self.ends[0].impedance(at));
        let mut filled: Option<(Fill, (Complex, Complex))> = None;
        for slice in &self.slices {
            let medium = match (slice.fill, filled) {
                (Some(fill), Some((same, medium))) if fill == same => medium,
                (Some(fill), _) => {
                    let medium = fill.at(at.omega, at.air);
                    filled = Some((fill, medium));
                    medium
                }
                (None, _) => self.air_in(slice, at),
            };
            whole = whole.then(&slice.chain(at.omega, medium));
        }
        whole.then(&Chain::series(self.ends[1].impedance(at)))
    }

    fn air_in(&self, slice: &Slice, at: &At<'_>) -> (Complex, Complex) {
        if !self.walls {
            return (at.air.density.into(), at.air.bulk_modulus().into());
        }
        let area = (slice.start * slice.end).sqrt();
        let section = match slice.width {
            None => CrossSection::Round { radius: (area / PI).sqrt() },
            Some(width) => CrossSection::Slot { width, height: area / width },
        };
        let losses = WallLosses::at(at.air, section, at.omega);
        (losses.density(), losses.modulus())
    }
}

impl Chain {
    fn series(impedance: Complex) -> Self {
        let (one, zero) = (Complex::new(1.0, 0.0), Complex::new(0.0, 0.0));
        Self { a: one, b: impedance, c: zero, d: one, damping: 0.0 }
    }

    fn then(&self, next: &Self) -> Self {
        Self {
            a: self.a * next.a + self.b * next.c,
            b: self.a * next.b + self.b * next.d,
            c: self.c * next.a + self.d * next.c,
            d: self.c * next.b + self.d * next.d,
            damping: self.damping + next.damping,
        }
    }
}

impl Slice {
    /// With `z = (j w)^2 rho/K L^2` and the roots of area `s1`, `s2`. Written with `sinh(x)/x` and
    /// `(cosh(x) - sinh(x)/x)/x^2`, it holds for a cylinder too.
    fn chain(&self, omega: f64, (density, modulus): (Complex, Complex)) -> Chain {
        let (s1, s2) = (self.start.sqrt(), self.end.sqrt());
        let inertia = J * omega * self.length * density;
        let softness = J * omega * self.length / modulus;
        let Waves { cosh, sinhc, rest, damping } = Waves::of(inertia * softness);
        let growth = s2 - s1;
        Chain {
            a: (s2 * cosh - growth * sinhc) / s1,
            b: inertia * sinhc / (s1 * s2),
            c: softness * (s1 * s2 * sinhc + growth * growth * rest),
            d: (s1 * cosh + growth * sinhc) / s2,
            damping,
        }
    }
}

/// Entire functions of `z = x^2`, each times `exp(damping)`.
struct Waves {
    cosh: Complex,
    /// `sinh(x)/x`.
    sinhc: Complex,
    /// `(cosh(x) - sinh(x)/x)/x^2`.
    rest: Complex,
    damping: f64,
}

/// Below this modulus of z six terms of the series are exact to 1e-11 of each function, and cheaper.
const SHORT: f64 = 0.5;

impl Waves {
    fn of(z: Complex) -> Self {
        if z.norm_sqr() > SHORT * SHORT {
            let x = z.sqrt();
            let growth = Complex::cis(x.im);
            let decay = growth.conj() * (-2.0 * x.re).exp();
            let (cosh, sinhc) = ((growth + decay) / 2.0, (growth - decay) / (2.0 * x));
            return Self { cosh, sinhc, rest: (cosh - sinhc) / z, damping: x.re };
        }
        let series = |ratios: [f64; 5]| {
            ratios.iter().rev().fold(Complex::new(1.0, 0.0), |tail, ratio| 1.0 + z * *ratio * tail)
        };
        Self {
            cosh: series([1.0 / 2.0, 1.0 / 12.0, 1.0 / 30.0, 1.0 / 56.0, 1.0 / 90.0]),
            sinhc: series([1.0 / 6.0, 1.0 / 20.0, 1.0 / 42.0, 1.0 / 72.0, 1.0 / 110.0]),
            rest: series([1.0 / 10.0, 1.0 / 28.0, 1.0 / 54.0, 1.0 / 88.0, 1.0 / 130.0]) / 3.0,
            damping: 0.0,
        }
    }
}

impl Element for Passage {
    fn terminals(&self) -> &[Node] {
        &self.nodes
    }

    fn admit(&self, at: &At<'_>, admittance: &mut [Complex]) {
        let chain = self.chain(at);
        let within = chain.b.inv();
        let through = within * (-chain.damping).exp();
        admittance.copy_from_slice(&[chain.d * within, -through, -through, chain.a * within]);
    }

    /// The wave spreads before it leaves, so that a wide mouth does not beam as a piston of its size: it is heard by
    /// its power, spread over the open space.
    fn loudness(&self, at: &At<'_>) -> f64 {
        let small = at.air.density * at.omega * at.omega / (at.space.angle() * at.air.speed);
        let own = self.ends[1].resistance(at);
        if own > 0.0 { (own / small).sqrt() } else { 1.0 }
    }

    fn radiation(&self, at: &At<'_>) -> f64 {
        self.ends[1].resistance(at)
    }
}
