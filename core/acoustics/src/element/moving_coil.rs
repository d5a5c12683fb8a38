//! The driver: between the air before and behind its cone on one side, between the poles of its coil on the
//! other.

use super::{At, Effect, radiation_resistance};
use crate::driver::Driver;
use crate::lanes::Real;
use crate::node::Node;
use crate::{Complex, inverse};

/// A moving-coil driver. Terminals: 0 the front of the cone, 1 its rear, 2 and 3 the coil.
///
/// `Ze i = E - Bl v` and `Zm v = Bl i - Sd (p_front - p_rear)`, with both solved for the flows.
#[derive(Debug, Clone)]
pub struct MovingCoil {
    nodes: [Node; 4],
    driver: Driver,
    radiation: Loads,
}

/// What the open air does to a cone.
#[derive(Debug, Clone, Copy, PartialEq)]
pub enum Loads {
    /// Nothing: circuit models after Thiele and Small. Mms already holds the reactance.
    None,
    /// Radiation resistance on a front that faces the outside.
    Front,
    /// Both faces radiate, in opposite phase and this far apart (m): an open baffle. Two opposite sources
    /// have `2 (1 - sin(kD)/(kD))` times the resistance of one.
    Dipole(f64),
}

impl MovingCoil {
    /// A driver between front and rear, wired between two electrical nodes.
    pub fn new([front, rear]: [Node; 2], [plus, minus]: [Node; 2], driver: Driver, loads: Loads) -> Self {
        let radiation = if front == Node::Outside { loads } else { Loads::None };
        Self { nodes: [front, rear, plus, minus], driver, radiation }
    }

    /// Acoustic resistance of the air at the outside, for the flow of the front, Pa s/m3.
    #[inline(always)]
    fn load<T: Real>(&self, at: &At<'_, T>) -> T {
        match self.radiation {
            Loads::None => T::of(0.0),
            Loads::Front => radiation_resistance(at, self.driver.sd),
            Loads::Dipole(distance) => {
                let kd = at.omega * T::of(distance / at.air.speed);
                let both = T::of(1.0) - kd.map_lanes(f64::sin) / kd;
                T::of(2.0) * radiation_resistance(at, self.driver.sd) * both
            }
        }
    }
}

impl Effect for MovingCoil {
    fn terminals(&self) -> &[Node] {
        &self.nodes
    }

    fn faces(&self) -> u32 {
        u32::from(self.radiation != Loads::None)
    }

    #[inline(always)]
    fn flows<T: Real>(&self, at: &At<'_, T>, admittance: &mut [Complex<T>]) -> T {
        let d = &self.driver;
        let (sd, bl) = (T::of(d.sd), T::of(d.bl));
        let load = self.load(at);
        let blocked = inverse(d.blocked_impedance(at.omega));
        let mechanical = d.mechanical_impedance(at.omega) + load * sd * sd;
        let mobility = inverse(mechanical + blocked * (bl * bl));
        let air = mobility * (sd * sd);
        let both = blocked * mobility;
        let across = both * (sd * bl);
        let coil = blocked - blocked * both * (bl * bl);
        admittance.copy_from_slice(&[
            air, -air, -across, across, //
            -air, air, across, -across, //
            across, -across, coil, -coil, //
            -across, across, -coil, coil,
        ]);
        load
    }
}
