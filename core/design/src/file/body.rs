//! The box of a design file: boards and what is mounted in them.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use super::{RawFrame, Typed};

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

/// What a board is of.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum RawMaterial {
    /// Medium density fibre board.
    Mdf,
    /// Plywood of birch all through.
    BirchPly,
    /// Light plywood, of poplar.
    PoplarPly,
    /// Plywood of pine.
    PinePly,
    /// Particle board.
    ParticleBoard,
    /// Oak and its like.
    Hardwood,
    /// Plastic pipe.
    Pvc,
    /// Clear plastic.
    Acrylic,
    /// Aluminium.
    Aluminium,
}

impl RawMaterial {
    /// Its name in the table of materials.
    pub fn id(self) -> &'static str {
        match self {
            Self::Mdf => "mdf",
            Self::BirchPly => "birch_ply",
            Self::PoplarPly => "poplar_ply",
            Self::PinePly => "pine_ply",
            Self::ParticleBoard => "particle_board",
            Self::Hardwood => "hardwood",
            Self::Pvc => "pvc",
            Self::Acrylic => "acrylic",
            Self::Aluminium => "aluminium",
        }
    }
}

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

/// A board that differs from the others.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct RawPanel {
    /// Which.
    pub face: RawFace,
    /// Thickness of one layer as measured.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub thickness: Option<Typed>,
    /// How many layers lie on each other; 1 where absent.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub layers: Option<Typed>,
    /// How far it is set back from the edges of its neighbours.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub inset: Option<Typed>,
    /// What it is of.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub material: Option<RawMaterial>,
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

/// A board across the room.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct RawBrace {
    /// Along which size its place is measured; it stands square to that.
    pub along: RawAxis,
    /// Its middle, from the left, from below or from the back of the room; in the middle where absent.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub at: Option<Typed>,
    /// As the box's boards where absent.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub thickness: Option<Typed>,
    /// Share of it that is cut out, as a window; 60 % where absent.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub open: Option<Typed>,
}

/// A direction of the box.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum RawAxis {
    /// From the left.
    Width,
    /// From below.
    Height,
    /// From the back.
    Depth,
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

/// Which boards reach over the edges of the others.
#[derive(Debug, Clone, Copy, Default, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum RawOverlap {
    /// Front and back over all others.
    #[default]
    FrontAndBack,
    /// The sides over all others.
    Sides,
    /// Top and bottom over all others.
    TopAndBottom,
    /// None: every edge is mitred.
    Mitred,
}

impl RawOverlap {
    fn is_usual(&self) -> bool {
        *self == Self::default()
    }
}

impl From<RawOverlap> for oak_cabinetry::cut::Overlap {
    fn from(raw: RawOverlap) -> Self {
        match raw {
            RawOverlap::FrontAndBack => Self::FrontAndBack,
            RawOverlap::Sides => Self::Sides,
            RawOverlap::TopAndBottom => Self::TopAndBottom,
            RawOverlap::Mitred => Self::Mitred,
        }
    }
}

/// What holds a joint beside glue.
#[derive(Debug, Clone, Copy, Default, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum RawJoinery {
    /// Nothing: the edge stands blunt on the other board.
    #[default]
    Butt,
    /// Dowels.
    Dowels,
    /// The edge stands in a rabbet, half as deep as the board that has it.
    Rabbet,
    /// A tongue of half the thickness stands in a groove.
    Tongue,
    /// Both edges are cut to half the angle.
    Mitre,
}

impl RawJoinery {
    fn is_usual(&self) -> bool {
        *self == Self::default()
    }
}

impl From<RawJoinery> for oak_cabinetry::cut::Joinery {
    fn from(raw: RawJoinery) -> Self {
        match raw {
            RawJoinery::Butt => Self::Butt,
            RawJoinery::Dowels => Self::Dowels,
            RawJoinery::Rabbet => Self::Rabbet,
            RawJoinery::Tongue => Self::Tongue,
            RawJoinery::Mitre => Self::Mitre,
        }
    }
}

/// An edge that is joined otherwise than the others.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct RawJoint {
    /// The two boards that meet there.
    pub between: [RawFace; 2],
    /// What holds them.
    pub joinery: RawJoinery,
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

/// A layer of fill on a board.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct RawLayer {
    /// On which board.
    pub face: RawFace,
    /// How thick it is.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub thickness: Option<Typed>,
    /// Mass over volume.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub density: Option<Typed>,
    /// Flow resistivity; polyester's at that density where absent.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub resistivity: Option<Typed>,
    /// Whether it moves with the air; it does where absent.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub frame: Option<RawFrame>,
}

/// How the way of a line or horn is folded into its box.
#[derive(Debug, Clone, Default, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct RawFold {
    /// How often it turns back; found where absent.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub folds: Option<Typed>,
    /// How its channels lie.
    #[serde(default)]
    pub stack: RawStack,
    /// How its corners are built.
    #[serde(default)]
    pub corner: RawCorner,
    /// At which end of the channels it opens; in front, of upright ones below, where absent.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub mouth: Option<RawFace>,
    /// Thickness of the boards between the channels; as the others where absent.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub thickness: Option<Typed>,
    /// These boards, from where the way begins.
    #[serde(default, alias = "boards", skip_serializing_if = "Vec::is_empty")]
    #[schema(max_items = 12)]
    pub panels: Vec<RawFoldPanel>,
}

/// A board between two channels.
#[derive(Debug, Clone, Default, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct RawFoldPanel {
    /// Its middle, from the top or the front of the path's room; found where absent.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub at: Option<Typed>,
}

/// How channels lie.
#[derive(Debug, Clone, Copy, Default, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum RawStack {
    /// One below the other; each runs from front to back or back to front.
    #[default]
    Level,
    /// One behind the other; each runs up or down.
    Upright,
}

/// How corners are built.
#[derive(Debug, Clone, Copy, Default, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum RawCorner {
    /// Left square, the way measured along its middle.
    #[default]
    Square,
    /// With a board across the outer corner.
    Mitred,
    /// Rounded outside.
    Curved,
}
