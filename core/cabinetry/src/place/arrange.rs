//! Finds places for what nobody placed.

use super::row::{BETWEEN, Row, rods};
use super::{MountingFace, fold, port};
use crate::body::{Body, Place};
use crate::cabinet::Cabinet;
use crate::contents::{Contents, DriverSize};
use crate::finding::Finding;
use crate::fold::Seat;
use crate::geometry::{Axis, Face};
use crate::part::{Part, PartKind, Piece};

pub(super) fn arrange(body: &Body, contents: &Contents, cabinet: &mut Cabinet) {
    // Ports in the drivers' face share it with them.
    let shared = port::row(body, contents, body.drivers.face, 0)
        .filter(|_| !contents.divided() && contents.path.is_none());
    let seat = contents.path.as_ref().map(|path| path.seat);
    let row = if contents.drivers_inside() {
        in_partition(&contents.drivers, cabinet);
        None
    } else if let Some(seat @ (Seat::Along(_) | Seat::Between(_))) = seat {
        fold::drivers(body, contents, cabinet, seat);
        None
    } else {
        in_face(body, &contents.drivers, cabinet, shared)
    };
    radiators(body, contents, cabinet);
    port::install(body, contents, cabinet, row);
}

/// Columns and rows of equal round things of a pitch (m), as high as a face allows.
fn grid(count: u32, pitch: f64, height: f64) -> [u32; 2] {
    let columns = (1..=count)
        .find(|columns| f64::from(count.div_ceil(*columns)) * pitch - BETWEEN <= height)
        .unwrap_or(count);
    [columns, count.div_ceil(columns)]
}

/// How far from the middle of a grid its n-th thing stands, m.
fn shift(index: u32, [columns, rows]: [u32; 2], pitch: f64) -> [f64; 2] {
    let (column, line) = (index % columns, index / columns);
    [(column, columns), (line, rows)].map(|(at, of)| (f64::from(at) - f64::from(of - 1) / 2.0) * pitch)
}

/// Where two things one after the other leave equal gaps: how far the first stands beyond the middle and the second
/// before it; `None` where they do not both go in.
fn share(has: f64, first: f64, second: f64) -> Option<[f64; 2]> {
    let gap = (has - first - second) / 3.0;
    (gap >= BETWEEN / 3.0).then(|| [(has - first) / 2.0 - gap, (has - second) / 2.0 - gap])
}

/// Puts the drivers into their face, with the ports below or, where that is too low, beside them.
fn in_face(body: &Body, drivers: &DriverSize, cabinet: &mut Cabinet, row: Option<[f64; 2]>) -> Option<Row> {
    let face = body.drivers.face;
    let Some(face_plate) = MountingFace::of_chamber(cabinet, face, 0) else {
        cabinet.findings.push(Finding::NoFace { part: "driver".to_owned(), face });
        return None;
    };
    let pitch = drivers.frame + BETWEEN;
    let has = [face_plate.size(0), face_plate.size(1)];
    let grid = grid(drivers.count, pitch, has[1]);
    let needs = grid.map(|count| f64::from(count) * pitch - BETWEEN);
    // The frame lies on the board, which is wider than the room; only the cut-out must stay inside.
    let rim = drivers.frame - drivers.cutout;
    if needs[0] - rim > has[0] || needs[1] - rim > has[1] {
        cabinet.findings.push(Finding::FaceTooSmall { face, part: "driver".to_owned(), needs, has });
    }
    let mut middle = [face_plate.middle(0), face_plate.middle(1)];
    let mut ports = None;
    if let Some(row) = row {
        let below = share(has[1], needs[1], row[1]);
        let beside = share(has[0], needs[0], row[0]);
        if let Some([up, down]) = below {
            ports = Some([middle[0], middle[1] - down]);
            middle[1] += up;
        } else if let Some([right, left]) = beside {
            ports = Some([middle[0] - left, middle[1]]);
            middle[0] += right;
        } else {
            cabinet.findings.push(Finding::FaceTooSmall { face, part: "port".to_owned(), needs: row, has });
        }
    }
    middle = [body.drivers.across.unwrap_or(middle[0]), body.drivers.up.unwrap_or(middle[1])];
    for index in 0..drivers.count {
        let off = shift(index, grid, pitch);
        let at = [middle[0] + off[0], middle[1] + off[1]];
        let pieces = rods(drivers, face_plate.deep, |deep| face_plate.frame.point(at, deep));
        cabinet.parts.push(Part { face: Some(face), at, pieces, ..Part::of(PartKind::Driver, 0, 0) });
    }
    ports
}

/// Drivers in the partition, their magnets in the chamber behind.
fn in_partition(drivers: &DriverSize, cabinet: &mut Cabinet) {
    let Some((axis, [below, above])) = cabinet.partition() else { return };
    let k = axis.index();
    let [level, tall] = if axis == Axis::Z { [0, 1] } else { [0, 2] };
    let room = if cabinet.unused.is_some() { &cabinet.chambers[0].interior } else { &cabinet.interior };
    let [low, high] = room.bounds();
    // Cones look into the chamber before them, which of a fold lies below or behind.
    let forward = cabinet.chambers[0].interior.bounds()[1][k] <= below + 1e-9;
    let (front, sign) = if forward { (above, 1.0) } else { (below, -1.0) };
    let thick = above - below;
    let pitch = drivers.frame + BETWEEN;
    let grid = grid(drivers.count, pitch, high[tall] - low[tall]);
    for index in 0..drivers.count {
        let off = shift(index, grid, pitch);
        let mut middle = [0, 1, 2].map(|axis| f64::midpoint(low[axis], high[axis]));
        (middle[level], middle[tall], middle[k]) = (middle[level] + off[0], middle[tall] + off[1], front);
        let pieces = rods(drivers, thick, |deep| {
            let mut point = middle;
            point[k] -= sign * deep;
            point
        });
        let at = [middle[level], middle[tall]];
        cabinet.parts.push(Part { at, pieces, ..Part::of(PartKind::Driver, 0, 0) });
    }
}

/// Radiators in their face, every second one in the face opposite.
fn radiators(body: &Body, contents: &Contents, cabinet: &mut Cabinet) {
    let Some(radiators) = contents.radiators else { return };
    let faces = [body.radiators.face, opposite(body.radiators.face)];
    let shares = [radiators.count.div_ceil(2), radiators.count / 2];
    for (face, count) in faces.into_iter().zip(shares).filter(|(_, count)| *count > 0) {
        let place = Place { face, ..body.radiators };
        let Some(face_plate) = MountingFace::of(cabinet, face) else {
            cabinet.findings.push(Finding::NoFace { part: "radiator".to_owned(), face });
            continue;
        };
        let pitch = radiators.frame() + BETWEEN;
        let has = [face_plate.size(0), face_plate.size(1)];
        let grid = grid(count, pitch, has[1]);
        let needs = grid.map(|count| f64::from(count) * pitch - BETWEEN);
        if needs[0] > has[0] || needs[1] > has[1] {
            cabinet.findings.push(Finding::FaceTooSmall { face, part: "radiator".to_owned(), needs, has });
        }
        let middle = [place.across.unwrap_or(face_plate.middle(0)), place.up.unwrap_or(face_plate.middle(1))];
        for index in 0..count {
            let off = shift(index, grid, pitch);
            let at = [middle[0] + off[0], middle[1] + off[1]];
            let (span, radii) = radiators.rod(face_plate.deep);
            let [from, to] = span.map(|deep| face_plate.frame.point(at, deep));
            let pieces = if span[1] > span[0] { vec![Piece::Rod { from, to, radii }] } else { Vec::new() };
            cabinet.parts.push(Part { face: Some(face), at, pieces, ..Part::of(PartKind::Radiator, 0, 0) });
        }
    }
}

/// The face on the other side.
pub(super) fn opposite(face: Face) -> Face {
    match face {
        Face::Front => Face::Back,
        Face::Back => Face::Front,
        Face::Left => Face::Right,
        Face::Right => Face::Left,
        Face::Top => Face::Bottom,
        Face::Bottom => Face::Top,
        other => other,
    }
}
