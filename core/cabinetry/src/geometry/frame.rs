//! Places on a face.

use super::solid::Solid;
use super::vector::Point;
use super::vector::{along, cross, dot, minus, unit};
use super::{Axis, Face};

/// A flat face with coordinates on it: `u` level, from the left as seen from the front or from the back; `v` up the
/// board, of lids and floors from the back.
#[derive(Debug, Clone, PartialEq)]
pub struct Frame {
    /// Which face.
    pub face: Face,
    /// Out of the cabinet, of length 1.
    pub normal: Point,
    /// Direction of `u`, of length 1.
    pub u: Point,
    /// Direction of `v`, of length 1.
    pub v: Point,
    /// The point that `u` and `v` are measured from: the lowest of both on the outer side.
    pub origin: Point,
    /// Largest `u` and `v`, m.
    pub size: [f64; 2],
}

impl Frame {
    /// The frame of a face; `None` where the body has no such face, or it is not flat.
    pub fn of(body: &Solid, face: Face) -> Option<Self> {
        let facets: Vec<_> = body.facets().into_iter().filter(|facet| facet.face == face).collect();
        let [facet] = facets.as_slice() else { return None };
        let normal = unit(area_vector(&facet.corners));
        let up: Point = [0.0, 1.0, 0.0];
        let (u, v): (Point, Point) = if normal[1].abs() > 0.99 {
            ([1.0, 0.0, 0.0], [0.0, 0.0, 1.0])
        } else {
            let level = unit(cross(up, normal));
            let turned = level[0] + 1e-6 * level[2] < 0.0;
            let u = if turned { level.map(|value| -value) } else { level };
            (u, unit(minus(up, along([0.0; 3], normal, dot(up, normal)))))
        };
        let spread = |direction: Point| {
            let all = facet.corners.iter().map(|corner| dot(*corner, direction));
            all.fold([f64::INFINITY, f64::NEG_INFINITY], |[low, high], at| [low.min(at), high.max(at)])
        };
        let ([left, right], [low, high]) = (spread(u), spread(v));
        let level = dot(facet.corners[0], normal);
        let origin = along(along(along([0.0; 3], u, left), v, low), normal, level);
        Some(Self { face, normal, u, v, origin, size: [right - left, high - low] })
    }

    /// A place on the outer side, or so deep (m) behind it.
    pub fn point(&self, [u, v]: [f64; 2], deep: f64) -> Point {
        along(along(along(self.origin, self.u, u), self.v, v), self.normal, -deep)
    }

    /// The axis it looks along; `None` for a slanting face.
    pub fn axis(&self) -> Option<Axis> {
        Axis::ALL.into_iter().find(|axis| self.normal[axis.index()].abs() > 1.0 - 1e-9)
    }
}

/// Twice the area of a flat polygon in space, along its normal, m2.
pub fn area_vector(corners: &[Point]) -> Point {
    let next = corners.iter().cycle().skip(1);
    corners.iter().zip(next).map(|(a, b)| cross(*a, *b)).fold([0.0; 3], |sum, part| along(sum, part, 1.0))
}
