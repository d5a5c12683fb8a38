//! What goes into a box.

use std::f64::consts::{PI, SQRT_2};

use oak_acoustics::element::End;
use oak_acoustics::medium::CrossSection;

use crate::body::PortBuild;
use crate::flare;
use crate::fold::{DuctPath, Seat};
use crate::geometry::{Frame, Solid};
use crate::part::{Part, PartKind};

/// How large a driver is, m.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct DriverSize {
    /// Across its frame.
    pub frame: f64,
    /// Across the hole for it.
    pub cutout: f64,
    /// From the front of the frame to the back of the magnet.
    pub depth: f64,
    /// Across its magnet.
    pub magnet: f64,
    /// Across the cone with half its surround.
    pub cone: f64,
    /// What one takes of the room, m3; estimated from its sizes where absent.
    pub displacement: Option<f64>,
    /// Which of frame, cut-out, depth and magnet are only usual ones.
    pub usual: [bool; 4],
    /// Places on the baffle.
    pub count: u32,
    /// At each place a second one.
    pub pair: Option<Pair>,
    /// How thick its frame is, m.
    pub rim: f64,
    /// What holds it, where that is known.
    pub bolts: Option<BoltCircle>,
}

/// The bolts of a driver.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct BoltCircle {
    /// Diameter of the circle that they stand on, m.
    pub diameter: f64,
    /// How many.
    pub count: u32,
    /// Diameter of the hole for one, m.
    pub hole: f64,
}

impl BoltCircle {
    /// Middles of the holes from the middle of the driver, across and up, m; the first straight up.
    pub fn holes(&self) -> impl Iterator<Item = [f64; 2]> + '_ {
        (0..self.count).map(|index| {
            let angle = 2.0 * PI * f64::from(index) / f64::from(self.count);
            [angle.sin(), angle.cos()].map(|part| part * self.diameter / 2.0)
        })
    }
}

/// Where the second driver of an isobaric pair is.
#[derive(Debug, Clone, Copy, PartialEq)]
pub enum Pair {
    /// In the box, its front so far behind the first one's, m.
    Behind(f64),
    /// Outside, front to front with the first, so far before it, m.
    Before(f64),
}

/// Share of a frame's area that its cone has with half its surround (common practice: two thirds).
pub const CONE_OF_FRAME: f64 = 0.66;

/// Across the usual frame of a cone of an area (m2), m.
pub fn frame_of(area: f64) -> f64 {
    (4.0 * area / (CONE_OF_FRAME * PI)).sqrt()
}

/// Cut-out over frame, depth over frame, magnet over frame of usual woofers (common practice).
const CUTOUT: f64 = 0.92;
const DEPTH: f64 = 0.42;
const MAGNET: f64 = 0.5;
/// How thick a usual frame is, m (common practice: 5 to 8 mm with its gasket).
pub(crate) const RIM: f64 = 0.006;
/// Share of the depth that the basket takes, and of the cut-out where the basket meets the magnet (common practice).
const BASKET: f64 = 0.6;
const NECK: f64 = 0.4;

impl DriverSize {
    /// Sizes of one driver, those not stated as usual for its frame or its cone.
    pub fn of(
        area: f64,
        [frame, cutout, depth, magnet]: [Option<f64>; 4],
        displacement: Option<f64>,
    ) -> Self {
        let usual = [frame, cutout, depth, magnet].map(|value| value.is_none());
        let frame = frame.unwrap_or(frame_of(area));
        let cone = (4.0 * area / PI).sqrt();
        Self {
            frame,
            cutout: cutout.unwrap_or((frame * CUTOUT).max(cone)),
            depth: depth.unwrap_or(frame * DEPTH),
            magnet: magnet.unwrap_or(frame * MAGNET),
            cone,
            displacement,
            usual,
            count: 1,
            pair: None,
            rim: RIM,
            bolts: None,
        }
    }

    /// How far behind the first of a pair the second one's front is in the box, m.
    pub(crate) fn second(&self) -> Option<f64> {
        match self.pair {
            Some(Pair::Behind(far)) => Some(far),
            Some(Pair::Before(_)) | None => None,
        }
    }

    /// How many of them take room in the box.
    pub fn inside(&self) -> u32 {
        self.count * if self.second().is_some() { 2 } else { 1 }
    }

    /// What all of them take of the room behind a board of a thickness (m), m3.
    pub fn taken(&self, board: f64) -> f64 {
        let second = self.second().map_or(0.0, |_| self.volume(0.0));
        f64::from(self.count) * (self.volume(board) + second)
    }

    /// How far one reaches out of its board, m, let into it so deep (m).
    pub fn proud(&self, recess: f64) -> f64 {
        match self.pair {
            Some(Pair::Before(gap)) => gap + self.depth,
            _ => (self.rim - recess).max(0.0),
        }
    }

    /// Whether let in flush one would reach out of its board less than let into it so deep (m).
    pub fn sinks(&self, recess: f64) -> bool {
        self.proud(self.rim) < self.proud(recess)
    }

    /// How many there are in all.
    pub fn in_all(&self) -> u32 {
        self.count * if self.pair.is_some() { 2 } else { 1 }
    }

    /// How deep the basket is, m.
    pub fn basket(&self) -> f64 {
        BASKET * self.depth
    }

    /// What one takes of the room behind a board of a thickness (m), m3: what lies behind it of the basket, a frustum from the cut-out to
    /// its neck, and of the magnet, a cylinder. All of a usual 250 mm driver is 2 l so (common practice); what lies in its hole takes no
    /// more than the hole gives.
    pub fn volume(&self, board: f64) -> f64 {
        self.displacement.unwrap_or_else(|| {
            self.rods(board).into_iter().map(|([from, to], radii)| frustum(to - from, radii)).sum()
        })
    }

    /// Its basket and its magnet as far as they lie behind a board: from where to where behind its front, and how wide there, m. A
    /// stated displacement makes the basket as wide as that needs.
    pub(crate) fn rods(&self, board: f64) -> Vec<([f64; 2], [f64; 2])> {
        let (wide, magnet) = (self.cutout / 2.0, self.magnet / 2.0);
        let deep = |from: f64| from.max(board);
        // Its rim is as wide as the hole until it is through.
        let mut basket = [wide, NECK * wide];
        let spans = [[deep(0.0), self.basket()], [deep(self.basket()), self.depth]];
        if let Some(stated) = self.displacement {
            let (long, behind) = (spans[0][1] - spans[0][0], spans[1][1] - spans[1][0]);
            let left = stated - frustum(behind, [magnet; 2]);
            basket[1] = if long > 0.0 { neck(long, wide, left) } else { basket[1] };
        }
        [(spans[0], basket), (spans[1], [magnet; 2])]
            .into_iter()
            .filter(|([from, to], _)| to > from)
            .collect()
    }
}

/// Volume of a round body of a length between two radii (m), m3.
fn frustum(long: f64, [wide, narrow]: [f64; 2]) -> f64 {
    PI * long / 3.0 * (wide * wide + wide * narrow + narrow * narrow)
}

/// The narrow end of a frustum of a length, its wide end and its volume (m, m3); no wider than that, and no less than nothing.
fn neck(long: f64, wide: f64, volume: f64) -> f64 {
    let whole = 3.0 * volume / (PI * long) - 0.75 * wide * wide;
    (whole.max(0.0).sqrt() - wide / 2.0).clamp(0.0, wide)
}

/// A port as it is to be built.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct PortSize {
    /// Cross-section of one.
    pub section: CrossSection,
    /// m.
    pub length: f64,
    /// How many equal ones.
    pub count: u32,
    /// How many walls of the cabinet it lies along.
    pub walls: u32,
    /// Its ends outside and inside.
    pub ends: [End; 2],
    /// Height half-way in of a slot that narrows, over that at its ends; 1 of any other.
    pub waist: f64,
}

impl PortSize {
    /// Width and height of what one takes of the room, with its own walls (m).
    pub fn outside(&self, wall: f64) -> [f64; 2] {
        match self.section {
            CrossSection::Round { radius } => [2.0 * (radius + wall); 2],
            CrossSection::Slot { width, height } => {
                // On the floor it needs no board below; in a corner none at one side; across the whole width none at both.
                let sides = 3_u32.saturating_sub(self.walls.max(1));
                let panels = if self.walls == 0 { 2.0 } else { 1.0 };
                [width + f64::from(sides) * wall, height + panels * wall]
            }
            // Its board lies across the corner.
            CrossSection::Corner { side } => [side + SQRT_2 * wall; 2],
        }
    }

    /// Width and height of the hole that it needs in its board with walls of its own (m), of a round one its diameter, m.
    pub fn hole(&self, wall: f64) -> [f64; 2] {
        match self.section {
            CrossSection::Round { radius } => [2.0 * (radius + wall); 2],
            _ => self.passage(),
        }
    }

    /// Width and height of what it takes of its board outside: its walls, its rounded edge or its flange, m.
    pub fn seen(&self, build: &PortBuild) -> [f64; 2] {
        let widest = build.flange.unwrap_or(0.0);
        let outside = self.outside(build.wall);
        match self.section {
            CrossSection::Round { radius } => {
                [(2.0 * (radius + build.flares[0])).max(outside[0]).max(widest); 2]
            }
            CrossSection::Slot { .. } | CrossSection::Corner { .. } => outside,
        }
    }

    /// Of a port in a corner: 1 in the left one of its board, -1 in the right one.
    pub(crate) fn corner(&self, part: &Part, outer: &Solid) -> Option<f64> {
        let CrossSection::Corner { .. } = self.section else { return None };
        // Through a partition it lies in the left one.
        let frame = part.face.and_then(|face| Frame::of(outer, face));
        let right = frame.is_some_and(|frame| part.at[0] > frame.size[0] / 2.0);
        Some(if right { -1.0 } else { 1.0 })
    }

    /// Length of the straight piece between flares of these radii outside and inside (m), by the profile and by half of each, m: with them
    /// the port is tuned as the straight one is.
    pub fn straight(&self, [outer, inner]: &[f64; 2]) -> [f64; 2] {
        let counted = |radius: f64, end: End| flare::counts(self.section, radius, end);
        let counted = counted(*outer, self.ends[0]) + counted(*inner, self.ends[1]);
        [self.length - counted, self.length - (outer + inner) / 2.0]
    }

    /// Length from end to end with flares, m.
    pub fn built(&self, flares: &[f64; 2]) -> f64 {
        self.straight(flares)[0].max(0.0) + flares[0] + flares[1]
    }

    /// Width and height of the passage, m.
    pub fn passage(&self) -> [f64; 2] {
        match self.section {
            CrossSection::Round { radius } => [2.0 * radius; 2],
            CrossSection::Slot { width, height } => [width, height],
            CrossSection::Corner { side } => [side; 2],
        }
    }

    /// What one takes of the room that is so long inside it (m), m3.
    pub fn volume(&self, build: &PortBuild, inside: f64) -> f64 {
        let wall = build.wall;
        let [width, height] = self.outside(wall);
        // In a turn along walls the legs share a board.
        let shared = if self.walls > 0 && self.turns(build, inside) { wall } else { 0.0 };
        // Two rods that meet at a right angle have 8/3 of the cube of their radius in common; what is counted of the second begins a
        // radius farther on.
        let elbow = match self.section {
            CrossSection::Round { radius } if self.turns(build, inside) => {
                f64::from(build.turns.min(2)) * (PI - 8.0 / 3.0) * (radius + wall).powi(3)
            }
            _ => 0.0,
        };
        let bell = match self.section {
            CrossSection::Round { radius } if build.flares[1] > 0.0 => {
                let (long, tube) = (build.flares[1].min(inside), radius + wall);
                frustum(long, [tube + build.flares[1], tube]) - frustum(long, [tube; 2])
            }
            _ => 0.0,
        };
        let share = match self.section {
            CrossSection::Round { .. } => PI / 4.0,
            CrossSection::Slot { .. } => 1.0,
            CrossSection::Corner { .. } => 0.5,
        };
        share * width * height * (inside - shared) + elbow + bell
    }

    /// Height of the passage so far along it (0 to 1), over that at its ends.
    pub fn narrowed(&self, part: f64) -> f64 {
        1.0 - (1.0 - self.waist) * (1.0 - (2.0 * part - 1.0).abs())
    }

    /// What the boards of all of them are made of where they are built of boards, with what narrows them, m3; nothing of tubes.
    pub fn wood(&self, build: &PortBuild) -> f64 {
        match self.section {
            CrossSection::Round { .. } => 0.0,
            _ => {
                let passage = self.section.area() * self.length * f64::midpoint(1.0, self.waist);
                let wood = self.volume(build, self.length) - passage;
                f64::from(self.count) * wood.max(0.0)
            }
        }
    }

    /// Whether one that is so long inside (m) makes its turn: in a corner, or too short for one, it runs straight.
    pub(crate) fn turns(&self, build: &PortBuild, inside: f64) -> bool {
        let half = if self.walls > 0 { self.passage() } else { self.outside(build.wall) };
        let corner = matches!(self.section, CrossSection::Corner { .. });
        build.turns > 0 && !corner && inside > 2.0 * half[1]
    }

    /// Diameter of a round port of the same area, m.
    pub fn diameter(&self) -> f64 {
        (4.0 * self.section.area() / PI).sqrt()
    }

    /// How high the passage is, m.
    pub fn height(&self) -> f64 {
        match self.section {
            CrossSection::Round { radius } => 2.0 * radius,
            CrossSection::Slot { height, .. } => height,
            CrossSection::Corner { side } => side / SQRT_2,
        }
    }
}

/// Passive radiators.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct RadiatorSize {
    /// Across the moving surface, m.
    pub cone: f64,
    /// How many.
    pub count: u32,
}

impl RadiatorSize {
    /// Across its frame, m (common practice, as a driver's).
    pub fn frame(&self) -> f64 {
        self.cone / CONE_OF_FRAME.sqrt()
    }

    /// Across the hole for it, m (common practice, as a driver's).
    pub fn cutout(&self) -> f64 {
        (self.frame() * CUTOUT).max(self.cone)
    }

    /// How deep it is, m: a quarter of the frame (common practice).
    pub fn depth(&self) -> f64 {
        self.frame() / 4.0
    }

    /// How wide it is in front and half as wide inside, m: radii.
    pub(crate) fn radii(&self) -> [f64; 2] {
        [self.cone / 2.0, self.cone / 4.0]
    }

    /// What one takes of the room behind a board of a thickness (m), m3.
    pub fn volume(&self, board: f64) -> f64 {
        let ([from, to], radii) = self.rod(board);
        frustum(to - from, radii)
    }

    /// What lies behind a board of a thickness: from where to where behind its front, and how wide there, m.
    pub(crate) fn rod(&self, board: f64) -> ([f64; 2], [f64; 2]) {
        let [wide, narrow] = self.radii();
        let begin = board.min(self.depth());
        let there = wide + (narrow - wide) * begin / self.depth();
        ([begin, self.depth()], [there, narrow])
    }
}

/// Everything in a box and the air that is to be left.
#[derive(Debug, Clone, PartialEq)]
pub struct Contents {
    /// The drivers.
    pub drivers: DriverSize,
    /// Net volume of the chamber behind the drivers, and of the one before them, m3; of lines and horns, of the chamber and of the way, or of
    /// the way alone.
    pub wanted: [Option<f64>; 2],
    /// Ports of either.
    pub ports: [Vec<PortSize>; 2],
    /// Whether the ports of the chamber behind lead into the one before.
    pub through: bool,
    /// Radiators.
    pub radiators: Option<RadiatorSize>,
    /// The way of a line or horn.
    pub path: Option<DuctPath>,
    /// By how much fill makes each chamber seem larger.
    pub gain: [f64; 2],
}

impl Contents {
    /// The port that a part is.
    pub fn port(&self, part: &Part) -> Option<&PortSize> {
        self.ports[part.chamber.min(1)].get(part.index)
    }

    /// Across the frame of a driver or radiator, m.
    pub fn frame(&self, part: &Part) -> Option<f64> {
        match part.kind {
            PartKind::Driver => Some(self.drivers.frame),
            PartKind::Radiator => Some(self.radiators?.frame()),
            _ => None,
        }
    }

    /// Whether a partition stands between two chambers.
    pub fn divided(&self) -> bool {
        self.wanted[1].is_some()
    }

    /// Whether that partition holds the drivers.
    pub fn drivers_inside(&self) -> bool {
        self.divided() && self.path.as_ref().is_none_or(|path| path.seat == Seat::Throat)
    }
}
