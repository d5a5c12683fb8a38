//! Square strips along the inside edges.

use crate::body::Body;
use crate::cabinet::Cabinet;
use crate::contents::Contents;
use crate::geometry::{Axis, Facet, Point, Solid, along, area_vector, cross, dot, length, minus, unit};
use crate::part::{Part, PartKind, Piece};

/// A strip along an edge.
#[derive(Debug, Clone, Copy, PartialEq)]
pub(crate) struct Strip {
    /// Its ends on the edge, m.
    ends: [Point; 2],
    /// Into either face, square to the edge: units.
    into: [Point; 2],
}

impl Strip {
    /// What one of a side (m) takes, m3.
    pub fn volume(&self, side: f64) -> f64 {
        let [a, b] = self.into;
        side * side * length(cross(a, b)) * length(minus(self.ends[1], self.ends[0]))
    }

    /// Area that one of a side (m) has across an axis, m2; nothing where it does not run along it.
    pub fn across(&self, axis: Axis, side: f64) -> f64 {
        let far = (self.ends[1][axis.index()] - self.ends[0][axis.index()]).abs();
        if far > 1e-9 { self.volume(side) / far } else { 0.0 }
    }

    fn piece(&self, side: f64) -> Piece {
        let outline = |from: Point| {
            let [a, b] = self.into.map(|into| along(from, into, side));
            vec![from, a, along(a, self.into[1], side), b]
        };
        Piece::Prism { near: outline(self.ends[0]), far: outline(self.ends[1]) }
    }

    /// A part of it, from and to shares of its length.
    fn part(&self, from: f64, to: f64) -> Self {
        let [a, b] = self.ends;
        let at = |share: f64| [0, 1, 2].map(|k| a[k] + share * (b[k] - a[k]));
        Self { ends: [at(from), at(to)], ..*self }
    }

    /// What is left of it outside of a span along an axis, m.
    fn without(&self, axis: Axis, span: [f64; 2]) -> Vec<Self> {
        let k = axis.index();
        let [a, b] = self.ends.map(|end| end[k]);
        if (b - a).abs() < 1e-9 {
            let within = a > span[0] + 1e-9 && a < span[1] - 1e-9;
            return if within { Vec::new() } else { vec![*self] };
        }
        let shares = span.map(|at| ((at - a) / (b - a)).clamp(0.0, 1.0));
        let [from, to] = [shares[0].min(shares[1]), shares[0].max(shares[1])];
        let left = [(0.0, from), (to, 1.0)];
        left.into_iter().filter(|(from, to)| to > from).map(|(from, to)| self.part(from, to)).collect()
    }

    /// What is left of it, of a side (m), beside something between two corners.
    fn clear_of(&self, [from, to]: [Point; 2], side: f64) -> Vec<Self> {
        let [low, high] = self.piece(side).bounds();
        if (0..3).any(|k| from[k] > high[k] - NEAR || to[k] < low[k] + NEAR) {
            return vec![*self];
        }
        let [a, b] = self.ends;
        let far = |axis: &Axis| (b[axis.index()] - a[axis.index()]).abs();
        let axis = Axis::ALL.into_iter().max_by(|a, b| far(a).total_cmp(&far(b))).unwrap_or(Axis::X);
        self.without(axis, [from[axis.index()], to[axis.index()]])
    }
}

/// What only lies on each other is not in each other, m.
const NEAR: f64 = 1e-6;

/// Into a face from its edge between two corners, square to the edge: unit.
fn into(face: &Facet, a: Point, b: Point) -> Point {
    let corners = &face.corners;
    let same = |one: Point, other: Point| length(minus(one, other)) < NEAR;
    let begins = (0..corners.len()).find(|index| same(corners[*index], a));
    let onward = begins.is_some_and(|index| same(corners[(index + 1) % corners.len()], b));
    // Corners run counter-clockwise: the face lies to the left of an edge.
    let edge = if onward { minus(b, a) } else { minus(a, b) };
    unit(cross(area_vector(corners), edge))
}

/// Strips of a side (m) along all edges between different faces of a room that are corners and not noses. Those along
/// its axis go through; the others end at them.
fn strips(interior: &Solid, side: f64) -> Vec<Strip> {
    let facets = interior.facets();
    let count = interior.sides.len();
    let strip = |a: Point, b: Point, faces: [&Facet; 2]| Strip {
        ends: [a, b],
        into: faces.map(|face| into(face, a, b)),
    };
    let own = |index: usize| {
        let (face, before) = (&facets[index], &facets[(index + count - 1) % count]);
        let found = strip(face.corners[0], face.corners[3], [face, before]);
        let corner = dot(found.into[0], area_vector(&before.corners)) < 0.0;
        (before.face != face.face && corner).then_some(found)
    };
    let mut found = Vec::new();
    for index in 0..count {
        let (facet, [here, next]) = (&facets[index], [index, (index + 1) % count].map(own));
        found.extend(here);
        // A side's edges with the beginning and the end.
        for (end, [a, b]) in [(count, [0, 1]), (count + 1, [3, 2])] {
            let (a, b) = (facet.corners[a], facet.corners[b]);
            let reach = length(minus(b, a));
            let cut = |there: Option<_>| if there.is_some() { side / reach } else { 0.0 };
            let (from, to) = (cut(here), 1.0 - cut(next));
            if to > from {
                found.push(strip(a, b, [facet, &facets[end]]).part(from, to));
            }
        }
    }
    found
}

impl Body {
    /// The strips of a chamber of an interior, cut where braces stand. A way has none.
    pub(crate) fn strips_in(&self, contents: &Contents, chamber: &Solid, interior: &Solid) -> Vec<Strip> {
        if self.strips <= 0.0 || contents.path.is_some() {
            return Vec::new();
        }
        let [low, high] = chamber.bounds();
        let mut found = strips(interior, self.strips);
        for axis in Axis::ALL {
            let k = axis.index();
            // What lies beyond the chamber.
            for span in [[f64::NEG_INFINITY, low[k]], [high[k], f64::INFINITY]] {
                found = found.iter().flat_map(|strip| strip.without(axis, span)).collect();
            }
        }
        for brace in &self.braces {
            let at = brace.place(interior);
            let span = [at - brace.thickness / 2.0, at + brace.thickness / 2.0];
            found = found.iter().flat_map(|strip| strip.without(brace.axis, span)).collect();
        }
        found
    }

    /// What the strips of a plain box of such a room take in all, m3; `partition` where a board stands between two chambers.
    pub(crate) fn strips_of_cuboid(&self, sizes: [f64; 3], partition: Option<f64>) -> f64 {
        let side = self.strips;
        let edges = 4.0 * sizes.iter().sum::<f64>() - 16.0 * side;
        let within = |brace: &&crate::body::Brace| {
            let along = sizes[brace.axis.index()];
            brace.at.is_none_or(|at| (0.0..=along).contains(&at))
        };
        let cut: f64 = self.braces.iter().filter(within).map(|brace| brace.thickness).chain(partition).sum();
        side * side * (edges - 4.0 * cut)
    }
}

/// Puts the strips in, out of the way of what stands in corners.
pub(super) fn install(body: &Body, contents: &Contents, cabinet: &mut Cabinet) {
    for index in 0..cabinet.chambers.len() {
        let mut strips = body.strips_in(contents, &cabinet.chambers[index].interior, &cabinet.interior);
        let others = cabinet.parts.iter().filter(|part| matches!(part.kind, PartKind::Port | PartKind::Item));
        let in_the_way: Vec<[Point; 2]> = others.flat_map(|part| &part.pieces).map(Piece::bounds).collect();
        for bounds in in_the_way {
            strips = strips.iter().flat_map(|strip| strip.clear_of(bounds, body.strips)).collect();
        }
        if !strips.is_empty() {
            let pieces = strips.iter().map(|strip| strip.piece(body.strips)).collect();
            cabinet.parts.push(Part { pieces, ..Part::of(PartKind::Strip, 0, index) });
        }
    }
}
