//! Arithmetic of places.

/// A place: across, up, forward, m.
pub type Point = [f64; 3];

/// Smallest and largest coordinates of points, m.
pub(crate) fn bounds(points: impl Iterator<Item = Point>) -> [Point; 2] {
    points.fold([[f64::INFINITY; 3], [f64::NEG_INFINITY; 3]], |[low, high], point| {
        [[0, 1, 2].map(|k| low[k].min(point[k])), [0, 1, 2].map(|k| high[k].max(point[k]))]
    })
}

/// The scalar product.
pub fn dot(a: Point, b: Point) -> f64 {
    a[0] * b[0] + a[1] * b[1] + a[2] * b[2]
}

pub(crate) fn cross(a: Point, b: Point) -> Point {
    [a[1] * b[2] - a[2] * b[1], a[2] * b[0] - a[0] * b[2], a[0] * b[1] - a[1] * b[0]]
}

/// The way from the second point to the first.
pub fn minus(a: Point, b: Point) -> Point {
    [a[0] - b[0], a[1] - b[1], a[2] - b[2]]
}

/// A place so far (m) in a direction from another.
pub(crate) fn along(from: Point, direction: Point, far: f64) -> Point {
    [0, 1, 2].map(|k| from[k] + far * direction[k])
}

pub(crate) fn length(a: Point) -> f64 {
    dot(a, a).sqrt()
}

pub(crate) fn unit(a: Point) -> Point {
    let size = length(a);
    a.map(|value| value / size)
}
