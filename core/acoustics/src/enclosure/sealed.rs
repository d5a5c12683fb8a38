//! Sealed cabinets.

use std::f64::consts::PI;

use super::{ChamberModel, ClosedBox, Compiled, Losses, Setting};
use crate::driver::Driver;
use crate::medium::Air;
use crate::network::{Network, Node};

/// A closed box.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Sealed {
    /// Net inside volume, m3.
    pub volume: f64,
    /// Losses at the system resonance.
    pub losses: Losses,
}

impl Sealed {
    /// Resonance and Q without solving the network.
    ///
    /// The box's losses act on its share `alpha/(1 + alpha)` of the total stiffness:
    /// `1/Qtc = 1/(Qts sqrt(1 + alpha)) + (1/QL + 1/QA) alpha/(1 + alpha)`, first order in the losses.
    pub fn closed_box(&self, driver: &Driver, air: &Air) -> ClosedBox {
        let alpha = driver.vas(air) / self.volume;
        let stiffening = (1.0 + alpha).sqrt();
        let box_loss = [self.losses.ql, self.losses.qa].into_iter().flatten().map(f64::recip).sum::<f64>();
        ClosedBox {
            fc: driver.fs() * stiffening,
            qtc: (1.0 / (driver.qts() * stiffening) + box_loss * alpha / (1.0 + alpha)).recip(),
        }
    }

    /// Adds the chamber at a node.
    pub(super) fn install(&self, network: &mut Network, inside: Node) {
        let fc = self.closed_box(&network.driver, &network.air).fc;
        self.losses.install(network, inside, self.volume, 2.0 * PI * fc);
    }

    /// Adds the chamber, with its waves where a model is given; the node of the drivers.
    pub(super) fn install_in(&self, network: &mut Network, chamber: Option<&ChamberModel>) -> Node {
        let omega = 2.0 * PI * self.closed_box(&network.driver, &network.air).fc;
        self.losses.install_chamber(network, chamber, 0, self.volume, omega)[0]
    }

    pub(super) fn compile(&self, setting: &Setting) -> Compiled {
        self.compile_in(setting, None)
    }

    /// As [`Self::compile`], in a room with waves where one is given.
    pub(super) fn compile_in(&self, setting: &Setting, chamber: Option<&ChamberModel>) -> Compiled {
        let mut network = setting.network();
        let inside = self.install_in(&mut network, chamber);
        network.chamber("Box", inside);
        setting.mount(&mut network, [Node::Outside, inside]);
        Compiled {
            closed_box: Some(self.closed_box(&setting.driver(), &setting.air)),
            ..Compiled::of(network)
        }
    }
}
