//! A duct whose cross-section changes along its way: a line, a horn.

use std::f64::consts::PI;

use super::end::Meeting;
use super::{At, Element, End};
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
    ends: [Meeting; 2],
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
type Medium = (Complex, Complex);

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
    pub fn new(nodes: [Node; 2], slices: &[Slice], ends: [Option<End>; 2], walls: bool) -> Self {
        let areas =
            [slices.first().map_or(1.0, |slice| slice.start), slices.last().map_or(1.0, |slice| slice.end)];
        let meets = |side: usize| match ends[side] {
            Some(end) => Meeting::new(nodes[side], end, areas[side]),
            None => Meeting::joined(areas[side]),
        };
        let pieces = slices.iter().map(Piece::from).collect();
        Self { nodes, pieces, ends: [meets(0), meets(1)], walls }
    }

    fn chain(&self, at: &At<'_>) -> Chain {
        let layers = Layers::at(at.air, at.omega);
        let mut filled: Option<(Fill, Medium)> = None;
        let mut whole: Option<Chain> = None;
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
                (None, _) => (at.air.density.into(), at.air.bulk_modulus().recip().into()),
            };
            let next = piece.chain(at.omega, inertia, softness);
            whole = Some(whole.map_or(next, |whole| whole.then(&next)));
        }
        let [inner, outer] = [0, 1].map(|side| self.ends[side].impedance(at));
        whole.map_or(Chain::through(inner + outer), |whole| whole.between(inner, outer))
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

impl Chain {
    /// An impedance and nothing else.
    fn through(impedance: Complex) -> Self {
        let (one, zero) = (Complex::new(1.0, 0.0), Complex::new(0.0, 0.0));
        Self { a: one, b: impedance, c: zero, d: one, damping: 0.0 }
    }

    /// With an impedance before and one behind it.
    fn between(&self, inner: Complex, outer: Complex) -> Self {
        let (a, b) = (self.a + inner * self.c, self.b + inner * self.d);
        Self { a, b: b + a * outer, d: self.d + self.c * outer, ..*self }
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

impl Piece {
    /// With `z = (j w)^2 rho/K L^2` and the roots of area `s1`, `s2`. Written with `sinh(x)/x` and
    /// `(cosh(x) - sinh(x)/x)/x^2`, it holds for a cylinder too.
    fn chain(&self, omega: f64, density: Complex, compressibility: Complex) -> Chain {
        let ([s1, s2], [t1, t2]) = (self.roots, self.inverse_roots);
        let turned = |z: Complex| Complex::new(-z.im, z.re) * (omega * self.length);
        let (inertia, softness) = (turned(density), turned(compressibility));
        let Waves { cosh, sinhc, rest, damping } = Waves::of(inertia * softness);
        let growth = s2 - s1;
        let (both, tilt) = (s1 * s2, growth * sinhc);
        Chain {
            a: (s2 * cosh - tilt) * t1,
            b: inertia * sinhc * (t1 * t2),
            c: softness * (both * sinhc + growth * growth * rest),
            d: (s1 * cosh + tilt) * t2,
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

/// Below this modulus of z eight terms of the series are exact to 1e-11 of each function, and cheaper.
const SHORT: f64 = 3.0;

impl Waves {
    fn of(z: Complex) -> Self {
        if z.norm_sqr() > SHORT * SHORT {
            let x = z.sqrt();
            let growth = Complex::cis(x.im);
            let decay = growth.conj() * (-2.0 * x.re).exp();
            let (cosh, sinhc) = ((growth + decay) / 2.0, (growth - decay) / (2.0 * x));
            return Self { cosh, sinhc, rest: (cosh - sinhc) / z, damping: x.re };
        }
        // Most slices are far shorter than a wave: two or three terms then do as well as eight.
        let size = z.norm_sqr();
        let terms = |cosh, sinhc, rest| Self { cosh, sinhc, rest, damping: 0.0 };
        match size {
            size if size < 1e-5 => {
                terms(series::<2>(z, &COSH), series::<2>(z, &SINHC), series::<2>(z, &REST) / 3.0)
            }
            size if size < 2.5e-3 => {
                terms(series::<3>(z, &COSH), series::<3>(z, &SINHC), series::<3>(z, &REST) / 3.0)
            }
            _ => {
                let (cosh, sinhc) = if size < 0.25 {
                    (series::<5>(z, &COSH), series::<5>(z, &SINHC))
                } else {
                    (series::<8>(z, &COSH), series::<8>(z, &SINHC))
                };
                terms(cosh, sinhc, (cosh - sinhc) * inverse(z))
            }
        }
    }
}

/// Ratios of the terms of cosh, of `sinh(x)/x`, and of three times the rest.
const COSH: [f64; 8] = ratios(1);
const SINHC: [f64; 8] = ratios(2);
const REST: [f64; 8] = ratios(4);

/// `1/(n (n + 1))`, `1/((n + 2) (n + 3))` and on; for 4 those of `3 (cosh x - sinh(x)/x)/x^2`, `1/((2k) (2k + 3))`.
const fn ratios(first: u32) -> [f64; 8] {
    let mut found = [0.0; 8];
    let mut k = 0;
    while k < 8 {
        let n = first as f64 + 2.0 * k as f64;
        found[k] = if first == 4 { 1.0 / ((n - 2.0) * (n + 1.0)) } else { 1.0 / (n * (n + 1.0)) };
        k += 1;
    }
    found
}

fn series<const TERMS: usize>(z: Complex, ratios: &[f64; 8]) -> Complex {
    ratios[..TERMS].iter().rev().fold(Complex::new(1.0, 0.0), |tail, ratio| 1.0 + z * tail * *ratio)
}

impl Element for Passage {
    fn terminals(&self) -> &[Node] {
        &self.nodes
    }

    fn admit(&self, at: &At<'_>, admittance: &mut [Complex]) {
        let chain = self.chain(at);
        let within = inverse(chain.b);
        let through = within * (-chain.damping).exp();
        admittance.copy_from_slice(&[chain.d * within, -through, -through, chain.a * within]);
    }

    fn spreads(&self) -> bool {
        true
    }

    fn radiation(&self, at: &At<'_>) -> f64 {
        self.ends[1].resistance(at)
    }
}
