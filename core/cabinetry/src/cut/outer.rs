//! The boards of the outside.

use super::flat::{Edge, EdgeJoint, FlatHole, FlatPart, Overlap, bounds};
use crate::body::{Body, Panel};
use crate::cabinet::Cabinet;
use crate::contents::Contents;
use crate::geometry::{Face, Facet, Frame, Point, along, area, area_vector, cross, dot, minus, unit};
use crate::part::PartKind;

/// Closer than this two corners are one, m.
const ONE: f64 = 1e-7;

/// A board of the outside before it is laid flat.
struct Slab<'a> {
    facet: &'a Facet,
    panel: Panel,
    normal: Point,
    /// `normal . x` on the face.
    level: f64,
    rank: u32,
}

impl Slab<'_> {
    /// Depth of its inner side behind the face, m.
    fn taken(&self) -> f64 {
        self.panel.taken()
    }
}

/// The lower reaches over the higher; equal ones are mitred.
fn rank(face: Face, overlap: Overlap, polygon: bool, panel: &Panel) -> u32 {
    // What is set back stands between its neighbours.
    let back = if panel.inset > 0.0 { 10 } else { 0 };
    let group = match face {
        // The first side of a polygon looks to the front, and is one of its sides.
        Face::Front | Face::Back if polygon => 5,
        Face::Front | Face::Back => 0,
        Face::Left | Face::Right => 1,
        Face::Top | Face::Bottom => 2,
        Face::Riser => 3,
        Face::Tread => 4,
        Face::Side(_) => 5,
        Face::Shell => return 100,
    };
    let order = match overlap {
        Overlap::Mitred => [0, 0, 0, 0, 0, 0],
        Overlap::FrontAndBack => [0, 2, 1, 3, 4, 5],
        Overlap::Sides => [2, 0, 1, 3, 4, 5],
        Overlap::TopAndBottom => [2, 1, 0, 3, 4, 5],
    };
    back + order[group]
}

/// Every outer board that is flat.
pub(super) fn outer(body: &Body, contents: &Contents, cabinet: &Cabinet, overlap: Overlap) -> Vec<FlatPart> {
    let facets = cabinet.outer.facets();
    let polygon = facets.iter().any(|facet| matches!(facet.face, Face::Side(_)));
    let slab = |facet| {
        let facet: &Facet = facet;
        let panel = *body.panel(facet.face);
        let normal = unit(area_vector(&facet.corners));
        let level = dot(facet.corners[0], normal);
        Slab { facet, panel, normal, level, rank: rank(facet.face, overlap, polygon, &panel) }
    };
    let slabs: Vec<Slab> = facets.iter().map(slab).collect();
    let flat = slabs.iter().filter(|slab| slab.facet.face != Face::Shell);
    flat.map(|one| part(one, &slabs, body, contents, cabinet)).collect()
}

/// Where the edge of a board runs at a depth: `n . x = level - at_face - slope * depth`.
struct Cut {
    normal: Point,
    level: f64,
    at_face: f64,
    slope: f64,
    edge: Edge,
}

fn part(
    slab: &Slab<'_>,
    slabs: &[Slab<'_>],
    body: &Body,
    contents: &Contents,
    cabinet: &Cabinet,
) -> FlatPart {
    let corners = &slab.facet.corners;
    let cuts: Vec<Cut> = (0..corners.len())
        .map(|k| cut(slab, slabs, [corners[k], corners[(k + 1) % corners.len()]]))
        .collect();
    let (u, v) = directions(slab, cabinet);
    let (start, end) = (slab.panel.inset, slab.taken());
    let at = |depth: f64| outline(slab, &cuts, [u, v], depth);
    let (mut outer, mut inner) = (at(start), at(end));
    let middle = at(f64::midpoint(start, end));
    let volume = (end - start) * (area(&outer).abs() + 4.0 * area(&middle).abs() + area(&inner).abs()) / 6.0;
    let [low, _] = bounds(outer.iter().chain(&inner));
    for point in outer.iter_mut().chain(&mut inner) {
        *point = [point[0] - low[0], point[1] - low[1]];
    }
    let thickness = end - start;
    let edges = cuts
        .iter()
        .enumerate()
        .map(|(k, cut)| {
            let next = (k + 1) % outer.len();
            let along = [outer[next][0] - outer[k][0], outer[next][1] - outer[k][1]];
            let long = along[0].hypot(along[1]).max(1e-12);
            // Inward of an outline that runs round against the clock.
            let inward = [-along[1] / long, along[0] / long];
            let moved = (inner[k][0] - outer[k][0]) * inward[0] + (inner[k][1] - outer[k][1]) * inward[1];
            Edge { bevel: (moved / thickness).atan(), ..cut.edge }
        })
        .collect();
    FlatPart {
        name: slab.facet.face.name(),
        panel: slab.panel,
        count: 1,
        holes: holes(slab, body, contents, cabinet, [u, v], low),
        outer,
        inner,
        edges,
        window: None,
        volume,
    }
}

/// Level and up on a board, as its places are counted; so that they and its outward normal are right-handed.
fn directions(slab: &Slab<'_>, cabinet: &Cabinet) -> (Point, Point) {
    let frame = Frame::of(&cabinet.outer, slab.facet.face);
    let v = frame.map_or_else(|| unit(minus(slab.facet.corners[1], slab.facet.corners[0])), |frame| frame.v);
    (cross(v, slab.normal), v)
}

fn cut(slab: &Slab<'_>, slabs: &[Slab<'_>], [from, to]: [Point; 2]) -> Cut {
    let near = |a: Point, b: Point| (0..3).all(|k| (a[k] - b[k]).abs() < ONE);
    let shares = |other: &&Slab<'_>| {
        let corners = &other.facet.corners;
        let count = corners.len();
        (0..count).any(|k| near(corners[k], to) && near(corners[(k + 1) % count], from))
    };
    let inward = cross(slab.normal, unit(minus(to, from)));
    let square = |meets, joint| Cut {
        normal: inward.map(|value| -value),
        level: -dot(inward, from),
        at_face: 0.0,
        slope: 0.0,
        edge: Edge { meets, joint, bevel: 0.0 },
    };
    let Some(other) = slabs.iter().find(shares) else { return square(None, EdgeJoint::Free) };
    let meets = Some(other.facet.face);
    if other.facet.face == Face::Shell {
        return square(meets, EdgeJoint::Round);
    }
    let convex = dot(other.normal, inward) < 0.0;
    let taken = other.taken();
    let (joint, at_face, slope) = match slab.rank.cmp(&other.rank) {
        std::cmp::Ordering::Equal => (EdgeJoint::Mitre, 0.0, taken / slab.taken()),
        // At an inner corner the boards lie the other way round: what reaches over goes to the inner side.
        std::cmp::Ordering::Less => (EdgeJoint::Over, if convex { 0.0 } else { taken }, 0.0),
        std::cmp::Ordering::Greater => (EdgeJoint::Under, if convex { taken } else { 0.0 }, 0.0),
    };
    Cut { normal: other.normal, level: other.level, at_face, slope, edge: Edge { meets, joint, bevel: 0.0 } }
}

/// The outline of a board at a depth behind its face, corner by corner where its edges meet.
fn outline(slab: &Slab<'_>, cuts: &[Cut], [u, v]: [Point; 2], depth: f64) -> Vec<[f64; 2]> {
    let corners = &slab.facet.corners;
    // On the plane of this depth, below the first corner of the face.
    let origin = along(corners[0], slab.normal, -depth);
    let line = |cut: &Cut| {
        let limit = cut.level - cut.at_face - cut.slope * depth - dot(cut.normal, origin);
        (dot(cut.normal, u), dot(cut.normal, v), limit)
    };
    let zero = [dot(origin, u), dot(origin, v)];
    (0..cuts.len())
        .map(|k| {
            let (a, b, p) = line(&cuts[(k + cuts.len() - 1) % cuts.len()]);
            let (c, d, q) = line(&cuts[k]);
            let turn = a * d - b * c;
            let meeting = if turn.abs() > 1e-9 {
                [(p * d - b * q) / turn, (a * q - p * c) / turn]
            } else {
                // Edges that go on straight meet at the corner of the face.
                let way = minus(corners[k], corners[0]);
                [dot(way, u), dot(way, v)]
            };
            [zero[0] + meeting[0], zero[1] + meeting[1]]
        })
        .collect()
}

fn holes(
    slab: &Slab<'_>,
    body: &Body,
    contents: &Contents,
    cabinet: &Cabinet,
    [u, v]: [Point; 2],
    low: [f64; 2],
) -> Vec<FlatHole> {
    let mut holes = Vec::new();
    for part in cabinet.parts.iter().filter(|part| part.face == Some(slab.facet.face)) {
        let Some(hole) = cabinet.hole(part, contents) else { continue };
        let at = [dot(hole.outer, u) - low[0], dot(hole.outer, v) - low[1]];
        let cut =
            |what: &str, at, size, round, depth| FlatHole { what: what.to_owned(), at, size, round, depth };
        holes.push(cut(&part.name(), at, hole.size, hole.round, None));
        if part.kind != PartKind::Driver {
            continue;
        }
        if body.recess > 0.0 {
            // A ring around the hole, which is counted with it.
            let frame = contents.drivers.frame;
            holes.push(cut("recess for its frame", at, [frame; 2], true, Some(body.recess)));
        }
        if let Some(bolts) = &contents.drivers.bolts {
            let middle = |[across, up]: [f64; 2]| [at[0] + across, at[1] + up];
            let each = bolts.holes().map(|place| cut("bolt", middle(place), [bolts.hole; 2], true, None));
            holes.extend(each);
        }
    }
    holes
}
