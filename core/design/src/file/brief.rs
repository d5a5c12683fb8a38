//! The brief: what a build must reach.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use super::{RawFamily, RawProgramme, RawSpace, Typed};

/// What a build must reach. Everything may be left open; what is left open is not judged.
#[derive(Debug, Clone, Default, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct RawBrief {
    /// The template it began with, by its id.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(max_length = 40)]
    pub template: Option<String>,
    /// The space it radiates into.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub space: Option<RawSpace>,
    /// What is played.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub programme: Option<RawProgramme>,
    /// The lowest note to be heard in full.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub lowest: Option<Typed>,
    /// Where other loudspeakers take over.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub crossover: Option<Typed>,
    /// Level at the listener.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub loudness: Option<Typed>,
    /// Highest level at the listener that it may ever reach.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub loudest: Option<Typed>,
    /// Distance of the listener; 1 m where absent.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub distance: Option<Typed>,
    /// Whether loudness is meant at the seats of the place where it is heard, instead of at a distance.
    #[serde(default, skip_serializing_if = "std::ops::Not::not")]
    pub at_seats: bool,
    /// Most outside width.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub width: Option<Typed>,
    /// Most outside height.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub height: Option<Typed>,
    /// Most outside depth.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub depth: Option<Typed>,
    /// Depth of the place at its top, where it is a wedge.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub top_depth: Option<Typed>,
    /// Width of the amplifier head that is to stand on it.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub head_width: Option<Typed>,
    /// Most that it may weigh, drivers included.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub weight: Option<Typed>,
    /// Most outside volume.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub volume: Option<Typed>,
    /// How many equal cabinets stand close together: a pair, a stack; 1 where absent.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub cabinets: Option<Typed>,
    /// What drivers, radiators, ports and boards may cost.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub budget: Option<Typed>,
    /// Power of the amplifier into its minimum load.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub amplifier_power: Option<Typed>,
    /// Minimum load of the amplifier.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub amplifier_load: Option<Typed>,
    /// How quiet the air in ports must be.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub air_noise: Option<RawAirNoise>,
    /// Families that are allowed; all where empty.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    #[schema(max_items = 20)]
    pub families: Vec<RawFamily>,
}

/// Limits of air speed in ports (common practice).
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum RawAirNoise {
    /// 10 m/s: not to be heard even with test tones.
    Silent,
    /// 17 m/s: straight edges, 5 % of the speed of sound.
    Straight,
    /// 34 m/s: generous flares, or music that hides it.
    Flared,
}

impl RawAirNoise {
    /// Peak air speed, m/s.
    pub fn speed(self) -> f64 {
        match self {
            Self::Silent => 10.0,
            Self::Straight => 17.0,
            Self::Flared => 34.0,
        }
    }
}
