//! Bandpass cabinets: the driver stands between two chambers and only ports are heard.

use super::{CompileError, Compiled, Ported, Sealed, Setting};
use crate::network::{Network, Node, Reference};

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

impl Bandpass4 {
    pub(super) fn compile(&self, setting: &Setting) -> Result<Compiled, CompileError> {
        let tuning = self.front.tune(&setting.air, setting.fidelity).map_err(CompileError::in_front)?;
        let (mut network, [front, rear]) = between_chambers(setting);
        self.rear.install(&mut network, rear);
        self.front.install(&mut network, [front, Node::Outside], &tuning, setting.fidelity, "Port");
        let closed_box = Some(self.rear.closed_box(&setting.driver(), &setting.air));
        Ok(Compiled { closed_box, port_tuning: Some(tuning), ..Compiled::of(network) })
    }
}

impl Bandpass6 {
    pub(super) fn compile(&self, setting: &Setting) -> Result<Compiled, CompileError> {
        let tune = |chamber: &Ported| chamber.tune(&setting.air, setting.fidelity);
        let (behind, before) = (tune(&self.rear)?, tune(&self.front).map_err(CompileError::in_front)?);
        let (mut network, [front, rear]) = between_chambers(setting);
        let beyond = match self.path {
            FrontPath::Parallel => Node::Outside,
            FrontPath::Series => front,
        };
        self.rear.install(&mut network, [rear, beyond], &behind, setting.fidelity, "Rear port");
        self.front.install(&mut network, [front, Node::Outside], &before, setting.fidelity, "Front port");
        Ok(Compiled { port_tuning: Some(before), rear_tuning: Some(behind), ..Compiled::of(network) })
    }
}

/// The drivers between two new nodes, before and behind them.
fn between_chambers(setting: &Setting) -> (Network, [Node; 2]) {
    let mut network = setting.network();
    network.reference = Reference::Passband;
    let faces = [network.node(), network.node()];
    network.room("Front chamber", faces[0]);
    network.room("Rear chamber", faces[1]);
    setting.mount(&mut network, faces);
    (network, faces)
}
