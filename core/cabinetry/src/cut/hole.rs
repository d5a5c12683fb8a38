//! What a hole in a board is for.

use super::flat::{FlatHole, HoleKind};
use crate::contents::Contents;
use crate::part::{Part, PartKind};

pub(super) fn kind(part: &Part) -> HoleKind {
    match part.kind {
        PartKind::Driver => HoleKind::Driver,
        PartKind::Radiator => HoleKind::Radiator,
        PartKind::Port => HoleKind::Port,
        PartKind::Mouth => HoleKind::Mouth,
        _ => HoleKind::Item,
    }
}

/// The bolt holes of a driver around its middle.
pub(super) fn bolts(part: &Part, contents: &Contents, at: [f64; 2]) -> Vec<FlatHole> {
    let circle = contents.drivers.bolts.filter(|_| part.kind == PartKind::Driver);
    let Some(circle) = circle else { return Vec::new() };
    let hole = |[across, up]: [f64; 2]| FlatHole {
        what: "bolt".to_owned(),
        kind: HoleKind::Bolt,
        at: [at[0] + across, at[1] + up],
        size: [circle.hole; 2],
        round: true,
        corner: None,
        depth: None,
    };
    circle.holes().map(hole).collect()
}
