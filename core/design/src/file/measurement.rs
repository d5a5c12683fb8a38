//! What was measured of a finished box, of its drivers, or of the chain that measures.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use super::Typed;

/// Most points of a trace that is kept.
pub const MOST_MEASURED_POINTS: usize = 600;

/// Most points of its harmonics.
pub const MOST_HARMONICS: usize = 100;

/// What a trace is of.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Hash, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum RawTraceKind {
    /// The electrical chain alone, from the generator to the terminals.
    Loopback,
    /// Impedance of a driver in free air.
    ImpedanceFree,
    /// The same with a mass on its cone.
    ImpedanceMass,
    /// Impedance of the box with its port shut at the outer mouth.
    ImpedanceBlocked,
    /// Impedance of the finished box.
    ImpedanceBox,
    /// Sound close to a cone.
    NearfieldCone,
    /// Sound in the mouth of a port.
    NearfieldPort,
    /// Sound close to a passive radiator.
    NearfieldRadiator,
    /// Sound where somebody listens.
    Seat,
}

impl RawTraceKind {
    /// Whether it is an impedance, else a level.
    pub fn is_impedance(self) -> bool {
        matches!(
            self,
            Self::ImpedanceFree | Self::ImpedanceMass | Self::ImpedanceBlocked | Self::ImpedanceBox
        )
    }

    /// Whether it is of a box as it was then; else of a driver or of the chain, which stay when a box is changed.
    pub fn is_of_box(self) -> bool {
        !matches!(self, Self::Loopback | Self::ImpedanceFree | Self::ImpedanceMass)
    }
}

/// How a trace came here.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum RawTraceSource {
    /// From a text that another program wrote.
    Text,
    /// From a recording of the sweep.
    Recording,
    /// From the microphone of a browser.
    Microphone,
    /// From a measuring box.
    Rig,
}

/// A trace that was measured.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct RawMeasurement {
    /// What it is of.
    pub of: RawTraceKind,
    /// How it came here.
    pub source: RawTraceSource,
    /// When, in RFC 3339.
    #[schema(max_length = 40)]
    pub at: String,
    /// What the variant was called that stood there; of drivers and the chain the one that was looked at.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(max_length = 120)]
    pub variant: Option<String>,
    /// Which driver, counted from 1; the first where absent.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub driver: Option<Typed>,
    /// Mass on the cone.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub added_mass: Option<Typed>,
    /// From the microphone to what it listens to.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub distance: Option<Typed>,
    /// How far off the axis.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub angle: Option<Typed>,
    /// At the terminals.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub drive: Option<Typed>,
    /// By a thermometer.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub room_temperature: Option<Typed>,
    /// What its file was called.
    #[serde(default, skip_serializing_if = "String::is_empty")]
    #[schema(max_length = 200)]
    pub file: String,
    /// That file as it came, by the hash of its content.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub raw: Option<String>,
    /// A picture of the set-up, by the hash of its content.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub photo: Option<String>,
    /// The calibration of the microphone that is taken out of it, by what it was called.
    #[serde(default, skip_serializing_if = "String::is_empty")]
    #[schema(max_length = 200)]
    pub calibration: String,
    /// Whether it is kept and not used.
    #[serde(default, skip_serializing_if = "std::ops::Not::not")]
    pub left_out: bool,
    /// Whether its phase was measured; the third of each point stands for nothing otherwise.
    #[serde(default)]
    pub phased: bool,
    /// Hz rising, ohm or dB, degrees.
    #[schema(min_items = 2, max_items = 600)]
    pub points: Vec<[f64; 3]>,
    /// How loud the sweep was played, dB of full scale; the same gain everywhere behind it.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(minimum = -120, maximum = 20)]
    pub sweep_level: Option<f64>,
    /// What else came back: Hz that was played, second and third harmonic over the fundamental, dB.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    #[schema(max_items = 100)]
    pub harmonics: Vec<[f64; 3]>,
    /// What was found while it was read.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    #[schema(max_items = 20)]
    pub remarks: Vec<String>,
    /// Anything worth keeping.
    #[serde(default, skip_serializing_if = "String::is_empty")]
    #[schema(max_length = 10000)]
    pub notes: String,
}
