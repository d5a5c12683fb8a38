//! Where parts meet the air.

use std::f64::consts::PI;

use oak_acoustics::medium::CrossSection;

use super::MountingFace;
use crate::body::Opening;
use crate::cabinet::Cabinet;
use crate::contents::Contents;
use crate::geometry::{Frame, Point, minus, unit};
use crate::part::{Part, PartKind, Piece};

/// The opening of a driver, a radiator or a port.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Mouth {
    /// Its middle outside, m.
    pub outer: Point,
    /// Its middle in the room: behind the cone, at a port's inner end, m.
    pub inner: Point,
    /// Out of the cabinet where it is mounted.
    pub normal: Point,
    /// Along its last leg: which way its inner end looks.
    pub direction: Point,
    /// Level direction of its width.
    pub level: Point,
    /// Width and height, of a round one its diameter, m.
    pub size: [f64; 2],
    /// Whether it is round.
    pub round: bool,
    /// Whether it is the half of its width and height that lies in a corner; towards which side it looks from there, -1 to the right.
    pub corner: Option<f64>,
}

impl Mouth {
    /// m2.
    pub fn area(&self) -> f64 {
        let share = match (self.round, self.corner) {
            (true, _) => PI / 4.0,
            (false, Some(_)) => 0.5,
            (false, None) => 1.0,
        };
        share * self.size[0] * self.size[1]
    }
}

impl Cabinet {
    /// What is cut out of the board that a part sits in: its mouth, as wide as the hole for it; `None` for boards.
    pub fn hole(&self, part: &Part, contents: &Contents) -> Option<Mouth> {
        if let Some(opening) = part.opening {
            return self.opening(part, opening);
        }
        let mouth = self.mouth(part, contents)?;
        let size = match part.kind {
            PartKind::Driver => [contents.drivers.cutout; 2],
            PartKind::Radiator => [contents.radiators?.cutout(); 2],
            PartKind::Port => contents.port(part)?.hole(part.wall),
            _ => mouth.size,
        };
        Some(Mouth { size, ..mouth })
    }

    /// What is cut out for something that is let into a board.
    fn opening(&self, part: &Part, opening: Opening) -> Option<Mouth> {
        let frame = Frame::of(&self.outer, part.face?)?;
        let outer = frame.point(part.at, 0.0);
        Some(Mouth {
            outer,
            inner: outer,
            normal: frame.normal,
            direction: frame.normal,
            level: frame.u,
            size: opening.size,
            round: opening.round,
            corner: None,
        })
    }

    /// Where a part meets the air; `None` for boards.
    pub fn mouth(&self, part: &Part, contents: &Contents) -> Option<Mouth> {
        let (size, round) = match part.kind {
            PartKind::Driver => ([contents.drivers.cone; 2], true),
            PartKind::Radiator => ([contents.radiators?.cone; 2], true),
            PartKind::Port => match contents.port(part)?.section {
                CrossSection::Round { radius } => ([2.0 * radius; 2], true),
                CrossSection::Slot { width, height } => ([width, height], false),
                CrossSection::Corner { side } => ([side; 2], false),
            },
            PartKind::Mouth => {
                let laid = self.fold.as_ref()?;
                ([laid.plan.width, laid.area(laid.length()) / laid.plan.width], false)
            }
            PartKind::Item
            | PartKind::Brace
            | PartKind::Partition
            | PartKind::Fold
            | PartKind::Closing
            | PartKind::ChamberEnd
            | PartKind::Strip => return None,
        };
        let frame = part.face.and_then(|face| Frame::of(&self.outer, face));
        // What sits in a board inside looks the way it is mounted.
        let inside = match (part.path.as_slice(), part.pieces.first()) {
            ([first, next, ..], _) => Some((*first, unit(minus(*first, *next)))),
            (_, Some(Piece::Rod { from, to, .. })) => Some((*from, unit(minus(*from, *to)))),
            _ => None,
        };
        let (outer, normal) =
            frame.as_ref().map(|frame| (frame.point(part.at, 0.0), frame.normal)).or(inside)?;
        let face_plate = part.face.and_then(|face| MountingFace::of(self, face));
        let behind = face_plate.map(|face_plate| face_plate.frame.point(part.at, face_plate.deep));
        let direction = match part.path.as_slice() {
            [.., from, to] => minus(*to, *from),
            _ => normal,
        };
        Some(Mouth {
            outer,
            inner: part.path.last().copied().or(behind).unwrap_or(outer),
            normal,
            direction,
            level: frame.map_or([1.0, 0.0, 0.0], |frame| frame.u),
            size,
            round,
            corner: match (part.kind, contents.port(part)) {
                (PartKind::Port, Some(port)) => port.corner(part, &self.outer),
                _ => None,
            },
        })
    }
}
