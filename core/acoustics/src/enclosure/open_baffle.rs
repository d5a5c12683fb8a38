//! A driver on an open baffle.

use super::{Compiled, Setting};
use crate::element::Loads;
use crate::network::{Network, Node, Path};

/// A baffle that the sound of the rear comes around.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct OpenBaffle {
    /// How much farther the rear has to the listener than the front, m.
    pub path: f64,
}

impl OpenBaffle {
    pub(super) fn compile(&self, setting: &Setting) -> Compiled {
        let mut network: Network = setting.network();
        let loads = if setting.fidelity.radiation { Loads::Dipole(self.path) } else { Loads::None };
        setting.mount_loaded(&mut network, [Node::Outside, Node::Outside], loads);
        let rear = network.cones.len() - 1;
        let element = network.cones[rear].element;
        network.paths.push(Path { element, terminal: 1, distance: self.path });
        Compiled::of(network)
    }
}
