//! The boards of a cabinet as they are cut: flat, with their edges, bevels, grooves and holes.
//!
//! [`outer`] makes the boards of the outside from the planes of their faces, each edge ending where its joint has it; [`inner`] takes
//! what stands inside as it is mounted. Together they fill what the cabinet's boards fill.

mod flat;
mod hole;
mod inner;
mod joint;
mod outer;

pub use flat::{BoardSide, Edge, EdgeJoint, FlatHole, FlatPart, Groove, HoleKind, Stand};
pub use joint::{Dowel, Joinery, Joints, Overlap};

use crate::body::Body;
use crate::cabinet::Cabinet;
use crate::contents::Contents;

/// Every board of a cabinet as it is cut: the outer ones first, then what stands inside.
pub fn flat_parts(body: &Body, contents: &Contents, cabinet: &Cabinet, joints: &Joints) -> Vec<FlatPart> {
    let (inside, housed) = inner::inner(body, contents, cabinet, joints);
    let mut parts = outer::outer(body, contents, cabinet, joints, &housed);
    parts.extend(inside);
    parts
}
