//! What stands inside: braces, partitions, the boards of folds and slots, strips.

use super::flat::{Edge, FlatHole, FlatPart, bounds};
use super::hole::{bolts, kind};
use super::joint::{Housed, Joints, dado};
use crate::body::{Body, Panel};
use crate::cabinet::Cabinet;
use crate::contents::Contents;
use crate::geometry::{
    Axis, EnclosureShape, Face, Point, Solid, area, area_vector, cross, dot, length, minus, unit,
};
use crate::panel::{Location, walls};
use crate::part::{Part, PartKind, Piece};

/// All of them, those alike together, and what they need of the outer boards.
pub(super) fn inner(
    body: &Body,
    contents: &Contents,
    cabinet: &Cabinet,
    joints: &Joints,
) -> (Vec<FlatPart>, Vec<Housed>) {
    let mut housed = Vec::new();
    let mut parts: Vec<FlatPart> = Vec::new();
    for part in cabinet.parts.iter().filter(|part| part.kind.is_panel()) {
        let into = if joints.housed { house(body, cabinet, part) } else { Vec::new() };
        parts.extend(mounted(body, contents, cabinet, part, &into));
        housed.extend(into);
    }
    let slots = walls(body, contents, cabinet);
    let slots = slots.iter().filter(|wall| matches!(wall.location, Location::Slot { .. }));
    for wall in slots {
        let name = wall.location.name();
        parts.extend(wall.fields.iter().map(|field| FlatPart::rectangle(&name, wall.panel, field.sides)));
    }
    let mut together: Vec<FlatPart> = Vec::new();
    for part in parts {
        match together.iter_mut().find(|other| other.is_alike(&part)) {
            Some(other) => other.count += part.count,
            None => together.push(part),
        }
    }
    (together, housed)
}

/// The two opposite boards that a brace or partition stands in: those beside it, of an upright one across the box those above and below.
/// Only in a box of right angles, and not where boards lie in its corners.
fn house(body: &Body, cabinet: &Cabinet, part: &Part) -> Vec<Housed> {
    let stands = matches!(part.kind, PartKind::Brace | PartKind::Partition);
    if !stands || body.shape != EnclosureShape::Rectangular || body.strips > 0.0 {
        return Vec::new();
    }
    let all: Vec<[Point; 2]> = part.pieces.iter().map(Piece::bounds).collect();
    let Some(axis) = thin(body, part, &all) else { return Vec::new() };
    let Some([low, high]) = around(&all) else { return Vec::new() };
    let [bottom, top] = cabinet.interior.bounds();
    let (along, faces) = match axis {
        Axis::X => (1, [Face::Bottom, Face::Top]),
        Axis::Y | Axis::Z => (0, [Face::Left, Face::Right]),
    };
    let third = 3 - axis.index() - along;
    let stand = |(face, [at, wall]): (Face, [f64; 2])| {
        let depth = dado(body.panel(face).thickness);
        let corner = |thin: f64, wide: f64| {
            let mut point = [0.0; 3];
            (point[along], point[axis.index()], point[third]) = (at, thin, wide);
            point
        };
        let k = axis.index();
        let outline = [
            corner(low[k], low[third]),
            corner(high[k], low[third]),
            corner(high[k], high[third]),
            corner(low[k], high[third]),
        ];
        ((at - wall).abs() < 1e-6).then(|| Housed { what: part.name(), face, outline, depth })
    };
    let ends = [[low[along], bottom[along]], [high[along], top[along]]];
    faces.into_iter().zip(ends).filter_map(stand).collect()
}

fn around(all: &[[Point; 2]]) -> Option<[Point; 2]> {
    let first = *all.first()?;
    Some(all.iter().fold(first, |[low, high], [from, to]| {
        [[0, 1, 2].map(|k| low[k].min(from[k])), [0, 1, 2].map(|k| high[k].max(to[k]))]
    }))
}

/// The direction that a board stands across.
fn thin(body: &Body, part: &Part, all: &[[Point; 2]]) -> Option<Axis> {
    if part.kind == PartKind::Brace {
        return Some(body.braces.get(part.index)?.axis);
    }
    let [low, high] = around(all)?;
    let wide = |axis: &Axis| high[axis.index()] - low[axis.index()];
    Axis::ALL.into_iter().min_by(|a, b| wide(a).total_cmp(&wide(b)))
}

/// Level and up on a board across an axis, as positions of coordinates.
fn plane(axis: Axis) -> [usize; 2] {
    match axis {
        Axis::X => [2, 1],
        Axis::Y => [0, 2],
        Axis::Z => [0, 1],
    }
}

/// The boards that a part inside is of.
fn mounted(
    body: &Body,
    contents: &Contents,
    cabinet: &Cabinet,
    part: &Part,
    housed: &[Housed],
) -> Vec<FlatPart> {
    let name = part.name();
    let panel = |thickness: f64| Panel { thickness, layers: 1, inset: 0.0, ..body.panel };
    match part.kind {
        PartKind::Strip => {
            let strip = |piece: &Piece| {
                let Piece::Prism { near, far } = piece else { return None };
                let size = [body.strips, length(minus(far[0], near[0]))];
                Some(FlatPart::rectangle("corner strip", panel(body.strips), size))
            };
            part.pieces.iter().filter_map(strip).collect()
        }
        PartKind::Brace | PartKind::Partition | PartKind::ChamberEnd => {
            let square = part.kind == PartKind::Brace
                || part.pieces.iter().all(|piece| matches!(piece, Piece::Block { .. }));
            let board = if square {
                across(body, contents, cabinet, part, housed)
            } else {
                part.pieces.first().and_then(|piece| laid(piece, &name, body).map(|(flat, _)| flat))
            };
            board.into_iter().collect()
        }
        // What fills the corners of a turn is cut from what is left over, by eye.
        PartKind::Fold | PartKind::Closing => {
            let Some(piece) = part.pieces.first() else { return Vec::new() };
            let Some((mut flat, lie)) = laid(piece, &name, body) else { return Vec::new() };
            flat.holes = inside(contents, cabinet, &lie);
            // What one buys; a slanting board is found from its corners to rounding.
            flat.panel = panel(body.fold.thickness);
            vec![flat]
        }
        _ => Vec::new(),
    }
}

/// Where a board lies that is laid flat: a point of its lowest corner, level and up on it, its thickness (m) and its size.
struct Lie {
    origin: Point,
    ways: [Point; 2],
    thickness: f64,
}

/// A board square to the box: a partition, an end of a chamber, a brace with its window.
fn across(
    body: &Body,
    contents: &Contents,
    cabinet: &Cabinet,
    part: &Part,
    housed: &[Housed],
) -> Option<FlatPart> {
    let all: Vec<[Point; 2]> = part.pieces.iter().map(Piece::bounds).collect();
    let axis = thin(body, part, &all)?;
    let [mut low, mut high] = around(&all)?;
    let k = axis.index();
    let thickness = high[k] - low[k];
    let [a, b] = plane(axis);
    for stand in housed {
        let along = usize::from(matches!(stand.face, Face::Top | Face::Bottom));
        match stand.face {
            Face::Left | Face::Bottom => low[along] -= stand.depth,
            _ => high[along] += stand.depth,
        }
    }
    let base = match part.kind {
        PartKind::Brace => body.panel,
        _ => body.partition,
    };
    // A partition of several layers is as thick as all of them.
    let layers = if part.kind == PartKind::Brace { 1 } else { base.layers.max(1) };
    let panel = Panel { thickness: thickness / f64::from(layers), layers: 1, inset: 0.0, ..base };
    let mut flat = FlatPart::rectangle(&part.name(), panel, [high[a] - low[a], high[b] - low[b]]);
    flat.count = layers;
    if let [first, second, third, fourth] = all.as_slice() {
        let (window, open) = window([first, second, third, fourth], [a, b], [low[a], low[b]]);
        flat.volume -= open * panel.thickness;
        let [[left, below], [right, above]] = window;
        flat.window = Some(vec![[left, below], [right, below], [right, above], [left, above]]);
    }
    let shaped = !matches!(body.shape, EnclosureShape::Rectangular | EnclosureShape::Step { .. });
    if part.kind == PartKind::Brace && shaped {
        let at = f64::midpoint(low[k], high[k]);
        let open = body.braces.get(part.index).map_or(0.0, |brace| brace.open);
        fit(&mut flat, &cabinet.chambers[part.chamber].interior, (axis, at), [low[a], low[b]], open);
    }
    flat.holes = inside(contents, cabinet, &Lie { origin: low, ways: [axis_way(a), axis_way(b)], thickness });
    Some(flat)
}

/// Along one axis.
fn axis_way(k: usize) -> Point {
    let mut way = [0.0; 3];
    way[k] = 1.0;
    way
}

/// A brace cut to a room that is no box: to its outline where the brace stands, with a window of the same shape in its middle.
fn fit(flat: &mut FlatPart, interior: &Solid, (axis, at): (Axis, f64), corner: [f64; 2], open: f64) {
    let [a, b] = plane(axis);
    let section = crate::drawing::cut(interior, axis, at);
    let mut outline: Vec<[f64; 2]> =
        section.iter().map(|point| [point[a] - corner[0], point[b] - corner[1]]).collect();
    if outline.len() < 3 {
        return;
    }
    if area(&outline) < 0.0 {
        outline.reverse();
    }
    let count = outline.len() as f64;
    let middle = [0, 1].map(|k| outline.iter().map(|point| point[k]).sum::<f64>() / count);
    let inner = |point: &[f64; 2]| [0, 1].map(|k| middle[k] + open.sqrt() * (point[k] - middle[k]));
    flat.window = (open > 0.0).then(|| outline.iter().map(inner).collect());
    flat.volume = area(&outline) * (1.0 - open.max(0.0)) * flat.panel.thickness;
    flat.edges = vec![Edge::free(); outline.len()];
    (flat.inner, flat.outer) = (outline.clone(), outline);
}

/// The window between four rails, from a corner (m), and its area, m2.
fn window(
    [first, second, third, fourth]: [&[Point; 2]; 4],
    [a, b]: [usize; 2],
    corner: [f64; 2],
) -> ([[f64; 2]; 2], f64) {
    // Which two rails lie beside the window and which above and below it depends on the order they were laid in.
    let rails = [first, second, third, fourth];
    let spans = |k: usize| {
        let low = rails.iter().map(|rail| rail[0][k]).fold(f64::INFINITY, f64::min);
        let high = rails.iter().map(|rail| rail[1][k]).fold(f64::NEG_INFINITY, f64::max);
        let from = rails
            .iter()
            .filter(|rail| (rail[0][k] - low).abs() < 1e-9 && rail[1][k] < high - 1e-9)
            .map(|rail| rail[1][k])
            .fold(f64::INFINITY, f64::min);
        let to = rails
            .iter()
            .filter(|rail| (rail[1][k] - high).abs() < 1e-9 && rail[0][k] > low + 1e-9)
            .map(|rail| rail[0][k])
            .fold(f64::NEG_INFINITY, f64::max);
        [from, to]
    };
    let ([left, right], [below, above]) = (spans(a), spans(b));
    let window = [[left - corner[0], below - corner[1]], [right - corner[0], above - corner[1]]];
    (window, (right - left) * (above - below))
}

/// The holes in a board inside for what is mounted in it.
fn inside(contents: &Contents, cabinet: &Cabinet, lie: &Lie) -> Vec<FlatHole> {
    let normal = cross(lie.ways[0], lie.ways[1]);
    let mut holes = Vec::new();
    for part in cabinet.parts.iter().filter(|part| part.face.is_none()) {
        let Some(hole) = cabinet.hole(part, contents) else { continue };
        let from = minus(hole.outer, lie.origin);
        // Its opening lies on one side of this board, whichever.
        let far = dot(from, normal).abs();
        let along = dot(hole.normal, normal).abs();
        if along < 0.99 || far > lie.thickness + NEAR {
            continue;
        }
        let at = lie.ways.map(|way| dot(from, way));
        holes.push(FlatHole {
            what: part.name(),
            kind: kind(part),
            at,
            size: hole.size,
            round: hole.round,
            corner: hole.corner,
            depth: None,
        });
        holes.extend(bolts(part, contents, at));
    }
    holes
}

/// How far off a board what is mounted in it may begin, m.
const NEAR: f64 = 0.003;

/// A board that is mounted as one piece: the thinnest of its three directions is its thickness.
fn laid(piece: &Piece, name: &str, body: &Body) -> Option<(FlatPart, Lie)> {
    match piece {
        Piece::Block { low, high } => {
            let wide = |axis: &Axis| high[axis.index()] - low[axis.index()];
            let axis = Axis::ALL.into_iter().min_by(|a, b| wide(a).total_cmp(&wide(b)))?;
            let [a, b] = plane(axis);
            let thickness = high[axis.index()] - low[axis.index()];
            let panel = Panel { thickness, layers: 1, inset: 0.0, ..body.panel };
            let flat = FlatPart::rectangle(name, panel, [high[a] - low[a], high[b] - low[b]]);
            Some((flat, Lie { origin: *low, ways: [a, b].map(axis_way), thickness }))
        }
        Piece::Prism { near, far } => prism(near, far, name, body),
        Piece::Rod { .. } => None,
    }
}

/// A board between two equal outlines: across them it is as wide as they are apart; of an outline of four corners the two long sides are its
/// faces, else it lies flat in its outline.
fn prism(near: &[Point], far: &[Point], name: &str, body: &Body) -> Option<(FlatPart, Lie)> {
    let across = minus(*far.first()?, *near.first()?);
    let apart = length(across);
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
    let mut flat = FlatPart::rectangle(name, panel(square), [sides[first], apart]);
    let bevels = [0.0, (sides[first] - ends[1]) / square, 0.0, ends[0] / square];
    flat.edges = bevels.map(|moved: f64| Edge { bevel: moved.atan(), ..Edge::free() }).to_vec();
    flat.volume = length(area_vector(near)) / 2.0 * apart;
    let [low, _] = bounds(one.iter().chain(&two));
    let moved = |outline: Vec<[f64; 2]>| -> Vec<[f64; 2]> {
        outline.into_iter().map(|point| [point[0] - low[0], point[1] - low[1]]).collect()
    };
    let up = unit(across);
    let origin = [0, 1, 2].map(|k| near[first][k] + low[0] * way[k] + low[1] * up[k]);
    (flat.outer, flat.inner) = (moved(one), moved(two));
    Some((flat, Lie { origin, ways: [way, up], thickness: square }))
}

/// A board that lies flat in an outline, so thick (m).
fn flat_outline(corners: &[Point], thickness: f64, name: &str, panel: Panel) -> (FlatPart, Lie) {
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
    let origin = [0, 1, 2].map(|k| corners[0][k] + low[0] * u[k] + low[1] * v[k]);
    let flat = FlatPart {
        edges: vec![Edge::free(); outline.len()],
        volume: area(&outline).abs() * thickness,
        inner: outline.clone(),
        outer: outline,
        ..FlatPart::rectangle(name, panel, [1.0, 1.0])
    };
    (flat, Lie { origin, ways: [u, v], thickness })
}
