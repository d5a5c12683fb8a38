//! A driver in a wall.

use super::{Compiled, Fidelity};
use crate::driver::Driver;
use crate::element::MovingCoil;
use crate::medium::Air;
use crate::network::{Network, Node};

/// The room behind is so large that it does not push back, and nobody listens there.
pub(super) fn compile(driver: &Driver, air: &Air, fidelity: Fidelity) -> Compiled {
    let cone = MovingCoil::new(Node::Outside, Node::Elsewhere, *driver, fidelity.radiation);
    Compiled::of(Network::new(*air, *driver, 0, cone))
}
