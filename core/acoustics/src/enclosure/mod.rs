//! Cabinet families: one compile function each, from a cabinet to a network.
//!
//! This is the only folder that knows families. A new one is a new file here with a `compile`
//! and one more variant of [`Enclosure`].

mod aperiodic;
mod bandpass;
mod chamber_model;
mod horn;
mod infinite_baffle;
mod line;
mod open_baffle;
mod passage;
mod passive_radiator;
mod ported;
mod sealed;
mod setting;

pub use aperiodic::Aperiodic;
pub use bandpass::{Bandpass4, Bandpass6, FrontPath};
pub use chamber_model::ChamberModel;
pub use horn::{FrontHorn, TappedHorn};
pub use line::{Line, Mouth};
pub use open_baffle::OpenBaffle;
pub use passage::PassageFacts;
pub use passive_radiator::{PassiveRadiator, Radiator, RadiatorTuning};
pub use ported::{Port, PortLength, PortTuning, Ported};
pub use sealed::{ClosedBox, Sealed};
pub use setting::{Fidelity, Setting};

use crate::element::{Chamber, Resistance};
use crate::network::{Network, Node};
use crate::profile::{FlareError, Profile};

/// A cabinet, complete and in SI.
#[derive(Debug, Clone, PartialEq)]
pub enum Enclosure {
    /// A wall so wide that nothing comes around it.
    InfiniteBaffle,
    /// A baffle that the sound of the rear comes around.
    OpenBaffle(OpenBaffle),
    /// A closed box.
    Sealed(Sealed),
    /// A box with a resistive vent.
    Aperiodic(Aperiodic),
    /// A box with one or more ports.
    Ported(Ported),
    /// A box with passive diaphragms.
    PassiveRadiator(PassiveRadiator),
    /// A closed chamber behind the driver and a ported one before it.
    Bandpass4(Bandpass4),
    /// Two ported chambers.
    Bandpass6(Bandpass6),
    /// A way out behind the drivers: line, mass-loaded line, back-loaded horn, slot and flare.
    Line(Line),
    /// A horn before the drivers.
    FrontHorn(FrontHorn),
    /// A horn that both sides of the drivers speak into.
    TappedHorn(TappedHorn),
}

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

    fn of(network: Network) -> Self {
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
    fn install(&self, network: &mut Network, inside: Node, volume: f64, omega: f64) {
        let compliance = network.air.compliance(volume);
        network.add(Chamber::new(inside, compliance, self.qa, omega));
        self.leak(network, inside, volume, omega);
    }

    /// Adds the chamber of drivers and so many openings, lumped or with its waves; the node of each, the drivers' first.
    fn install_chamber(
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

    fn leak(&self, network: &mut Network, inside: Node, volume: f64, omega: f64) {
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
    #[error("the way is only {length} m long")]
    BeyondEnd {
        /// Length of the way, m.
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
    fn in_front(self) -> Self {
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

impl Enclosure {
    /// Air in all its chambers and ways together, without the ports, m3.
    pub fn air(&self) -> f64 {
        let chamber = |chamber: &Option<Sealed>| chamber.map_or(0.0, |chamber| chamber.volume);
        match self {
            Self::InfiniteBaffle | Self::OpenBaffle(_) => 0.0,
            Self::Sealed(sealed) => sealed.volume,
            Self::Aperiodic(aperiodic) => aperiodic.chamber.volume,
            Self::Ported(ported) => ported.volume,
            Self::PassiveRadiator(cabinet) => cabinet.volume,
            Self::Bandpass4(bandpass) => bandpass.rear.volume + bandpass.front.volume,
            Self::Bandpass6(bandpass) => bandpass.rear.volume + bandpass.front.volume,
            Self::Line(line) => line.profile.volume() + chamber(&line.chamber),
            Self::FrontHorn(horn) => horn.profile.volume() + horn.rear.volume + chamber(&horn.throat),
            Self::TappedHorn(horn) => horn.profile.volume(),
        }
    }

    /// The same with chambers of other volumes behind and before the drivers (m3, as they seem with their fill); those not given
    /// stay.
    #[must_use]
    pub fn with_volumes(&self, [behind, before]: [Option<f64>; 2]) -> Self {
        let mut changed = self.clone();
        let set = |volume: &mut f64, to: Option<f64>| *volume = to.unwrap_or(*volume);
        match &mut changed {
            Self::InfiniteBaffle | Self::OpenBaffle(_) | Self::TappedHorn(_) => {}
            Self::Sealed(sealed) => set(&mut sealed.volume, behind),
            Self::Aperiodic(aperiodic) => set(&mut aperiodic.chamber.volume, behind),
            Self::Ported(ported) => set(&mut ported.volume, behind),
            Self::PassiveRadiator(cabinet) => set(&mut cabinet.volume, behind),
            Self::Bandpass4(bandpass) => {
                set(&mut bandpass.rear.volume, behind);
                set(&mut bandpass.front.volume, before);
            }
            Self::Bandpass6(bandpass) => {
                set(&mut bandpass.rear.volume, behind);
                set(&mut bandpass.front.volume, before);
            }
            Self::Line(line) => {
                if let Some(chamber) = &mut line.chamber {
                    set(&mut chamber.volume, behind);
                }
            }
            Self::FrontHorn(horn) => set(&mut horn.rear.volume, behind),
        }
        changed
    }

    /// The way of a line or horn, and where the rear and the front of the drivers speak into it, m from its beginning.
    pub fn path(&self) -> Option<(&Profile, [f64; 2])> {
        match self {
            Self::Line(line) => Some((&line.profile, [line.driver_at, 0.0])),
            Self::FrontHorn(horn) => Some((&horn.profile, [0.0; 2])),
            Self::TappedHorn(horn) => Some((&horn.profile, horn.taps)),
            _ => None,
        }
    }

    /// The same with another way, and the drivers elsewhere along it (m), as [`Self::path`] has them.
    #[must_use]
    pub fn with_path(&self, path: Profile, [rear, front]: [f64; 2]) -> Self {
        let mut changed = self.clone();
        match &mut changed {
            Self::Line(line) => (line.profile, line.driver_at) = (path, rear),
            Self::FrontHorn(horn) => horn.profile = path,
            Self::TappedHorn(horn) => (horn.profile, horn.taps) = (path, [rear, front]),
            _ => {}
        }
        changed
    }

    /// Its ports behind and before the drivers; those of a box with one chamber or one line stand behind them, of a bandpass of the
    /// fourth order before.
    pub fn ports_mut(&mut self) -> [Option<&mut [Port]>; 2] {
        match self {
            Self::Ported(ported) => [Some(&mut ported.ports), None],
            Self::Bandpass4(bandpass) => [None, Some(&mut bandpass.front.ports)],
            Self::Bandpass6(bandpass) => [Some(&mut bandpass.rear.ports), Some(&mut bandpass.front.ports)],
            Self::Line(Line { mouth: Mouth::Ports(ports), .. }) => [Some(ports), None],
            _ => [None, None],
        }
    }

    /// The same with ports cut to lengths (m) behind and before the drivers, in their order; a box with one ported chamber takes
    /// the second list.
    #[must_use]
    pub fn with_lengths(&self, [behind, before]: &[Vec<f64>; 2]) -> Self {
        let mut changed = self.clone();
        let cut = |ported: &mut Ported, lengths: &[f64]| {
            ported.tuning = None;
            for (port, length) in ported.ports.iter_mut().zip(lengths) {
                port.length = Some(*length);
            }
        };
        match &mut changed {
            Self::Ported(ported) => cut(ported, before),
            Self::Bandpass4(bandpass) => cut(&mut bandpass.front, before),
            Self::Bandpass6(bandpass) => {
                cut(&mut bandpass.rear, behind);
                cut(&mut bandpass.front, before);
            }
            _ => {}
        }
        changed
    }

    /// Where the reactance on the box side of the cone is infinite and the cone stands still, Hz; of lines and tapped horns, for an
    /// open line near a quarter wave. Other families have theirs from their formulas.
    pub fn resonance(&self, setting: &Setting) -> Option<f64> {
        match self {
            Self::Line(line) => line.resonance(setting),
            Self::TappedHorn(horn) => horn.resonance(setting),
            _ => None,
        }
    }

    /// As [`Self::compile`], with the air of the chambers behind and before the drivers as models with waves; `None` for kinds of cabinets
    /// that have no such chambers.
    ///
    /// # Errors
    /// See [`CompileError`].
    pub fn compile_with_cavity(
        &self,
        setting: &Setting,
        [behind, before]: [Option<&ChamberModel>; 2],
    ) -> Result<Option<Compiled>, CompileError> {
        Ok(Some(match self {
            Self::Sealed(sealed) => sealed.compile_in(setting, behind),
            Self::Ported(ported) => ported.compile_in(setting, behind)?,
            Self::PassiveRadiator(cabinet) => cabinet.compile_in(setting, behind),
            Self::Bandpass4(bandpass) => bandpass.compile_in(setting, [behind, before])?,
            Self::Bandpass6(bandpass) => bandpass.compile_in(setting, [behind, before])?,
            _ => return Ok(None),
        }))
    }

    /// Compiles the cabinet for its drivers and surroundings.
    ///
    /// # Errors
    /// See [`CompileError`].
    pub fn compile(&self, setting: &Setting) -> Result<Compiled, CompileError> {
        match self {
            Self::InfiniteBaffle => Ok(infinite_baffle::compile(setting)),
            Self::OpenBaffle(baffle) => Ok(baffle.compile(setting)),
            Self::Sealed(sealed) => Ok(sealed.compile(setting)),
            Self::Aperiodic(aperiodic) => Ok(aperiodic.compile(setting)),
            Self::Ported(ported) => ported.compile(setting),
            Self::PassiveRadiator(radiator) => Ok(radiator.compile(setting)),
            Self::Bandpass4(bandpass) => bandpass.compile(setting),
            Self::Bandpass6(bandpass) => bandpass.compile(setting),
            Self::Line(line) => line.compile(setting),
            Self::FrontHorn(horn) => horn.compile(setting),
            Self::TappedHorn(horn) => horn.compile(setting),
        }
    }
}
