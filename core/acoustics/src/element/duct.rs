//! A duct of one cross-section: a port.

use std::f64::consts::PI;

use super::radiation::{pipe_impedance, piston_impedance};
use super::{At, Element};
use crate::medium::{CrossSection, WallLosses};
use crate::node::Node;
use crate::{Complex, J};

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
}

impl End {
    /// Low-frequency length correction for a mouth of an area (m2), m.
    pub fn length_correction(self, area: f64) -> f64 {
        let radius = (area / PI).sqrt();
        match self {
            Self::Flanged => 8.0 / (3.0 * PI) * radius,
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
    /// Radius of a round mouth of the same area, m.
    radius: f64,
    ends: [DuctEnd; 2],
}

/// What a duct meets at an end.
#[derive(Debug, Clone, Copy)]
enum DuctEnd {
    /// A plug of air that moves along: its length over its area, 1/m.
    Mass(f64),
    /// The open air in front of a wall.
    Baffled,
    /// The open air all round.
    Unbaffled,
}

impl Duct {
    /// Ducts of a length (m) from an inner node to the outer one.
    pub fn new(nodes: [Node; 2], section: CrossSection, length: f64, count: u32, ends: [End; 2]) -> Self {
        let area = section.area();
        let meets = |node, end: End| match (node, end) {
            (Node::Outside, End::Flanged) => DuctEnd::Baffled,
            (Node::Outside, End::Free) => DuctEnd::Unbaffled,
            _ => DuctEnd::Mass(end.length_correction(area) / area),
        };
        Self {
            nodes,
            section,
            length,
            count: f64::from(count),
            area,
            radius: (area / PI).sqrt(),
            ends: [meets(nodes[0], ends[0]), meets(nodes[1], ends[1])],
        }
    }

    fn end_impedance(&self, end: DuctEnd, at: &At<'_>) -> Complex {
        let relative = match end {
            DuctEnd::Mass(slug) => return J * at.omega * at.air.density * slug,
            DuctEnd::Baffled => piston_impedance(at.omega / at.air.speed * self.radius),
            DuctEnd::Unbaffled => pipe_impedance(at.omega / at.air.speed * self.radius),
        };
        relative * (at.air.density * at.air.speed / self.area)
    }
}

impl Element for Duct {
    fn terminals(&self) -> &[Node] {
        &self.nodes
    }

    fn admit(&self, at: &At<'_>, admittance: &mut [Complex], _: &mut [Complex]) {
        let losses = WallLosses::at(at.air, self.section, at.omega);
        let slowness = losses.slowness();
        let characteristic = self.area * losses.specific_admittance(slowness);
        let growth = (J * at.omega * slowness * self.length).exp();
        let decay = growth.inv();
        let (cosh, sinh) = ((growth + decay) / 2.0, (growth - decay) / 2.0);
        let (b, c) = (sinh / characteristic, sinh * characteristic);
        let inner = self.end_impedance(self.ends[0], at);
        let outer = self.end_impedance(self.ends[1], at);
        // Chain matrix of end, duct, end; its determinant stays 1.
        let a_all = cosh + inner * c;
        let b_all = b + cosh * outer + inner * (c * outer + cosh);
        let d_all = c * outer + cosh;
        let scale = self.count / b_all;
        admittance.copy_from_slice(&[d_all * scale, -scale, -scale, a_all * scale]);
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

    fn admit(&self, at: &At<'_>, admittance: &mut [Complex], _: &mut [Complex]) {
        let y = (J * at.omega * self.mass).inv();
        admittance.copy_from_slice(&[y, -y, -y, y]);
    }
}
