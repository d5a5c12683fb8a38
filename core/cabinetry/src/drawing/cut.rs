//! Cuts of a body by a plane.

use crate::geometry::{Axis, Point, Solid};

/// The outline where a plane across an axis cuts a body, as points in space in order; empty where it misses.
pub fn cut(body: &Solid, axis: Axis, at: f64) -> Vec<Point> {
    let k = axis.index();
    let mut pieces: Vec<[Point; 2]> = Vec::new();
    for facet in body.facets() {
        let next = facet.corners.iter().cycle().skip(1);
        let mut crossings: Vec<Point> = facet
            .corners
            .iter()
            .zip(next)
            .filter(|(a, b)| (a[k] <= at) != (b[k] <= at))
            .map(|(a, b)| {
                let part = (at - a[k]) / (b[k] - a[k]);
                [0, 1, 2].map(|j| a[j] + part * (b[j] - a[j]))
            })
            .collect();
        // A face with a step in it is left and entered again: crossings pair up in order along the cut.
        crossings.sort_by(|a, b| {
            let (first, second) = ((k + 1) % 3, (k + 2) % 3);
            a[first].total_cmp(&b[first]).then(a[second].total_cmp(&b[second]))
        });
        pieces.extend(crossings.chunks_exact(2).map(|pair| [pair[0], pair[1]]));
    }
    chained(pieces)
}

/// Pieces put end to end.
fn chained(mut pieces: Vec<[Point; 2]>) -> Vec<Point> {
    let near = |a: Point, b: Point| (0..3).all(|k| (a[k] - b[k]).abs() < 1e-7);
    let Some([first, mut end]) = pieces.pop() else { return Vec::new() };
    let mut points = vec![first, end];
    while let Some(index) = pieces.iter().position(|[a, b]| near(*a, end) || near(*b, end)) {
        let [a, b] = pieces.swap_remove(index);
        end = if near(a, end) { b } else { a };
        points.push(end);
    }
    points.pop();
    points
}
