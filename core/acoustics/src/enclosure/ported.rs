//! Ported cabinets.

use std::f64::consts::PI;

use super::{CompileError, Compiled, Fidelity, Losses};
use crate::Complex;
use crate::driver::Driver;
use crate::element::{At, Chamber, Duct, Element, End, Mass, MovingCoil, Resistance};
use crate::medium::{Air, CrossSection};
use crate::network::{Network, Node, Opening};

/// Below this a hole in the wall is a hole, not a port, m.
const SHORTEST_PORT: f64 = 1e-3;

/// A port, or several equal ones.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Port {
    /// Cross-section of one.
    pub section: CrossSection,
    /// Length; one without a length is as long as the tuning needs.
    pub length: Option<f64>,
    /// How many equal ones.
    pub count: u32,
    /// The end in the box.
    pub inner: End,
    /// The end outside.
    pub outer: End,
}

/// A box with one or more ports.
#[derive(Debug, Clone, PartialEq)]
pub struct Ported {
    /// Net inside volume without the ports, m3.
    pub volume: f64,
    /// Losses at the tuning.
    pub losses: Losses,
    /// The ports.
    pub ports: Vec<Port>,
    /// Tuning to reach, Hz; `None` where every port has its length.
    pub tuning: Option<f64>,
}

/// What a port came out as.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct PortLength {
    /// Length, m.
    pub length: f64,
    /// First resonance of the pipe itself, Hz: `c/(2 Leff)`.
    pub pipe_resonance: f64,
    /// Area of one port, m2.
    pub area: f64,
}

/// How a ported box is tuned.
#[derive(Debug, Clone, PartialEq)]
pub struct PortTuning {
    /// Where the reactance on the box side of the cone crosses zero, Hz.
    pub reactance: f64,
    /// Helmholtz's formula with the same end corrections, Hz.
    pub helmholtz: f64,
    /// Each port, in order.
    pub ports: Vec<PortLength>,
}

impl Port {
    /// Length with both end corrections, m.
    fn effective_length(&self, length: f64) -> f64 {
        let area = self.section.area();
        length + self.inner.length_correction(area) + self.outer.length_correction(area)
    }

    /// Acoustic mass of all the equal ports together, kg/m4.
    fn mass(&self, length: f64, air: &Air) -> f64 {
        air.density * self.effective_length(length) / (self.section.area() * f64::from(self.count))
    }

    fn element(&self, length: f64, air: &Air, fidelity: Fidelity) -> Box<dyn Element> {
        let nodes = [Node::Inside(0), Node::Outside];
        if fidelity.ducts {
            Box::new(Duct::new(nodes, self.section, length, self.count, [self.inner, self.outer]))
        } else {
            Box::new(Mass::new(nodes, self.mass(length, air)))
        }
    }

    fn admittance(&self, length: f64, frequency: f64, air: &Air, fidelity: Fidelity) -> Complex {
        let at = At { omega: 2.0 * PI * frequency, volts: 0.0, air };
        let zero = Complex::new(0.0, 0.0);
        let (mut y, mut source) = ([zero; 4], [zero; 2]);
        self.element(length, air, fidelity).admit(&at, &mut y, &mut source);
        y[0]
    }
}

impl Ported {
    /// Susceptance on the box side of the cone, m3/(s Pa); rises through zero at the tuning.
    fn susceptance(&self, lengths: &[f64], frequency: f64, air: &Air, fidelity: Fidelity) -> f64 {
        let chamber = 2.0 * PI * frequency * air.compliance(self.volume);
        let ports = self.ports.iter().zip(lengths);
        chamber
            + ports.map(|(port, length)| port.admittance(*length, frequency, air, fidelity).im).sum::<f64>()
    }

    fn tuning_of(&self, lengths: &[f64], air: &Air, fidelity: Fidelity) -> f64 {
        let longest = self
            .ports
            .iter()
            .zip(lengths)
            .map(|(port, length)| port.effective_length(*length))
            .fold(0.0, f64::max);
        // The susceptance of a pipe is still that of a mass below its quarter wave.
        bisect(0.1, air.speed / (4.0 * longest), |f| self.susceptance(lengths, f, air, fidelity))
    }

    fn helmholtz(&self, lengths: &[f64], air: &Air) -> f64 {
        let inertance =
            self.ports.iter().zip(lengths).map(|(port, length)| port.mass(*length, air).recip()).sum::<f64>();
        (inertance / air.compliance(self.volume)).sqrt() / (2.0 * PI)
    }

    /// All lengths, those without one solved for the tuning. They come out equally long.
    fn lengths(&self, air: &Air, fidelity: Fidelity) -> Result<Vec<f64>, CompileError> {
        let with = |open: f64| self.ports.iter().map(|port| port.length.unwrap_or(open)).collect::<Vec<_>>();
        let open = self.ports.iter().position(|port| port.length.is_none());
        match (self.tuning, open) {
            (None, None) => Ok(with(0.0)),
            (None, Some(port)) => Err(CompileError::LengthUnknown { port }),
            (Some(_), None) => Err(CompileError::NothingToTune),
            (Some(tuning), Some(_)) => {
                let susceptance = |length: f64| self.susceptance(&with(length), tuning, air, fidelity);
                if susceptance(SHORTEST_PORT) > 0.0 {
                    let highest = self.tuning_of(&with(SHORTEST_PORT), air, fidelity);
                    return Err(CompileError::TuningTooHigh { highest });
                }
                Ok(with(bisect(SHORTEST_PORT, air.speed / (4.0 * tuning), susceptance)))
            }
        }
    }

    pub(super) fn compile(
        &self,
        driver: &Driver,
        air: &Air,
        fidelity: Fidelity,
    ) -> Result<Compiled, CompileError> {
        let lengths = self.lengths(air, fidelity)?;
        let inside = Node::Inside(0);
        let tuning = PortTuning {
            reactance: self.tuning_of(&lengths, air, fidelity),
            helmholtz: self.helmholtz(&lengths, air),
            ports: self
                .ports
                .iter()
                .zip(&lengths)
                .map(|(port, &length)| PortLength {
                    length,
                    pipe_resonance: air.speed / (2.0 * port.effective_length(length)),
                    area: port.section.area(),
                })
                .collect(),
        };
        let omega = 2.0 * PI * tuning.reactance;
        let compliance = air.compliance(self.volume);
        let cone = MovingCoil::new(Node::Outside, inside, *driver, fidelity.radiation);
        let mut network = Network::new(*air, *driver, 1, cone);
        network.add(Chamber::new(inside, compliance, self.losses.qa, omega));
        if let Some(ql) = self.losses.ql {
            network.add(Resistance::leak(inside, compliance, ql, omega));
        }
        for (port, &length) in self.ports.iter().zip(&lengths) {
            network.elements.push(port.element(length, air, fidelity));
            network.openings.push(Opening {
                label: format!("Port {}", network.openings.len() + 1),
                element: network.elements.len() - 1,
                terminal: 1,
                area: port.section.area() * f64::from(port.count),
            });
        }
        Ok(Compiled { network, closed_box: None, port_tuning: Some(tuning) })
    }
}

/// Root of a rising function between two bounds, to the last bit that matters.
fn bisect(mut low: f64, mut high: f64, rising: impl Fn(f64) -> f64) -> f64 {
    for _ in 0..60 {
        let middle = 0.5 * (low + high);
        if rising(middle) < 0.0 {
            low = middle;
        } else {
            high = middle;
        }
    }
    0.5 * (low + high)
}
