//! What is mounted: places, ports, items, weights of radiators.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use crate::file::Typed;

/// A side of a box.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum RawFace {
    /// Towards the listener.
    Front,
    /// Away from the listener.
    Back,
    /// Left as seen from the front.
    Left,
    /// Right as seen from the front.
    Right,
    /// Above.
    Top,
    /// Below.
    Bottom,
    /// The level board of a step.
    Tread,
    /// The upright board of a step.
    Riser,
    /// The wall of a pipe, or round corners.
    Shell,
}

/// Where something is mounted.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct RawPlace {
    /// In which board.
    pub face: RawFace,
    /// Its middle from the left as seen from the front; in a side from the back.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub across: Option<Typed>,
    /// Its middle from below; in a lid or floor from the back.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub up: Option<Typed>,
}

/// How a port is built.
#[derive(Debug, Clone, Default, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct RawPortBuild {
    /// In which board it comes out; in the drivers' where absent.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub face: Option<RawFace>,
    /// As of a place.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub across: Option<Typed>,
    /// As of a place.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub up: Option<Typed>,
    /// Pipe wall, or board of the slot; 4 mm of a tube, the box's board of a slot where absent.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub wall: Option<Typed>,
    /// How often it turns by a right angle on its way in; 0 where absent.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub turns: Option<Typed>,
    /// Radius of its rounded edge outside; sharp where absent.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub outer_flare: Option<Typed>,
    /// Radius of its rounded edge inside; sharp where absent.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub inner_flare: Option<Typed>,
    /// Across its flange outside; none where absent.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub flange: Option<Typed>,
    /// From the corner of an elbow of its pipe to the shoulder; usual ones where absent.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub elbow: Option<Typed>,
    /// How deep the sockets of its fittings are; usual ones where absent.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub socket: Option<Typed>,
    /// Across a coupling of its pipe outside; a usual one where absent.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub coupling: Option<Typed>,
    /// Length of a cap of its pipe; a usual one where absent.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub cap: Option<Typed>,
}

/// Something that takes up volume.
#[derive(Debug, Clone, Default, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct RawItem {
    /// What it is.
    #[schema(max_length = 40)]
    pub name: String,
    /// What it takes; found from its size where absent.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub volume: Option<Typed>,
    /// Against which board it stands, where it has a size and a place.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub face: Option<RawFace>,
    /// Its size along that board.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub width: Option<Typed>,
    /// Its size up that board.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub height: Option<Typed>,
    /// How far it reaches into the room, with its own walls.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub depth: Option<Typed>,
    /// As of a place; in a corner where absent.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub across: Option<Typed>,
    /// As of a place; in a corner where absent.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub up: Option<Typed>,
    /// Whether its board is cut out for it; it only stands there where absent.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub opening: Option<RawOpening>,
    /// How far its plate reaches beyond the opening on every side; 20 mm where absent.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub rim: Option<Typed>,
}

/// What is cut out of a board for an item, as large as the item.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum RawOpening {
    /// As wide as the item.
    Round,
    /// As wide and as high as the item.
    Rectangular,
}

/// What is screwed to radiators.
#[derive(Debug, Clone, Default, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct RawWashers {
    /// Mass of one washer; 10 g where absent.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub each: Option<Typed>,
    /// Mass of bolt and nut together; 25 g where absent.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub bolt: Option<Typed>,
}
