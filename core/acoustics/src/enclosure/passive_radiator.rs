//! Cabinets with passive radiators.

use std::f64::consts::PI;

use super::{Compiled, Fidelity, Losses};
use crate::driver::Driver;
use crate::element::{Diaphragm, MovingCoil};
use crate::medium::Air;
use crate::network::{Network, Node, Opening, Way};

/// A cone without a motor, or several equal ones.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Radiator {
    /// Moving mass of one with its air load and whatever is screwed on, kg.
    pub mass: f64,
    /// Compliance of its suspension, m/N.
    pub compliance: f64,
    /// Mechanical resistance of its suspension, kg/s.
    pub resistance: f64,
    /// Effective area of one, m2.
    pub area: f64,
    /// How many.
    pub count: u32,
}

/// A box with passive radiators.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct PassiveRadiator {
    /// Net inside volume, m3.
    pub volume: f64,
    /// Losses at the tuning.
    pub losses: Losses,
    /// The radiators.
    pub radiator: Radiator,
}

/// How a box with passive radiators is tuned.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct RadiatorTuning {
    /// Where the reactance on the box side of the cone is infinite: mass of the radiator on the springs of
    /// its suspension and of the box, Hz.
    pub tuning: f64,
    /// The radiator in free air, where it cancels the cone: the notch, Hz.
    pub notch: f64,
}

impl PassiveRadiator {
    fn tuning(&self, air: &Air) -> RadiatorTuning {
        let Radiator { mass, compliance, area, count, .. } = self.radiator;
        let total = f64::from(count) * area;
        // Each radiator sees the box as the spring of its share of the area.
        let box_stiffness = area * total / air.compliance(self.volume);
        let resonance = |stiffness: f64| (stiffness / mass).sqrt() / (2.0 * PI);
        RadiatorTuning {
            tuning: resonance(compliance.recip() + box_stiffness),
            notch: resonance(compliance.recip()),
        }
    }

    pub(super) fn compile(&self, driver: &Driver, air: &Air, fidelity: Fidelity) -> Compiled {
        let inside = Node::Inside(0);
        let tuning = self.tuning(air);
        let cone = MovingCoil::new(Node::Outside, inside, *driver, fidelity.radiation);
        let mut network = Network::new(*air, *driver, 1, cone);
        self.losses.install(&mut network, inside, self.volume, 2.0 * PI * tuning.tuning);
        let Radiator { mass, compliance, resistance, area, count } = self.radiator;
        let nodes = [inside, Node::Outside];
        let diaphragm =
            Diaphragm { nodes, mass, compliance, resistance, area, count, radiation: fidelity.radiation };
        let element = network.add(diaphragm);
        let label = "Radiator".to_owned();
        let total = f64::from(count) * area;
        network.openings.push(Opening { label, way: Way::Diaphragm, element, terminal: 1, area: total });
        Compiled { radiator_tuning: Some(tuning), ..Compiled::of(network) }
    }
}
