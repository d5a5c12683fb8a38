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
}

impl Plate {
    /// Its lowest resonance, Hz: `(pi/2) sqrt(D/(rho h)) sqrt(G^4/a^4 + G^4/b^4 + 2 J^2/(a b)^2)` with G 1 hinged and
    /// 1.506 clamped, J 1 and 1.248 (Warburton 1954); between them, between. Within 1 % of Leissa 1969 (NASA SP-160).
    pub fn resonance(&self) -> f64 {
        let [a, b] = self.sides;
        let between = |hinged: f64, clamped: f64| hinged + self.held * (clamped - hinged);
        let (bend, turn) = (between(1.0, 1.506), between(1.0, 1.248));
        let stiff = bend.powi(4) * (a.powi(-4) + b.powi(-4)) + 2.0 * turn * turn / (a * b).powi(2);
        let spring = self.material.stiffness(self.thickness) / (self.material.density * self.thickness);
        PI / 2.0 * (spring * stiff).sqrt()
    }

    /// Volume that a pressure of 1 Pa pushes out at rest, m3/Pa: of the lowest resonance's shape alone, which is within a
    /// tenth of the whole (Timoshenko's deflections of hinged and clamped squares).
    pub fn compliance(&self) -> f64 {
        let between = |hinged: f64, clamped: f64| hinged + self.held * (clamped - hinged);
        // Mean of the shape, and of its square: sines hinged, raised cosines clamped.
        let mean = between((2.0 / PI).powi(2), 0.25);
        let square = between(0.25, 0.375 * 0.375);
        let area = self.sides[0] * self.sides[1];
        let omega = 2.0 * PI * self.resonance();
        area * mean * mean / (square * omega * omega * self.material.density * self.thickness)
    }

    /// How many times as far it moves at a frequency (Hz) as at rest, with a loss factor.
    pub fn rise(&self, frequency: f64, loss: f64) -> f64 {
        let turned = (frequency / self.resonance()).powi(2);
        ((1.0 - turned).powi(2) + loss * loss).sqrt().recip()
    }
}
