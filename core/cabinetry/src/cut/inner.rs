//! What stands inside: braces, partitions, the boards of folds and slots, strips.

use super::flat::{Edge, EdgeJoint, FlatPart, bounds};
use crate::body::{Body, Panel};
use crate::cabinet::Cabinet;
use crate::contents::Contents;
use crate::geometry::{Point, area, area_vector, cross, dot, length, minus, unit};
use crate::panel::{Location, walls};
use crate::part::{Part, PartKind, Piece};

/// All of them, those alike together.
pub(super) fn inner(body: &Body, contents: &Contents, cabinet: &Cabinet) -> Vec<FlatPart> {
    let mut parts: Vec<FlatPart> = cabinet
        .parts
        .iter()
        .filter(|part| part.kind.is_panel())
        .flat_map(|part| mounted(body, part))
        .collect();
    let slots = walls(body, contents, cabinet);
    let slots = slots.iter().filter(|wall| matches!(wall.location, Location::Slot { .. }));
    for wall in slots {
        let name = wall.location.name();
        parts.extend(wall.fields.iter().map(|field| rectangle(&name, wall.panel, field.sides)));
    }
    let mut together: Vec<FlatPart> = Vec::new();
    for part in parts {
        let alike = |other: &&mut FlatPart| {
            other.panel == part.panel
                && other.name == part.name
                && other.size().iter().zip(part.size()).all(|(a, b)| (a - b).abs() < 1e-6)
        };
        match together.iter_mut().find(alike) {
            Some(other) => other.count += part.count,
            None => together.push(part),
        }
    }
    together
}

/// The boards that a part inside is of.
fn mounted(body: &Body, part: &Part) -> Vec<FlatPart> {
    let name = part.name();
    let panel = |thickness: f64| Panel { thickness, layers: 1, inset: 0.0, ..body.panel };
    match part.kind {
        PartKind::Brace => brace(body, part, &name).into_iter().collect(),
        PartKind::Strip => {
            let strip = |piece: &Piece| {
                let Piece::Prism { near, far } = piece else { return None };
                Some(rectangle(
                    "corner strip",
                    panel(body.strips),
                    [body.strips, length(minus(far[0], near[0]))],
                ))
            };
            part.pieces.iter().filter_map(strip).collect()
        }
        // What fills the corners of a turn is cut from what is left over, by eye.
        PartKind::Fold | PartKind::Closing => {
            let found = part.pieces.iter().take(1).filter_map(|piece| laid(piece, &name, body));
            // What one buys; a slanting board is drawn between two heights.
            found.map(|flat| FlatPart { panel: panel(body.fold.thickness), ..flat }).collect()
        }
        _ => part.pieces.iter().take(1).filter_map(|piece| laid(piece, &name, body)).collect(),
    }
}

/// A board of square cut.
fn rectangle(name: &str, panel: Panel, [width, height]: [f64; 2]) -> FlatPart {
    let outline = vec![[0.0, 0.0], [width, 0.0], [width, height], [0.0, height]];
    let free = Edge { meets: None, joint: EdgeJoint::Free, bevel: 0.0 };
    FlatPart {
        name: name.to_owned(),
        panel,
        count: 1,
        inner: outline.clone(),
        outer: outline,
        edges: vec![free; 4],
        holes: Vec::new(),
        window: None,
        volume: width * height * panel.total(),
    }
}

/// A brace with its window, from its rails.
fn brace(body: &Body, part: &Part, name: &str) -> Option<FlatPart> {
    let brace = body.braces.get(part.index)?;
    let k = brace.axis.index();
    let (a, b) = ((k + 1) % 3, (k + 2) % 3);
    let all: Vec<[Point; 2]> = part.pieces.iter().map(Piece::bounds).collect();
    let low = [a, b].map(|side| all.iter().map(|[low, _]| low[side]).fold(f64::INFINITY, f64::min));
    let high = [a, b].map(|side| all.iter().map(|[_, high]| high[side]).fold(f64::NEG_INFINITY, f64::max));
    let size = [high[0] - low[0], high[1] - low[1]];
    let panel = Panel { thickness: brace.thickness, layers: 1, inset: 0.0, ..body.panel };
    let mut flat = rectangle(name, panel, size);
    if let [first, second, third, fourth] = all.as_slice() {
        let window =
            [[first[1][a] - low[0], third[1][b] - low[1]], [second[0][a] - low[0], fourth[0][b] - low[1]]];
        let open = (window[1][0] - window[0][0]) * (window[1][1] - window[0][1]);
        flat.volume -= open * brace.thickness;
        flat.window = Some(window);
    }
    Some(flat)
}

/// A board that is mounted as one piece: the thinnest of its three directions is its thickness.
fn laid(piece: &Piece, name: &str, body: &Body) -> Option<FlatPart> {
    let panel = |thickness: f64| Panel { thickness, layers: 1, inset: 0.0, ..body.panel };
    match piece {
        Piece::Block { low, high } => {
            let mut sides = [0, 1, 2].map(|k| high[k] - low[k]);
            sides.sort_by(f64::total_cmp);
            Some(rectangle(name, panel(sides[0]), [sides[2], sides[1]]))
        }
        Piece::Prism { near, far } => prism(near, far, name, body),
        Piece::Rod { .. } => None,
    }
}

/// A board between two equal outlines: across them it is as wide as they are apart; of an outline of four corners the two long sides are its
/// faces, else it lies flat in its outline.
fn prism(near: &[Point], far: &[Point], name: &str, body: &Body) -> Option<FlatPart> {
    let apart = length(minus(*far.first()?, *near.first()?));
    let sides: Vec<f64> =
        (0..near.len()).map(|k| length(minus(near[(k + 1) % near.len()], near[k]))).collect();
    let thickness = sides.iter().copied().fold(f64::INFINITY, f64::min);
    let panel = |thickness: f64| Panel { thickness, layers: 1, inset: 0.0, ..body.panel };
    if near.len() != 4 || apart < thickness {
        return Some(flat_outline(near, apart, name, panel(apart)));
    }
    // Two faces and two ends, mitred or square.
    let (first, other) = if sides[0].max(sides[2]) >= sides[1].max(sides[3]) { (0, 2) } else { (1, 3) };
    let way = unit(minus(near[(first + 1) % 4], near[first]));
    let back = minus(near[other], near[first]);
    let square = length(cross(way, back));
    // Where the second face begins and ends along the first.
    let ends = [near[(other + 1) % 4], near[other]].map(|corner| dot(minus(corner, near[first]), way));
    let one = vec![[0.0, 0.0], [sides[first], 0.0], [sides[first], apart], [0.0, apart]];
    let two = vec![[ends[0], 0.0], [ends[1], 0.0], [ends[1], apart], [ends[0], apart]];
    let mut flat = rectangle(name, panel(square), [sides[first], apart]);
    let bevels = [0.0, (sides[first] - ends[1]) / square, 0.0, ends[0] / square];
    flat.edges =
        bevels.map(|moved: f64| Edge { meets: None, joint: EdgeJoint::Free, bevel: moved.atan() }).to_vec();
    flat.volume = length(area_vector(near)) / 2.0 * apart;
    let [low, _] = bounds(one.iter().chain(&two));
    let moved = |outline: Vec<[f64; 2]>| -> Vec<[f64; 2]> {
        outline.into_iter().map(|point| [point[0] - low[0], point[1] - low[1]]).collect()
    };
    (flat.outer, flat.inner) = (moved(one), moved(two));
    Some(flat)
}

/// A board that lies flat in an outline, so thick (m).
fn flat_outline(corners: &[Point], thickness: f64, name: &str, panel: Panel) -> FlatPart {
    let normal = unit(area_vector(corners));
    let u = unit(minus(corners[1], corners[0]));
    let v = cross(normal, u);
    let mut outline: Vec<[f64; 2]> = corners
        .iter()
        .map(|corner| minus(*corner, corners[0]))
        .map(|way| [dot(way, u), dot(way, v)])
        .collect();
    let [low, _] = bounds(outline.iter());
    outline.iter_mut().for_each(|point| *point = [point[0] - low[0], point[1] - low[1]]);
    let free = Edge { meets: None, joint: EdgeJoint::Free, bevel: 0.0 };
    FlatPart {
        name: name.to_owned(),
        panel,
        count: 1,
        edges: vec![free; outline.len()],
        volume: area(&outline).abs() * thickness,
        inner: outline.clone(),
        outer: outline,
        holes: Vec::new(),
        window: None,
    }
}
