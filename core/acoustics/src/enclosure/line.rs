//! Cabinets whose rear air leads through a long way to the open: lines, mass-loaded lines, back-loaded horns, and
//! boxes with a slot and flare.

use super::passage::{first_resonance, helmholtz};
use super::ported::install_ports;
use super::{CompileError, Compiled, Losses, PassageFacts, Port, Ported, Sealed, Setting};
use crate::element::{End, Passage};
use crate::network::{Network, Node};
use crate::profile::{Profile, Segment};
use crate::solve::Solver;

/// A way out behind the drivers, whose fronts are in the open.
#[derive(Debug, Clone, PartialEq)]
pub struct Line {
    /// The way, from its closed end or from the chamber.
    pub profile: Profile,
    /// Where the drivers sit along it, m from its beginning; what lies before is a closed stub.
    pub driver_at: f64,
    /// A chamber between the drivers and the way.
    pub chamber: Option<Sealed>,
    /// A closed side pipe at the drivers.
    pub stub: Option<Segment>,
    /// What the air meets where the way begins at a chamber.
    pub inner: Option<End>,
    /// How it opens.
    pub mouth: Mouth,
}

/// How a way opens.
#[derive(Debug, Clone, PartialEq)]
pub enum Mouth {
    /// With its whole area.
    Open {
        /// What the air meets.
        end: End,
        /// How much farther it has to the listener than the cone, m.
        path: f64,
    },
    /// Through ports of known lengths, whose mass lowers the tuning.
    Ports(Vec<Port>),
}

impl Line {
    pub(super) fn compile(&self, setting: &Setting) -> Result<Compiled, CompileError> {
        let length = self.profile.length();
        if self.driver_at >= length {
            return Err(CompileError::BeyondEnd { length, second: false });
        }
        self.profile.checked()?;
        if let Some(stub) = &self.stub {
            stub.flare
                .check(stub.length, stub.start, stub.end)
                .map_err(|error| CompileError::Stub { error })?;
        }
        let mut network = setting.network();
        let node = network.node();
        let mut port_tuning = self.install(&mut network, node, setting)?;
        if let Some(tuning) = &mut port_tuning {
            tuning.reactance = first_resonance(&network, node).unwrap_or(tuning.reactance);
        }
        setting.mount(&mut network, [Node::Outside, node]);
        network.chamber("Behind the driver", node);
        let passage = Some(PassageFacts::of(&self.profile, &setting.air));
        Ok(Compiled { passage, port_tuning, ..Compiled::of(network) })
    }

    pub(super) fn resonance(&self, setting: &Setting) -> Option<f64> {
        let (network, node) = self.passive(setting)?;
        first_resonance(&network, node)
    }

    /// Susceptance behind the cone at a frequency (Hz), m3/(s Pa): below the first resonance negative, zero there. `None` where
    /// the line cannot be made.
    pub(crate) fn susceptance(&self, setting: &Setting, frequency: f64) -> Option<f64> {
        let (network, node) = self.passive(setting)?;
        Some(Solver::new(&network).input_impedance(frequency, node).inv().im)
    }

    /// What is behind the drivers, without them.
    fn passive(&self, setting: &Setting) -> Option<(Network, Node)> {
        let mut network = setting.network();
        let node = network.node();
        self.install(&mut network, node, setting).ok()?;
        Some((network, node))
    }

    /// Adds everything behind the drivers.
    fn install(
        &self,
        network: &mut Network,
        node: Node,
        setting: &Setting,
    ) -> Result<Option<super::PortTuning>, CompileError> {
        let fidelity = setting.fidelity;
        if let Some(Sealed { volume, losses }) = self.chamber {
            let omega = helmholtz(volume, self.profile.mass(&setting.air), &setting.air);
            losses.install(network, node, volume, omega);
        }
        if let Some(stub) = &self.stub {
            let slices = Profile { segments: vec![*stub] }.slices(0.0, stub.length);
            let closed = network.node();
            network.add(Passage::new([node, closed], &slices, [None, None], fidelity.ducts));
        }
        if self.driver_at > 0.0 {
            let closed = network.node();
            self.profile.install(network, [0.0, self.driver_at], [closed, node], [None, None], fidelity);
        }
        match &self.mouth {
            Mouth::Open { end, path } => {
                self.profile.install_mouth(
                    network,
                    self.driver_at,
                    node,
                    [self.inner, Some(*end)],
                    *path,
                    fidelity,
                );
                Ok(None)
            }
            Mouth::Ports(ports) => {
                let last = network.node();
                let path = [self.driver_at, self.profile.length()];
                self.profile.install(network, path, [node, last], [self.inner, None], fidelity);
                let (losses, ports) = (Losses::default(), ports.clone());
                let end = Ported { volume: self.profile.volume(), losses, ports, tuning: None };
                let tuning = end.tune(&setting.air, fidelity)?;
                install_ports(&end.ports, network, [last, Node::Outside], &tuning, fidelity, "Port");
                Ok(Some(tuning))
            }
        }
    }
}
