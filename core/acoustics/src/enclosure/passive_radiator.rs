//! Cabinets with passive radiators.

use std::f64::consts::PI;

use super::{ChamberModel, Compiled, Losses, RadiatorTuning, Setting};
use crate::element::Diaphragm;
use crate::medium::Air;
use crate::network::{Network, Node, Opening, OpeningKind};

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
    /// One-way travel, m.
    pub xmax: Option<f64>,
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

    pub(super) fn compile(&self, setting: &Setting) -> Compiled {
        self.compile_in(setting, None)
    }

    /// As [`Self::compile`], in a room with waves where one is given.
    pub(super) fn compile_in(&self, setting: &Setting, chamber: Option<&ChamberModel>) -> Compiled {
        let tuning = self.tuning(&setting.air);
        let mut network = setting.network();
        let omega = 2.0 * PI * tuning.tuning;
        let nodes = self.losses.install_chamber(&mut network, chamber, 1, self.volume, omega);
        network.chamber("Box", nodes[0]);
        setting.mount(&mut network, [Node::Outside, nodes[0]]);
        self.radiator.install(&mut network, nodes[1], setting.fidelity.radiation);
        Compiled { radiator_tuning: Some(tuning), ..Compiled::of(network) }
    }
}

impl Radiator {
    fn install(&self, network: &mut Network, inside: Node, radiation: bool) {
        let Self { mass, compliance, resistance, area, count, xmax } = *self;
        let nodes = [inside, Node::Outside];
        let element = network.add(Diaphragm { nodes, mass, compliance, resistance, area, count, radiation });
        network.openings.push(Opening {
            label: if count > 1 { "Radiators".to_owned() } else { "Radiator".to_owned() },
            kind: OpeningKind::Diaphragm,
            element,
            terminal: 1,
            area: f64::from(count) * area,
            xmax,
        });
    }
}
