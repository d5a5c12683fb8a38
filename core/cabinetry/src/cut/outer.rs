//! The boards of the outside.

use super::flat::{BoardSide, Edge, EdgeJoint, FlatHole, FlatPart, Groove, HoleKind, Stand, bounds};
use super::hole::{bolts, kind};
use super::joint::{Dowel, Housed, Joinery, Joints, can_mitre, rank};
use crate::body::{Body, Panel};
use crate::cabinet::Cabinet;
use crate::contents::Contents;
use crate::geometry::{Face, Facet, Frame, Point, along, area, area_vector, cross, dot, minus, unit};
use crate::part::{PartKind, Piece};

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
    /// Level and up on it, as its places are counted; so that they and its outward normal are right-handed.
    ways: [Point; 2],
}

impl Slab<'_> {
    fn face(&self) -> Face {
        self.facet.face
    }

    /// Depth of its inner side behind the face, m.
    fn taken(&self) -> f64 {
        self.panel.taken()
    }

    fn flat(&self, point: Point) -> [f64; 2] {
        self.ways.map(|way| dot(point, way))
    }
}

/// Where the edge of a board runs at a depth: `n . x = level - at_face - slope * depth`.
#[derive(Clone)]
struct Cut {
    normal: Point,
    level: f64,
    at_face: f64,
    slope: f64,
    /// The board that it meets, as a position.
    other: Option<usize>,
    joint: EdgeJoint,
    joinery: Joinery,
    /// How far it reaches into that board, m.
    into: f64,
}

impl Cut {
    /// The same without reaching into the other board.
    fn blunt(&self) -> Self {
        Self { at_face: self.at_face + self.into, into: 0.0, ..self.clone() }
    }
}

struct Joiner<'a> {
    slabs: Vec<Slab<'a>>,
    joints: &'a Joints,
    /// The edges of each board.
    cuts: Vec<Vec<Cut>>,
}

/// Every outer board that is flat, layer by layer.
pub(super) fn outer(
    body: &Body,
    contents: &Contents,
    cabinet: &Cabinet,
    joints: &Joints,
    housed: &[Housed],
) -> Vec<FlatPart> {
    let facets = cabinet.outer.facets();
    let joiner = Joiner::of(body, cabinet, joints, &facets);
    let flat = |at: usize| joiner.slabs[at].face() != Face::Shell;
    let mut parts: Vec<usize> = (0..joiner.slabs.len()).filter(|at| flat(*at)).collect();
    parts.sort_by_key(|at| first(joiner.slabs[*at].face()));
    parts.into_iter().flat_map(|at| joiner.layers(at, body, contents, cabinet, housed)).collect()
}

/// In which order boards are listed: opposite ones beside each other.
fn first(face: Face) -> usize {
    let order = [Face::Front, Face::Back, Face::Left, Face::Right, Face::Top, Face::Bottom];
    order.iter().position(|one| *one == face).unwrap_or(order.len())
}

impl<'a> Joiner<'a> {
    fn of(body: &Body, cabinet: &Cabinet, joints: &'a Joints, facets: &'a [Facet]) -> Self {
        let polygon = facets.iter().any(|facet| matches!(facet.face, Face::Side(_)));
        let slab = |facet: &'a Facet| {
            let panel = *body.panel(facet.face);
            let normal = unit(area_vector(&facet.corners));
            let frame = Frame::of(&cabinet.outer, facet.face);
            let v = frame.map_or_else(|| unit(minus(facet.corners[1], facet.corners[0])), |frame| frame.v);
            Slab {
                facet,
                panel,
                normal,
                level: dot(facet.corners[0], normal),
                rank: rank(facet.face, joints.overlap, polygon, panel.inset),
                ways: [cross(v, normal), v],
            }
        };
        let mut joiner = Self { slabs: facets.iter().map(slab).collect(), joints, cuts: Vec::new() };
        joiner.cuts = (0..facets.len())
            .map(|at| {
                let corners = &joiner.slabs[at].facet.corners;
                (0..corners.len())
                    .map(|k| joiner.cut(at, [corners[k], corners[(k + 1) % corners.len()]]))
                    .collect()
            })
            .collect();
        joiner
    }

    /// The board on the other side of an edge.
    fn neighbour(&self, [from, to]: [Point; 2]) -> Option<usize> {
        let near = |a: Point, b: Point| (0..3).all(|k| (a[k] - b[k]).abs() < ONE);
        self.slabs.iter().position(|other| {
            let corners = &other.facet.corners;
            let count = corners.len();
            (0..count).any(|k| near(corners[k], to) && near(corners[(k + 1) % count], from))
        })
    }

    /// The boards that a board meets.
    fn met(&self, at: usize) -> Vec<usize> {
        let corners = &self.slabs[at].facet.corners;
        let edges = (0..corners.len()).map(|k| [corners[k], corners[(k + 1) % corners.len()]]);
        edges.filter_map(|edge| self.neighbour(edge)).collect()
    }

    fn cut(&self, at: usize, [from, to]: [Point; 2]) -> Cut {
        let slab = &self.slabs[at];
        let inward = cross(slab.normal, unit(minus(to, from)));
        let square = |joint, other| Cut {
            normal: inward.map(|value| -value),
            level: -dot(inward, from),
            at_face: 0.0,
            slope: 0.0,
            other,
            joint,
            joinery: Joinery::Butt,
            into: 0.0,
        };
        let Some(next) = self.neighbour([from, to]) else { return square(EdgeJoint::Free, None) };
        let other = &self.slabs[next];
        if other.face() == Face::Shell {
            return square(EdgeJoint::Round, Some(next));
        }
        let convex = dot(other.normal, inward) < 0.0;
        let taken = other.taken();
        let cut = |joint, joinery: Joinery, at_face: f64, slope, into| Cut {
            normal: other.normal,
            level: other.level,
            at_face,
            slope,
            other: Some(next),
            joint,
            joinery,
            into,
        };
        if slab.rank == other.rank || self.mitred(at, next) {
            return cut(EdgeJoint::Mitre, Joinery::Mitre, 0.0, taken / slab.taken(), 0.0);
        }
        // What reaches into another board stands square on it, from inside.
        let upright = dot(slab.normal, other.normal).abs() < 1e-9 && convex;
        let wished = self.joints.between(slab.face(), other.face());
        let joinery = if upright && wished != Joinery::Mitre { wished } else { Joinery::Butt };
        // At an inner corner the boards lie the other way round: what reaches over goes to the inner side.
        if slab.rank < other.rank {
            cut(EdgeJoint::Over, joinery, if convex { 0.0 } else { taken }, 0.0, 0.0)
        } else {
            let into = joinery.depth(other.panel.thickness);
            cut(EdgeJoint::Under, joinery, if convex { taken - into } else { 0.0 }, 0.0, into)
        }
    }

    /// Whether two boards are mitred because that was asked, and can be.
    fn mitred(&self, one: usize, other: usize) -> bool {
        let [a, b] = [one, other].map(|at| &self.slabs[at]);
        if self.joints.between(a.face(), b.face()) != Joinery::Mitre {
            return false;
        }
        let beside = self.met(other);
        let thirds = self.met(one).into_iter().filter(|third| *third != other && beside.contains(third));
        can_mitre([a.rank, b.rank], thirds.map(|third| self.slabs[third].rank))
    }

    fn layers(
        &self,
        at: usize,
        body: &Body,
        contents: &Contents,
        cabinet: &Cabinet,
        housed: &[Housed],
    ) -> Vec<FlatPart> {
        let count = self.slabs[at].panel.layers.max(1);
        (0..count).map(|layer| self.layer(at, [layer, count], body, contents, cabinet, housed)).collect()
    }

    fn layer(
        &self,
        at: usize,
        [layer, count]: [u32; 2],
        body: &Body,
        contents: &Contents,
        cabinet: &Cabinet,
        housed: &[Housed],
    ) -> FlatPart {
        let (slab, cuts) = (&self.slabs[at], &self.cuts[at]);
        let thickness = slab.panel.thickness;
        let [start, end] = [layer, layer + 1].map(|index| slab.panel.inset + thickness * f64::from(index));
        let outline = |depth| outline(slab, cuts, depth);
        let (mut outer, mut inner) = (outline(start), outline(end));
        let middle = outline(f64::midpoint(start, end));
        let volume = thickness * (area(&outer).abs() + 4.0 * area(&middle).abs() + area(&inner).abs()) / 6.0;
        let [low, _] = bounds(outer.iter().chain(&inner));
        for point in outer.iter_mut().chain(&mut inner) {
            *point = [point[0] - low[0], point[1] - low[1]];
        }
        let edges = cuts.iter().enumerate().map(|(k, cut)| edge(cut, k, &outer, &inner, thickness, self));
        let name = slab.face().name();
        let innermost = layer + 1 == count;
        let mut flat = FlatPart {
            name: if count > 1 { format!("{name}, layer {} of {count}", layer + 1) } else { name },
            panel: Panel { layers: 1, ..slab.panel },
            layer: (count > 1).then_some([layer + 1, count]),
            face: Some(slab.face()),
            count: 1,
            edges: edges.collect(),
            holes: holes(slab, body, contents, cabinet, low, f64::from(layer) * thickness),
            grooves: Vec::new(),
            stands: if innermost { stands(slab, cabinet, low) } else { Vec::new() },
            outer,
            inner,
            window: None,
            volume,
        };
        flat.grooves.extend(self.tongues(at, [layer, count], low));
        if innermost {
            self.receive(at, low, &mut flat);
            let here = housed.iter().filter(|groove| groove.face == slab.face());
            flat.grooves.extend(here.map(|groove| {
                let outline = groove.outline.iter().map(|point| moved(slab.flat(*point), low)).collect();
                let outline = anticlockwise(outline);
                Groove { what: groove.what.clone(), outline, depth: groove.depth, side: BoardSide::Inner }
            }));
        }
        flat
    }

    /// What is milled off the outer side of a board along its tongues.
    fn tongues(&self, at: usize, [layer, count]: [u32; 2], low: [f64; 2]) -> Vec<Groove> {
        let slab = &self.slabs[at];
        // Of several layers the outer half of all.
        let before = slab.panel.thickness * f64::from(layer);
        let depth = (slab.panel.thickness * f64::from(count) / 2.0 - before).min(slab.panel.thickness);
        if depth < 1e-9 {
            return Vec::new();
        }
        let blunt: Vec<Cut> = self.cuts[at].iter().map(Cut::blunt).collect();
        // Half-way down, so that an end that slants is counted right.
        let middle = slab.panel.inset + before + depth / 2.0;
        let [corners, ends] = [&self.cuts[at], &blunt].map(|cuts| outline(slab, cuts, middle));
        let tongue = |(k, cut): (usize, &Cut)| {
            let other = cut.other.filter(|_| cut.joinery == Joinery::Tongue && cut.into > 0.0)?;
            let next = (k + 1) % corners.len();
            let outline = [corners[k], corners[next], ends[next], ends[k]].map(|at| moved(at, low)).to_vec();
            let what = format!("tongue into the {}", self.slabs[other].face().name());
            Some(Groove { what, outline, depth, side: BoardSide::Outer })
        };
        self.cuts[at].iter().enumerate().filter_map(tongue).collect()
    }

    /// What the innermost layer of a board has for those that end at it: rabbets, grooves, dowel holes.
    fn receive(&self, at: usize, low: [f64; 2], flat: &mut FlatPart) {
        let slab = &self.slabs[at];
        for (index, cuts) in self.cuts.iter().enumerate() {
            let other = &self.slabs[index];
            for (k, cut) in cuts.iter().enumerate().filter(|(_, cut)| cut.other == Some(at)) {
                if cut.joint != EdgeJoint::Under {
                    continue;
                }
                let what = other.face().name();
                let outline = || {
                    let points = self.foot(index, k, at);
                    anticlockwise(points.iter().map(|point| moved(slab.flat(*point), low)).collect())
                };
                if cut.into > 0.0 {
                    flat.grooves.push(Groove {
                        what,
                        outline: outline(),
                        depth: cut.into,
                        side: BoardSide::Inner,
                    });
                } else if cut.joinery == Joinery::Dowels {
                    let dowel = Dowel::of(slab.panel.thickness.min(other.panel.total()));
                    let [a, b, c, d] = self.foot(index, k, at);
                    let ends = [[a, d], [b, c]].map(|[p, q]| [0, 1, 2].map(|k| f64::midpoint(p[k], q[k])));
                    let long = crate::geometry::length(minus(ends[1], ends[0]));
                    let way = unit(minus(ends[1], ends[0]));
                    flat.holes.extend(Dowel::along(long).into_iter().map(|far| FlatHole {
                        what: format!("dowel to the {what}"),
                        kind: HoleKind::Dowel,
                        at: moved(slab.flat(along(ends[0], way, far)), low),
                        size: [dowel.diameter; 2],
                        round: true,
                        corner: None,
                        depth: Some(dowel.in_face),
                    }));
                }
            }
        }
    }

    /// Whether a board that ends at two others fills their common corner within the one: within the one that ends at the other where that reaches into
    /// it, else within the other.
    fn goes_into(&self, one: usize, other: usize) -> bool {
        let lower = self.slabs[one].rank < self.slabs[other].rank;
        let (under, over) = if lower { (other, one) } else { (one, other) };
        let reaches = self.cuts[under].iter().any(|cut| cut.other == Some(over) && cut.into > 0.0);
        reaches != lower
    }

    /// The end face of a board at an edge, where it stands on or in another: its two corners on its outer side and back on its inner one. Into a third
    /// board that both meet it goes as far as their corner is this one's.
    fn foot(&self, index: usize, k: usize, at: usize) -> [Point; 4] {
        let slab = &self.slabs[index];
        let cuts: Vec<Cut> = self.cuts[index]
            .iter()
            .map(|cut| match cut.other.filter(|third| *third != at) {
                Some(third) if !self.goes_into(at, third) => cut.blunt(),
                _ => cut.clone(),
            })
            .collect();
        let next = (k + 1) % cuts.len();
        let start = match self.cuts[index][k].joinery {
            Joinery::Tongue => slab.panel.inset + slab.panel.total() / 2.0,
            _ => slab.panel.inset,
        };
        let at_depth = |depth: f64| {
            let flat = outline(slab, &cuts, depth);
            let lift = |[a, b]: [f64; 2]| {
                let on = along(along([0.0; 3], slab.ways[0], a), slab.ways[1], b);
                along(on, slab.normal, slab.level - depth)
            };
            [lift(flat[k]), lift(flat[next])]
        };
        let ([a, b], [d, c]) = (at_depth(start), at_depth(slab.taken()));
        [a, b, c, d]
    }
}

fn moved(point: [f64; 2], low: [f64; 2]) -> [f64; 2] {
    [point[0] - low[0], point[1] - low[1]]
}

fn anticlockwise(mut outline: Vec<[f64; 2]>) -> Vec<[f64; 2]> {
    if area(&outline) < 0.0 {
        outline.reverse();
    }
    outline
}

fn edge(
    cut: &Cut,
    k: usize,
    outer: &[[f64; 2]],
    inner: &[[f64; 2]],
    thickness: f64,
    joiner: &Joiner<'_>,
) -> Edge {
    let next = (k + 1) % outer.len();
    let along = [outer[next][0] - outer[k][0], outer[next][1] - outer[k][1]];
    let long = along[0].hypot(along[1]).max(1e-12);
    // Inward of an outline that runs round against the clock.
    let inward = [-along[1] / long, along[0] / long];
    let moved = (inner[k][0] - outer[k][0]) * inward[0] + (inner[k][1] - outer[k][1]) * inward[1];
    let doweled = cut.joinery == Joinery::Dowels && cut.joint == EdgeJoint::Under;
    Edge {
        meets: cut.other.map(|other| joiner.slabs[other].face()),
        joint: cut.joint,
        joinery: cut.joinery,
        bevel: (moved / thickness).atan(),
        dowels: if doweled { Dowel::along(long) } else { Vec::new() },
    }
}

/// Where boards inside stand on the inner side of a board.
fn stands(slab: &Slab<'_>, cabinet: &Cabinet, low: [f64; 2]) -> Vec<Stand> {
    let inner = slab.level - slab.taken();
    let mut found = Vec::new();
    for part in cabinet.parts.iter().filter(|part| part.kind.is_panel() && part.kind != PartKind::Strip) {
        let mut outline: Vec<[f64; 2]> = Vec::new();
        for point in part.pieces.iter().flat_map(corners) {
            if (dot(point, slab.normal) - inner).abs() > NEAR {
                continue;
            }
            let at = moved(slab.flat(point), low);
            if outline.iter().all(|other| (other[0] - at[0]).hypot(other[1] - at[1]) > NEAR) {
                outline.push(at);
            }
        }
        if outline.len() < 3 {
            continue;
        }
        found.push(Stand { what: part.name(), outline: around(outline) });
    }
    found
}

/// How far a board may stand off another that it is glued to, m.
const NEAR: f64 = 1e-3;

fn corners(piece: &Piece) -> Vec<Point> {
    match piece {
        Piece::Block { low, high } => (0..8)
            .map(|corner: usize| [0, 1, 2].map(|k| if corner >> k & 1 == 1 { high[k] } else { low[k] }))
            .collect(),
        Piece::Prism { near, far } => near.iter().chain(far).copied().collect(),
        Piece::Rod { .. } => Vec::new(),
    }
}

/// The outermost of some points, in order against the clock (Andrew's monotone chain).
fn around(mut points: Vec<[f64; 2]>) -> Vec<[f64; 2]> {
    points.sort_by(|a, b| a[0].total_cmp(&b[0]).then(a[1].total_cmp(&b[1])));
    let turn =
        |a: [f64; 2], b: [f64; 2], c: [f64; 2]| (b[0] - a[0]) * (c[1] - a[1]) - (b[1] - a[1]) * (c[0] - a[0]);
    let half = |points: &mut dyn Iterator<Item = [f64; 2]>| {
        let mut chain: Vec<[f64; 2]> = Vec::new();
        for point in points {
            while chain.len() > 1 && turn(chain[chain.len() - 2], chain[chain.len() - 1], point) <= 1e-12 {
                chain.pop();
            }
            chain.push(point);
        }
        chain.pop();
        chain
    };
    let mut outline = half(&mut points.iter().copied());
    outline.extend(half(&mut points.iter().rev().copied()));
    outline
}

/// The outline of a board at a depth behind its face, corner by corner where its edges meet.
fn outline(slab: &Slab<'_>, cuts: &[Cut], depth: f64) -> Vec<[f64; 2]> {
    let corners = &slab.facet.corners;
    let [u, v] = slab.ways;
    // On the plane of this depth, below the first corner of the face.
    let origin = along(corners[0], slab.normal, -depth);
    let line = |cut: &Cut| {
        let limit = cut.level - cut.at_face - cut.slope * depth - dot(cut.normal, origin);
        (dot(cut.normal, u), dot(cut.normal, v), limit)
    };
    let zero = slab.flat(origin);
    (0..cuts.len())
        .map(|k| {
            let (a, b, p) = line(&cuts[(k + cuts.len() - 1) % cuts.len()]);
            let (c, d, q) = line(&cuts[k]);
            let turn = a * d - b * c;
            let meeting = if turn.abs() > 1e-9 {
                [(p * d - b * q) / turn, (a * q - p * c) / turn]
            } else {
                // Edges that go on straight meet at the corner of the face.
                slab.flat(minus(corners[k], corners[0]))
            };
            [zero[0] + meeting[0], zero[1] + meeting[1]]
        })
        .collect()
}

/// The holes of one layer that begins so far (m) behind the board's outer side.
fn holes(
    slab: &Slab<'_>,
    body: &Body,
    contents: &Contents,
    cabinet: &Cabinet,
    low: [f64; 2],
    behind: f64,
) -> Vec<FlatHole> {
    let mut holes = Vec::new();
    for part in cabinet.parts.iter().filter(|part| part.face == Some(slab.face())) {
        let Some(hole) = cabinet.hole(part, contents) else { continue };
        let at = moved(slab.flat(hole.outer), low);
        let through = FlatHole {
            what: part.name(),
            kind: kind(part),
            at,
            size: hole.size,
            round: hole.round,
            corner: hole.corner,
            depth: None,
        };
        let frame = contents.frame(part).filter(|_| body.recess > behind + 1e-9);
        let Some(frame) = frame else {
            holes.push(through);
            holes.extend(bolts(part, contents, at));
            continue;
        };
        let deep = body.recess - behind;
        let let_in = |depth| FlatHole {
            what: format!("recess for the frame of the {}", part.name()),
            kind: HoleKind::Recess,
            size: [frame; 2],
            depth,
            ..through.clone()
        };
        if deep >= slab.panel.thickness - 1e-9 {
            // The frame goes through this layer.
            holes.push(let_in(None));
        } else {
            holes.extend([through.clone(), let_in(Some(deep))]);
            holes.extend(bolts(part, contents, at));
        }
    }
    holes
}
