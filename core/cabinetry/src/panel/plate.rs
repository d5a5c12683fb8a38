//! Boards as plates.

use std::f64::consts::PI;

use super::Material;

/// How firmly a glued box holds the edges of its boards, from 0, hinged, to 1, clamped (common practice: nearer clamped).
pub const GLUED: f64 = 0.7;

/// A rectangular field of a board between its edges and braces.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Plate {
    /// Its two sides, m.
    pub sides: [f64; 2],
    /// m.
    pub thickness: f64,
    /// What it is of.
    pub material: &'static Material,
    /// How its edges are held, from 0, hinged, to 1, clamped.
    pub held: f64,
    /// Whether the second side has its far end free, as the board of a slot has inside.
    pub free: bool,
}

/// The shape of a bar between two edges: Warburton's frequency factors G, H and J, and of the shape, at most 1, the mean and the
/// mean of its square.
struct Bar {
    g: f64,
    h: f64,
    j: f64,
    mean: f64,
    square: f64,
}

/// Both edges hinged, both clamped: a sine, a raised cosine.
const HELD: [Bar; 2] = [
    Bar { g: 1.0, h: 1.0, j: 1.0, mean: 2.0 / PI, square: 0.5 },
    Bar { g: 1.506, h: 1.248, j: 1.248, mean: 0.5, square: 0.375 },
];
/// One edge hinged or clamped, the other free: it turns as a whole, or bends as a cantilever.
const FREE: [Bar; 2] = [
    Bar { g: 0.0, h: 0.0, j: 0.304, mean: 0.5, square: 1.0 / 3.0 },
    Bar { g: 0.597, h: -0.087, j: 0.471, mean: 0.3915, square: 0.25 },
];

impl Bar {
    fn between([hinged, clamped]: &[Self; 2], held: f64) -> Self {
        let mix = |of: fn(&Self) -> f64| of(hinged) + held * (of(clamped) - of(hinged));
        Self {
            g: mix(|bar| bar.g),
            h: mix(|bar| bar.h),
            j: mix(|bar| bar.j),
            mean: mix(|bar| bar.mean),
            square: mix(|bar| bar.square),
        }
    }
}

impl Plate {
    fn bars(&self) -> [Bar; 2] {
        [&HELD, if self.free { &FREE } else { &HELD }].map(|bars| Bar::between(bars, self.held))
    }

    /// What its edges make of Warburton's sum: `Ga^4/a^4 + Gb^4/b^4 + 2 (nu Ha Hb + (1 - nu) Ja Jb)/(a b)^2`, 1/m4.
    pub fn edges(&self) -> f64 {
        let ([a, b], [x, y]) = (self.sides, self.bars());
        let nu = self.material.poisson;
        let turn = nu * x.h * y.h + (1.0 - nu) * x.j * y.j;
        (x.g / a).powi(4) + (y.g / b).powi(4) + 2.0 * turn / (a * b).powi(2)
    }

    /// Its lowest resonance, Hz: `(pi/2) sqrt(D/(rho h)) sqrt(edges)` (Warburton 1954). Within 1 % of Leissa 1969 (NASA SP-160).
    pub fn resonance(&self) -> f64 {
        let spring = self.material.stiffness(self.thickness) / (self.material.density * self.thickness);
        PI / 2.0 * (spring * self.edges()).sqrt()
    }

    /// Volume that a pressure of 1 Pa pushes out at rest, m3/Pa: of the lowest resonance's shape alone, which is within a
    /// tenth of the whole (Timoshenko's deflections of hinged and clamped squares).
    pub fn compliance(&self) -> f64 {
        self.deflection()
            * self.sides[0]
            * self.sides[1]
            * self.bars().iter().map(|bar| bar.mean).product::<f64>()
    }

    /// How far a pressure of 1 Pa pushes the place that moves most at rest, m/Pa.
    pub fn deflection(&self) -> f64 {
        let [x, y] = self.bars();
        let omega = 2.0 * PI * self.resonance();
        x.mean * y.mean / (x.square * y.square * omega * omega * self.material.density * self.thickness)
    }

    /// How many times as far it moves at a frequency (Hz) as at rest, with a loss factor.
    pub fn rise(&self, frequency: f64, loss: f64) -> f64 {
        let turned = (frequency / self.resonance()).powi(2);
        ((1.0 - turned).powi(2) + loss * loss).sqrt().recip()
    }
}
