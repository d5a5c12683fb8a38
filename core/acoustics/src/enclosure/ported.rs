//! Ported cabinets.

use std::f64::consts::PI;

use super::{ChamberModel, CompileError, Compiled, Fidelity, Losses, PortLength, PortTuning, Setting};
use crate::Complex;
use crate::element::{At, Duct, Element, End, Mass};
use crate::medium::{Air, CrossSection, Space};
use crate::network::{Network, Node, Opening, OpeningKind, Path};
use crate::root::zero;

/// Below this a hole in the wall is a hole, not a port, m.
const SHORTEST_PORT: f64 = 1e-3;

/// Up to where a tuning is looked for, Hz, and by which steps beyond the quarter wave of the longest port.
const HIGHEST: f64 = 5000.0;
const STEP: f64 = 1.02;
/// Where it is looked for first, as parts of Helmholtz's frequency.
const HELMHOLTZ: [f64; 2] = [0.9, 1.01];

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
    /// How much farther its mouth has to the listener than the cone, m.
    pub path: f64,
    /// Of a slot, its height half-way in over that at its ends: 1 where it is even, less where it narrows evenly towards its middle.
    pub waist: f64,
    /// How much longer it acts than its length and its ends say, m, as it was found by measuring; 0 where nothing was.
    pub extra: f64,
}

/// A chamber with one or more ports: a ported box by itself, and what bandpass boxes are made of.
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

impl Port {
    /// One, free inside and flanged outside; without a length (m) as long as the tuning needs.
    pub fn new(section: CrossSection, length: Option<f64>) -> Self {
        Self {
            section,
            length,
            count: 1,
            inner: End::Free,
            outer: End::Flanged,
            path: 0.0,
            waist: 1.0,
            extra: 0.0,
        }
    }

    /// Length with both end corrections, m.
    fn effective_length(&self, length: f64) -> f64 {
        let area = self.section.area();
        // The mean of S0/S along areas that fall and rise evenly.
        let slower = if self.waist < 1.0 { self.waist.ln() / (self.waist - 1.0) } else { 1.0 };
        let inside = (self.inner.length_correction(area) + self.extra).max(0.0);
        length * slower + inside + self.outer.length_correction(area)
    }

    /// Acoustic mass of all the equal ports together, kg/m4.
    fn mass(&self, length: f64, air: &Air) -> f64 {
        air.density * self.effective_length(length) / (self.section.area() * f64::from(self.count))
    }

    fn element(&self, nodes: [Node; 2], length: f64, air: &Air, fidelity: Fidelity) -> Box<dyn Element> {
        if fidelity.ducts {
            let ends = [self.inner, self.outer];
            let duct = match self.section {
                CrossSection::Slot { width, height } if self.waist < 1.0 => {
                    Duct::uneven(nodes, [width, height], self.waist, length, self.count, ends)
                }
                section => Duct::new(nodes, section, length, self.count, ends),
            };
            Box::new(duct.longer_inside(self.extra))
        } else {
            Box::new(Mass::new(nodes, self.mass(length, air)))
        }
    }

    /// Adds the port, of a length (m), between two nodes.
    fn install(
        &self,
        network: &mut Network,
        nodes: [Node; 2],
        length: f64,
        fidelity: Fidelity,
        label: String,
    ) {
        let air = network.air;
        network.elements.push(self.element(nodes, length, &air, fidelity));
        let element = network.elements.len() - 1;
        // Where the air is fastest.
        let area = self.section.area() * self.waist * f64::from(self.count);
        network.openings.push(Opening {
            label,
            kind: OpeningKind::Port,
            element,
            terminal: 1,
            area,
            xmax: None,
        });
        if nodes[1] == Node::Outside && self.path > 0.0 {
            network.paths.push(Path { element, terminal: 1, distance: self.path });
        }
    }
}

impl Ported {
    /// Susceptance on the box side of the cone, m3/(s Pa), at a frequency; rises through zero at the tuning.
    fn susceptance<'a>(
        &self,
        lengths: &[f64],
        air: &'a Air,
        fidelity: Fidelity,
    ) -> impl Fn(f64) -> f64 + use<'a> {
        let compliance = air.compliance(self.volume);
        let ports: Vec<_> = self
            .ports
            .iter()
            .zip(lengths)
            .map(|(port, length)| port.element([Node::Inside(0), Node::Outside], *length, air, fidelity))
            .collect();
        move |frequency| {
            let at = At { omega: 2.0 * PI * frequency, air, space: Space::Half };
            let susceptance = ports.iter().map(|port| {
                let mut y = [Complex::new(0.0, 0.0); 4];
                port.admit(&at, &mut y);
                y[0].im
            });
            at.omega * compliance + susceptance.sum::<f64>()
        }
    }

    /// The first frequency where chamber and ports are in balance, Hz; `None` where there is none.
    fn tuning_of(&self, lengths: &[f64], air: &Air, fidelity: Fidelity) -> Option<f64> {
        let longest = self
            .ports
            .iter()
            .zip(lengths)
            .map(|(port, length)| port.effective_length(*length))
            .fold(0.0, f64::max);
        // Times the frequency it is nearly a parabola below the quarter wave of a pipe, where its susceptance is that of a mass. Of
        // several, shorter ones go on being masses beyond that of the longest.
        let susceptance = self.susceptance(lengths, air, fidelity);
        let rising = |f: f64| f * susceptance(f);
        let (mut low, mut high) = (0.1, air.speed / (4.0 * longest));
        // The wave in the pipe and the layer at its wall tune it a little below Helmholtz's formula.
        let near = HELMHOLTZ.map(|share| share * self.helmholtz(lengths, air));
        if near[1] < high && rising(near[0]) < 0.0 && rising(near[1]) >= 0.0 {
            return zero(near[0], near[1], 0.0, rising);
        }
        while low < HIGHEST {
            if rising(low) < 0.0 && rising(high) >= 0.0 {
                return zero(low, high, 0.0, rising);
            }
            (low, high) = (high, STEP * high);
        }
        None
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
            (None, Some(port)) => Err(CompileError::LengthUnknown { port, front: false }),
            (Some(_), None) => Err(CompileError::NothingToTune { front: false }),
            (Some(tuning), Some(_)) => {
                let susceptance = |length: f64| self.susceptance(&with(length), air, fidelity)(tuning);
                if susceptance(SHORTEST_PORT) > 0.0 {
                    let highest = self.tuning_of(&with(SHORTEST_PORT), air, fidelity);
                    let highest = highest.ok_or(CompileError::Untunable { front: false })?;
                    return Err(CompileError::TuningTooHigh { highest, front: false });
                }
                // A pipe of a quarter wave does nothing any more.
                let found = zero(SHORTEST_PORT, air.speed / (4.0 * tuning), 0.0, susceptance);
                found.map(with).ok_or_else(|| self.too_low(air, fidelity))
            }
        }
    }

    /// What is said where not even the longest port tunes as low as was asked.
    fn too_low(&self, air: &Air, fidelity: Fidelity) -> CompileError {
        let ports = self.ports.iter().filter(|port| port.length.is_some()).copied().collect();
        let known = Self { ports, tuning: None, ..self.clone() };
        let lengths: Vec<f64> = known.ports.iter().filter_map(|port| port.length).collect();
        match known.tuning_of(&lengths, air, fidelity).filter(|_| !lengths.is_empty()) {
            Some(lowest) => CompileError::TuningTooLow { lowest, front: false },
            None => CompileError::Untunable { front: false },
        }
    }

    /// Finds the lengths and the tuning.
    pub(super) fn tune(&self, air: &Air, fidelity: Fidelity) -> Result<PortTuning, CompileError> {
        let lengths = self.lengths(air, fidelity)?;
        let port = |(port, &length): (&Port, &f64)| PortLength {
            length,
            pipe_resonance: air.speed / (2.0 * port.effective_length(length)),
            area: port.section.area(),
            count: port.count,
            width: match port.section {
                CrossSection::Slot { width, .. } => Some(width),
                _ => None,
            },
        };
        // A chamber that is shut is tuned to nothing.
        let reactance = match self.tuning_of(&lengths, air, fidelity) {
            None if self.ports.is_empty() => 0.0,
            found => found.ok_or(CompileError::Untunable { front: false })?,
        };
        Ok(PortTuning {
            reactance,
            helmholtz: self.helmholtz(&lengths, air),
            ports: self.ports.iter().zip(&lengths).map(port).collect(),
        })
    }

    /// Adds the chamber, with its waves where a model is given: the node of the drivers, of each port, and of so many further
    /// openings.
    pub(super) fn install_chamber(
        &self,
        network: &mut Network,
        chamber: Option<&ChamberModel>,
        tuning: &PortTuning,
        more: usize,
    ) -> Vec<Node> {
        let omega = 2.0 * PI * tuning.reactance;
        self.losses.install_chamber(network, chamber, self.ports.len() + more, self.volume, omega)
    }

    /// Adds the ports, called by a name, each from its own node to one beyond.
    pub(super) fn install_ports(
        &self,
        network: &mut Network,
        inside: &[Node],
        beyond: &[Node],
        tuning: &PortTuning,
        fidelity: Fidelity,
        name: &str,
    ) {
        let ports = self.ports.iter().zip(&tuning.ports).zip(inside.iter().zip(beyond));
        for (at, ((port, found), (inside, beyond))) in ports.enumerate() {
            let name = numbered(name, at, self.ports.len());
            port.install(network, [*inside, *beyond], found.length, fidelity, name);
        }
    }

    pub(super) fn compile(&self, setting: &Setting) -> Result<Compiled, CompileError> {
        self.compile_in(setting, None)
    }

    /// As [`Self::compile`], in a room with waves where one is given.
    pub(super) fn compile_in(
        &self,
        setting: &Setting,
        chamber: Option<&ChamberModel>,
    ) -> Result<Compiled, CompileError> {
        let tuning = self.tune(&setting.air, setting.fidelity)?;
        let mut network = setting.network();
        let nodes = self.install_chamber(&mut network, chamber, &tuning, 0);
        network.chamber("Box", nodes[0]);
        setting.mount(&mut network, [Node::Outside, nodes[0]]);
        let beyond = vec![Node::Outside; self.ports.len()];
        self.install_ports(&mut network, &nodes[1..], &beyond, &tuning, setting.fidelity, "Port");
        Ok(Compiled { port_tuning: Some(tuning), ..Compiled::of(network) })
    }
}

/// The name of one of several.
fn numbered(name: &str, index: usize, of: usize) -> String {
    if of > 1 { format!("{name} {}", index + 1) } else { name.to_owned() }
}

/// Adds ports of found lengths between two nodes; several are numbered.
pub(super) fn install_ports(
    ports: &[Port],
    network: &mut Network,
    nodes: [Node; 2],
    tuning: &PortTuning,
    fidelity: Fidelity,
    name: &str,
) {
    for (at, (port, found)) in ports.iter().zip(&tuning.ports).enumerate() {
        port.install(network, nodes, found.length, fidelity, numbered(name, at, ports.len()));
    }
}
