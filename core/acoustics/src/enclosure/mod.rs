//! Cabinet families: one compile function each, from a cabinet to a network.
//!
//! This is the only folder that knows families. A new one is a new file here with a `compile`
//! and one more variant of [`Enclosure`].

mod aperiodic;
mod bandpass;
mod infinite_baffle;
mod passive_radiator;
mod ported;
mod sealed;

pub use aperiodic::Aperiodic;
pub use bandpass::{Bandpass4, Bandpass6, FrontPath};
pub use passive_radiator::{PassiveRadiator, Radiator, RadiatorTuning};
pub use ported::{Port, PortLength, PortTuning, Ported};
pub use sealed::{ClosedBox, Sealed};

use crate::driver::Driver;
use crate::element::{Chamber, Resistance};
use crate::medium::Air;
use crate::network::{Network, Node};

/// A cabinet, complete and in SI.
#[derive(Debug, Clone, PartialEq)]
pub enum Enclosure {
    /// A wall so wide that nothing comes around it.
    InfiniteBaffle,
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
}

/// Quality factors of a chamber's losses at its tuning; `None` is lossless (Small 1973, part I).
#[derive(Debug, Clone, Copy, PartialEq, Default)]
pub struct Losses {
    /// Leakage.
    pub ql: Option<f64>,
    /// Absorption in the air or its filling.
    pub qa: Option<f64>,
}

/// Which physics to include. The default is everything; the rest is there so that the same cabinet
/// can be laid beside textbook circuits.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct Fidelity {
    /// Radiation resistance on the cone's front.
    pub radiation: bool,
    /// Ports as lossy ducts; else as plain masses with the same end corrections.
    pub ducts: bool,
}

impl Fidelity {
    /// Everything.
    pub const FULL: Self = Self { radiation: true, ducts: true };
    /// The circuit of Thiele and Small.
    pub const TEXTBOOK: Self = Self { radiation: false, ducts: false };
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
}

impl Compiled {
    fn of(network: Network) -> Self {
        Self { network, closed_box: None, port_tuning: None, rear_tuning: None, radiator_tuning: None }
    }
}

impl Losses {
    /// Adds a chamber of a volume (m3) with these losses, referred to `omega` (rad/s). Its leak is heard.
    fn install(&self, network: &mut Network, inside: Node, volume: f64, omega: f64) {
        let compliance = network.air.compliance(volume);
        network.add(Chamber::new(inside, compliance, self.qa, omega));
        if let Some(ql) = self.ql {
            network.add(Resistance::leak(inside, compliance, ql, omega));
        }
    }
}

/// Root of a rising function between two bounds, to the last bit that matters.
fn rising_root(mut low: f64, mut high: f64, rising: impl Fn(f64) -> f64) -> f64 {
    for _ in 0..60 {
        let middle = 0.5 * (low + high);
        if rising(middle) < 0.0 {
            low = middle;
        } else {
            high = middle;
        }
    }
    0.5 * (low + high)
}

/// Why a cabinet cannot be compiled.
#[derive(Debug, Clone, Copy, PartialEq, thiserror::Error)]
pub enum CompileError {
    /// Even with no length at all the ports tune lower than was asked.
    #[error("the ports cannot tune above {highest} Hz")]
    TuningTooHigh {
        /// Tuning at the shortest length that counts as a port, Hz.
        highest: f64,
    },
    /// A tuning was asked for and every port already has a length.
    #[error("nothing is left to tune")]
    NothingToTune,
    /// A port has no length and no tuning says how long it should be.
    #[error("port {port} has neither a length nor a tuning to reach")]
    LengthUnknown {
        /// Position in the list of ports.
        port: usize,
    },
}

impl Enclosure {
    /// Compiles the cabinet around a driver.
    ///
    /// # Errors
    /// See [`CompileError`].
    pub fn compile(&self, driver: &Driver, air: &Air, fidelity: Fidelity) -> Result<Compiled, CompileError> {
        match self {
            Self::Sealed(sealed) => Ok(sealed.compile(driver, air, fidelity)),
            Self::InfiniteBaffle => Ok(infinite_baffle::compile(driver, air, fidelity)),
            Self::Aperiodic(aperiodic) => Ok(aperiodic.compile(driver, air, fidelity)),
            Self::Ported(ported) => ported.compile(driver, air, fidelity),
            Self::PassiveRadiator(radiator) => Ok(radiator.compile(driver, air, fidelity)),
            Self::Bandpass4(bandpass) => bandpass.compile(driver, air, fidelity),
            Self::Bandpass6(bandpass) => bandpass.compile(driver, air, fidelity),
        }
    }
}
