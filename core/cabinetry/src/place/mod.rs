//! What is mounted where, and whether it fits.

mod arrange;
mod fold;
mod mounting_face;
mod mouth;
mod port;
mod row;
mod strip;
mod touch;

pub(crate) use mounting_face::MountingFace;
pub use mouth::Mouth;
pub(crate) use strip::Strip;
pub use touch::overlap;

use crate::body::{Body, Brace};
use crate::cabinet::Cabinet;
use crate::contents::{Contents, RIM};
use crate::finding::Finding;
use crate::fold::Seat;
use crate::geometry::{EnclosureShape, Face, Frame, Point, Solid};
use crate::part::{Part, PartKind, Piece};
use arrange::arrange;

/// Mounts everything and says what does not fit.
pub(crate) fn fill(body: &Body, contents: &Contents, cabinet: &mut Cabinet) {
    partition(body, contents, cabinet);
    fold::install(body, contents, cabinet);
    arrange(body, contents, cabinet);
    braces(body, cabinet);
    items(body, cabinet);
    for (index, chamber) in cabinet.chambers.iter().enumerate() {
        let net = chamber.ledger.net();
        if net <= 0.0 {
            cabinet.findings.push(Finding::Overfull { chamber: index, by: -net });
        }
    }
    if let EnclosureShape::Cylinder { .. } = body.shape {
        let wall = body.panel(Face::Shell).total();
        let [low, high] = cabinet.outer.bounds();
        let wanted = ROUND_WALL * (high[0] - low[0]);
        if wall < wanted {
            cabinet.findings.push(Finding::ThinPipe { wall, wanted });
        }
    }
    touch::check(cabinet);
    // They give way, so nothing is in theirs.
    strip::install(body, contents, cabinet);
}

/// Wall of a pipe over its diameter below which it makes a poor cabinet (common practice: drain pipe has 0.02 to 0.03, pressure pipe and
/// cardboard former 0.04 and more).
const ROUND_WALL: f64 = 0.035;

/// The board between two chambers; where a way begins at the one, it ends before the wall there.
fn partition(body: &Body, contents: &Contents, cabinet: &mut Cabinet) {
    let Some((axis, [from, to])) = cabinet.partition() else { return };
    let [mut low, mut high] = cabinet.interior.bounds();
    (low[axis.index()], high[axis.index()]) = (from, to);
    let begins = contents.path.as_ref().is_some_and(|path| path.seat == Seat::Chamber);
    if let Some(laid) = cabinet.fold.as_ref().filter(|_| begins) {
        let (run, opening) = (body.fold.run().index(), laid.area(0.0) / laid.plan.width);
        let at_low = laid.line().first().is_some_and(|[along, _]| *along < laid.plan.run / 2.0);
        if at_low {
            low[run] += opening;
        } else {
            high[run] -= opening;
        }
    }
    let pieces = vec![Piece::Block { low, high }];
    cabinet.parts.push(Part { pieces, ..Part::of(PartKind::Partition, 0, 0) });
    end_board(body, cabinet);
}

/// The board that ends a chamber shorter than the channels of its way.
fn end_board(body: &Body, cabinet: &mut Cabinet) {
    let Some(unused) = &cabinet.unused else { return };
    let (beyond, volume) = (unused.bounds(), unused.volume());
    let k = body.fold.run().index();
    let [mut low, mut high] = cabinet.chambers[0].interior.bounds();
    (low[k], high[k]) =
        if high[k] <= beyond[0][k] { (high[k], beyond[0][k]) } else { (beyond[1][k], low[k]) };
    let pieces = vec![Piece::Block { low, high }];
    cabinet.parts.push(Part { pieces, ..Part::of(PartKind::ChamberEnd, 0, 0) });
    cabinet.findings.push(Finding::ClosedOff { volume });
}

/// Whatever stands against a board of the chamber behind the drivers.
fn items(body: &Body, cabinet: &mut Cabinet) {
    for (index, item) in body.items.iter().enumerate() {
        let Some(block) = item.block else { continue };
        let part = Part::of(PartKind::Item, index, 0);
        let face = block.place.face;
        let face_plate =
            MountingFace::of_chamber(cabinet, face, 0).filter(|face_plate| face_plate.frame.axis().is_some());
        let Some(face_plate) = face_plate else {
            cabinet.findings.push(Finding::NoFace { part: item.name.clone(), face });
            continue;
        };
        let [width, height, deep] = block.size;
        // In a corner where nobody placed it: amplifiers and chambers of their own rarely stand in the middle.
        let at = [
            block.place.across.unwrap_or(face_plate.low[0] + width / 2.0),
            block.place.up.unwrap_or(face_plate.high[1] - height / 2.0),
        ];
        let ends = [(-0.5, face_plate.deep), (0.5, face_plate.deep + deep)]
            .map(|(side, deep)| face_plate.frame.point([at[0] + side * width, at[1] + side * height], deep));
        let low = [0, 1, 2].map(|k| ends[0][k].min(ends[1][k]));
        let high = [0, 1, 2].map(|k| ends[0][k].max(ends[1][k]));
        let pieces = vec![Piece::Block { low, high }];
        let (opening, label) = (block.opening, Some(item.name.clone()));
        cabinet.parts.push(Part { face: Some(face), at, pieces, opening, label, ..part });
    }
}

/// Boards with a window: four rails around it. A partition parts one that crosses it.
fn braces(body: &Body, cabinet: &mut Cabinet) {
    let [low, high] = cabinet.interior.bounds();
    for (index, brace) in body.braces.iter().enumerate() {
        let k = brace.axis.index();
        let at = brace.place(&cabinet.interior);
        let slab = [at - brace.thickness / 2.0, at + brace.thickness / 2.0];
        if slab[0] < low[k] - 1e-9 || slab[1] > high[k] + 1e-9 {
            let part = Part::of(PartKind::Brace, index, 0).name();
            cabinet.findings.push(Finding::Beyond { part, most: high[k] - low[k] });
            continue;
        }
        let crossed = cabinet.partition().filter(|(axis, span)| {
            *axis == brace.axis && slab[0] < span[1] - 1e-9 && slab[1] > span[0] + 1e-9
        });
        if crossed.is_some() {
            let part = Part::of(PartKind::Brace, index, 0).name();
            cabinet.findings.push(Finding::Touches { part, other: "partition".to_owned() });
            continue;
        }
        for (chamber, room) in cabinet.chambers.iter().enumerate() {
            let area = room.interior.area_at(brace.axis, at);
            if area > 0.0 {
                let pieces = ring(body, brace, slab, &room.interior)
                    .unwrap_or_else(|| rails(brace, slab, room.interior.bounds(), area));
                cabinet.parts.push(Part { pieces, ..Part::of(PartKind::Brace, index, chamber) });
            }
        }
    }
}

/// A brace in a room that is no box, whose outline has no inner corner: what is between that outline and a window of the same shape in its
/// middle, side by side.
fn ring(body: &Body, brace: &Brace, slab: [f64; 2], interior: &Solid) -> Option<Vec<Piece>> {
    if matches!(body.shape, EnclosureShape::Rectangular | EnclosureShape::Step { .. }) {
        return None;
    }
    let [near, far] = slab.map(|at| crate::drawing::cut(interior, brace.axis, at));
    if near.len() != far.len() || near.len() < 3 {
        return None;
    }
    if brace.open <= 0.0 {
        return Some(vec![Piece::Prism { near, far }]);
    }
    let inner = |outline: &[Point]| -> Vec<Point> {
        let count = outline.len() as f64;
        let middle = [0, 1, 2].map(|k| outline.iter().map(|point| point[k]).sum::<f64>() / count);
        let share = brace.open.sqrt();
        outline.iter().map(|point| [0, 1, 2].map(|k| middle[k] + share * (point[k] - middle[k]))).collect()
    };
    let (near_inner, far_inner) = (inner(&near), inner(&far));
    let side = |k: usize| {
        let next = (k + 1) % near.len();
        Piece::Prism {
            near: vec![near[k], near[next], near_inner[next], near_inner[k]],
            far: vec![far[k], far[next], far_inner[next], far_inner[k]],
        }
    };
    Some((0..near.len()).map(side).collect())
}

/// The rails of a brace in a room of these bounds, which is so large (m2) where it stands.
fn rails(brace: &Brace, slab: [f64; 2], [mut from, mut to]: [Point; 2], area: f64) -> Vec<Piece> {
    let k = brace.axis.index();
    (from[k], to[k]) = (slab[0], slab[1]);
    let (a, b) = ((k + 1) % 3, (k + 2) % 3);
    // Of its share of the room, which need not fill its bounds.
    let open = brace.open * area / ((to[a] - from[a]) * (to[b] - from[b]));
    let window = [a, b].map(|side| {
        let middle = f64::midpoint(from[side], to[side]);
        let half = (to[side] - from[side]) / 2.0 * open.sqrt();
        [middle - half, middle + half]
    });
    let block = |side: usize, range: [f64; 2], within: Option<(usize, [f64; 2])>| {
        let (mut low, mut high) = (from, to);
        (low[side], high[side]) = (range[0], range[1]);
        if let Some((other, range)) = within {
            (low[other], high[other]) = (range[0], range[1]);
        }
        Piece::Block { low, high }
    };
    if brace.open <= 0.0 {
        return vec![Piece::Block { low: from, high: to }];
    }
    vec![
        block(a, [from[a], window[0][0]], None),
        block(a, [window[0][1], to[a]], None),
        block(b, [from[b], window[1][0]], Some((a, window[0]))),
        block(b, [window[1][1], to[b]], Some((a, window[0]))),
    ]
}

impl Cabinet {
    /// Lowest and highest coordinates of all that it takes where it stands, m: its boards, and what stands proud of them.
    pub fn standing(&self, body: &Body, contents: &Contents) -> [Point; 2] {
        self.proud(body, contents).fold(self.outer.bounds(), |[low, high], [from, to]| {
            [[0, 1, 2].map(|k| low[k].min(from[k])), [0, 1, 2].map(|k| high[k].max(to[k]))]
        })
    }

    /// The frames that stand proud of their boards, each between its lowest and highest coordinates, m.
    pub fn proud<'a>(
        &'a self,
        body: &'a Body,
        contents: &'a Contents,
    ) -> impl Iterator<Item = [Point; 2]> + 'a {
        self.parts.iter().filter_map(move |part| {
            let frame = Frame::of(&self.outer, part.face?)?;
            let (across, proud) = match part.kind {
                PartKind::Driver => (contents.drivers.frame, contents.drivers.proud(body.recess)),
                PartKind::Radiator => (contents.radiators?.frame(), (RIM - body.recess).max(0.0)),
                _ => return None,
            };
            let [from, to] = [0.0, -proud].map(|deep| frame.point(part.at, deep));
            (proud > 0.0).then(|| Piece::Rod { from, to, radii: [across / 2.0; 2] }.bounds())
        })
    }
}
