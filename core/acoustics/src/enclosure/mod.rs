//! Cabinet families: one compile function each, from a cabinet to a network.
//!
//! This is the only folder that knows families. A new one is a new file here with a `compile`
//! and one more variant of [`Enclosure`].

mod ported;
mod sealed;

pub use ported::{Port, PortLength, PortTuning, Ported};
pub use sealed::{ClosedBox, Sealed};

use crate::driver::Driver;
use crate::medium::Air;
use crate::network::Network;

/// A cabinet, complete and in SI.
#[derive(Debug, Clone, PartialEq)]
pub enum Enclosure {
    /// A closed box.
    Sealed(Sealed),
    /// A box with one or more ports.
    Ported(Ported),
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
            Self::Ported(ported) => ported.compile(driver, air, fidelity),
        }
    }
}
