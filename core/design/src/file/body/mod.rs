//! The box of a design file: boards and what is mounted in them.

mod contents;
mod fold;
mod panel;

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use crate::file::Typed;
pub use contents::{RawFace, RawItem, RawOpening, RawPlace, RawPortBuild, RawWashers};
pub use fold::{RawCorner, RawFold, RawFoldPanel, RawStack};
pub use panel::{RawAxis, RawBrace, RawJoinery, RawJoint, RawLayer, RawMaterial, RawOverlap, RawPanel};

/// The box itself. Whatever is absent is found: sizes from the net volume, places from what goes in.
#[derive(Debug, Clone, Default, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct RawBody {
    /// Its shape; six boards at right angles where absent.
    #[serde(default)]
    pub shape: RawEnclosureShape,
    /// What width, height and depth are of; the outside where absent.
    #[serde(default)]
    pub measured: RawMeasured,
    /// From side to side; found from the volume where absent.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub width: Option<Typed>,
    /// From the floor up; found from the volume where absent.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub height: Option<Typed>,
    /// From front to back; found from the volume where absent.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub depth: Option<Typed>,
    /// Which of width, height, depth and volume were set, the one that was set longest ago first. Where all of them are stated, that one
    /// follows from the others; one that was never touched is older than any, the volume the oldest.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    #[schema(max_items = 4)]
    pub order: Vec<RawLinked>,
    /// What the sizes that are found are of each other.
    #[serde(default)]
    pub ratio: RawRatio,
    /// Wedge, pyramid: depth at the top.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub top_depth: Option<Typed>,
    /// Wedge: height at the back; as in front where absent.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub back_height: Option<Typed>,
    /// Wedge: how far the top of the front leans back.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub lean: Option<Typed>,
    /// Pyramid: width at the top.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub top_width: Option<Typed>,
    /// Prism: how many sides; 6 where absent.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub sides: Option<Typed>,
    /// Rounded: radius of the upright edges outside.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub radius: Option<Typed>,
    /// Step: how high it is, from the top down.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub step_height: Option<Typed>,
    /// Step: how deep it is, from the back.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub step_depth: Option<Typed>,
    /// Thickness of its boards as measured; 18 mm where absent.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub thickness: Option<Typed>,
    /// What they are of; MDF where absent.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub material: Option<RawMaterial>,
    /// Boards that differ.
    #[serde(default, alias = "boards", skip_serializing_if = "Vec::is_empty")]
    #[schema(max_items = 16)]
    pub panels: Vec<RawPanel>,
    /// Thickness of the board between two chambers; as the others where absent.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub partition: Option<Typed>,
    /// Where the drivers sit; in the middle of the front, above ports, where absent.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub driver: Option<RawPlace>,
    /// How the ports of the chamber behind the drivers are built, in the order of the design.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    #[schema(max_items = 8)]
    pub ports: Vec<RawPortBuild>,
    /// How those of the chamber before them are built.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    #[schema(max_items = 8)]
    pub front_ports: Vec<RawPortBuild>,
    /// Where radiators sit; in the left, of pipes and prisms in an end, every second one opposite, where absent.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub radiator: Option<RawPlace>,
    /// What their added mass is made of.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub washers: Option<RawWashers>,
    /// How deep the frames of drivers and radiators are let into their boards; they lie on them where absent.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub recess: Option<Typed>,
    /// Boards across the room.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    #[schema(max_items = 12)]
    pub braces: Vec<RawBrace>,
    /// Side of the square strips along the inside edges; none where absent.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub strips: Option<Typed>,
    /// Which boards reach over the edges of the others.
    #[serde(default, skip_serializing_if = "RawOverlap::is_usual")]
    pub overlap: RawOverlap,
    /// What holds the joints of the outer boards beside glue.
    #[serde(default, skip_serializing_if = "RawJoinery::is_usual")]
    pub joinery: RawJoinery,
    /// Edges that are joined otherwise.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    #[schema(max_items = 24)]
    pub joints: Vec<RawJoint>,
    /// Whether braces and partitions stand in dadoes of the boards beside them.
    #[serde(default, skip_serializing_if = "std::ops::Not::not")]
    pub housed: bool,
    /// What else takes up volume behind the drivers: an amplifier, its chamber, a terminal cup.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    #[schema(max_items = 16)]
    pub items: Vec<RawItem>,
    /// Fill as layers on boards, for the check of standing waves.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    #[schema(max_items = 8)]
    pub fills: Vec<RawLayer>,
    /// How the way of a line or horn is folded; found where absent.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub fold: Option<RawFold>,
}

/// What the sizes and the volume of a box are to each other: each follows from the others.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum RawLinked {
    /// Of the chambers.
    Volume,
    /// From front to back.
    Depth,
    /// From the floor up.
    Height,
    /// From side to side.
    Width,
}

impl RawLinked {
    /// Of width, height and depth the one at a position.
    pub fn size(at: usize) -> Self {
        [Self::Width, Self::Height, Self::Depth][at]
    }
}

impl RawBody {
    /// What follows from the rest although it is stated, because all is, of a shape that leaves some of width, height and depth free.
    pub fn follower(&self, free: [bool; 3]) -> Option<RawLinked> {
        let typed = [&self.width, &self.height, &self.depth].map(Option::is_some);
        if (0..3).any(|k| free[k] && !typed[k]) {
            return None;
        }
        let sizes = (0..3).rev().filter(|k| free[*k]).map(RawLinked::size);
        let touched = |one: &RawLinked| self.order.iter().rposition(|other| other == one);
        std::iter::once(RawLinked::Volume).chain(sizes).min_by_key(touched)
    }

    /// Notes that a value has been set.
    pub fn lead(&mut self, set: RawLinked) {
        self.order.retain(|other| *other != set);
        self.order.push(set);
    }
}

/// Shape of a box.
#[derive(Debug, Clone, Copy, Default, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum RawEnclosureShape {
    /// Six boards at right angles.
    #[default]
    Box,
    /// Slanting boards between two equal sides: behind a seat, under one, or both.
    Wedge,
    /// A regular prism, standing.
    Prism,
    /// A pipe, standing.
    Pipe,
    /// A pipe, lying with its end in front.
    LyingPipe,
    /// A pyramid without its top.
    Pyramid,
    /// A box with round upright edges.
    Rounded,
    /// A box with a step in its upper back.
    Step,
}

/// What sizes are of.
#[derive(Debug, Clone, Copy, Default, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum RawMeasured {
    /// The finished box.
    #[default]
    Outside,
    /// The room in it.
    Inside,
}

/// What width, height and depth are of each other (common practice).
#[derive(Debug, Clone, Copy, Default, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum RawRatio {
    /// 1 : 1.26 : 0.79, each the cube root of two over the next.
    #[default]
    CubeRoot,
    /// 1 : 1.618 : 0.618, the golden section.
    Golden,
    /// 1 : 1.41 : 0.71, each the square root of two over the next.
    SquareRoot,
    /// 1 : 2.2 : 1.1, tall.
    Tower,
    /// 1 : 1 : 1, whose standing waves fall together.
    Cube,
    /// 1.5 : 0.6 : 1, to lie under something.
    Low,
}

impl RawRatio {
    /// Width, height and depth.
    pub fn of(self) -> [f64; 3] {
        match self {
            Self::CubeRoot => [1.0, 1.26, 0.794],
            Self::Golden => [1.0, 1.618, 0.618],
            Self::SquareRoot => [1.0, 1.414, 0.707],
            Self::Tower => [1.0, 2.2, 1.1],
            Self::Cube => [1.0; 3],
            Self::Low => [1.5, 0.6, 1.0],
        }
    }
}
