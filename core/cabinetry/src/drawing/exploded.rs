//! All boards drawn apart, obliquely.

use super::{Drawing, Line, View};
use crate::body::Body;
use crate::cabinet::Cabinet;
use crate::contents::Contents;
use crate::geometry::{Face, Point, along, area_vector, cross, dot, minus, unit};
use crate::part::{Part, Piece};

/// How far boards stand apart, over the largest size.
const APART: f64 = 0.45;

/// Boards, braces and partition each moved out of the middle, seen from the front, right and above.
pub fn exploded(body: &Body, contents: &Contents, cabinet: &Cabinet) -> Drawing {
    let mut drawing = Drawing::empty(View::Exploded);
    let [low, high] = cabinet.outer.bounds();
    let middle: Point = [0, 1, 2].map(|k| f64::midpoint(low[k], high[k]));
    let apart = APART * (0..3).map(|k| high[k] - low[k]).fold(0.0, f64::max);
    // Cabinet projection: what goes back is drawn at half its length, at 30 degrees.
    let flat = |[x, y, z]: Point| [x - 0.5 * z * 0.866, y - 0.5 * z * 0.5];
    let mut bodies: Vec<Apart> = Vec::new();
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
        bodies.push(Apart {
            name: format!("board {}", facet.face.name()),
            faces,
            holes: holes(contents, cabinet, facet.face)
                .into_iter()
                .map(|hole| hole.into_iter().map(|point| along(point, normal, apart)).collect())
                .collect(),
            before: seat[2] + 0.3 * seat[1] - 0.2 * (seat[0] - middle[0]),
        });
    }
    for part in &cabinet.parts {
        for piece in &part.pieces {
            if let Piece::Prism { near, far } = piece {
                let [_, high] = piece.bounds();
                // Outlines run round as seen from outside.
                let outward = dot(area_vector(near), minus(near[0], far[0])) > 0.0;
                let faces = if outward { around(near, far) } else { around(far, near) };
                bodies.push(Apart { name: part.name(), faces, holes: Vec::new(), before: high[2] });
                continue;
            }
            let Piece::Block { low, high } = *piece else { continue };
            let corner = |bits: usize| [0, 1, 2].map(|k| if bits >> k & 1 == 1 { high[k] } else { low[k] });
            let quads = [[0, 2, 6, 4], [0, 1, 3, 2], [0, 4, 5, 1], [1, 5, 7, 3], [2, 3, 7, 6], [4, 6, 7, 5]];
            let faces = quads.map(|quad| quad.map(corner).to_vec()).to_vec();
            bodies.push(Apart { name: part.name(), faces, holes: Vec::new(), before: high[2] });
        }
    }
    bodies.sort_by(|a, b| a.before.total_cmp(&b.before));
    for Apart { name, faces, holes, .. } in bodies {
        let faces = faces.into_iter().map(|face| (Line::Cut, face));
        let holes = holes.into_iter().map(|hole| (Line::Air, hole));
        for (line, outline) in faces.chain(holes) {
            // Only what looks at the reader.
            let points: Vec<_> = outline.into_iter().map(flat).collect();
            if crate::geometry::area(&points) > 1e-9 {
                drawing.polygon(&name, line, points);
            }
        }
    }
    drawing.labels = labels;
    drawing.bounded()
}

/// Something moved out of the middle.
struct Apart {
    name: String,
    faces: Vec<Vec<Point>>,
    /// Outlines of what is cut out of its outer side.
    holes: Vec<Vec<Point>>,
    /// What is more before is drawn later.
    before: f64,
}

/// Corners of a round hole.
const ROUND: usize = 36;

/// What is cut out of a board, as outlines on its outer side that run round as seen from there.
fn holes(contents: &Contents, cabinet: &Cabinet, face: Face) -> Vec<Vec<Point>> {
    let outline = |part: &Part| -> Option<Vec<Point>> {
        let hole = cabinet.hole(part, contents)?;
        let (u, v) = (hole.level, cross(hole.normal, hole.level));
        let at = |[a, b]: [f64; 2]| along(along(hole.outer, u, a), v, b);
        let [w, h] = hole.size.map(|size| size / 2.0);
        Some(match hole.corner {
            _ if hole.round => (0..ROUND)
                .map(|step| {
                    let angle = 2.0 * std::f64::consts::PI * step as f64 / ROUND as f64;
                    at([angle.cos(), angle.sin()].map(|part| part * w))
                })
                .collect(),
            Some(inward) if inward > 0.0 => [[-w, -h], [w, -h], [-w, h]].map(at).to_vec(),
            Some(_) => [[w, -h], [w, h], [-w, -h]].map(at).to_vec(),
            None => [[-w, -h], [w, -h], [w, h], [-w, h]].map(at).to_vec(),
        })
    };
    cabinet.parts.iter().filter(|part| part.face == Some(face)).filter_map(outline).collect()
}

/// The surface between two outlines: both of them, and what joins them.
fn around(near: &[Point], far: &[Point]) -> Vec<Vec<Point>> {
    let count = near.len();
    let mut faces = vec![far.iter().rev().copied().collect::<Vec<_>>()];
    faces.extend((0..count).map(|k| vec![near[k], far[k], far[(k + 1) % count], near[(k + 1) % count]]));
    faces.push(near.to_vec());
    faces
}
