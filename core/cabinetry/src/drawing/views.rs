//! Front, side section and plan.

use super::{Drawing, Line, Measure, Ring, Stroke, View, cut, millimetres};
use crate::body::Body;
use crate::cabinet::Cabinet;
use crate::contents::{Contents, Pair, RIM};
use crate::geometry::{Axis, Face, Point, Solid, area_vector, dot, length, minus, unit};
use crate::part::{Part, PartKind, Piece};
use crate::place::{MountingFace, Mouth};
use oak_acoustics::medium::CrossSection;

/// Draws a view.
pub fn view(view: View, body: &Body, contents: &Contents, cabinet: &Cabinet) -> Drawing {
    match view {
        View::Side | View::Plan => section(view, body, contents, cabinet),
        View::Front => front(contents, cabinet),
        View::Exploded => super::exploded(body, contents, cabinet),
    }
}

/// Where a place in space lies on the sheet of a view.
#[derive(Clone, Copy)]
struct Sheet {
    right: Point,
    up: Point,
}

impl Sheet {
    fn of(view: View) -> Self {
        match view {
            View::Side => Self { right: [0.0, 0.0, 1.0], up: [0.0, 1.0, 0.0] },
            View::Plan => Self { right: [1.0, 0.0, 0.0], up: [0.0, 0.0, -1.0] },
            View::Front | View::Exploded => Self { right: [1.0, 0.0, 0.0], up: [0.0, 1.0, 0.0] },
        }
    }

    fn at(self, point: Point) -> [f64; 2] {
        [dot(point, self.right), dot(point, self.up)]
    }

    /// The corners of a block, counter-clockwise.
    fn block(self, low: Point, high: Point) -> Vec<[f64; 2]> {
        let (a, b) = (self.at(low), self.at(high));
        let (x, y) = ([a[0].min(b[0]), a[0].max(b[0])], [a[1].min(b[1]), a[1].max(b[1])]);
        vec![[x[0], y[0]], [x[1], y[0]], [x[1], y[1]], [x[0], y[1]]]
    }

    /// The outline of a prism: as it is where one looks along it, else all it covers.
    fn prism(self, near: &[Point], far: &[Point]) -> Vec<[f64; 2]> {
        let along = near.iter().zip(far).all(|(a, b)| {
            let (a, b) = (self.at(*a), self.at(*b));
            (a[0] - b[0]).hypot(a[1] - b[1]) < 1e-6
        });
        if along {
            return near.iter().map(|point| self.at(*point)).collect();
        }
        let corner = |pick: fn(f64, f64) -> f64, from: f64| {
            [0, 1, 2].map(|k| near.iter().chain(far).fold(from, |at, point| pick(at, point[k])))
        };
        self.block(corner(f64::min, f64::INFINITY), corner(f64::max, f64::NEG_INFINITY))
    }

    /// A rod from one place to another, as wide as at either: `None` where one looks along it.
    fn rod(self, from: Point, to: Point, radii: [f64; 2]) -> Option<Vec<[f64; 2]>> {
        let (a, b) = (self.at(from), self.at(to));
        let far = (b[0] - a[0]).hypot(b[1] - a[1]);
        if far < 1e-6 {
            return None;
        }
        let side = [-(b[1] - a[1]) / far, (b[0] - a[0]) / far];
        let beside = |at: [f64; 2], radius: f64| [at[0] + side[0] * radius, at[1] + side[1] * radius];
        Some(vec![beside(a, -radii[0]), beside(b, -radii[1]), beside(b, radii[1]), beside(a, radii[0])])
    }
}

/// Where a section cuts: through the middle of the drivers.
fn place(view: View, cabinet: &Cabinet) -> (Axis, f64) {
    let [low, high] = cabinet.interior.bounds();
    let axis = if view == View::Side { Axis::X } else { Axis::Y };
    let k = axis.index();
    let driver = cabinet.parts.iter().find(|part| part.kind == PartKind::Driver);
    let middle = f64::midpoint(low[k], high[k]);
    // A driver in a side, or one that looks along the cut, says nothing about where to cut.
    let at = driver.and_then(|part| part.pieces.first()).and_then(|piece| match *piece {
        Piece::Rod { ref from, ref to, .. } if (from[k] - to[k]).abs() < 1e-6 => Some(from[k]),
        _ => None,
    });
    // On a wall there is nothing to cut.
    let edge = (high[k] - low[k]).min(1e-4) / 2.0;
    (axis, at.unwrap_or(middle).clamp(low[k] + edge, high[k] - edge))
}

fn section(view: View, body: &Body, contents: &Contents, cabinet: &Cabinet) -> Drawing {
    let sheet = Sheet::of(view);
    let (axis, at) = place(view, cabinet);
    let flat = |solid: &Solid| -> Vec<[f64; 2]> {
        cut(solid, axis, at).into_iter().map(|point| sheet.at(point)).collect()
    };
    let mut drawing = Drawing::empty(view);
    drawing.polygon("boards", Line::Cut, flat(&cabinet.outer));
    for (index, chamber) in cabinet.chambers.iter().enumerate() {
        let part = if index == 0 { "chamber" } else { "front chamber" };
        drawing.polygon(part, Line::Seen, flat(&chamber.interior));
    }
    if let Some(unused) = &cabinet.unused {
        drawing.polygon("unused space", Line::Seen, flat(unused));
    }
    for layer in &body.fills {
        let interior = &cabinet.chambers[0].interior;
        if let Some([low, high]) = layer.bounds(interior) {
            drawing.polygon(&format!("fill {}", layer.face.name()), Line::Fill, sheet.block(low, high));
        }
    }
    let panels = |part: &&Part| part.kind.is_panel();
    for part in cabinet.parts.iter().filter(panels) {
        for piece in &part.pieces {
            let [low, high] = piece.bounds();
            let k = axis.index();
            let line = if (low[k]..=high[k]).contains(&at) { Line::Cut } else { Line::Seen };
            let points = match piece {
                Piece::Prism { near, far } => sheet.prism(near, far),
                _ => sheet.block(low, high),
            };
            drawing.polygon(&part.name(), line, points);
        }
    }
    for part in cabinet.parts.iter().filter(|part| part.kind == PartKind::Mouth) {
        opening(&mut drawing, sheet, part, contents, cabinet);
    }
    for part in cabinet.parts.iter().filter(|part| part.kind == PartKind::Item) {
        outlined(&mut drawing, sheet, part, Line::Seen);
    }
    // The cut goes through the drivers, so they lie above the ports.
    for part in cabinet.parts.iter().filter(|part| part.kind == PartKind::Port) {
        port(&mut drawing, sheet, part, contents);
    }
    for part in cabinet.parts.iter().filter(|part| matches!(part.kind, PartKind::Driver | PartKind::Radiator))
    {
        cone(&mut drawing, sheet, part, body.recess, contents, cabinet);
    }
    let mut drawing = drawing.bounded();
    let [low, high] = drawing_bounds(&cabinet.outer, sheet);
    let [across, up] = if view == View::Side { ["depth", "height"] } else { ["width", "depth"] };
    measure(&mut drawing, false, [low[0], high[0]], across, Vec::new());
    let heights =
        places(cabinet, contents, sheet, |_| true).into_iter().map(|(at, of)| (at[1], of)).collect();
    measure(&mut drawing, true, [low[1], high[1]], up, heights);
    drawing
}

fn drawing_bounds(solid: &Solid, sheet: Sheet) -> [[f64; 2]; 2] {
    let [low, high] = solid.bounds();
    let corners = sheet.block(low, high);
    [corners[0], corners[2]]
}

/// Where drivers and ports stand on the sheet, as far as they are wanted.
fn places(
    cabinet: &Cabinet,
    contents: &Contents,
    sheet: Sheet,
    wanted: impl Fn(&Part) -> bool,
) -> Vec<([f64; 2], &'static str)> {
    let place = |part: &Part| {
        let of = match part.kind {
            PartKind::Driver => "driver",
            PartKind::Port => "port",
            PartKind::Mouth => "mouth",
            PartKind::Radiator => "radiator",
            _ => return None,
        };
        Some((sheet.at(cabinet.mouth(part, contents)?.outer), of))
    };
    cabinet.parts.iter().filter(|part| wanted(part)).filter_map(place).collect()
}

/// Measures of places from where the whole begins, each in a row of its own, and of the whole outside of them.
fn measure(
    drawing: &mut Drawing,
    upright: bool,
    whole: [f64; 2],
    of: &'static str,
    mut places: Vec<(f64, &'static str)>,
) {
    places.sort_by(|a, b| a.0.total_cmp(&b.0));
    places.dedup_by(|a, b| (a.0 - b.0).abs() < 1e-3);
    places.retain(|(at, _)| at - whole[0] > 1e-3 && whole[1] - at > 1e-3);
    let rows = places.len();
    for (row, (at, of)) in places.into_iter().enumerate() {
        drawing.measures.push(Measure { upright, between: [whole[0], at], row, of });
    }
    drawing.measures.push(Measure { upright, between: whole, row: rows, of });
}

/// The mouth of a way: a hole through its board, and the middle line that leads to it.
fn opening(drawing: &mut Drawing, sheet: Sheet, part: &Part, contents: &Contents, cabinet: &Cabinet) {
    let panel = part.face.and_then(|face| MountingFace::of(cabinet, face));
    let (Some(panel), Some(mouth)) = (panel, cabinet.mouth(part, contents)) else { return };
    let half = mouth.size.map(|size| size / 2.0);
    let corner = |sign: f64, deep: f64| panel.frame.point([0, 1].map(|k| part.at[k] + sign * half[k]), deep);
    drawing.polygon(&part.name(), Line::Air, sheet.block(corner(-1.0, 0.0), corner(1.0, panel.deep)));
    let points = part.path.iter().map(|point| sheet.at(*point)).collect();
    drawing.strokes.push(Stroke { part: "way".to_owned(), line: Line::Middle, closed: false, points });
}

/// A port: its walls and the air in it.
fn port(drawing: &mut Drawing, sheet: Sheet, part: &Part, contents: &Contents) {
    let Some(size) = contents.port(part) else { return };
    let name = part.name();
    outlined(drawing, sheet, part, Line::Cut);
    let long: f64 = part.path.windows(2).map(|pair| length(minus(pair[1], pair[0]))).sum();
    let mut walked = 0.0;
    for (leg, pair) in part.path.windows(2).enumerate() {
        let begun = walked / long;
        walked += length(minus(pair[1], pair[0]));
        let ended = walked / long;
        let (mut from, mut to) = (pair[0], pair[1]);
        let direction = unit([0, 1, 2].map(|k| to[k] - from[k]));
        let half = match size.section {
            CrossSection::Round { radius } => [radius; 2],
            CrossSection::Slot { width, height } => [width / 2.0, height / 2.0],
            CrossSection::Corner { side } => [side / 2.0; 2],
        };
        // Turns are square: the air of a leg reaches through the corner.
        let legs = part.path.len() - 1;
        if leg > 0 {
            from = [0, 1, 2].map(|k| from[k] - direction[k] * half[1]);
        }
        if leg + 1 < legs {
            to = [0, 1, 2].map(|k| to[k] + direction[k] * half[1]);
        }
        // Across the sheet a slot shows its height, seen from above its width.
        let level = sheet.up[1].abs() < 0.5 && matches!(size.section, CrossSection::Slot { .. });
        let shown = if level { half[0] } else { half[1] };
        if size.waist < 1.0 && !level {
            // It narrows to the middle of its way, wherever that is.
            let middle = 0.5_f64.clamp(begun, ended);
            let part = (middle - begun) / (ended - begun);
            let between = [0, 1, 2].map(|k| from[k] + part * (to[k] - from[k]));
            for ([a, b], [s, t]) in [([from, between], [begun, middle]), ([between, to], [middle, ended])] {
                if let Some(points) = sheet.rod(a, b, [s, t].map(|at| shown * size.narrowed(at))) {
                    drawing.polygon(&name, Line::Air, points);
                }
            }
            continue;
        }
        match sheet.rod(from, to, [shown; 2]) {
            Some(points) => drawing.polygon(&name, Line::Air, points),
            None if matches!(size.section, CrossSection::Round { .. }) => {
                let (middle, radius) = (sheet.at(from), half[0]);
                drawing.rings.push(Ring { part: name.clone(), line: Line::Seen, middle, radius });
            }
            None => {}
        }
    }
}

/// A driver or radiator from the side, or its circles where one looks at it.
fn cone(
    drawing: &mut Drawing,
    sheet: Sheet,
    part: &Part,
    recess: f64,
    contents: &Contents,
    cabinet: &Cabinet,
) {
    let name = part.name();
    let Some(Mouth { outer: front, normal, .. }) = cabinet.mouth(part, contents) else { return };
    let deep = |far: f64| [0, 1, 2].map(|k| front[k] - normal[k] * far);
    let drivers = &contents.drivers;
    let (frame, wide, rim, rods) = if part.kind == PartKind::Driver {
        (drivers.frame, drivers.cutout, drivers.rim, drivers.rods(0.0))
    } else {
        let Some(radiators) = contents.radiators else { return };
        (radiators.frame(), radiators.cone, RIM, vec![radiators.rod(0.0)])
    };
    let Some(flange) = sheet.rod(deep(recess), deep(recess - rim), [frame / 2.0; 2]) else {
        for radius in [frame / 2.0, wide / 2.0] {
            drawing.rings.push(Ring {
                part: name.clone(),
                line: Line::Hidden,
                middle: sheet.at(front),
                radius,
            });
        }
        return;
    };
    let pair = drivers.pair.filter(|_| part.kind == PartKind::Driver);
    // A second one in front looks the other way.
    let seats = [
        Some((0.0, 1.0)),
        pair.map(|pair| match pair {
            Pair::Behind(far) => (far, 1.0),
            Pair::Before(gap) => (-gap, -1.0),
        }),
    ];
    for (from, sign) in seats.into_iter().flatten() {
        for (span, radii) in &rods {
            let [near, far] = span.map(|at| deep(from + sign * at));
            drawing.strokes.extend(sheet.rod(near, far, *radii).map(|points| Stroke {
                part: name.clone(),
                line: Line::Metal,
                closed: true,
                points,
            }));
        }
    }
    drawing.polygon(&name, Line::Metal, flange);
}

/// The room that a part takes, as seen on a sheet.
fn outlined(drawing: &mut Drawing, sheet: Sheet, part: &Part, line: Line) {
    let name = part.name();
    for piece in &part.pieces {
        match piece {
            Piece::Prism { near, far } => drawing.polygon(&name, line, sheet.prism(near, far)),
            &Piece::Block { low, high } => drawing.polygon(&name, line, sheet.block(low, high)),
            &Piece::Rod { from, to, radii } => match sheet.rod(from, to, radii) {
                Some(points) => drawing.polygon(&name, line, points),
                None => {
                    let (middle, radius) = (sheet.at(from), radii[0].max(radii[1]));
                    drawing.rings.push(Ring { part: name.clone(), line, middle, radius });
                }
            },
        }
    }
}

fn front(contents: &Contents, cabinet: &Cabinet) -> Drawing {
    let sheet = Sheet::of(View::Front);
    let mut drawing = Drawing::empty(View::Front);
    // What looks forward, the farthest first.
    let mut facing: Vec<_> =
        cabinet.outer.facets().into_iter().filter(|facet| area_vector(&facet.corners)[2] > 1e-9).collect();
    let depth =
        |corners: &[Point]| corners.iter().map(|corner| corner[2]).sum::<f64>() / corners.len() as f64;
    facing.sort_by(|a, b| depth(&a.corners).total_cmp(&depth(&b.corners)));
    for facet in facing {
        let name = format!("board {}", facet.face.name());
        drawing.polygon(&name, Line::Seen, facet.corners.iter().map(|corner| sheet.at(*corner)).collect());
    }
    let [low, high] = cabinet.interior.bounds();
    drawing.polygon("chamber", Line::Hidden, sheet.block(low, high));
    for part in &cabinet.parts {
        let mouth = cabinet.mouth(part, contents).filter(|mouth| mouth.normal[2].abs() > 0.5);
        // Boards, and what looks to a side, show only the room they take.
        let Some(mouth) = mouth else {
            outlined(&mut drawing, sheet, part, Line::Hidden);
            continue;
        };
        let name = part.name();
        let middle = sheet.at(mouth.outer);
        let line = match (part.face == Some(Face::Front), part.kind) {
            (false, _) => Line::Hidden,
            (true, PartKind::Port | PartKind::Mouth) => Line::Air,
            (true, _) => Line::Metal,
        };
        if mouth.round {
            // The widest first: frame, hole, and what moves.
            let hole = cabinet.hole(part, contents).map(|hole| hole.size[0]);
            let circles = contents.frame(part).into_iter().chain(hole);
            for across in circles.chain([mouth.size[0]]) {
                drawing.rings.push(Ring { part: name.clone(), line, middle, radius: across / 2.0 });
            }
            if let (PartKind::Driver, Some(bolts)) = (part.kind, contents.drivers.bolts) {
                for at in bolts.holes() {
                    let middle = [middle[0] + at[0], middle[1] + at[1]];
                    drawing.rings.push(Ring { part: name.clone(), line, middle, radius: bolts.hole / 2.0 });
                }
                drawing.rings.push(Ring {
                    part: name.clone(),
                    line: Line::Middle,
                    middle,
                    radius: bolts.diameter / 2.0,
                });
            }
        } else {
            let [w, h] = mouth.size.map(|size| size / 2.0);
            let [x, y] = middle;
            let points = match mouth.corner {
                Some(inward) => {
                    let corner = [x - inward * w, y - h];
                    vec![corner, [corner[0] + inward * 2.0 * w, corner[1]], [corner[0], corner[1] + 2.0 * h]]
                }
                None => vec![[x - w, y - h], [x + w, y - h], [x + w, y + h], [x - w, y + h]],
            };
            drawing.polygon(&name, line, points);
        }
    }
    let mut drawing = drawing.bounded();
    drawing.labels = hole_sizes(cabinet, contents, sheet);
    let [low, high] = drawing_bounds(&cabinet.outer, sheet);
    let places = places(cabinet, contents, sheet, |part| part.face == Some(Face::Front));
    for (k, of) in [(0, "width"), (1, "height")] {
        let found = places.iter().map(|(at, of)| (at[k], *of)).collect();
        measure(&mut drawing, k == 1, [low[k], high[k]], of, found);
    }
    drawing
}

/// What has to be cut into the front, in words beside it: holes once each.
fn hole_sizes(cabinet: &Cabinet, contents: &Contents, sheet: Sheet) -> Vec<([f64; 2], String)> {
    let mut labels: Vec<([f64; 2], String)> = Vec::new();
    for part in cabinet.parts.iter().filter(|part| part.face == Some(Face::Front)) {
        let Some(hole) = cabinet.hole(part, contents) else { continue };
        let [across, up] = hole.size.map(millimetres);
        let mut words = if hole.round { format!("ø {across}") } else { format!("{across} × {up}") };
        if let (PartKind::Driver, Some(bolts)) = (part.kind, contents.drivers.bolts) {
            let [hole, circle] = [bolts.hole, bolts.diameter].map(millimetres);
            words += &format!(", {} × ø {hole} on ø {circle}", bolts.count);
        }
        if labels.iter().all(|(_, known)| *known != words) {
            labels.push((sheet.at(hole.outer), words));
        }
    }
    labels
}
