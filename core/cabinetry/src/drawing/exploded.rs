//! All boards drawn apart, obliquely.

use super::{Drawing, Line, View};
use crate::body::Body;
use crate::build::Cabinet;
use crate::geometry::{Point, along, area_vector, dot, minus, unit};
use crate::place::Piece;

/// How far boards stand apart, over the largest size.
const APART: f64 = 0.45;

/// Boards, braces and partition each moved out of the middle, seen from the front, right and above.
pub fn exploded(body: &Body, cabinet: &Cabinet) -> Drawing {
    let mut drawing = Drawing::empty(View::Exploded);
    let [low, high] = cabinet.outer.bounds();
    let middle: Point = [0, 1, 2].map(|k| f64::midpoint(low[k], high[k]));
    let apart = APART * (0..3).map(|k| high[k] - low[k]).fold(0.0, f64::max);
    // Cabinet projection: what goes back is drawn at half its length, at 30 degrees.
    let flat = |[x, y, z]: Point| [x - 0.5 * z * 0.866, y - 0.5 * z * 0.5];
    let mut bodies: Vec<(String, Vec<Vec<Point>>, f64)> = Vec::new();
    let mut labels: Vec<([f64; 2], String)> = Vec::new();
    for facet in cabinet.outer.facets() {
        let normal = unit(area_vector(&facet.corners));
        let thick = body.panel(facet.face).total();
        let out = |deep: f64| -> Vec<Point> {
            facet.corners.iter().map(|corner| along(*corner, normal, apart - deep)).collect()
        };
        let (near, far) = (out(0.0), out(thick));
        let faces = around(&near, &far);
        let centre = |points: &[Point]| {
            [0, 1, 2].map(|k| points.iter().map(|p| p[k]).sum::<f64>() / points.len() as f64)
        };
        let seat = centre(&near);
        // A pipe's wall is many pieces of one board.
        if labels.iter().all(|(_, name)| *name != facet.face.name()) {
            labels.push((flat(seat), facet.face.name()));
        }
        bodies.push((
            format!("board {}", facet.face.name()),
            faces,
            seat[2] + 0.3 * seat[1] - 0.2 * (seat[0] - middle[0]),
        ));
    }
    for part in &cabinet.parts {
        for piece in &part.pieces {
            if let Piece::Prism { near, far } = piece {
                let [_, high] = piece.bounds();
                // Outlines run round as seen from outside.
                let outward = dot(area_vector(near), minus(near[0], far[0])) > 0.0;
                let faces = if outward { around(near, far) } else { around(far, near) };
                bodies.push((part.name(), faces, high[2]));
                continue;
            }
            let Piece::Block { low, high } = *piece else { continue };
            let corner = |bits: usize| [0, 1, 2].map(|k| if bits >> k & 1 == 1 { high[k] } else { low[k] });
            let quads = [[0, 2, 6, 4], [0, 1, 3, 2], [0, 4, 5, 1], [1, 5, 7, 3], [2, 3, 7, 6], [4, 6, 7, 5]];
            let faces = quads.map(|quad| quad.map(corner).to_vec()).to_vec();
            bodies.push((part.name(), faces, high[2]));
        }
    }
    bodies.sort_by(|a, b| a.2.total_cmp(&b.2));
    for (name, faces, _) in bodies {
        for face in faces {
            // Only what looks at the reader.
            let points: Vec<_> = face.into_iter().map(flat).collect();
            if crate::geometry::area(&points) > 1e-9 {
                drawing.polygon(&name, Line::Cut, points);
            }
        }
    }
    drawing.labels = labels;
    drawing.bounded()
}

/// The surface between two outlines: both of them, and what joins them.
fn around(near: &[Point], far: &[Point]) -> Vec<Vec<Point>> {
    let count = near.len();
    let mut faces = vec![far.iter().rev().copied().collect::<Vec<_>>()];
    faces.extend((0..count).map(|k| vec![near[k], far[k], far[(k + 1) % count], near[(k + 1) % count]]));
    faces.push(near.to_vec());
    faces
}
