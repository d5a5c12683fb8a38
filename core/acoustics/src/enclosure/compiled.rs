//! What a cabinet compiles to, and what keeps it from it.

use super::ChamberModel;
use crate::element::{Chamber, Resistance};
use crate::medium::Air;
use crate::network::{Network, Node};
use crate::profile::{FlareError, Profile, cutoff};

/// Quality factors of a chamber's losses at its tuning; `None` is lossless (Small 1973, part I).
#[derive(Debug, Clone, Copy, PartialEq, Default)]
pub struct Losses {
    /// Leakage.
    pub ql: Option<f64>,
    /// Absorption in the air or its filling.
    pub qa: Option<f64>,
}

/// A network with what only its family can tell about it.
#[derive(Debug)]
pub struct Compiled {
    /// To be solved.
    pub network: Network,
    /// Sealed systems: closed-box resonance and Q.
    pub closed_box: Option<ClosedBox>,
    /// Ported systems: tuning and port lengths.
    pub port_tuning: Option<PortTuning>,
    /// Sixth-order bandpasses: tuning and port lengths of the chamber behind the driver.
    pub rear_tuning: Option<PortTuning>,
    /// Systems with passive diaphragms.
    pub radiator_tuning: Option<RadiatorTuning>,
    /// Lines and horns.
    pub passage: Option<PassageFacts>,
}

impl Compiled {
    /// Lengths of the ports behind and before the drivers, m; those of a box with one ported chamber come second.
    pub fn lengths(&self) -> [Vec<f64>; 2] {
        [&self.rear_tuning, &self.port_tuning]
            .map(|tuning| tuning.as_ref().map(PortTuning::lengths).unwrap_or_default())
    }

    pub(super) fn of(network: Network) -> Self {
        Self {
            network,
            closed_box: None,
            port_tuning: None,
            rear_tuning: None,
            radiator_tuning: None,
            passage: None,
        }
    }
}

impl Losses {
    /// Of a usual box with openings: QL 7 (Small 1973), QA 100.
    pub const USUAL: Self = Self { ql: Some(7.0), qa: Some(100.0) };
    /// Of a usual closed box, lined and well sealed, common practice.
    pub const CLOSED: Self = Self { ql: Some(15.0), qa: Some(50.0) };

    /// Adds a chamber of a volume (m3) with these losses, referred to `omega` (rad/s). Its leak is heard.
    pub(super) fn install(&self, network: &mut Network, inside: Node, volume: f64, omega: f64) {
        let compliance = network.air.compliance(volume);
        network.add(Chamber::new(inside, compliance, self.qa, omega));
        self.leak(network, inside, volume, omega);
    }

    /// Adds the chamber of drivers and so many openings, lumped or with its waves; the node of each, the drivers' first.
    pub(super) fn install_chamber(
        &self,
        network: &mut Network,
        chamber: Option<&ChamberModel>,
        openings: usize,
        volume: f64,
        omega: f64,
    ) -> Vec<Node> {
        let Some(chamber) = chamber else {
            let inside = network.node();
            self.install(network, inside, volume, omega);
            return vec![inside; openings + 1];
        };
        // Absorption is that of the fill in it.
        let nodes = chamber.install(network);
        self.leak(network, nodes[0], volume, omega);
        nodes
    }

    pub(super) fn leak(&self, network: &mut Network, inside: Node, volume: f64, omega: f64) {
        let compliance = network.air.compliance(volume);
        if let Some(ql) = self.ql {
            network.add(Resistance::leak(inside, compliance, ql, omega));
        }
    }
}

/// Why a cabinet cannot be compiled. `front` tells the chamber before the driver from the one behind.
#[derive(Debug, Clone, Copy, PartialEq, thiserror::Error)]
pub enum CompileError {
    /// Even with no length at all the ports tune lower than was asked.
    #[error("the ports cannot tune above {highest} Hz")]
    TuningTooHigh {
        /// Tuning at the shortest length that counts as a port, Hz.
        highest: f64,
        /// Which chamber.
        front: bool,
    },
    /// However long the others are, those of known length alone tune higher than was asked.
    #[error("the ports cannot tune below {lowest} Hz")]
    TuningTooLow {
        /// Tuning of those of known length, Hz.
        lowest: f64,
        /// Which chamber.
        front: bool,
    },
    /// The ports have no tuning below the resonances of their own pipes.
    #[error("the ports resonate as pipes before they tune the chamber")]
    Untunable {
        /// Which chamber.
        front: bool,
    },
    /// A tuning was asked for and every port already has a length.
    #[error("nothing is left to tune")]
    NothingToTune {
        /// Which chamber.
        front: bool,
    },
    /// A port has no length and no tuning says how long it should be.
    #[error("port {port} has neither a length nor a tuning to reach")]
    LengthUnknown {
        /// Position in the list of ports.
        port: usize,
        /// Which chamber.
        front: bool,
    },
    /// A segment cannot be shaped.
    #[error("segment {segment}: {error}")]
    Flare {
        /// Position in the profile.
        segment: usize,
        /// Why.
        error: FlareError,
    },
    /// The side pipe cannot be shaped.
    #[error("the side pipe: {error}")]
    Stub {
        /// Why.
        error: FlareError,
    },
    /// The drivers sit beyond the end of the way.
    #[error("the path is only {length} m long")]
    BeyondEnd {
        /// Length of the path, m.
        length: f64,
        /// Whether it is the tap near the mouth.
        second: bool,
    },
    /// The tap near the mouth comes before the one near the throat.
    #[error("the second tap must lie beyond the first at {first} m")]
    TapsReversed {
        /// Place of the first, m.
        first: f64,
    },
}

impl CompileError {
    /// The same for the chamber before the driver.
    pub(super) fn in_front(self) -> Self {
        match self {
            Self::TuningTooHigh { highest, .. } => Self::TuningTooHigh { highest, front: true },
            Self::TuningTooLow { lowest, .. } => Self::TuningTooLow { lowest, front: true },
            Self::Untunable { .. } => Self::Untunable { front: true },
            Self::NothingToTune { .. } => Self::NothingToTune { front: true },
            Self::LengthUnknown { port, .. } => Self::LengthUnknown { port, front: true },
            other => other,
        }
    }
}

/// What a port came out as.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct PortLength {
    /// Length, m.
    pub length: f64,
    /// First resonance of the pipe itself, Hz: `c/(2 Leff)`.
    pub pipe_resonance: f64,
    /// Area of one port, m2.
    pub area: f64,
    /// How many equal ones there are.
    pub count: u32,
    /// Width of a slot, m.
    pub width: Option<f64>,
}

/// How a ported box is tuned.
#[derive(Debug, Clone, PartialEq)]
pub struct PortTuning {
    /// Where the reactance on the box side of the cone crosses zero, Hz.
    pub reactance: f64,
    /// Helmholtz's formula with the same end corrections, Hz.
    pub helmholtz: f64,
    /// Each port, in order.
    pub ports: Vec<PortLength>,
}

impl PortTuning {
    /// Length of each port, m.
    pub fn lengths(&self) -> Vec<f64> {
        self.ports.iter().map(|port| port.length).collect()
    }
}

/// How a box with passive radiators is tuned.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct RadiatorTuning {
    /// Where the reactance on the box side of the cone is infinite: mass of the radiator on the springs of
    /// its suspension and of the box, Hz.
    pub tuning: f64,
    /// The radiator in free air, where it cancels the cone: the notch, Hz.
    pub notch: f64,
}

/// What a line or horn comes to.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct PassageFacts {
    /// Length of the path, m.
    pub length: f64,
    /// Air in it, m3.
    pub volume: f64,
    /// Area where it begins, m2.
    pub start: f64,
    /// Area where it ends, m2.
    pub end: f64,
    /// A widening way's cut-off as an exponential one, Hz.
    pub cutoff: Option<f64>,
}

impl PassageFacts {
    pub(super) fn of(profile: &Profile, air: &Air) -> Self {
        let (length, start, end) = (profile.length(), profile.start(), profile.end());
        Self {
            length,
            volume: profile.volume(),
            start,
            end,
            cutoff: (end > 1.05 * start).then(|| cutoff(length, start, end, air)),
        }
    }
}

/// Closed-box system values (Small 1972/73).
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct ClosedBox {
    /// Resonance of driver and box, Hz: `Fs sqrt(1 + Vas/Vb)`.
    pub fc: f64,
    /// Total Q at that resonance, box losses included.
    pub qtc: f64,
}
