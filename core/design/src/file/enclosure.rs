//! The cabinet of a design file.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use super::{RawFamily, Typed};

/// The cabinet. Values that the family does not use are kept and ignored, so that trying another
/// family loses nothing.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct RawEnclosure {
    /// Kind of cabinet.
    pub family: RawFamily,
    /// Net inside volume of the chamber behind the drivers, without what they, ports and braces take. Of a box with one chamber whose sizes
    /// are all stated it follows from them, and may be absent.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub volume: Option<Typed>,
    /// How much fill is in it: stands for a gain in apparent volume and an absorption.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub fill: Option<RawStuffing>,
    /// Its fill by weight, mass over the volume of the chamber, instead of `fill`.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub fill_density: Option<Typed>,
    /// What `fill_density` is of; polyester where absent.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub fill_material: Option<RawFillMaterial>,
    /// Gain in apparent volume, instead of the one that the fill stands for.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub gain: Option<Typed>,
    /// Leakage Q at the tuning; lossless where absent.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub ql: Option<Typed>,
    /// Absorption Q at the tuning, instead of the one that `fill` stands for; lossless where both are absent.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub qa: Option<Typed>,
    /// The tuning that ports without a length are made for.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub tuning: Option<Typed>,
    /// The ports of the chamber behind the drivers, or of a mass-loaded line.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    #[schema(max_items = 8)]
    pub ports: Vec<RawPort>,
    /// The chamber before the drivers: of a bandpass, or the throat chamber of a horn.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub front: Option<RawChamber>,
    /// Open baffle: how much farther the sound of the rear has to the listener.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub baffle_path: Option<Typed>,
    /// Aperiodic: resistance of the vent.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub vent_resistance: Option<Typed>,
    /// Passive radiators.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub radiator: Option<RawRadiator>,
    /// Lines, horns and flares.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub passage: Option<RawPassage>,
}

/// A second chamber.
#[derive(Debug, Clone, Default, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct RawChamber {
    /// Net inside volume.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub volume: Option<Typed>,
    /// How much fill is in it.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub fill: Option<RawStuffing>,
    /// Its fill by weight, mass over the volume of the chamber, instead of `fill`.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub fill_density: Option<Typed>,
    /// What `fill_density` is of; polyester where absent.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub fill_material: Option<RawFillMaterial>,
    /// Gain in apparent volume, instead of the one that the fill stands for.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub gain: Option<Typed>,
    /// Leakage Q at the tuning.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub ql: Option<Typed>,
    /// Absorption Q at the tuning.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub qa: Option<Typed>,
    /// The tuning that ports without a length are made for.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub tuning: Option<Typed>,
    /// Its ports.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    #[schema(max_items = 8)]
    pub ports: Vec<RawPort>,
}

impl RawEnclosure {
    /// A cabinet of a family with nothing in it.
    pub fn empty(family: RawFamily) -> Self {
        Self {
            family,
            volume: None,
            fill: None,
            fill_density: None,
            fill_material: None,
            gain: None,
            ql: None,
            qa: None,
            tuning: None,
            ports: Vec::new(),
            front: None,
            baffle_path: None,
            vent_resistance: None,
            radiator: None,
            passage: None,
        }
    }

    /// The chamber behind the drivers.
    pub fn rear(&self) -> RawChamber {
        let Self { volume, fill, fill_density, fill_material, gain, ql, qa, tuning, ports, .. } =
            self.clone();
        RawChamber { volume, fill, fill_density, fill_material, gain, ql, qa, tuning, ports }
    }
}

/// How much fill is in a chamber.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum RawStuffing {
    /// None.
    None,
    /// The walls are lined.
    Lined,
    /// Half of the volume.
    Half,
    /// All of it, loosely.
    Full,
    /// All of it, packed.
    Packed,
}

/// What the fill of a chamber is of.
#[derive(Debug, Clone, Copy, Default, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum RawFillMaterial {
    /// Polyester wool.
    #[default]
    Polyester,
    /// Sheep's wool.
    Wool,
    /// Glass wool.
    Glass,
    /// Mineral wool.
    Mineral,
}

/// Passive radiators.
#[derive(Debug, Clone, Default, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct RawRadiator {
    /// Area of one that pushes air.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub area: Option<Typed>,
    /// Moving mass of one as it is sold.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub mass: Option<Typed>,
    /// Mass screwed to each.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub added_mass: Option<Typed>,
    /// Compliance of one's suspension.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub compliance: Option<Typed>,
    /// Friction of one's suspension; a Q of 8 at its own resonance where absent.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub resistance: Option<Typed>,
    /// How far one can move one way.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub xmax: Option<Typed>,
    /// How many equal ones; 1 where absent.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub count: Option<Typed>,
}

/// The way of a line, a horn or a flare.
#[derive(Debug, Clone, Default, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct RawPassage {
    /// Stretches one after the other, from the closed end or the throat to the mouth.
    #[serde(default)]
    #[schema(min_items = 1, max_items = 8)]
    pub segments: Vec<RawSegment>,
    /// Where the drivers sit, from the beginning; there where absent.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub driver_at: Option<Typed>,
    /// Tapped horn: where their other side speaks into it.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub front_at: Option<Typed>,
    /// Lines: air between the drivers and the way; none where absent.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub chamber: Option<Typed>,
    /// Lines: a closed side pipe at the drivers.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub stub: Option<RawSegment>,
    /// How the mouth ends; as the family usually does where absent.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub mouth: Option<RawMouth>,
    /// How much farther the mouth has to the listener than the cone.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub path: Option<Typed>,
}

/// A stretch of a way.
#[derive(Debug, Clone, Default, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct RawSegment {
    /// How the area changes.
    #[serde(default)]
    pub flare: RawFlare,
    /// Hyperbolic: its T; 0.6 where absent.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub t: Option<Typed>,
    /// Length along its middle.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub length: Option<Typed>,
    /// Area where it begins; where the one before ended where absent.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub start: Option<Typed>,
    /// Area where it ends; as it began where absent.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub end: Option<Typed>,
    /// Inside width of a rectangular one; round where absent.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub width: Option<Typed>,
    /// Fill, mass over volume; empty where absent.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub fill_density: Option<Typed>,
    /// Flow resistivity of the fill; polyester's at that density where absent.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub fill_resistivity: Option<Typed>,
    /// Share of the section that it takes, less than all where it lines walls; all of it where absent.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub fill_share: Option<Typed>,
    /// Whether the fill moves with the air; it does where absent.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub fill_frame: Option<RawFrame>,
}

/// How an area changes along a stretch.
#[derive(Debug, Clone, Copy, Default, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum RawFlare {
    /// Straight sides: also a taper, also a plain duct.
    #[default]
    Conical,
    /// By the same share in every step.
    Exponential,
    /// Between exponential and catenoid, by its T.
    Hyperbolic,
    /// With a tangent of one length.
    Tractrix,
    /// The area grows evenly.
    Parabolic,
}

/// What the frame of a fill does.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum RawFrame {
    /// It moves with the air: loose wool.
    Limp,
    /// It stands still: a board, or well held.
    Rigid,
}

/// How a mouth ends.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum RawMouth {
    /// In the cabinet's own wide wall.
    Flanged,
    /// As a bare pipe.
    Free,
    /// The walls of the place continue it: a horn in a corner.
    Walls,
}

/// Shape of a port's cross-section.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum RawPortSection {
    /// A tube, by its inside diameter.
    Round,
    /// A rectangle, by its inside width and height.
    Slot,
    /// A triangle between two walls and a board across their corner, by its inside length along each wall.
    Corner,
}

/// How a port ends.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum RawEnd {
    /// In open air.
    Free,
    /// In a wide wall.
    Flanged,
    /// Along one wall of the box; inner end only.
    OneWall,
    /// Along two walls; inner end only.
    TwoWalls,
    /// Along three walls; inner end only.
    ThreeWalls,
}

/// A port, or several equal ones.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct RawPort {
    /// Shape of its cross-section.
    pub shape: RawPortSection,
    /// Round: inside diameter.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub diameter: Option<Typed>,
    /// Slot: inside width; along three walls it is as wide as the box where absent.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub width: Option<Typed>,
    /// Slot: inside height.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub height: Option<Typed>,
    /// Slot: inside height half-way in, where it narrows evenly and widens again; even where absent.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub waist: Option<Typed>,
    /// Corner: inside length along each wall.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub side: Option<Typed>,
    /// Length; found from the tuning where absent.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub length: Option<Typed>,
    /// How many equal ones; 1 where absent.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub count: Option<Typed>,
    /// The end in the box; free where absent.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub inner_end: Option<RawEnd>,
    /// The end outside; flanged where absent.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub outer_end: Option<RawEnd>,
    /// How much farther its mouth has to the listener than the cone.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub path: Option<Typed>,
}

impl RawPort {
    /// Whether it is a slot between both sides of the box, as wide as that is.
    pub fn is_across(&self) -> bool {
        self.shape == RawPortSection::Slot
            && self.inner_end == Some(RawEnd::ThreeWalls)
            && self.width.is_none()
    }
}
