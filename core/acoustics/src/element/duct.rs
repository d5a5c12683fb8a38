//! A duct of one cross-section: a port.

use super::passage::{Passage, Slice};
use super::{At, Effect, End};
use crate::Complex;
use crate::lanes::Real;
use crate::medium::CrossSection;
use crate::node::Node;

/// `count` equal ducts side by side; terminal 0 is the inner end, terminal 1 the outer.
///
/// A way of one slice, with viscothermal wall loss, an end mass inside and, where it opens to the outside, the radiation
/// impedance of its mouth. It is heard as a piston.
#[derive(Debug, Clone)]
pub struct Duct {
    one: Passage,
    count: u32,
}

impl Duct {
    /// Ducts of a length (m) from an inner node to the outer one.
    pub fn new(nodes: [Node; 2], section: CrossSection, length: f64, count: u32, ends: [End; 2]) -> Self {
        let area = section.area();
        let slice = Slice { length, start: area, end: area, width: None, fill: None };
        Self { one: Passage::new(nodes, &[slice], ends.map(Some), true).touching(section), count }
    }

    /// The same of slots that narrow to a share of their area half-way and widen again, the area changing evenly.
    pub fn uneven(
        nodes: [Node; 2],
        [width, height]: [f64; 2],
        waist: f64,
        length: f64,
        count: u32,
        ends: [End; 2],
    ) -> Self {
        let area = |part: f64| width * height * (1.0 - (1.0 - waist) * (1.0 - (2.0 * part - 1.0).abs()));
        let step = 1.0 / f64::from(UNEVEN);
        let slices: Vec<Slice> = (0..UNEVEN)
            .map(|index| {
                let [start, end] = [index, index + 1].map(|k| area(f64::from(k) * step));
                Slice { length: length * step, start, end, width: Some(width), fill: None }
            })
            .collect();
        Self { one: Passage::new(nodes, &slices, ends.map(Some), true), count }
    }

    /// The same with inner ends that act longer by a length, m.
    #[must_use]
    pub fn longer_inside(self, by: f64) -> Self {
        Self { one: self.one.longer_inside(by), ..self }
    }
}

/// Slices of an uneven slot.
const UNEVEN: u32 = 16;

impl Effect for Duct {
    fn terminals(&self) -> &[Node] {
        self.one.terminals()
    }

    fn faces(&self) -> u32 {
        Effect::faces(&self.one) * self.count
    }

    #[inline(always)]
    fn flows<T: Real>(&self, at: &At<'_, T>, admittance: &mut [Complex<T>]) -> T {
        let load = self.one.flows(at, admittance);
        let count = T::of(f64::from(self.count));
        for y in admittance {
            *y *= count;
        }
        load / count
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

impl Effect for Mass {
    fn terminals(&self) -> &[Node] {
        &self.nodes
    }

    #[inline(always)]
    fn flows<T: Real>(&self, at: &At<'_, T>, admittance: &mut [Complex<T>]) -> T {
        let y = Complex::new(T::of(0.0), -(at.omega * T::of(self.mass)).reciprocal());
        admittance.copy_from_slice(&[y, -y, -y, y]);
        T::of(0.0)
    }
}
