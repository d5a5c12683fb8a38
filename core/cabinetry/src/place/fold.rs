//! The boards of a fold, its drivers and its mouth.

use super::MountingFace;
use super::row::{BETWEEN, rods};
use crate::body::Body;
use crate::cabinet::Cabinet;
use crate::contents::Contents;
use crate::finding::Finding;
use crate::fold::{Laid, Seat, Spot};
use crate::geometry::{Axis, Face, Point, dot, minus};
use crate::part::{Part, PartKind, Piece};

/// Share of a way by which the front of a tapped horn's drivers may be off its place.
const FAR: f64 = 0.1;

/// Puts the boards of a fold in, and its mouth where it is not ports.
pub(super) fn install(body: &Body, contents: &Contents, cabinet: &mut Cabinet) {
    let Some(laid) = cabinet.fold.clone() else { return };
    let apart = contents.path.iter().flat_map(|path| &path.apart);
    cabinet.findings.extend(apart.map(|what| Finding::Apart { what }));
    let Some(interior) = cabinet.path_interior().cloned() else { return };
    let chamber = cabinet.chambers.len() - 1;
    let half = laid.plan.width / 2.0;
    let space = |at: &[f64; 2], across: f64| body.fold.point(&interior, *at, across);
    let prism = |outline: &[[f64; 2]]| -> Piece {
        let [near, far] = [-half, half].map(|across| outline.iter().map(|at| space(at, across)).collect());
        Piece::Prism { near, far }
    };
    for (index, (face_plate, turn)) in laid.panels.iter().zip(&laid.turns).enumerate() {
        let fillers = turn.fillers.iter().filter(|outline| !outline.is_empty());
        let pieces = std::iter::once(prism(&face_plate.corners))
            .chain(fillers.map(|outline| prism(outline)))
            .collect();
        cabinet.parts.push(Part { pieces, ..Part::of(PartKind::Fold, index, chamber) });
    }
    if let Some(closing) = &laid.closing {
        let pieces = vec![prism(&closing.corners)];
        cabinet.parts.push(Part { pieces, ..Part::of(PartKind::Closing, 0, chamber) });
    }
    if contents.ports.iter().all(Vec::is_empty) {
        let face = body.fold.mouth_face();
        let Some(face_plate) = MountingFace::of(cabinet, face) else { return };
        let Some(at) = mouth_at(body, cabinet, &face_plate) else { return };
        let path = laid.line().iter().rev().map(|at| space(at, 0.0)).collect();
        cabinet.parts.push(Part { face: Some(face), at, path, ..Part::of(PartKind::Mouth, 0, chamber) });
    }
}

/// Where a way ends, on the board of its mouth, m.
pub(super) fn mouth_at(body: &Body, cabinet: &Cabinet, face_plate: &MountingFace) -> Option<[f64; 2]> {
    let end = cabinet.fold.as_ref()?.stretches.last()?.line.last().copied()?;
    Some(face_plate.at(cabinet.fold_point(body, end, 0.0)?))
}

/// Puts drivers into the way.
pub(super) fn drivers(body: &Body, contents: &Contents, cabinet: &mut Cabinet, seat: Seat) {
    let Some(laid) = cabinet.fold.clone() else { return };
    match seat {
        Seat::Along(place) => along(body, contents, cabinet, &laid, laid.spot(place)),
        Seat::Between([first, second]) => {
            between(body, contents, cabinet, &laid, laid.spot(first));
            let found = laid.across(&laid.spot(first));
            if let Some(found) = found.filter(|found| (found.along - second).abs() > FAR * laid.length()) {
                cabinet.findings.push(Finding::WrongChannel { wanted: second, found: found.along });
            }
        }
        Seat::Chamber | Seat::Throat => {}
    }
}

/// Places of several drivers beside each other, from the middle of all, m.
fn beside(count: u32, pitch: f64) -> impl Iterator<Item = f64> {
    (0..count).map(move |index| (f64::from(index) - f64::from(count - 1) / 2.0) * pitch)
}

/// In a board that the channel runs along: the outer one of the first or last channel, or a side.
fn along(body: &Body, contents: &Contents, cabinet: &mut Cabinet, laid: &Laid, spot: Spot) {
    let drivers = &contents.drivers;
    let [begin, end] = body.fold.outsides();
    let adjoins = |face: Face| {
        (face == begin && spot.channel == 0 && cabinet.chambers.len() == 1)
            || (face == end && spot.channel == laid.panels.len())
    };
    let wished = body.drivers.face;
    let aside = |face: Face| matches!(face, Face::Left | Face::Right);
    let face = if aside(wished) || adjoins(wished) {
        wished
    } else {
        [begin, end].into_iter().find(|face| adjoins(*face)).unwrap_or(Face::Left)
    };
    let Some(face_plate) = MountingFace::of(cabinet, face) else { return };
    let Some(middle) = cabinet.fold_point(body, spot.at, 0.0) else { return };
    let pitch = drivers.frame + BETWEEN;
    let row = if aside(face) { body.fold.run() } else { Axis::X };
    let needs = f64::from(drivers.count) * pitch - BETWEEN;
    let has = if aside(face) { [laid.plan.run, spot.height] } else { [laid.plan.width, laid.plan.run] };
    let across = if aside(face) { drivers.cutout } else { drivers.frame };
    if needs - (drivers.frame - drivers.cutout) > has[0] || across > has[1] {
        let needs = [needs, across];
        cabinet.findings.push(Finding::FaceTooSmall { face, part: "driver".to_owned(), needs, has });
    }
    for off in beside(drivers.count, pitch) {
        let mut point = middle;
        point[row.index()] += off;
        let at = face_plate.at(point);
        let pieces = rods(drivers, face_plate.deep, |deep| face_plate.frame.point(at, deep));
        let chamber = cabinet.chambers.len() - 1;
        cabinet.parts.push(Part { face: Some(face), at, pieces, ..Part::of(PartKind::Driver, 0, chamber) });
    }
}

/// In the board between two channels, its magnet in the higher one.
fn between(body: &Body, contents: &Contents, cabinet: &mut Cabinet, laid: &Laid, spot: Spot) {
    let drivers = &contents.drivers;
    let (Some(beyond), Some(face_plate)) = (laid.across(&spot), laid.panels.get(spot.channel)) else {
        cabinet.findings.push(Finding::NoSeat);
        return;
    };
    let [on_wall, at_free, under_free, under_wall] = face_plate.corners;
    // Where the cone lies on the board, and which way the magnet points from there.
    let ([wall, free], into) = if beyond.height > spot.height {
        ([on_wall, at_free], 1.0)
    } else {
        ([under_wall, under_free], -1.0)
    };
    let part = (spot.at[0] - wall[0]) / (free[0] - wall[0]);
    let stack = wall[1] + part * (free[1] - wall[1]);
    let pitch = drivers.frame + BETWEEN;
    let needs = [f64::from(drivers.count) * pitch - BETWEEN, drivers.frame];
    // It must not hang over the free end, nor reach the wall.
    let ends = [wall[0], free[0]].map(|end| (spot.at[0] - end).abs());
    let has = [laid.plan.width, 2.0 * ends[0].min(ends[1])];
    if needs[0] > has[0] || needs[1] > has[1] {
        cabinet.findings.push(Finding::PanelTooSmall { needs, has });
    }
    for off in beside(drivers.count, pitch) {
        let point =
            |deep: f64| cabinet.fold_point(body, [spot.at[0], stack + into * deep], off).unwrap_or([0.0; 3]);
        let pieces = rods(drivers, body.fold.thickness, point);
        let chamber = cabinet.chambers.len() - 1;
        let part = Part { at: [off, spot.at[0]], pieces, ..Part::of(PartKind::Driver, 0, chamber) };
        cabinet.parts.push(part);
    }
}

impl MountingFace {
    /// A place in space on it, m.
    pub fn at(&self, point: Point) -> [f64; 2] {
        let from = minus(point, self.frame.origin);
        [dot(from, self.frame.u), dot(from, self.frame.v)]
    }
}
