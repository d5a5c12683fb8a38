//! Where fill lies in a box, for pictures of it, and what it weighs.

use oak_acoustics::medium::{Fill, Stuffing};
use oak_acoustics::profile::{Profile, Segment};
use oak_cabinetry::geometry::{Face, Frame, Point, Solid, area_vector, dot, minus};
use oak_cabinetry::{Body, Cabinet, Chamber, Laid, Stretch};

use crate::resolve::{ChamberFill, ResolvedDesign};

/// The faces of one piece of fill: their corners, counter-clockwise as seen from outside, m.
pub(super) type Faces = Vec<Vec<Point>>;

/// How thick the lining of walls is drawn, m (common practice).
const LINING: f64 = 0.03;
/// Between fill and boards in pictures, m.
const CLEAR: f64 = 0.001;

/// All fill in a box. Layers lie where they were laid; an amount without a place lines the walls, or fills the end away from the drivers.
pub(super) fn laid_fill(design: &ResolvedDesign, cabinet: &Cabinet) -> Vec<Faces> {
    let body = &design.body;
    let mut all: Vec<Faces> = Vec::new();
    for (index, chamber) in chambers(cabinet) {
        let room = &chamber.interior;
        if index == 0 && !body.fills.is_empty() {
            all.extend(body.fills.iter().filter_map(|layer| against(room, layer.face, layer.thickness)));
        } else if let Some(fill) = design.fills[index].filter(|fill| fill.density > 0.0) {
            all.extend(spread(room, body.drivers.face, &fill));
        }
    }
    if let (Some(laid), Some((profile, _))) = (&cabinet.fold, design.enclosure.path()) {
        let share = laid.length() / profile.length();
        let mut from = 0.0;
        for segment in &profile.segments {
            let to = from + segment.length * share;
            all.extend(along(body, cabinet, laid, segment, [from, to]));
            from = to;
        }
    }
    all
}

/// What fill weighs, kg.
pub(super) fn weight(design: &ResolvedDesign, cabinet: &Cabinet) -> f64 {
    let body = &design.body;
    let chamber = |(index, chamber): (usize, &Chamber)| {
        if index == 0 && !body.fills.is_empty() {
            let layers = super::fill::fills(body, cabinet);
            return layers.iter().map(|layer| layer.mass).sum();
        }
        design.fills[index].map_or(0.0, |fill| fill.density * chamber.ledger.net())
    };
    let segment = |segment: &Segment| {
        let density = segment.fill.as_ref().map_or(0.0, |fill| fill.bulk_density * share(fill));
        density * Profile { segments: vec![*segment] }.volume()
    };
    let path = design.enclosure.path().map_or(0.0, |(profile, _)| profile.segments.iter().map(segment).sum());
    chambers(cabinet).map(chamber).sum::<f64>() + path
}

/// Its chambers, without the one that a path is folded into.
fn chambers(cabinet: &Cabinet) -> impl Iterator<Item = (usize, &Chamber)> {
    let folded = usize::from(cabinet.fold.is_some());
    cabinet.chambers.iter().enumerate().take(cabinet.chambers.len() - folded)
}

/// Share of a section that fill takes.
fn share(fill: &Fill) -> f64 {
    fill.lining.map_or(1.0, |lining| lining.share)
}

fn faces(solid: &Solid) -> Faces {
    solid.facets().into_iter().map(|facet| facet.corners).collect()
}

/// A layer on a board.
fn against(room: &Solid, face: Face, thickness: f64) -> Option<Faces> {
    let (other, depth) = across(room, face)?;
    room.inset(|side| if side == other { (depth - thickness).max(CLEAR) } else { CLEAR }).as_ref().map(faces)
}

/// The face across from one that is square to an axis, and how far away it is, m.
fn across(room: &Solid, face: Face) -> Option<(Face, f64)> {
    let axis = Frame::of(room, face)?.axis()?.index();
    let [low, high] = room.bounds();
    let ends = [[Face::Left, Face::Right], [Face::Bottom, Face::Top], [Face::Back, Face::Front]][axis];
    let other = ends.into_iter().find(|end| *end != face)?;
    ends.contains(&face).then_some((other, high[axis] - low[axis]))
}

/// An amount of fill without a place.
fn spread(room: &Solid, drivers: Face, fill: &ChamberFill) -> Option<Faces> {
    if fill.polyester <= Stuffing::Lined.density() {
        let hollow = room.inset(|side| if side == drivers { 2.0 * CLEAR } else { LINING })?;
        let mut lining = faces(&room.inset(|_| CLEAR)?);
        lining.extend(faces(&hollow).into_iter().map(|face| face.into_iter().rev().collect()));
        return Some(lining);
    }
    let share = (fill.polyester / Stuffing::Full.density()).min(1.0);
    let left = across(room, drivers).map_or(0.0, |(_, depth)| (1.0 - share) * depth);
    room.inset(|side| if side == drivers { left.max(CLEAR) } else { CLEAR }).as_ref().map(faces)
}

/// Fill in a stretch of a folded path, across all of it or on one side.
fn along(body: &Body, cabinet: &Cabinet, laid: &Laid, segment: &Segment, [from, to]: [f64; 2]) -> Vec<Faces> {
    let Some(fill) = &segment.fill else { return Vec::new() };
    let half = laid.plan.width / 2.0 - CLEAR;
    let piece = |stretch: &Stretch| -> Option<Faces> {
        let part = |at: f64| ((at - stretch.from) / stretch.length).clamp(0.0, 1.0);
        let parts = [part(from), part(to)];
        let least = if stretch.turn { 0.5 } else { 1e-6 };
        if parts[1] - parts[0] < least {
            return None;
        }
        let outline = stretch.part(parts, share(fill));
        let ends = [-half, half].map(|across| {
            outline.iter().map(|at| cabinet.fold_point(body, *at, across)).collect::<Option<Vec<Point>>>()
        });
        let [near, far] = ends;
        Some(prism(&near?, &far?))
    };
    laid.stretches.iter().filter_map(piece).collect()
}

/// The faces between two equal outlines.
fn prism(near: &[Point], far: &[Point]) -> Faces {
    let turned = dot(area_vector(near), minus(far[0], near[0])) < 0.0;
    let sorted = |ends: &[Point]| -> Vec<Point> {
        if turned { ends.iter().rev().copied().collect() } else { ends.to_vec() }
    };
    let (near, far) = (sorted(near), sorted(far));
    let count = near.len();
    let side = |k: usize| vec![near[k], near[(k + 1) % count], far[(k + 1) % count], far[k]];
    let mut faces: Faces = (0..count).map(side).collect();
    faces.push(near.iter().rev().copied().collect());
    faces.push(far);
    faces
}
