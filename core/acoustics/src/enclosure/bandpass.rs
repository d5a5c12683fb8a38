//! Bandpass cabinets: the driver stands between two chambers and only ports are heard.

use super::{ChamberModel, CompileError, Compiled, Ported, Sealed, Setting};
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
        self.compile_in(setting, [None; 2])
    }

    /// As [`Self::compile`], in rooms with waves behind and before the drivers where they are given.
    pub(super) fn compile_in(
        &self,
        setting: &Setting,
        [behind, before]: [Option<&ChamberModel>; 2],
    ) -> Result<Compiled, CompileError> {
        let tuning = self.front.tune(&setting.air, setting.fidelity).map_err(CompileError::in_front)?;
        let mut network = begun(setting);
        let front = self.front.install_chamber(&mut network, before, &tuning, 0);
        let rear = self.rear.install_in(&mut network, behind);
        between(&mut network, setting, [front[0], rear]);
        let beyond = vec![Node::Outside; self.front.ports.len()];
        self.front.install_ports(&mut network, &front[1..], &beyond, &tuning, setting.fidelity, "Port");
        let closed_box = Some(self.rear.closed_box(&setting.driver(), &setting.air));
        Ok(Compiled { closed_box, port_tuning: Some(tuning), ..Compiled::of(network) })
    }
}

impl Bandpass6 {
    pub(super) fn compile(&self, setting: &Setting) -> Result<Compiled, CompileError> {
        self.compile_in(setting, [None; 2])
    }

    /// As [`Bandpass4::compile_in`]. In series the ports of the chamber behind are further openings of the one before.
    pub(super) fn compile_in(
        &self,
        setting: &Setting,
        chambers: [Option<&ChamberModel>; 2],
    ) -> Result<Compiled, CompileError> {
        let tune = |chamber: &Ported| chamber.tune(&setting.air, setting.fidelity);
        let (behind, before) = (tune(&self.rear)?, tune(&self.front).map_err(CompileError::in_front)?);
        let mut network = begun(setting);
        let through = if self.path == FrontPath::Series { self.rear.ports.len() } else { 0 };
        let front = self.front.install_chamber(&mut network, chambers[1], &before, through);
        let rear = self.rear.install_chamber(&mut network, chambers[0], &behind, 0);
        between(&mut network, setting, [front[0], rear[0]]);
        let (own, others) = front[1..].split_at(self.front.ports.len());
        let outside = vec![Node::Outside; own.len().max(self.rear.ports.len())];
        let beyond = if through > 0 { others } else { &outside };
        self.rear.install_ports(&mut network, &rear[1..], beyond, &behind, setting.fidelity, "Rear port");
        self.front.install_ports(&mut network, own, &outside, &before, setting.fidelity, "Front port");
        Ok(Compiled { port_tuning: Some(before), rear_tuning: Some(behind), ..Compiled::of(network) })
    }
}

fn begun(setting: &Setting) -> Network {
    let mut network = setting.network();
    network.reference = Reference::Passband;
    network
}

/// The drivers between two nodes, before and behind them.
fn between(network: &mut Network, setting: &Setting, faces: [Node; 2]) {
    network.chamber("Front chamber", faces[0]);
    network.chamber("Rear chamber", faces[1]);
    setting.mount(network, faces);
}
