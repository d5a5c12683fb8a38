//! Where a build is listened to: a room, a car or a field, with cabinets and seats in it.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use super::Typed;

/// Where a build is listened to. Values that another kind of place uses stay as they are.
#[derive(Debug, Clone, Default, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct RawListeningPlace {
    /// What to call it.
    #[schema(max_length = 120)]
    pub name: String,
    /// What kind of place it is.
    pub kind: RawListening,
    /// Inside width; a room and a car need it, and length and height.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub width: Option<Typed>,
    /// Inside length.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub length: Option<Typed>,
    /// Inside height.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub height: Option<Typed>,
    /// Absorption of all walls; 10 % of a room and 15 % of a car where absent.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub absorption: Option<Typed>,
    /// Absorption of single walls, where it differs.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub walls: Option<RawWalls>,
    /// Corner of the leak; none of a room and 8 Hz of a car where absent.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub leak: Option<Typed>,
    /// Where the cabinets stand; each plays what the variant plays.
    #[serde(default)]
    #[schema(max_items = 8)]
    pub cabinets: Vec<RawStand>,
    /// Where people listen.
    #[serde(default)]
    #[schema(max_items = 12)]
    pub seats: Vec<RawSeat>,
    /// Where a cabinet may stand; the whole floor where empty.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    #[schema(max_items = 8)]
    pub areas: Vec<RawArea>,
    /// The battery it runs from; the mains where absent.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub battery: Option<RawBattery>,
    /// Mass per area of the wall to the neighbours.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub wall_mass: Option<Typed>,
    /// How long it plays a day.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub hours: Option<Typed>,
}

/// Most cabinets of one place.
pub const MOST_STANDS: usize = 8;
/// Most seats of one place.
pub const MOST_SEATS: usize = 12;
/// Most areas of one place.
pub const MOST_AREAS: usize = 8;

/// Kinds of places.
#[derive(Debug, Clone, Copy, Default, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum RawListening {
    /// A room, taken as the nearest rectangular one.
    #[default]
    Room,
    /// The cabin of a car.
    Car,
    /// In the open, on the ground.
    Outdoors,
}

/// Absorption of single walls.
#[derive(Debug, Clone, Default, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct RawWalls {
    /// Of the left wall.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub left: Option<Typed>,
    /// Of the right wall.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub right: Option<Typed>,
    /// Of the wall below on the plan.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub below: Option<Typed>,
    /// Of the wall above on the plan.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub above: Option<Typed>,
    /// Of the floor.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub floor: Option<Typed>,
    /// Of the ceiling.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub ceiling: Option<Typed>,
}

/// Where one cabinet stands and how it plays.
#[derive(Debug, Clone, Default, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct RawStand {
    /// Its middle from the left.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub across: Option<Typed>,
    /// Its middle from below on the plan.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub along: Option<Typed>,
    /// Its underside above the floor; on the floor where absent.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub up: Option<Typed>,
    /// Which way its front faces, up on the plan where absent.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub turned: Option<Typed>,
    /// How much louder it plays; as loud where absent.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub gain: Option<Typed>,
    /// How much later it plays; at once where absent.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub delay: Option<Typed>,
    /// Whether its polarity is reversed.
    #[serde(default, skip_serializing_if = "std::ops::Not::not")]
    pub inverted: bool,
}

/// Where somebody listens.
#[derive(Debug, Clone, Default, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct RawSeat {
    /// What to call it.
    #[serde(default, skip_serializing_if = "String::is_empty")]
    #[schema(max_length = 120)]
    pub name: String,
    /// The ears from the left.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub across: Option<Typed>,
    /// The ears from below on the plan.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub along: Option<Typed>,
    /// The ears above the floor; 1.2 m where absent.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub up: Option<Typed>,
}

/// A part of the floor, or a shelf, in which a cabinet may stand.
#[derive(Debug, Clone, Default, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct RawArea {
    /// From the left.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub left: Option<Typed>,
    /// To the right.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub right: Option<Typed>,
    /// From below on the plan.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub below: Option<Typed>,
    /// To above on the plan.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub above: Option<Typed>,
    /// Above the floor; on the floor where absent.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub up: Option<Typed>,
}

/// What it runs from where there are no mains.
#[derive(Debug, Clone, Default, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct RawBattery {
    /// What it holds.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub capacity: Option<Typed>,
    /// Share of it that may be used; 80 % where absent.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub usable: Option<Typed>,
    /// Share of what is drawn that reaches the drivers; 75 % where absent.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub efficiency: Option<Typed>,
    /// What is drawn without any sound; 10 W where absent.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub idle: Option<Typed>,
    /// What a solar panel brings a day; none where absent.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub solar: Option<Typed>,
}
