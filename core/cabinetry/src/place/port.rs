//! Where ports run.

use super::row::{BETWEEN, Row};
use super::{MountingFace, fold};
use crate::body::{Body, PortBuild};
use crate::cabinet::Cabinet;
use crate::contents::{Contents, PortSize};
use crate::finding::Finding;
use crate::geometry::{Face, Frame, Point, Solid, along, dot, length, minus, unit};
use crate::part::{Part, PartKind, Piece, clear};
use oak_acoustics::medium::CrossSection;

/// By how much a slot between both sides may be narrower than the room, m: what is lost in rounding to a millimetre.
const EXACTLY: f64 = 6e-4;

/// Width and height of all ports of a chamber that stand side by side in a face and that nobody placed; slots along the floor with them.
pub(super) fn row(body: &Body, contents: &Contents, face: Face, wanted: usize) -> Option<[f64; 2]> {
    let mut size = [0.0, 0.0_f64];
    for (chamber, ports) in contents.ports.iter().enumerate().filter(|(chamber, _)| *chamber == wanted) {
        for (index, port) in ports.iter().enumerate() {
            let build = body.port_build(chamber == 1, index);
            let there = body.port_face(chamber == 1, index, contents) == face;
            if !there || build.across.is_some() || build.up.is_some() {
                continue;
            }
            let [width, height] = port.seen(&build);
            // Slots along the floor lie on each other; in corners and as tubes they stand side by side.
            let lie = port.walls > 0 && matches!(port.section, CrossSection::Slot { .. });
            let (wide, tall) = if lie { (1.0, f64::from(port.count)) } else { (f64::from(port.count), 1.0) };
            size = [size[0] + wide * (width + BETWEEN), size[1].max(tall * height)];
        }
    }
    (size[1] > 0.0).then(|| [size[0] - BETWEEN, size[1]])
}

impl Cabinet {
    /// How wide the room of a port is at its board, m; `None` where its shape has no such face.
    pub fn across(&self, body: &Body, contents: &Contents, front: bool, index: usize) -> Option<f64> {
        if contents.through && !front {
            let [low, high] = self.interior.bounds();
            return Some(high[0] - low[0]);
        }
        let chamber = usize::from(front).min(self.chambers.len() - 1);
        let face = MountingFace::of_chamber(self, body.port_face(front, index, contents), chamber)?;
        Some(face.size(0))
    }
}

/// Puts every port in.
pub(super) fn install(body: &Body, contents: &Contents, cabinet: &mut Cabinet, row: Option<Row>) {
    for (chamber, ports) in contents.ports.iter().enumerate() {
        // Of each chamber by themselves, face by face.
        let mut rows: Vec<(Face, f64)> = Vec::new();
        let front = chamber == 1;
        for (index, port) in ports.iter().enumerate() {
            let part = Part::of(PartKind::Port, index, chamber);
            let build = body.port_build(front, index);
            let chamber = chamber.min(cabinet.chambers.len() - 1);
            if contents.through && !front {
                in_partition(cabinet, &part, port, &build);
                continue;
            }
            let face = body.port_face(front, index, contents);
            let Some(face_plate) = MountingFace::of_chamber(cabinet, face, chamber) else {
                cabinet.findings.push(Finding::NoFace { part: part.name(), face });
                continue;
            };
            let slot = !matches!(port.section, CrossSection::Round { .. });
            if slot && face_plate.frame.axis().is_none() {
                cabinet.findings.push(Finding::Slanting { part: part.name() });
                continue;
            }
            let [width, height] = port.seen(&build);
            let total = self::row(body, contents, face, usize::from(front)).map_or(0.0, |size| size[0]);
            for number in 0..port.count {
                let lifted = f64::from(number) * height;
                let by_hand = |at: [f64; 2]| {
                    let aside = f64::from(number) * (width + BETWEEN);
                    [build.across.map_or(at[0], |across| across + aside), build.up.unwrap_or(at[1])]
                };
                let placed = if let CrossSection::Corner { side } = port.section {
                    // In the left lower corner, or in the right one where it was put to that side; a second in the other.
                    let right =
                        build.across.is_some_and(|across| across > face_plate.middle(0)) != (number % 2 == 1);
                    let across =
                        if right { face_plate.high[0] - side / 2.0 } else { face_plate.low[0] + side / 2.0 };
                    [across, face_plate.low[1] + side / 2.0]
                } else if port.walls > 0 {
                    // Its passage lies on the floor, in a corner against a side too.
                    let [inner, tall] = port.passage();
                    let by_hand = build.across.unwrap_or(face_plate.middle(0));
                    let across = match port.walls {
                        1 => by_hand,
                        2 if by_hand > face_plate.middle(0) => face_plate.high[0] - inner / 2.0,
                        2 => face_plate.low[0] + inner / 2.0,
                        _ => face_plate.middle(0),
                    };
                    [across, face_plate.low[1] + tall / 2.0 + lifted]
                } else {
                    let beside = row.filter(|_| face == body.drivers.face);
                    let ends = || fold::mouth_at(body, cabinet, &face_plate);
                    let middle = beside.or_else(ends).unwrap_or([face_plate.middle(0), face_plate.middle(1)]);
                    let at = rows.iter().position(|(there, _)| *there == face).unwrap_or_else(|| {
                        rows.push((face, 0.0));
                        rows.len() - 1
                    });
                    let walked = &mut rows[at].1;
                    let at = [middle[0] - total / 2.0 + *walked + width / 2.0, middle[1]];
                    *walked += width + BETWEEN;
                    by_hand(at)
                };
                let run = Run { face_plate: &face_plate, port, build: &build, at: placed };
                let part = Part { face: Some(face), at: placed, ..part.clone() };
                run.lay(cabinet, part, chamber);
            }
        }
    }
}

/// A port of the chamber behind that leads through the partition.
fn in_partition(cabinet: &mut Cabinet, part: &Part, port: &PortSize, build: &PortBuild) {
    let Some((axis, [back, front])) = cabinet.partition() else { return };
    let (k, thick) = (axis.index(), front - back);
    let [low, high] = cabinet.interior.bounds();
    let [width, height] = port.outside(build.wall);
    let tall = if k == 2 { 1 } else { 2 };
    let mut normal = [0.0; 3];
    normal[k] = 1.0;
    let mut v = [0.0; 3];
    v[tall] = 1.0;
    let mut origin = [low[0], low[1], low[2]];
    origin[k] = front;
    let size = [high[0] - low[0], high[tall] - low[tall]];
    let frame = Frame { face: Face::Front, normal, u: [1.0, 0.0, 0.0], v, origin, size };
    let face_plate = MountingFace { frame, low: [0.0; 2], high: size, deep: thick };
    for number in 0..port.count {
        // In the corner farthest from the drivers in the middle.
        let across = build.across.unwrap_or(BETWEEN + width / 2.0) + f64::from(number) * (width + BETWEEN);
        let [inner, tall] = port.passage();
        let lifted = tall / 2.0 + f64::from(number) * height;
        let at = match (port.section, port.walls) {
            (CrossSection::Corner { side }, _) => [side / 2.0; 2],
            (_, 0) => [across, build.up.unwrap_or(BETWEEN + height / 2.0)],
            (_, 1) => [across, tall / 2.0],
            (_, 2) => [inner / 2.0, lifted],
            _ => [size[0] / 2.0, lifted],
        };
        let run = Run { face_plate: &face_plate, port, build, at };
        run.lay(cabinet, Part { at, ..part.clone() }, 0);
    }
}

/// One port on its way in.
struct Run<'a> {
    face_plate: &'a MountingFace,
    port: &'a PortSize,
    build: &'a PortBuild,
    at: [f64; 2],
}

impl Run<'_> {
    fn lay(&self, cabinet: &mut Cabinet, mut part: Part, chamber: usize) {
        let Self { face_plate, port, .. } = self;
        let interior = &cabinet.chambers[chamber].interior;
        let inward = face_plate.frame.normal.map(|value| -value);
        let mouth = face_plate.frame.point(self.at, 0.0);
        let inner = face_plate.frame.point(self.at, face_plate.deep);
        let depth = clear(interior, along(inner, inward, 1e-6), inward);
        // One diameter of clear air before the inner end, of a slot its height (common practice).
        let gap = port.height();
        let built = port.built(&self.build.flares);
        let inside = (built - face_plate.deep).max(0.0);
        // A slot along walls keeps to them with its passage; any other turns within its own walls.
        let half = if port.walls > 0 { port.passage() } else { port.outside(self.build.wall) };
        let half = half.map(|size| size / 2.0);
        let mut corners = vec![mouth];
        let (needs, has) = if port.turns(self.build, inside) {
            self.turned(&mut corners, interior, inside, depth, half)
        } else {
            corners.push(along(inner, inward, inside));
            (inside + gap, depth)
        };
        let corner = port.walls > 1 || matches!(port.section, CrossSection::Corner { .. });
        if corner && !self.in_corners(interior) {
            cabinet.findings.push(Finding::NoCorner { part: part.name() });
        }
        if port.walls == 3 {
            let beside = face_plate.size(0) - port.passage()[0];
            if beside.abs() > EXACTLY {
                cabinet.findings.push(Finding::NotAcross { part: part.name(), beside });
            }
        }
        if needs > has + 1e-9 {
            let turns = self.build.turns;
            cabinet.findings.push(Finding::PortTooLong { part: part.name(), needs, has, gap, turns });
        }
        // Where the first leg does not reach the far wall it needs a board of its own there.
        let short = corners.len() > 2 && depth - length(minus(corners[1], inner)) - half[1] > EXACTLY;
        part.pieces = self.pieces(&corners, half, short);
        part.pieces.extend(self.flared(&corners));
        part.path = corners;
        part.wall = self.build.wall;
        cabinet.parts.push(part);
    }

    /// Whether the room is just as wide and high as its board there: rounded and slanting walls leave it.
    fn in_corners(&self, interior: &Solid) -> bool {
        let frame = &self.face_plate.frame;
        let [low, high] = interior.bounds();
        [(frame.u, 0), (frame.v, 1)].into_iter().all(|(direction, k)| {
            let reach = |corner: Point| dot(minus(corner, frame.origin), direction);
            let (a, b) = (reach(low), reach(high));
            let ends = [self.face_plate.low[k] - a.min(b), self.face_plate.high[k] - a.max(b)];
            ends.iter().all(|off| off.abs() < EXACTLY)
        })
    }

    /// The bell at the inner end of a flared tube.
    fn flared(&self, corners: &[Point]) -> Option<Piece> {
        let flare = self.build.flares[1];
        let (CrossSection::Round { radius }, true, [.., before, end]) =
            (self.port.section, flare > 0.0, corners)
        else {
            return None;
        };
        let direction = unit(minus(*before, *end));
        Some(Piece::Rod {
            from: along(*end, direction, flare),
            to: *end,
            radii: [radius + self.build.wall, radius + flare + self.build.wall],
        })
    }

    /// Turns before the far wall, and once more if asked; what the last leg needs and has.
    fn turned(
        &self,
        corners: &mut Vec<Point>,
        interior: &Solid,
        inside: f64,
        depth: f64,
        half: [f64; 2],
    ) -> (f64, f64) {
        const AIR: f64 = 0.002;
        let frame = &self.face_plate.frame;
        let air = if self.port.walls > 0 { 0.0 } else { AIR };
        // It must rise out of the first leg, and through the board on it.
        let rise = half[1] + if self.port.walls > 0 { self.build.wall } else { 0.0 };
        let first = (depth - half[1] - air).min(inside - rise).max(half[1]);
        let corner = frame.point(self.at, self.face_plate.deep + first);
        let outward = |direction: Point| direction.map(|value| -value);
        let directions = [frame.v, outward(frame.v), frame.u, outward(frame.u)];
        // Slots along the floor can only rise.
        let open = if self.port.walls > 0 { 1 } else { 4 };
        let directions =
            directions[..open].iter().map(|direction| (*direction, clear(interior, corner, *direction)));
        let (direction, free) = directions.max_by(|a, b| a.1.total_cmp(&b.1)).unwrap_or((frame.v, 0.0));
        corners.push(corner);
        let left = inside - first;
        let gap = self.port.height();
        if self.build.turns == 1 {
            corners.push(along(corner, direction, left));
            return (left + gap, free);
        }
        // Back over the first leg, with a board between them.
        let between = if self.port.walls > 0 { self.build.wall } else { AIR };
        let second = (2.0 * half[1] + between).min(left);
        let turn = along(corner, direction, second);
        corners.push(turn);
        let third = left - second;
        // A short one ends before it turns again.
        if third > 1e-6 {
            corners.push(along(turn, frame.normal, third));
        }
        if second + half[1] > free { (second + half[1], free) } else { (third + gap, first) }
    }

    /// The room that each leg takes beyond the board; a turn belongs to the leg before it. `short` tells that the first does not reach the
    /// far wall.
    fn pieces(&self, corners: &[Point], half: [f64; 2], short: bool) -> Vec<Piece> {
        let legs = corners.len() - 1;
        let wall = if self.port.walls > 0 { self.build.wall } else { 0.0 };
        (0..legs)
            .filter_map(|leg| {
                let (from, to) = (corners[leg], corners[leg + 1]);
                let far = minus(to, from);
                let reach = length(far);
                let direction = far.map(|value| value / reach);
                // A tube's elbow begins within the leg before it, a slot's leg on the board over that.
                let round = matches!(self.port.section, CrossSection::Round { .. });
                let begin = match leg {
                    0 => self.face_plate.deep,
                    _ if round => 0.0,
                    _ => half[1] + wall,
                };
                let closed = if leg > 0 || short { wall } else { 0.0 };
                let end = if leg + 1 < legs { reach + half[1] + closed } else { reach };
                if end <= begin + 1e-6 {
                    return None;
                }
                let (from, to) = (along(from, direction, begin), along(from, direction, end));
                Some(match self.port.section {
                    CrossSection::Round { .. } => Piece::Rod { from, to, radii: [half[0]; 2] },
                    CrossSection::Slot { .. } => self.boarded([from, to], direction, half, (leg, short)),
                    CrossSection::Corner { side } => self.cornered(from, to, side),
                })
            })
            .collect()
    }

    /// What a port in a corner takes with the board across it.
    fn cornered(&self, from: Point, to: Point, side: f64) -> Piece {
        let frame = &self.face_plate.frame;
        let inward = if self.at[0] <= self.face_plate.middle(0) { 1.0 } else { -1.0 };
        let whole = side + std::f64::consts::SQRT_2 * self.build.wall;
        let outline = |at: Point| -> Vec<Point> {
            // The corner itself, and where the board meets either wall.
            let corner = along(along(at, frame.u, -inward * side / 2.0), frame.v, -side / 2.0);
            vec![corner, along(corner, frame.u, inward * whole), along(corner, frame.v, whole)]
        };
        Piece::Prism { near: outline(from), far: outline(to) }
    }

    /// What a leg of a slot takes with its boards. Along a wall it needs one only on the side away from it.
    fn boarded(
        &self,
        [from, to]: [Point; 2],
        direction: Point,
        half: [f64; 2],
        (leg, short): (usize, bool),
    ) -> Piece {
        let frame = &self.face_plate.frame;
        let aside = [0, 1, 2].map(|k| {
            let across = frame.u[k].abs() > 0.5;
            if across {
                half[0]
            } else if direction[k].abs() > 0.5 {
                0.0
            } else {
                half[1]
            }
        });
        let mut low = [0, 1, 2].map(|k| from[k].min(to[k]) - aside[k]);
        let mut high = [0, 1, 2].map(|k| from[k].max(to[k]) + aside[k]);
        if self.port.walls > 0 {
            let wall = self.build.wall;
            let mut face_plate = |direction: Point| {
                for k in 0..3 {
                    if direction[k] > 0.5 {
                        high[k] += wall;
                    } else if direction[k] < -0.5 {
                        low[k] -= wall;
                    }
                }
            };
            // The rising leg stands against the far wall; the others lie on the floor or on the leg below.
            face_plate(if leg == 1 { frame.normal } else { frame.v });
            if leg == 1 && short {
                face_plate(frame.normal.map(|value| -value));
            }
            let left = frame.u.map(|value| -value);
            let right = self.at[0] > self.face_plate.middle(0);
            for side in match self.port.walls {
                1 => [Some(frame.u), Some(left)],
                2 => [Some(if right { left } else { frame.u }), None],
                _ => [None; 2],
            }
            .into_iter()
            .flatten()
            {
                face_plate(side);
            }
        }
        Piece::Block { low, high }
    }
}
