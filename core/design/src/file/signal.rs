//! What comes before the drivers: filters, the amplifier, passive parts.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use super::{RawFace, Typed};

/// What comes before the cabinet.
#[derive(Debug, Clone, Default, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct RawSignal {
    /// Active filters, in their order.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    #[schema(max_items = 20)]
    pub filters: Vec<RawFilter>,
    /// An amplifier of its own; that of the brief where absent.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub amplifier: Option<RawAmplifier>,
    /// The amplifier that is to come later: only whether it suits is looked at.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub later_amplifier: Option<RawAmplifier>,
    /// What is played at; all that the amplifier gives where absent, 2.83 V where there is none.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub drive: Option<RawDrive>,
    /// Passive parts, from the amplifier to the drivers.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    #[schema(max_items = 12)]
    pub parts: Vec<RawPart>,
    /// The main loudspeakers that play what is above; unknown where absent.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub mains: Option<RawMains>,
}

/// The main loudspeakers.
#[derive(Debug, Clone, Default, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct RawMains {
    /// Where their own level has fallen by 3 dB; 60 Hz where absent.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub frequency: Option<Typed>,
    /// How steeply they fall below: 2 for sealed ones, 4 for ported ones; 2 where absent.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub order: Option<Typed>,
    /// Their response as it was measured, instead of frequency and order: Hz, dB, degrees.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    #[schema(max_items = 2000)]
    pub trace: Vec<[f64; 3]>,
    /// Their high-pass; none where absent.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub high_pass: Option<RawFilter>,
    /// From them to the listener; 3 m where absent.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub distance: Option<Typed>,
    /// From the sub to the listener; as far as the mains where absent.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub sub_distance: Option<Typed>,
    /// Delay of a wireless or digital link to the sub; none where absent.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub link_delay: Option<Typed>,
}

/// Most filters of one design.
pub const MOST_FILTERS: usize = 20;
/// Most passive parts of one design.
pub const MOST_PARTS: usize = 12;

/// An amplifier: power or voltage, and current.
#[derive(Debug, Clone, Default, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct RawAmplifier {
    /// Power into the nominal load.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub power: Option<Typed>,
    /// Power into 8 ohm.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub power_8: Option<Typed>,
    /// Power into 4 ohm.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub power_4: Option<Typed>,
    /// Power into 2 ohm.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub power_2: Option<Typed>,
    /// Highest voltage, RMS, instead of its power.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub voltage: Option<Typed>,
    /// Highest current, RMS.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub current: Option<Typed>,
    /// The lowest impedance that it stands; that of the brief where absent.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub minimum_load: Option<Typed>,
    /// Its own resistance at its terminals; none where absent.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub output_resistance: Option<Typed>,
    /// Filters that it has built in: a low-pass, a subsonic filter, one band.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    #[schema(max_items = 4)]
    pub filters: Vec<RawFilter>,
    /// Where it is mounted in the box; outside of it where absent.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub mounting: Option<RawMounting>,
}

/// Most filters that an amplifier has built in.
pub const MOST_BUILT_IN: usize = 4;

/// An amplifier in the board of a box.
#[derive(Debug, Clone, Default, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct RawMounting {
    /// In which board; the back where absent.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub face: Option<RawFace>,
    /// Of what reaches into the box, along the board.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub width: Option<Typed>,
    /// Of what reaches into the box, up the board.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub height: Option<Typed>,
    /// How deep it reaches behind the board.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub depth: Option<Typed>,
    /// Its middle across the board; in a corner where absent.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub across: Option<Typed>,
    /// Its middle up the board; in a corner where absent.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub up: Option<Typed>,
    /// How far its plate reaches beyond the opening on every side; 20 mm where absent.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub rim: Option<Typed>,
    /// Whether its own back is not sealed, so that it needs a chamber of its own within the box.
    #[serde(default, skip_serializing_if = "std::ops::Not::not")]
    pub open_back: bool,
}

/// Active filters that are kept by a name, to be used in any variant of a build.
#[derive(Debug, Clone, Default, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct RawPreset {
    /// What to call them.
    #[schema(max_length = 120)]
    pub name: String,
    /// In their order.
    #[serde(default)]
    #[schema(max_items = 20)]
    pub filters: Vec<RawFilter>,
}

/// One active filter. Values that another kind uses stay as they are.
#[derive(Debug, Clone, Default, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct RawFilter {
    /// What it does.
    pub kind: RawFilterKind,
    /// Whether it is left out for now.
    #[serde(default, skip_serializing_if = "std::ops::Not::not")]
    pub bypassed: bool,
    /// Shape of a low-pass or high-pass; Butterworth where absent.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub alignment: Option<RawAlignment>,
    /// Its order: 6 dB per octave each; 2 where absent, of a shelf 1 or 2.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub order: Option<Typed>,
    /// Corner or middle; of a Linkwitz transform the box's own Fc.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub frequency: Option<Typed>,
    /// Q; 0.71 where absent, of an all-pass first order. Of a Linkwitz transform the box's own Qtc.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub q: Option<Typed>,
    /// How much louder.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub gain: Option<Typed>,
    /// Width of a band instead of its Q: octaves between the two frequencies of half its gain.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub octaves: Option<Typed>,
    /// Slope of a shelf instead of its Q: 1 is the steepest without overshoot.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub slope: Option<Typed>,
    /// Corner that a Linkwitz transform makes of the box's own.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub wanted_frequency: Option<Typed>,
    /// Q that it makes of the box's own.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub wanted_q: Option<Typed>,
    /// How much later.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub delay: Option<Typed>,
    /// What was measured: frequency in Hz, level in dB, phase in degrees.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    #[schema(max_items = 2000)]
    pub trace: Vec<[f64; 3]>,
}

/// Most points of a measured filter.
pub const MOST_TRACE_POINTS: usize = 2000;

/// What a filter does.
#[derive(Debug, Clone, Copy, Default, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum RawFilterKind {
    /// Lets through what is above its corner.
    #[default]
    HighPass,
    /// Lets through what is below its corner.
    LowPass,
    /// Makes a band louder or softer.
    Parametric,
    /// Makes what is below louder or softer.
    LowShelf,
    /// Makes what is above louder or softer.
    HighShelf,
    /// Gives a sealed box another corner and Q.
    LinkwitzTransform,
    /// Turns the phase.
    AllPass,
    /// Comes later.
    Delay,
    /// Louder or softer at every frequency.
    Gain,
    /// The other polarity.
    Invert,
    /// A transfer function as it was measured.
    Measured,
}

/// Shape of a low-pass or high-pass.
#[derive(Debug, Clone, Copy, Default, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum RawAlignment {
    /// Flattest; -3 dB at its corner.
    #[default]
    Butterworth,
    /// The square of a Butterworth filter; -6 dB at its corner.
    LinkwitzRiley,
    /// Flattest delay of a low-pass; -3 dB at its corner.
    Bessel,
    /// The same with the corner where its slopes meet.
    BesselPhase,
}

/// One place of a passive circuit: resistor, coil and capacitor, of which there is at least one. In series and across the drivers they
/// stand one behind the other, in a trap side by side.
#[derive(Debug, Clone, Default, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct RawPart {
    /// How it is wired.
    pub wiring: RawPartWiring,
    /// Whether it is left out for now.
    #[serde(default, skip_serializing_if = "std::ops::Not::not")]
    pub bypassed: bool,
    /// The resistor.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub resistance: Option<Typed>,
    /// The coil.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub inductance: Option<Typed>,
    /// Resistance of the coil's wire; none where absent.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub coil_resistance: Option<Typed>,
    /// The capacitor.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub capacitance: Option<Typed>,
    /// Equivalent series resistance of the capacitor; none where absent.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub capacitor_resistance: Option<Typed>,
}

/// How a passive part is wired.
#[derive(Debug, Clone, Copy, Default, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum RawPartWiring {
    /// In the lead to the drivers.
    #[default]
    Series,
    /// From that lead to the return.
    Across,
    /// Side by side in the lead to the drivers.
    Trap,
}

/// What drives it: one of the two.
#[derive(Debug, Clone, Default, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct RawDrive {
    /// Power into the nominal impedance.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub power: Option<Typed>,
    /// Voltage at the terminals, RMS.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub voltage: Option<Typed>,
}
