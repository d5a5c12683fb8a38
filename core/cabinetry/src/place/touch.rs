//! What is in each other's way.

use parry3d_f64::math::{Pose, Vector};
use parry3d_f64::query;
use parry3d_f64::shape::{ConvexPolyhedron, Cuboid, Cylinder, Shape};

use crate::cabinet::Cabinet;
use crate::finding::Finding;
use crate::geometry::{Point, Solid, along, cross, length, minus, unit};
use crate::part::{Part, PartKind, Piece, clear};

/// So much may parts that lie on each other overlap, m.
const TOUCH: f64 = 1e-5;
/// So near to where a driver begins lies the board that it sits in, m.
const SEAT: f64 = 1e-3;
/// Air behind a magnet, m (common practice: a vented one needs some centimetres).
const BEHIND: f64 = 0.02;
/// Between what moves air and its neighbours, m (common practice).
const BESIDE: f64 = 0.005;

/// A piece as the collision library has it.
fn shape(piece: &Piece) -> (Box<dyn Shape>, Pose) {
    let vector = |[x, y, z]: Point| Vector::new(x, y, z);
    match piece {
        Piece::Prism { near, far } => {
            let points: Vec<_> = near.iter().chain(far).map(|point| vector(*point)).collect();
            let hull: Box<dyn Shape> = match ConvexPolyhedron::from_convex_hull(&points) {
                Some(hull) => Box::new(hull),
                None => Box::new(Cuboid::new(vector([1e-6; 3]))),
            };
            (hull, Pose::from_translation(vector([0.0; 3])))
        }
        &Piece::Block { low, high } => {
            let half = [0, 1, 2].map(|k| ((high[k] - low[k]) / 2.0).max(1e-6));
            let middle = [0, 1, 2].map(|k| f64::midpoint(low[k], high[k]));
            (Box::new(Cuboid::new(vector(half))), Pose::from_translation(vector(middle)))
        }
        // The library has no tapering ones: as wide as it is at its wider end.
        &Piece::Rod { from, to, radii } => {
            let radius = radii[0].max(radii[1]);
            let direction = minus(to, from);
            let half = length(direction) / 2.0;
            let middle = [0, 1, 2].map(|k| f64::midpoint(from[k], to[k]));
            let turn = parry3d_f64::math::Rotation::from_rotation_arc(Vector::Y, vector(unit(direction)));
            (Box::new(Cylinder::new(half.max(1e-6), radius)), Pose::from_parts(vector(middle), turn))
        }
    }
}

/// How far two pieces are apart, m; less than nothing where they overlap, by how deep they do.
pub fn overlap(a: &Piece, b: &Piece) -> f64 {
    let ((one, at), (other, there)) = (shape(a), shape(b));
    query::contact(&at, one.as_ref(), &there, other.as_ref(), 10.0)
        .ok()
        .flatten()
        .map_or(f64::INFINITY, |contact| contact.dist)
}

/// A piece so much smaller on all sides (m).
fn shrunk(piece: &Piece, by: f64) -> Piece {
    match piece {
        Piece::Prism { near, far } => {
            let [low, high] = piece.bounds();
            let middle = [0, 1, 2].map(|k| f64::midpoint(low[k], high[k]));
            // A corner lies up to three times as deep as the sides that meet in it.
            let inward = |point: &Point| along(*point, unit(minus(middle, *point)), 3.0 * by);
            Piece::Prism { near: near.iter().map(inward).collect(), far: far.iter().map(inward).collect() }
        }
        &Piece::Block { low, high } => {
            Piece::Block { low: low.map(|side| side + by), high: high.map(|side| side - by) }
        }
        &Piece::Rod { from, to, radii } => {
            let direction = unit(minus(to, from));
            Piece::Rod {
                from: along(from, direction, by),
                to: along(to, direction, -by),
                radii: radii.map(|radius| radius - by),
            }
        }
    }
}

/// How far two pieces are apart, m, where it is less than [`BESIDE`]; less than nothing where they are in each other.
///
/// How deep they are is not asked: that takes most of the time.
fn apart(a: &Piece, b: &Piece) -> f64 {
    let ([low, high], [from, to]) = (a.bounds(), b.bounds());
    let gap = |k: usize| (from[k] - high[k]).max(low[k] - to[k]);
    let gaps = [gap(0), gap(1), gap(2)];
    if gaps.iter().any(|gap| *gap >= BESIDE) {
        return f64::INFINITY;
    }
    if let (Piece::Block { .. }, Piece::Block { .. }) = (a, b) {
        let widest = gaps.into_iter().fold(f64::NEG_INFINITY, f64::max);
        return if widest < 0.0 {
            widest
        } else {
            gaps.map(|gap| gap.max(0.0)).iter().map(|gap| gap * gap).sum::<f64>().sqrt()
        };
    }
    let ((within, at), (other, there)) = (shape(&shrunk(a, TOUCH)), shape(b));
    let both = query::intersection_test(&at, within.as_ref(), &there, other.as_ref());
    if both.is_ok_and(|both| both.intersecting) {
        return f64::NEG_INFINITY;
    }
    let (whole, at) = shape(a);
    let between = query::distance(&at, whole.as_ref(), &there, other.as_ref());
    between.map_or(f64::INFINITY, |between| between.distance)
}

/// Notes what touches and what is near.
pub(super) fn check(cabinet: &mut Cabinet) {
    let mut found = Vec::new();
    for (index, part) in cabinet.parts.iter().enumerate() {
        if part.kind == PartKind::Brace || part.kind == PartKind::Partition {
            continue;
        }
        if matches!(part.kind, PartKind::Fold | PartKind::Closing | PartKind::ChamberEnd) {
            // It stands on walls; only braces can be in its way, and what moves air looks at it.
            let braces = cabinet.parts.iter().filter(|other| other.kind == PartKind::Brace);
            found.extend(braces.filter_map(|other| between(part, other)).filter(Finding::forbids));
            continue;
        }
        let interior = &cabinet.chambers[part.chamber.min(cabinet.chambers.len() - 1)].interior;
        let too_long = |finding: &Finding| {
            matches!(finding, Finding::PortTooLong { .. }) && finding.part() == Some(part.name().as_str())
        };
        if part.pieces.iter().any(|piece| reaches_out(piece, interior)) {
            // A port that is too long is already known not to fit.
            if !cabinet.findings.iter().any(too_long) {
                found.push(Finding::Outside { part: part.name() });
            }
        } else if part.kind == PartKind::Driver {
            found.extend(behind(part, interior));
        }
        let others = cabinet.parts.iter().enumerate().filter(|(number, other)| {
            // Boards are not looked at by themselves, so every part looks at them.
            let face_plate = other.kind.is_panel();
            (face_plate || *number > index) && !mounted(part, other) && !spaced(part, other)
        });
        found.extend(others.filter_map(|(_, other)| between(part, other)));
        found.extend(blocked(part, cabinet));
    }
    for finding in found {
        if !cabinet.findings.contains(&finding) {
            cabinet.findings.push(finding);
        }
    }
}

/// Whether one holds the other: the partition its drivers and ports, a fold board the driver that sits in it.
fn mounted(part: &Part, other: &Part) -> bool {
    match (other.kind, part.pieces.first()) {
        (PartKind::Partition, _) => part.face.is_none(),
        (PartKind::Fold, Some(Piece::Rod { from, .. })) if part.face.is_none() => {
            let seat = Piece::Block { low: from.map(|side| side - SEAT), high: from.map(|side| side + SEAT) };
            other.pieces.iter().any(|piece| apart(&seat, piece) < SEAT)
        }
        _ => false,
    }
}

/// The board that stands nearest before a port's inner end, within as much as must be clear: its diameter, of a slot its height.
fn blocked(part: &Part, cabinet: &Cabinet) -> Option<Finding> {
    let ([.., before, end], PartKind::Port) = (part.path.as_slice(), part.kind) else { return None };
    let direction = unit(minus(*end, *before));
    // As wide as it is high: the air comes from beside a slot too.
    let wanted = part.pieces.iter().find_map(|piece| match piece {
        Piece::Rod { radii, .. } => Some(2.0 * radii[0]),
        Piece::Block { low, high } => {
            let across = (0..3).filter(|k| direction[*k].abs() < 0.5).map(|k| high[k] - low[k]);
            Some(across.fold(f64::INFINITY, f64::min))
        }
        Piece::Prism { .. } => None,
    })?;
    let reach = |far: f64| Piece::Rod {
        from: along(*end, direction, 2.0 * TOUCH),
        to: along(*end, direction, far.max(4.0 * TOUCH)),
        radii: [0.45 * wanted; 2],
    };
    let boards = cabinet.parts.iter().filter(|other| {
        let inside =
            matches!(other.kind, PartKind::Brace | PartKind::Fold | PartKind::Closing | PartKind::ChamberEnd);
        inside && other.pieces.iter().any(|piece| apart(&reach(wanted), piece) < -TOUCH)
    });
    let distance = |other: &Part| {
        let [mut free, mut met] = [0.0, wanted];
        for _ in 0..12 {
            let middle = f64::midpoint(free, met);
            let meets = other.pieces.iter().any(|piece| apart(&reach(middle), piece) < -TOUCH);
            if meets { met = middle } else { free = middle }
        }
        free
    };
    let nearest = boards.map(|other| (distance(other), other)).min_by(|a, b| a.0.total_cmp(&b.0));
    nearest.map(|(distance, other)| Finding::Blocked {
        part: part.name(),
        other: other.name(),
        distance,
        wanted,
    })
}

/// Whether both are laid out beside each other in one face.
fn spaced(part: &Part, other: &Part) -> bool {
    let laid = matches!(part.kind, PartKind::Driver | PartKind::Radiator);
    laid && part.kind == other.kind && part.face == other.face
}

fn between(part: &Part, other: &Part) -> Option<Finding> {
    let pairs = part.pieces.iter().flat_map(|a| other.pieces.iter().map(move |b| (a, b)));
    let nearest = pairs.map(|(a, b)| apart(a, b)).fold(f64::INFINITY, f64::min);
    let name = other.name();
    if nearest < -TOUCH {
        return Some(Finding::Touches { part: part.name(), other: name });
    }
    // Equal slots share their boards, and boards may hold a port.
    let share = part.kind == other.kind || other.kind.is_panel();
    (nearest < BESIDE && !share).then(|| Finding::Close {
        part: part.name(),
        other: name,
        distance: nearest.max(0.0),
        wanted: BESIDE,
    })
}

/// Whether a piece leaves the room.
fn reaches_out(piece: &Piece, interior: &Solid) -> bool {
    let rim = match piece {
        Piece::Prism { near, far } => {
            // Its corners a little towards the middle: those that lie on a wall are within.
            let [low, high] = piece.bounds();
            let middle = [0, 1, 2].map(|k| f64::midpoint(low[k], high[k]));
            let inward = |point: &Point| along(*point, unit(minus(middle, *point)), 4.0 * TOUCH);
            near.iter().chain(far).map(inward).collect()
        }
        &Piece::Block { low, high } => {
            let inward = [0, 1, 2].map(|k| [low[k] + TOUCH, high[k] - TOUCH]);
            (0..8_usize).map(|corner| [0, 1, 2].map(|k| inward[k][corner >> k & 1])).collect::<Vec<_>>()
        }
        &Piece::Rod { from, to, radii } => {
            let direction = unit(minus(to, from));
            let aside = if direction[0].abs() < 0.9 { [1.0, 0.0, 0.0] } else { [0.0, 1.0, 0.0] };
            let first = unit(cross(direction, aside));
            let second = cross(direction, first);
            let ends = [(along(from, direction, TOUCH), radii[0]), (along(to, direction, -TOUCH), radii[1])];
            let angles = (0..24).map(|step| f64::from(step) / 24.0 * 2.0 * std::f64::consts::PI);
            angles
                .flat_map(|angle| {
                    ends.map(|(end, radius)| {
                        let reach = radius - TOUCH;
                        along(along(end, first, reach * angle.cos()), second, reach * angle.sin())
                    })
                })
                .collect()
        }
    };
    rim.into_iter().any(|point| !interior.holds(point))
}

/// Whether a magnet has air behind it.
fn behind(part: &Part, interior: &Solid) -> Option<Finding> {
    let Some(Piece::Rod { from, to, .. }) = part.pieces.last() else { return None };
    let direction = unit(minus(*to, *from));
    let distance = clear(interior, along(*to, direction, 1e-6), direction);
    (distance < BEHIND).then(|| Finding::Close {
        part: part.name(),
        other: "wall behind it".to_owned(),
        distance,
        wanted: BEHIND,
    })
}
