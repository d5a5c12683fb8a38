//! What goes into a box.

use std::f64::consts::{PI, SQRT_2};

use oak_acoustics::element::{FLANGED, FREE};
use oak_acoustics::medium::CrossSection;

use crate::body::PortBuild;
use crate::flare;
use crate::fold::{DuctPath, Seat};
use crate::geometry::{Frame, Solid};
use crate::place::Part;

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
    /// Behind each place a second one, at this distance, m.
    pub pair: Option<f64>,
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
        }
    }

    /// How many there are with those behind others.
    pub fn in_all(&self) -> u32 {
        self.count * if self.pair.is_some() { 2 } else { 1 }
    }

    /// How deep the basket is, m.
    pub fn basket(&self) -> f64 {
        BASKET * self.depth
    }

    /// What one takes of the room behind a board, m3: the basket as a frustum from the cut-out to its neck, the magnet as a
    /// cylinder. A usual 250 mm driver takes 2 l so (common practice).
    pub fn volume(&self) -> f64 {
        self.displacement.unwrap_or_else(|| {
            let (wide, narrow) = (self.cutout / 2.0, NECK * self.cutout / 2.0);
            let basket = PI * self.basket() / 3.0 * (wide * wide + wide * narrow + narrow * narrow);
            let magnet = PI * (self.magnet / 2.0).powi(2) * (self.depth - self.basket());
            basket + magnet
        })
    }
}

/// A pipe as it is sold: its name, and its diameter outside and inside, m.
pub type Pipe = (&'static str, f64, f64);

/// Plastic pipes that are easily had: drain pipes with walls as for houses (EN 1329-1 and EN 1401-1, from memory). Measure yours.
pub static PIPES: &[Pipe] = &[
    ("DN 40", 0.040, 0.0364),
    ("DN 50", 0.050, 0.0440),
    ("DN 75", 0.075, 0.0690),
    ("DN 90", 0.090, 0.0840),
    ("DN 110", 0.110, 0.1036),
    ("DN 125", 0.125, 0.1186),
    ("DN 160", 0.160, 0.1536),
    ("DN 200", 0.200, 0.1922),
];

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
        let counted =
            flare::counts(self.section, *outer, FLANGED) + flare::counts(self.section, *inner, FREE);
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

    /// What one takes of the room over a length inside it, m3.
    pub fn volume(&self, wall: f64, inside: f64) -> f64 {
        let [width, height] = self.outside(wall);
        let share = match self.section {
            CrossSection::Round { .. } => PI / 4.0,
            CrossSection::Slot { .. } => 1.0,
            CrossSection::Corner { .. } => 0.5,
        };
        share * width * height * inside
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

    /// How deep it is, m: a quarter of the frame (common practice).
    pub fn depth(&self) -> f64 {
        self.frame() / 4.0
    }

    /// What one takes of the room, m3: a frustum half as wide inside as in front.
    pub fn volume(&self) -> f64 {
        let wide = self.cone / 2.0;
        PI * self.depth() / 3.0 * wide * wide * 1.75
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

    /// Whether a partition stands between two chambers.
    pub fn divided(&self) -> bool {
        self.wanted[1].is_some()
    }

    /// Whether that partition holds the drivers.
    pub fn drivers_inside(&self) -> bool {
        self.divided() && self.path.as_ref().is_none_or(|path| path.seat == Seat::Throat)
    }
}
