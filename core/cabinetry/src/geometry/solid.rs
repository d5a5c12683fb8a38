//! Bodies between two outlines.

use super::Face;
use super::outline::{area, chord, clipped, holds, pairs};
use super::vector::{Point, bounds};

/// A direction of the cabinet.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Axis {
    /// Across.
    X,
    /// Up.
    Y,
    /// Forward.
    Z,
}

impl Axis {
    /// All three.
    pub const ALL: [Self; 3] = [Self::X, Self::Y, Self::Z];

    /// Its position in a [`Point`].
    pub fn index(self) -> usize {
        self as usize
    }

    /// The coordinates of an outline across it, so that they and it make a right-handed set.
    fn plane(self) -> [usize; 2] {
        match self {
            Self::X => [1, 2],
            Self::Y => [2, 0],
            Self::Z => [0, 1],
        }
    }
}

/// A body that goes straight from one outline to another of as many corners: with equal outlines a prism, else a
/// frustum. Every shape of cabinet is one; so is the room inside it.
#[derive(Debug, Clone, PartialEq)]
pub struct Solid {
    /// The direction it is built along.
    pub axis: Axis,
    /// Where it begins and ends along it, m.
    pub span: [f64; 2],
    /// The outlines there, counter-clockwise, in the coordinates that [`Axis::plane`] names, m.
    pub outlines: [Vec<[f64; 2]>; 2],
    /// The face of each edge, from a corner to the next.
    pub sides: Vec<Face>,
    /// The faces at its beginning and end.
    pub ends: [Face; 2],
}

/// One plane piece of the surface.
#[derive(Debug, Clone, PartialEq)]
pub struct Facet {
    /// Which face it belongs to.
    pub face: Face,
    /// Corners, counter-clockwise as seen from outside, m.
    pub corners: Vec<Point>,
}

impl Solid {
    /// A body of one outline all along.
    pub fn prism(
        axis: Axis,
        span: [f64; 2],
        outline: Vec<[f64; 2]>,
        sides: Vec<Face>,
        ends: [Face; 2],
    ) -> Self {
        Self { axis, span, outlines: [outline.clone(), outline], sides, ends }
    }

    /// A point of an outline in space.
    fn lift(&self, [u, v]: [f64; 2], along: f64) -> Point {
        let [first, second] = self.axis.plane();
        let mut point = [along; 3];
        point[first] = u;
        point[second] = v;
        point
    }

    fn length(&self) -> f64 {
        self.span[1] - self.span[0]
    }

    /// The outline at a part of its length, 0 to 1.
    fn outline(&self, part: f64) -> Vec<[f64; 2]> {
        let [start, end] = &self.outlines;
        start.iter().zip(end).map(|(a, b)| [0, 1].map(|k| a[k] + part * (b[k] - a[k]))).collect()
    }

    /// Room in it, m3: exact, as its cross-section is of second degree along the axis.
    pub fn volume(&self) -> f64 {
        let [start, middle, end] = [0.0, 0.5, 1.0].map(|part| area(&self.outline(part)));
        self.length() * (start + 4.0 * middle + end) / 6.0
    }

    /// Smallest and largest coordinates, m.
    pub fn bounds(&self) -> [Point; 2] {
        let ends = self.outlines.iter().zip(self.span);
        let corners =
            ends.flat_map(|(outline, along)| outline.iter().map(move |point| self.lift(*point, along)));
        bounds(corners)
    }

    /// Its surface, piece by piece: the sides in order, then beginning and end.
    pub fn facets(&self) -> Vec<Facet> {
        let [start, end] = &self.outlines;
        let at = |outline: &[[f64; 2]], along| -> Vec<Point> {
            outline.iter().map(|point| self.lift(*point, along)).collect()
        };
        let (near, far) = (at(start, self.span[0]), at(end, self.span[1]));
        let count = near.len();
        let side = |index: usize| {
            let next = (index + 1) % count;
            Facet { face: self.sides[index], corners: vec![near[index], near[next], far[next], far[index]] }
        };
        let mut facets: Vec<_> = (0..count).map(side).collect();
        facets.push(Facet { face: self.ends[0], corners: near.iter().rev().copied().collect() });
        facets.push(Facet { face: self.ends[1], corners: far });
        facets
    }

    /// Whether a point lies inside.
    pub fn holds(&self, point: Point) -> bool {
        let along = point[self.axis.index()];
        let [first, second] = self.axis.plane();
        let inside = (self.span[0]..=self.span[1]).contains(&along);
        let at = [point[first], point[second]];
        let [start, end] = &self.outlines;
        inside
            && if start == end {
                holds(start, at)
            } else {
                holds(&self.outline((along - self.span[0]) / self.length()), at)
            }
    }

    /// Area of the cut across an axis at a place, m2.
    pub fn area_at(&self, axis: Axis, at: f64) -> f64 {
        if axis == self.axis {
            let part = (at - self.span[0]) / self.length();
            return if (0.0..=1.0).contains(&part) { area(&self.outline(part)) } else { 0.0 };
        }
        let fixed = usize::from(self.axis.plane()[1] == axis.index());
        let chord_at = |part: f64| chord(&self.outline(part), fixed, at);
        if self.outlines[0] == self.outlines[1] {
            return self.length() * chord_at(0.0);
        }
        // Chords change straight, but for kinks where the cut leaves through a corner.
        const STEPS: usize = 64;
        let step = |index: usize| chord_at((index as f64 + 0.5) / STEPS as f64);
        (0..STEPS).map(step).sum::<f64>() * self.length() / STEPS as f64
    }

    /// What lies below a place along an axis, `None` where that cannot be told: frusta are only cut across their own axis.
    pub fn below(&self, axis: Axis, at: f64) -> Option<Self> {
        self.part(axis, at, 1.0)
    }

    /// What lies above a place along an axis; see [`Self::below`].
    pub fn above(&self, axis: Axis, at: f64) -> Option<Self> {
        self.part(axis, at, -1.0)
    }

    fn part(&self, axis: Axis, at: f64, sign: f64) -> Option<Self> {
        if axis == self.axis {
            let at = at.clamp(self.span[0], self.span[1]);
            let cut = self.outline((at - self.span[0]) / self.length());
            let mut part = self.clone();
            let moved = usize::from(sign > 0.0);
            part.span[moved] = at;
            part.outlines[moved] = cut;
            return Some(part);
        }
        if self.outlines[0] != self.outlines[1] {
            return None;
        }
        let fixed = usize::from(self.axis.plane()[1] == axis.index());
        let mut normal = [0.0; 2];
        normal[fixed] = sign;
        let outline = clipped(&self.outlines[0], normal, sign * at);
        let sides = vec![Face::Shell; outline.len()];
        Some(Self::prism(self.axis, self.span, outline, sides, self.ends))
    }

    /// The same with every face moved inward by a distance (m; outward where negative); `None` where nothing is left.
    pub fn inset(&self, by: impl Fn(Face) -> f64) -> Option<Self> {
        let span = [self.span[0] + by(self.ends[0]), self.span[1] - by(self.ends[1])];
        let planes = self.planes(&by);
        let [start, end] = span.map(|along| corners(&planes, along));
        let (start, end) = (start?, end?);
        let kept = |before: &[[f64; 2]], after: &[[f64; 2]]| {
            let edges = pairs(before).zip(pairs(after));
            edges
                .into_iter()
                .all(|((a, b), (c, d))| (b[0] - a[0]) * (d[0] - c[0]) + (b[1] - a[1]) * (d[1] - c[1]) > 0.0)
        };
        let sound = span[1] > span[0] && kept(&self.outlines[0], &start) && kept(&self.outlines[1], &end);
        sound.then(|| Self { span, outlines: [start, end], ..self.clone() })
    }

    /// The planes of its sides, moved inward: `n . (u, v) + slope along = limit`, with unit normals in space.
    fn planes(&self, by: &impl Fn(Face) -> f64) -> Vec<Plane> {
        let [start, end] = &self.outlines;
        pairs(start)
            .zip(end)
            .zip(&self.sides)
            .map(|(((a, b), far), face)| {
                let (du, dv) = (b[0] - a[0], b[1] - a[1]);
                let slope = -(dv * (far[0] - a[0]) - du * (far[1] - a[1])) / self.length();
                let size = (du * du + dv * dv + slope * slope).sqrt();
                let normal = [dv / size, -du / size];
                let slope = slope / size;
                let limit = normal[0] * a[0] + normal[1] * a[1] + slope * self.span[0];
                Plane { normal, slope, limit: limit - by(*face) }
            })
            .collect()
    }
}

#[derive(Debug, Clone, Copy)]
struct Plane {
    normal: [f64; 2],
    slope: f64,
    limit: f64,
}

/// Where neighbouring planes meet at a place along the axis; `None` where two are parallel.
fn corners(planes: &[Plane], along: f64) -> Option<Vec<[f64; 2]>> {
    let count = planes.len();
    (0..count)
        .map(|index| {
            let (a, b) = (planes[(index + count - 1) % count], planes[index]);
            let [p, q] = [a, b].map(|plane| plane.limit - plane.slope * along);
            let turn = a.normal[0] * b.normal[1] - a.normal[1] * b.normal[0];
            (turn.abs() > 1e-9).then(|| {
                [(p * b.normal[1] - q * a.normal[1]) / turn, (a.normal[0] * q - b.normal[0] * p) / turn]
            })
        })
        .collect()
}
