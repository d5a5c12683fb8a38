//! A cone without a motor.

use super::{At, Element, radiation_resistance};
use crate::node::Node;
use crate::{Complex, inverse};

/// `count` equal passive diaphragms side by side between two nodes; terminal 1 is the outer face.
#[derive(Debug, Clone, Copy)]
pub struct Diaphragm {
    /// Inner and outer side.
    pub nodes: [Node; 2],
    /// Moving mass of one with its air load, kg.
    pub mass: f64,
    /// Compliance of its suspension, m/N.
    pub compliance: f64,
    /// Mechanical resistance, kg/s.
    pub resistance: f64,
    /// Effective area of one, m2.
    pub area: f64,
    /// How many.
    pub count: u32,
    /// Whether a face to the outside has the radiation resistance of a baffled piston.
    pub radiation: bool,
}

impl Element for Diaphragm {
    fn terminals(&self) -> &[Node] {
        &self.nodes
    }

    fn admit(&self, at: &At<'_>, admittance: &mut [Complex]) {
        let reactance = at.omega * self.mass - 1.0 / (at.omega * self.compliance);
        let mut impedance = Complex::new(self.resistance, reactance);
        if self.radiation && self.nodes[1] == Node::Outside {
            impedance += radiation_resistance(at, self.area) * self.area * self.area;
        }
        let y = f64::from(self.count) * self.area * self.area * inverse(impedance);
        admittance.copy_from_slice(&[y, -y, -y, y]);
    }

    fn radiation(&self, at: &At<'_>) -> f64 {
        if self.radiation { radiation_resistance(at, self.area) / f64::from(self.count) } else { 0.0 }
    }
}
