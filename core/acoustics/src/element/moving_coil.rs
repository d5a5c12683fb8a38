//! The driver as a branch between the air before and behind its cone.

use super::{At, Element, piston_resistance};
use crate::Complex;
use crate::driver::Driver;
use crate::node::Node;

/// A moving-coil driver; terminal 0 is the front of the cone, terminal 1 its rear.
///
/// The electrical and mechanical sides are eliminated:
/// `(Bl/Ze) E = (Zm + Bl^2/Ze) v + Sd (p_front - p_rear)`.
#[derive(Debug, Clone)]
pub struct MovingCoil {
    nodes: [Node; 2],
    driver: Driver,
    radiation: bool,
}

impl MovingCoil {
    /// A driver between two nodes. A front that faces the outside adds the radiation resistance of a
    /// baffled piston (Mms already holds the reactance) unless `radiation` is off, as circuit
    /// models after Thiele and Small have it.
    pub fn new(front: Node, rear: Node, driver: Driver, radiation: bool) -> Self {
        Self { nodes: [front, rear], driver, radiation: radiation && front == Node::Outside }
    }

    /// Blocked electrical impedance, ohm.
    pub fn blocked_impedance(driver: &Driver, omega: f64) -> Complex {
        Complex::new(driver.re, omega * driver.le)
    }

    /// Mechanical impedance of everything but the air behind, kg/s.
    fn mechanical_impedance(&self, at: &At<'_>) -> Complex {
        let d = &self.driver;
        let moving = Complex::new(d.rms, at.omega * d.mms - 1.0 / (at.omega * d.cms));
        if !self.radiation {
            return moving;
        }
        let ka = at.omega / at.air.speed * (d.sd / std::f64::consts::PI).sqrt();
        moving + piston_resistance(ka) * at.air.density * at.air.speed * d.sd
    }
}

impl Element for MovingCoil {
    fn terminals(&self) -> &[Node] {
        &self.nodes
    }

    fn admit(&self, at: &At<'_>, admittance: &mut [Complex], source: &mut [Complex]) {
        let d = &self.driver;
        let blocked = Self::blocked_impedance(d, at.omega).inv();
        let mobility = (self.mechanical_impedance(at) + d.bl * d.bl * blocked).inv();
        let y = d.sd * d.sd * mobility;
        admittance.copy_from_slice(&[y, -y, -y, y]);
        let driven = d.sd * d.bl * at.volts * blocked * mobility;
        source.copy_from_slice(&[-driven, driven]);
    }
}

/// Current in the coil for a cone velocity (m/s RMS), A RMS: `(E - Bl v)/Ze`.
pub(crate) fn coil_current(driver: &Driver, omega: f64, volts: f64, velocity: Complex) -> Complex {
    (Complex::from(volts) - driver.bl * velocity) / MovingCoil::blocked_impedance(driver, omega)
}
