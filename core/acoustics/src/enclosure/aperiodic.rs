//! A box with a resistive vent.

use super::{Compiled, Sealed, Setting};
use crate::element::Resistance;
use crate::network::Node;

/// A closed box whose wall breathes through something that resists: felt, foam, a slit.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Aperiodic {
    /// The box without its vent.
    pub chamber: Sealed,
    /// Flow resistance of the vent, Pa s/m3.
    pub resistance: f64,
}

impl Aperiodic {
    pub(super) fn compile(&self, setting: &Setting) -> Compiled {
        let mut network = setting.network();
        let inside = network.node();
        network.chamber("Box", inside);
        setting.mount(&mut network, [Node::Outside, inside]);
        self.chamber.install(&mut network, inside);
        network.add(Resistance::new(inside, Node::Outside, self.resistance));
        Compiled::of(network)
    }
}
