//! Boards: what they are of, how they meet, braces and layers.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use super::contents::RawFace;
use crate::file::{RawFrame, Typed};

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
    pub(super) fn is_usual(&self) -> bool {
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
    pub(super) fn is_usual(&self) -> bool {
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
