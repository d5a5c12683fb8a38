//! Bandpass cabinets: the driver stands between two chambers and only ports are heard.

use super::{CompileError, Compiled, Fidelity, Ported, Sealed};
use crate::driver::Driver;
use crate::element::MovingCoil;
use crate::medium::Air;
use crate::network::{Network, Node};

/// Behind the driver and before it.
const REAR: Node = Node::Inside(0);
const FRONT: Node = Node::Inside(1);

/// Fourth order: a closed chamber behind the driver, a ported one before it.
#[derive(Debug, Clone, PartialEq)]
pub struct Bandpass4 {
    /// Behind the driver.
    pub rear: Sealed,
    /// Before it.
    pub front: Ported,
}

/// Where the rear ports of a sixth-order bandpass lead.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum FrontPath {
    /// Parallel tuned: to the outside.
    Parallel,
    /// Series tuned: into the front chamber.
    Series,
}

/// Sixth order: two ported chambers.
#[derive(Debug, Clone, PartialEq)]
pub struct Bandpass6 {
    /// Behind the driver.
    pub rear: Ported,
    /// Before it.
    pub front: Ported,
    /// Where the rear ports lead.
    pub path: FrontPath,
}

fn network(driver: &Driver, air: &Air, fidelity: Fidelity) -> Network {
    let cone = MovingCoil::new(FRONT, REAR, *driver, fidelity.radiation);
    Network::new(*air, *driver, 2, cone)
}

impl Bandpass4 {
    pub(super) fn compile(
        &self,
        driver: &Driver,
        air: &Air,
        fidelity: Fidelity,
    ) -> Result<Compiled, CompileError> {
        let tuning = self.front.tune(air, fidelity)?;
        let closed_box = self.rear.closed_box(driver, air);
        let mut network = network(driver, air, fidelity);
        self.rear.install(&mut network, REAR, closed_box);
        self.front.install(&mut network, [FRONT, Node::Outside], &tuning, fidelity);
        let closed_box = Some(closed_box);
        Ok(Compiled { closed_box, port_tuning: Some(tuning), ..Compiled::of(network) })
    }
}

impl Bandpass6 {
    pub(super) fn compile(
        &self,
        driver: &Driver,
        air: &Air,
        fidelity: Fidelity,
    ) -> Result<Compiled, CompileError> {
        let (rear, front) = (self.rear.tune(air, fidelity)?, self.front.tune(air, fidelity)?);
        let beyond = match self.path {
            FrontPath::Parallel => Node::Outside,
            FrontPath::Series => FRONT,
        };
        let mut network = network(driver, air, fidelity);
        self.rear.install(&mut network, [REAR, beyond], &rear, fidelity);
        self.front.install(&mut network, [FRONT, Node::Outside], &front, fidelity);
        Ok(Compiled { port_tuning: Some(front), rear_tuning: Some(rear), ..Compiled::of(network) })
    }
}
