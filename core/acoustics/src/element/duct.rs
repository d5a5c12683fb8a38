//! A duct of one cross-section: a port.

use std::f64::consts::PI;

use super::radiation::{mouth_impedance, pipe_impedance, piston_impedance, radiation_resistance};
use super::{At, Element};
use crate::medium::{CrossSection, Space, WallLosses};
use crate::node::Node;
use crate::{Complex, J, inverse};

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
            Self::Flanged | Self::Mouth => 8.0 / (3.0 * PI) * radius,
            Self::Free => 0.613 * radius,
            Self::Walls(count) => 0.613 * radius * f64::from(1u32 << count.min(3)).sqrt(),
        }
    }
}

/// `count` equal ducts side by side; terminal 0 is the inner end, terminal 1 the outer.
///
/// Uniform transfer matrix with viscothermal wall loss, an end mass inside and, where it opens to
/// the outside, the radiation impedance of its mouth.
#[derive(Debug, Clone)]
pub struct Duct {
    nodes: [Node; 2],
    section: CrossSection,
    length: f64,
    count: f64,
    area: f64,
    ends: [Meeting; 2],
}

/// What a duct meets at an end of an area.
#[derive(Debug, Clone, Copy)]
pub(super) struct Meeting {
    kind: Kind,
    area: f64,
}

#[derive(Debug, Clone, Copy)]
enum Kind {
    /// A plug of air that moves along: its length over its area, 1/m.
    Mass(f64),
    /// The open air in front of the cabinet's own wall, whatever walls are farther off.
    Baffled,
    /// The open air all round.
    Unbaffled,
    /// The open air between the walls of the place.
    Mouth,
}

impl Meeting {
    pub(super) fn new(node: Node, end: End, area: f64) -> Self {
        let kind = match (node, end) {
            (Node::Outside, End::Flanged) => Kind::Baffled,
            (Node::Outside, End::Free) => Kind::Unbaffled,
            (Node::Outside, End::Mouth) => Kind::Mouth,
            _ => Kind::Mass(end.length_correction(area) / area),
        };
        Self { kind, area }
    }

    /// No end at all: the next element goes on with the same area.
    pub(super) fn joined(area: f64) -> Self {
        Self { kind: Kind::Mass(0.0), area }
    }

    pub(super) fn impedance(&self, at: &At<'_>) -> Complex {
        let (ka, scale) = self.scale(at);
        match self.kind {
            Kind::Mass(slug) => J * at.omega * at.air.density * slug,
            Kind::Baffled if at.space == Space::Half => piston_impedance(ka) * scale,
            Kind::Baffled => {
                Complex::new(radiation_resistance(at, self.area), piston_impedance(ka).im * scale)
            }
            Kind::Unbaffled => pipe_impedance(ka) * scale,
            Kind::Mouth => mouth_impedance(at, self.area),
        }
    }

    pub(super) fn resistance(&self, at: &At<'_>) -> f64 {
        match self.kind {
            Kind::Mass(_) => 0.0,
            Kind::Unbaffled => self.impedance(at).re,
            Kind::Baffled | Kind::Mouth => radiation_resistance(at, self.area),
        }
    }

    fn scale(&self, at: &At<'_>) -> (f64, f64) {
        let ka = at.omega / at.air.speed * (self.area / PI).sqrt();
        (ka, at.air.density * at.air.speed / self.area)
    }
}

impl Duct {
    /// Ducts of a length (m) from an inner node to the outer one.
    pub fn new(nodes: [Node; 2], section: CrossSection, length: f64, count: u32, ends: [End; 2]) -> Self {
        let area = section.area();
        Self {
            nodes,
            section,
            length,
            count: f64::from(count),
            area,
            ends: [Meeting::new(nodes[0], ends[0], area), Meeting::new(nodes[1], ends[1], area)],
        }
    }
}

impl Element for Duct {
    fn terminals(&self) -> &[Node] {
        &self.nodes
    }

    fn admit(&self, at: &At<'_>, admittance: &mut [Complex]) {
        let losses = WallLosses::at(at.air, self.section, at.omega);
        let slowness = losses.slowness();
        let characteristic = self.area * losses.specific_admittance(slowness);
        let growth = (J * at.omega * slowness * self.length).exp();
        let decay = inverse(growth);
        let (cosh, sinh) = ((growth + decay) / 2.0, (growth - decay) / 2.0);
        let (b, c) = (sinh / characteristic, sinh * characteristic);
        let inner = self.ends[0].impedance(at);
        let outer = self.ends[1].impedance(at);
        // Chain matrix of end, duct, end; its determinant stays 1.
        let a_all = cosh + inner * c;
        let b_all = b + cosh * outer + inner * (c * outer + cosh);
        let d_all = c * outer + cosh;
        let scale = self.count / b_all;
        admittance.copy_from_slice(&[d_all * scale, -scale, -scale, a_all * scale]);
    }

    fn radiation(&self, at: &At<'_>) -> f64 {
        self.ends[1].resistance(at) / self.count
    }
}

/// A plain acoustic mass between two nodes: the port of the textbook circuit. It is what the duct is
/// checked against, not what designs are computed with.
#[derive(Debug, Clone)]
pub struct Mass {
    nodes: [Node; 2],
    mass: f64,
}

impl Mass {
    /// An acoustic mass in kg/m4.
    pub fn new(nodes: [Node; 2], mass: f64) -> Self {
        Self { nodes, mass }
    }
}

impl Element for Mass {
    fn terminals(&self) -> &[Node] {
        &self.nodes
    }

    fn admit(&self, at: &At<'_>, admittance: &mut [Complex]) {
        let y = Complex::new(0.0, -1.0 / (at.omega * self.mass));
        admittance.copy_from_slice(&[y, -y, -y, y]);
    }
}
