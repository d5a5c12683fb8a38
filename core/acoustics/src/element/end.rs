//! What the air meets where a duct ends.

use std::f64::consts::PI;

use super::At;
use super::radiation::{mouth_impedance, pipe_impedance, piston_impedance, radiation_resistance};
use crate::Complex;
use crate::lanes::Real;
use crate::medium::Space;
use crate::node::Node;

/// Length correction of an end in a wide wall over its radius (Rayleigh 1896).
pub const FLANGED: f64 = 8.0 / (3.0 * PI);
/// Of an end in open air (Levine and Schwinger 1948).
pub const FREE: f64 = 0.613;

/// How a duct ends, which sets its length correction.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum End {
    /// In a wide wall: `8/(3 pi)` radii (Rayleigh 1896).
    Flanged,
    /// In open air: 0.613 radii (Levine and Schwinger 1948).
    Free,
    /// Along this many walls (1 to 3), which mirror the mouth: a free end of 2, 4 or 8 times the
    /// area.
    Walls(u8),
    /// The walls go on as those of the place: a horn's mouth. Inside a cabinet as flanged.
    Mouth,
}

impl End {
    /// Low-frequency length correction for a mouth of an area (m2), m.
    pub fn length_correction(self, area: f64) -> f64 {
        let radius = (area / PI).sqrt();
        match self {
            Self::Flanged | Self::Mouth => FLANGED * radius,
            Self::Free => FREE * radius,
            Self::Walls(count) => FREE * radius * f64::from(1u32 << count.min(3)).sqrt(),
        }
    }
}

/// By how much the air of an opening seems longer for a wall that it faces, m: its radius, the gap to the wall, and how far it is
/// from its middle to the edge of the cabinet's back (m). Air that leaves runs along the gap to that edge. A fit of our own to finite
/// elements (`reference/opening-wall`), within 7 %, for gaps from a quarter of the radius and reaches from two radii on.
pub fn before_wall(radius: f64, gap: f64, reach: f64) -> f64 {
    let (gap, reach) = (gap / radius, (reach / radius).max(1.0));
    let spread = 1.1 + 1.6 * gap + 0.35 * gap * gap;
    radius * (0.25 + (1.0 + (reach - 1.0) / spread).ln()) / (2.0 * gap)
}

/// What a duct meets at an end of an area.
#[derive(Debug, Clone, Copy)]
pub(super) struct Termination {
    kind: Kind,
    area: f64,
}

#[derive(Debug, Clone, Copy)]
enum Kind {
    /// A plug of air that moves along: its length over its area, 1/m.
    Mass(f64),
    /// The open air along the cabinet's walls: such a plug, and what leaves as sound.
    Walled(f64),
    /// The open air in front of the cabinet's own wall, whatever walls are farther off.
    Baffled,
    /// The open air all round.
    Unbaffled,
    /// The open air between the walls of the place.
    Mouth,
}

impl Termination {
    /// The same with a plug of air that is longer by a length (m), or shorter down to nothing; only an end inside has such a plug.
    pub(super) fn longer(self, by: f64) -> Self {
        match self.kind {
            Kind::Mass(length) => Self { kind: Kind::Mass((length + by / self.area).max(0.0)), ..self },
            _ => self,
        }
    }

    pub(super) fn new(node: Node, end: End, area: f64) -> Self {
        let kind = match (node, end) {
            (Node::Outside, End::Flanged) => Kind::Baffled,
            (Node::Outside, End::Free) => Kind::Unbaffled,
            (Node::Outside, End::Mouth) => Kind::Mouth,
            (Node::Outside, End::Walls(_)) => Kind::Walled(end.length_correction(area) / area),
            _ => Kind::Mass(end.length_correction(area) / area),
        };
        Self { kind, area }
    }

    /// Whether sound leaves here.
    pub(super) fn radiates(&self) -> bool {
        !matches!(self.kind, Kind::Mass(_))
    }

    /// No end at all: the next element goes on with the same area.
    pub(super) fn joined(area: f64) -> Self {
        Self { kind: Kind::Mass(0.0), area }
    }

    /// Impedance, Pa s/m3; its real part is what leaves as sound.
    #[inline(always)]
    pub(super) fn impedance<T: Real>(&self, at: &At<'_, T>) -> Complex<T> {
        let ka = at.omega * T::of((self.area / PI).sqrt() / at.air.speed);
        let scale = T::of(at.air.density * at.air.speed / self.area);
        match self.kind {
            Kind::Mass(slug) => Complex::new(T::of(0.0), at.omega * T::of(at.air.density * slug)),
            Kind::Walled(slug) => {
                Complex::new(radiation_resistance(at, self.area), at.omega * T::of(at.air.density * slug))
            }
            Kind::Baffled if at.space == Space::Half => piston_impedance(ka) * scale,
            Kind::Baffled => {
                Complex::new(radiation_resistance(at, self.area), piston_impedance(ka).im * scale)
            }
            Kind::Unbaffled => pipe_impedance(ka) * scale,
            Kind::Mouth => mouth_impedance(at, self.area),
        }
    }
}
