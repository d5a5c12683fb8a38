//! A hidden cabinet as a file.

use serde::Deserialize;

use crate::cabinet::{Coil, Driver, Mode};
use crate::{Air, Cabinet, Chain, Lowpass, Port};

/// A hidden cabinet as a file, and what would mend it.
#[derive(Debug, Clone, Deserialize)]
#[serde(deny_unknown_fields)]
pub struct Scenario {
    /// What stands on the bench.
    pub name: String,
    driver: RawDriver,
    /// Share by which its suspension is stiffer than it will be.
    #[serde(default)]
    unbroken: f64,
    #[serde(default = "one")]
    count: u32,
    #[serde(default)]
    series: bool,
    #[serde(default)]
    reversed: u32,
    #[serde(default)]
    heavier: f64,
    volume_l: f64,
    ql: f64,
    tight_ql: f64,
    qa: f64,
    #[serde(default)]
    ports: Option<RawPorts>,
    #[serde(default)]
    modes: Vec<RawMode>,
    celsius: f64,
    chain: RawChain,
}

fn one() -> u32 {
    1
}

#[derive(Debug, Clone, Copy, Deserialize)]
#[serde(deny_unknown_fields)]
struct RawDriver {
    re_ohm: f64,
    coil_mh: f64,
    coil_edge_hz: f64,
    fs_hz: f64,
    qms: f64,
    qes: f64,
    mms_g: f64,
    sd_cm2: f64,
    creep: f64,
}

#[derive(Debug, Clone, Copy, Deserialize)]
#[serde(deny_unknown_fields)]
struct RawPorts {
    count: u32,
    diameter_mm: f64,
    length_mm: f64,
    ends_mm: f64,
}

#[derive(Debug, Clone, Copy, Deserialize)]
#[serde(deny_unknown_fields)]
struct RawMode {
    hz: f64,
    cone: f64,
    port: f64,
    q: f64,
}

#[derive(Debug, Clone, Deserialize)]
#[serde(deny_unknown_fields)]
struct RawChain {
    #[serde(default)]
    lowpass: Option<RawLowpass>,
    card_hz: f64,
    gain: f64,
    delay_ms: f64,
    jig: f64,
    mains_hz: f64,
    crosstalk: f64,
    noise_db: f64,
    #[serde(default)]
    room: Vec<RawRoom>,
}

#[derive(Debug, Clone, Copy, Deserialize)]
#[serde(deny_unknown_fields)]
struct RawLowpass {
    hz: f64,
    order: u32,
    linkwitz_riley: bool,
}

#[derive(Debug, Clone, Copy, Deserialize)]
#[serde(deny_unknown_fields)]
struct RawRoom {
    hz: f64,
    q: f64,
    share: f64,
}

/// What stands on the bench, as a builder may change it.
#[derive(Debug, Clone)]
pub struct Bench {
    /// What it is called.
    pub name: String,
    /// The cabinet.
    pub cabinet: Cabinet,
    /// Its leak once it is sealed.
    pub tight: f64,
    /// What its suspension gives up when it is broken in, as a share.
    pub unbroken: f64,
    /// What is between it and a trace.
    pub chain: Chain,
    /// Of the room, degC.
    pub celsius: f64,
}

/// Something that a builder does to a cabinet.
#[derive(Debug, Clone, Copy, PartialEq)]
pub enum Act {
    /// Seals its leaks.
    Seal,
    /// Takes so much off each port, m; less than nothing puts a piece on.
    Cut(f64),
    /// Swaps the leads of what is wired backwards.
    Swap,
    /// Fixes a block in it, m3; less than nothing makes it seem larger.
    Block(f64),
    /// Breaks its driver in.
    BreakIn,
    /// Switches a hidden filter off.
    Bypass,
}

impl Scenario {
    /// Reads a file.
    ///
    /// # Errors
    /// It is no such file.
    pub fn read(text: &str) -> Result<Self, serde_json::Error> {
        serde_json::from_str(text)
    }

    /// What it puts on the bench.
    pub fn bench(&self) -> Bench {
        let raw = self.driver;
        let mms = raw.mms_g * 1e-3;
        let resonance = std::f64::consts::TAU * raw.fs_hz * mms;
        let driver = Driver {
            re: raw.re_ohm,
            coil: Coil::Core { inductance: raw.coil_mh * 1e-3, edge: raw.coil_edge_hz },
            bl: (resonance * raw.re_ohm / raw.qes).sqrt(),
            mms,
            cms: ((std::f64::consts::TAU * raw.fs_hz).powi(2) * mms).recip(),
            rms: resonance / raw.qms,
            sd: raw.sd_cm2 * 1e-4,
            creep: (raw.creep, false),
        };
        let port = self.ports.map(|ports| Port {
            count: f64::from(ports.count),
            radius: 0.5e-3 * ports.diameter_mm,
            length: ports.length_mm * 1e-3,
            ends: ports.ends_mm * 1e-3,
        });
        let mode = |mode: &RawMode| Mode { frequency: mode.hz, at: [mode.cone, mode.port], q: mode.q };
        let chain = &self.chain;
        Bench {
            name: self.name.clone(),
            cabinet: Cabinet {
                driver,
                count: self.count,
                series: self.series,
                reversed: self.reversed,
                heavier: self.heavier,
                volume: self.volume_l * 1e-3,
                ql: self.ql,
                qa: self.qa,
                port,
                modes: self.modes.iter().map(mode).collect(),
                air: Air::at(self.celsius),
            },
            tight: self.tight_ql,
            unbroken: self.unbroken,
            chain: Chain {
                lowpass: chain.lowpass.map(|raw| Lowpass {
                    corner: raw.hz,
                    order: raw.order,
                    twice: raw.linkwitz_riley,
                }),
                card: chain.card_hz,
                microphone: (chain.gain, chain.delay_ms * 1e-3),
                jig: chain.jig,
                mains: chain.mains_hz,
                room: chain.room.iter().map(|room| [room.hz, room.q, room.share]).collect(),
                crosstalk: chain.crosstalk,
                noise: chain.noise_db,
            },
            celsius: self.celsius,
        }
    }
}

impl Bench {
    /// Changes the cabinet.
    pub fn change(&mut self, act: Act) {
        let cabinet = &mut self.cabinet;
        match act {
            Act::Seal => cabinet.ql = cabinet.ql.max(self.tight),
            Act::Cut(by) => {
                if let Some(port) = &mut cabinet.port {
                    port.length = (port.length - by).max(0.01);
                }
            }
            Act::Swap => cabinet.reversed = 0,
            Act::Block(volume) => cabinet.volume = (cabinet.volume - volume).max(0.2 * cabinet.volume),
            Act::BreakIn => {
                let softer = 1.0 + self.unbroken;
                cabinet.driver.cms *= softer;
                self.unbroken = 0.0;
            }
            Act::Bypass => self.chain.lowpass = None,
        }
    }
}
