//! A box with a resistive vent.

use super::{Compiled, Fidelity, Sealed};
use crate::driver::Driver;
use crate::element::{MovingCoil, Resistance};
use crate::medium::Air;
use crate::network::{Network, Node};

/// A closed box whose wall breathes through something that resists: felt, foam, a slit.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Aperiodic {
    /// The box without its vent.
    pub chamber: Sealed,
    /// Flow resistance of the vent, Pa s/m3.
    pub resistance: f64,
}

impl Aperiodic {
    pub(super) fn compile(&self, driver: &Driver, air: &Air, fidelity: Fidelity) -> Compiled {
        let inside = Node::Inside(0);
        let closed_box = self.chamber.closed_box(driver, air);
        let cone = MovingCoil::new(Node::Outside, inside, *driver, fidelity.radiation);
        let mut network = Network::new(*air, *driver, 1, cone);
        self.chamber.install(&mut network, inside, closed_box);
        network.add(Resistance::new(inside, Node::Outside, self.resistance));
        Compiled::of(network)
    }
}
