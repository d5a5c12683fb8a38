//! A cone without a motor.

use super::{At, Effect, radiation_resistance};
use crate::lanes::Real;
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

impl Effect for Diaphragm {
    fn terminals(&self) -> &[Node] {
        &self.nodes
    }

    fn faces(&self) -> u32 {
        if self.radiation && self.nodes[1] == Node::Outside { self.count } else { 0 }
    }

    #[inline(always)]
    fn flows<T: Real>(&self, at: &At<'_, T>, admittance: &mut [Complex<T>]) -> T {
        let load = if self.radiation && self.nodes[1] == Node::Outside {
            radiation_resistance(at, self.area)
        } else {
            T::of(0.0)
        };
        let reactance = at.omega * T::of(self.mass) - (at.omega * T::of(self.compliance)).reciprocal();
        let resistance = T::of(self.resistance) + load * T::of(self.area * self.area);
        let count = f64::from(self.count);
        let y = inverse(Complex::new(resistance, reactance)) * T::of(count * self.area * self.area);
        admittance.copy_from_slice(&[y, -y, -y, y]);
        load / T::of(count)
    }
}
