//! A duct whose cross-section changes along its way: a line, a horn.

use std::f64::consts::PI;

use super::end::Termination;
use super::{At, Effect, End};
use crate::lanes::{Real, lane};
use crate::medium::{CrossSection, Fill, Layers, Walls};
use crate::node::Node;
use crate::{Complex, inverse};

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
    pieces: Vec<Piece>,
    ends: [Termination; 2],
    walls: bool,
}

/// A slice with what does not depend on frequency worked out.
#[derive(Debug, Clone, Copy)]
struct Piece {
    length: f64,
    /// Roots of the areas, m, and one over them.
    roots: [f64; 2],
    inverse_roots: [f64; 2],
    /// What the air in it touches.
    walls: Walls,
    fill: Option<Fill>,
}

/// What a piece sets against flow, `j w L rho`, and how it gives way to pressure, `j w L/K`; both per unit of area.
type Medium<T> = (Complex<T>, Complex<T>);

/// Chain matrix `p1 = a p2 + b u2`, `u1 = c p2 + d u2`, every entry times `exp(damping)`: a long way full of dense
/// wool damps beyond what a number can hold.
#[derive(Debug, Clone, Copy)]
struct Chain<T> {
    a: Complex<T>,
    b: Complex<T>,
    c: Complex<T>,
    d: Complex<T>,
    /// Np.
    damping: T,
}

impl Passage {
    /// Slices one after the other. `ends` says what the air meets at either end, `None` where it goes straight on
    /// or stops at a wall; without `walls` there is no friction at them.
    pub fn new(nodes: [Node; 2], slices: &[Slice], ends: [Option<End>; 2], walls: bool) -> Self {
        let areas =
            [slices.first().map_or(1.0, |slice| slice.start), slices.last().map_or(1.0, |slice| slice.end)];
        let meets = |side: usize| match ends[side] {
            Some(end) => Termination::new(nodes[side], end, areas[side]),
            None => Termination::joined(areas[side]),
        };
        let pieces = slices.iter().map(Piece::from).collect();
        Self { nodes, pieces, ends: [meets(0), meets(1)], walls }
    }

    /// The same with the walls of a section all along, whatever its slices say.
    pub(super) fn touching(mut self, section: CrossSection) -> Self {
        for piece in &mut self.pieces {
            piece.walls = section.into();
        }
        self
    }

    /// The same with an inner end that acts longer by a length, m.
    pub(super) fn longer_inside(mut self, by: f64) -> Self {
        self.ends[0] = self.ends[0].longer(by);
        self
    }

    /// What it does between its ends.
    #[inline(always)]
    fn chain<T: Real>(&self, at: &At<'_, T>) -> Option<Chain<T>> {
        let layers = Layers::at(at.air, at.omega);
        let free =
            (Complex::from(T::of(at.air.density)), Complex::from(T::of(at.air.bulk_modulus().recip())));
        let mut filled: Option<(Fill, Medium<T>)> = None;
        let mut whole: Option<Chain<T>> = None;
        for piece in &self.pieces {
            let (inertia, softness) = match (piece.fill, filled) {
                (Some(fill), Some((same, medium))) if fill == same => medium,
                (Some(fill), _) => {
                    let (density, modulus) = fill.at(at.omega, at.air);
                    let medium = (density, inverse(modulus));
                    filled = Some((fill, medium));
                    medium
                }
                (None, _) if self.walls => {
                    let losses = layers.losses(piece.walls);
                    (losses.density(), losses.compressibility())
                }
                (None, _) => free,
            };
            let next = piece.chain(at.omega, inertia, softness);
            whole = Some(match whole {
                Some(whole) => whole.then(&next),
                None => next,
            });
        }
        whole
    }
}

impl From<&Slice> for Piece {
    fn from(slice: &Slice) -> Self {
        let area = (slice.start * slice.end).sqrt();
        let section = match slice.width {
            None => CrossSection::Round { radius: (area / PI).sqrt() },
            Some(width) => CrossSection::Slot { width, height: area / width },
        };
        let roots = [slice.start.sqrt(), slice.end.sqrt()];
        Self {
            length: slice.length,
            roots,
            inverse_roots: roots.map(f64::recip),
            walls: section.into(),
            fill: slice.fill,
        }
    }
}

impl<T: Real> Chain<T> {
    /// An impedance and nothing else.
    #[inline(always)]
    fn through(impedance: Complex<T>) -> Self {
        let (zero, one) = (Complex::from(T::of(0.0)), Complex::from(T::of(1.0)));
        Self { a: one, b: impedance, c: zero, d: one, damping: T::of(0.0) }
    }

    /// With an impedance before and one behind it.
    #[inline(always)]
    fn between(&self, inner: Complex<T>, outer: Complex<T>) -> Self {
        let (a, b) = (self.a + inner * self.c, self.b + inner * self.d);
        Self { a, b: b + a * outer, d: self.d + self.c * outer, ..*self }
    }

    #[inline(always)]
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

impl Piece {
    /// With `z = (j w)^2 rho/K L^2` and the roots of area `s1`, `s2`. Written with `sinh(x)/x` and
    /// `(cosh(x) - sinh(x)/x)/x^2`, it holds for a cylinder too.
    #[inline(always)]
    fn chain<T: Real>(&self, omega: T, density: Complex<T>, compressibility: Complex<T>) -> Chain<T> {
        let ([s1, s2], [t1, t2]) = (self.roots, self.inverse_roots);
        let turn = omega * T::of(self.length);
        let inertia = Complex::new(-density.im * turn, density.re * turn);
        let softness = Complex::new(-compressibility.im * turn, compressibility.re * turn);
        let Waves { sinhc, rest, square, damping } = Waves::of(inertia * softness);
        let cosh = sinhc + square * rest;
        let growth = s2 - s1;
        Chain {
            a: cosh * T::of(s2 * t1) - sinhc * T::of(growth * t1),
            b: inertia * sinhc * T::of(t1 * t2),
            c: softness * (sinhc * T::of(s1 * s2) + rest * T::of(growth * growth)),
            d: cosh * T::of(s1 * t2) + sinhc * T::of(growth * t2),
            damping,
        }
    }
}

/// Entire functions of `z = x^2`, each times `exp(damping)`.
struct Waves<T> {
    /// `sinh(x)/x`.
    sinhc: Complex<T>,
    /// `(cosh(x) - sinh(x)/x)/x^2`.
    rest: Complex<T>,
    /// z itself, without the damping.
    square: Complex<T>,
    damping: T,
}

/// Below this modulus of z eight terms of the series are exact to 1e-11 of each function, and cheaper.
const SHORT: f64 = 3.0;
/// Below this one the functions have not grown so far that they need damping.
const MIDDLING: f64 = 50.0;

impl<T: Real> Waves<T> {
    #[inline(always)]
    fn of(square: Complex<T>) -> Self {
        // Most slices are far shorter than a wave: few terms then leave as little out, `z^n/(2n + 1)!`, as eight.
        let size = square.norm_sqr().largest();
        let (sinhc, rest) = if size < 1.3e-5 {
            series::<T, 3>(square)
        } else if size < 1.6e-3 {
            series::<T, 4>(square)
        } else if size < 0.04 {
            series::<T, 5>(square)
        } else if size < 0.36 {
            series::<T, 6>(square)
        } else if size <= SHORT * SHORT {
            series::<T, 8>(square)
        } else if size <= MIDDLING * MIDDLING {
            return Self::doubled(square);
        } else {
            return Self::long(square);
        };
        Self { sinhc, rest, square, damping: T::of(0.0) }
    }

    /// From those of half the argument, of half that, and so on: `cosh 2x = 2 cosh^2 x - 1`, `sinh 2x = 2 sinh x cosh x`.
    #[inline(always)]
    fn doubled(square: Complex<T>) -> Self {
        let (mut part, mut times) = (square, 0);
        while part.norm_sqr().largest() > SHORT * SHORT {
            part *= T::of(0.25);
            times += 1;
        }
        let (mut sinhc, mut rest) = series::<T, 8>(part);
        for _ in 0..times {
            let cosh = sinhc + part * rest;
            part *= T::of(4.0);
            sinhc *= cosh;
            rest = (cosh * cosh * T::of(2.0) - T::of(1.0) - sinhc) * inverse(part);
        }
        Self { sinhc, rest, square, damping: T::of(0.0) }
    }

    #[inline(always)]
    fn long(square: Complex<T>) -> Self {
        let mut waves = Self { sinhc: square, rest: square, square, damping: T::of(0.0) };
        for index in 0..T::LANES {
            let z = lane(square, index);
            let x = z.sqrt();
            let growth = Complex::cis(x.im);
            let decay = growth.conj() * (-2.0 * x.re).exp();
            let (cosh, sinhc) = ((growth + decay) / 2.0, (growth - decay) / (2.0 * x));
            let rest = (cosh - sinhc) / z;
            waves.sinhc.re.replace(index, sinhc.re);
            waves.sinhc.im.replace(index, sinhc.im);
            waves.rest.re.replace(index, rest.re);
            waves.rest.im.replace(index, rest.im);
            waves.damping.replace(index, x.re);
        }
        waves
    }
}

/// Ratios of the terms of `sinh(x)/x`, `1/(2k (2k + 1))`, and of three times the rest, `1/(2k (2k + 3))`.
const SINHC: [f64; 8] = ratios(1.0);
const REST: [f64; 8] = ratios(3.0);

const fn ratios(odd: f64) -> [f64; 8] {
    let mut found = [0.0; 8];
    let mut k = 0;
    while k < 8 {
        let even = 2.0 * (k + 1) as f64;
        found[k] = 1.0 / (even * (even + odd));
        k += 1;
    }
    found
}

/// `sinh(x)/x` and `(cosh(x) - sinh(x)/x)/x^2` by their series in `z = x^2`.
#[inline(always)]
fn series<T: Real, const TERMS: usize>(z: Complex<T>) -> (Complex<T>, Complex<T>) {
    let one = T::of(1.0);
    let (mut sinhc, mut rest) = (Complex::from(one), Complex::from(one));
    let mut k = TERMS;
    while k > 0 {
        k -= 1;
        sinhc = z * sinhc * T::of(SINHC[k]) + one;
        rest = z * rest * T::of(REST[k]) + one;
    }
    (sinhc, rest * T::of(1.0 / 3.0))
}

impl Effect for Passage {
    fn terminals(&self) -> &[Node] {
        &self.nodes
    }

    #[inline(always)]
    fn flows<T: Real>(&self, at: &At<'_, T>, admittance: &mut [Complex<T>]) -> T {
        let (inner, outer) = (self.ends[0].impedance(at), self.ends[1].impedance(at));
        let chain = match self.chain(at) {
            Some(chain) => chain.between(inner, outer),
            None => Chain::through(inner + outer),
        };
        let within = inverse(chain.b);
        let through = within * (-chain.damping).map_lanes(f64::exp);
        admittance.copy_from_slice(&[chain.d * within, -through, -through, chain.a * within]);
        outer.re
    }

    fn faces(&self) -> u32 {
        u32::from(self.ends[1].radiates())
    }

    fn spreads(&self) -> bool {
        true
    }
}
