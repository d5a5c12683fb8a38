//! Numbering, assembly and solution of a network, one frequency at a time.

mod elimination;

use crate::element::At;
use crate::network::{Network, Node};
use crate::{Complex, J};
use elimination::solve_in_place;

const ZERO: Complex = Complex::new(0.0, 0.0);

/// Working memory for one network; made once, used for every frequency.
#[derive(Debug)]
pub struct Solver<'a> {
    network: &'a Network,
    slots: Vec<Slot>,
    wiring: Wiring,
    admittance: Vec<Complex>,
    flow: Vec<Complex>,
    matrix: Vec<Complex>,
    /// Pressure or voltage at each inside node, and the drive behind them.
    across: Vec<Complex>,
    /// Angular frequency of the last solution, rad/s.
    omega: f64,
}

/// Where an element's admittances and flows stand.
#[derive(Debug, Clone, Copy)]
struct Slot {
    admittance: usize,
    flow: usize,
    terminals: usize,
}

/// What goes where, as positions in the solver's vectors: found once, followed at every frequency.
#[derive(Debug, Default)]
struct Wiring {
    /// An admittance and the matrix entry it adds to.
    stamps: Vec<(usize, usize)>,
    /// An admittance to the amplifier and the node it drives.
    drives: Vec<(usize, usize)>,
    /// A flow, and the admittance and node whose product adds to it; the node past the last is the drive.
    driven: Vec<(usize, usize, usize)>,
    /// Flows that come from the outside, each with its element and its extra way to the listener, m.
    outside: Vec<(usize, usize, f64)>,
    /// Flows that come from the amplifier.
    supplied: Vec<usize>,
}

impl Wiring {
    fn add(&mut self, slot: Slot, terminals: &[Node], network: &Network, element: usize) {
        for (row, from) in terminals.iter().enumerate() {
            let flow = slot.flow + row;
            match *from {
                Node::Outside => self.outside.push((flow, element, way(network, element, row))),
                Node::Amplifier => self.supplied.push(flow),
                Node::Elsewhere | Node::Ground | Node::Inside(_) => {}
            }
            for (column, to) in terminals.iter().enumerate() {
                let admittance = slot.admittance + row * terminals.len() + column;
                let to = match *to {
                    Node::Inside(to) => to,
                    Node::Amplifier => network.nodes,
                    Node::Outside | Node::Elsewhere | Node::Ground => continue,
                };
                self.driven.push((flow, admittance, to));
                match *from {
                    Node::Inside(from) if to == network.nodes => self.drives.push((admittance, from)),
                    Node::Inside(from) => self.stamps.push((admittance, from * network.nodes + to)),
                    _ => {}
                }
            }
        }
    }
}

fn way(network: &Network, element: usize, terminal: usize) -> f64 {
    let same = |path: &&crate::network::Path| path.element == element && path.terminal == terminal;
    network.paths.iter().find(same).map_or(0.0, |path| path.distance)
}

impl<'a> Solver<'a> {
    /// Lays out the memory for a network.
    pub fn new(network: &'a Network) -> Self {
        let mut slots = Vec::with_capacity(network.elements.len());
        let mut wiring = Wiring::default();
        let mut next = Slot { admittance: 0, flow: 0, terminals: 0 };
        for (index, element) in network.elements.iter().enumerate() {
            let terminals = element.terminals();
            let n = terminals.len();
            let slot = Slot { terminals: n, ..next };
            wiring.add(slot, terminals, network, index);
            slots.push(slot);
            next = Slot { admittance: slot.admittance + n * n, flow: slot.flow + n, terminals: 0 };
        }
        Self {
            network,
            slots,
            wiring,
            admittance: vec![ZERO; next.admittance],
            flow: vec![ZERO; next.flow],
            matrix: vec![ZERO; network.nodes * network.nodes],
            across: vec![ZERO; network.nodes + 1],
            omega: 0.0,
        }
    }

    /// Solves at a frequency (Hz) for a drive (V RMS); the results stay until the next call.
    pub fn solve(&mut self, frequency: f64, volts: f64) {
        let Network { air, space, nodes, .. } = self.network;
        self.omega = 2.0 * std::f64::consts::PI * frequency;
        self.assemble(&At { omega: self.omega, air, space: *space }, volts);
        solve_in_place(&mut self.matrix, &mut self.across[..*nodes]);
        self.flow.fill(ZERO);
        for &(flow, admittance, node) in &self.wiring.driven {
            self.flow[flow] += self.admittance[admittance] * self.across[node];
        }
    }

    /// Impedance that a node sets against a flow into it at a frequency (Hz), with nothing driven, Pa s/m3.
    pub fn input_impedance(&mut self, frequency: f64, node: Node) -> Complex {
        let Network { air, space, nodes, .. } = self.network;
        let Node::Inside(index) = node else { return ZERO };
        self.omega = 2.0 * std::f64::consts::PI * frequency;
        self.assemble(&At { omega: self.omega, air, space: *space }, 0.0);
        self.across[index] = Complex::new(1.0, 0.0);
        solve_in_place(&mut self.matrix, &mut self.across[..*nodes]);
        self.across[index]
    }

    /// What flows out of an element's terminal: m3/s RMS, on the electrical side A RMS.
    pub fn outflow(&self, element: usize, terminal: usize) -> Complex {
        -self.flow[self.slots[element].flow + terminal]
    }

    /// Pressure at a node, Pa RMS, on the electrical side V RMS.
    pub fn pressure(&self, node: Node) -> Complex {
        match node {
            Node::Outside | Node::Elsewhere | Node::Ground => ZERO,
            Node::Inside(index) => self.across[index],
            Node::Amplifier => self.across[self.network.nodes],
        }
    }

    /// Everything that flows to the outside, m3/s RMS: cones, ports and leaks alike, each as loud as its element says
    /// and delayed by its extra way to the listener.
    pub fn heard_outflow(&self) -> Complex {
        let Network { air, space, elements, .. } = self.network;
        let at = At { omega: self.omega, air, space: *space };
        let heard = |&(flow, element, way): &(usize, usize, f64)| {
            let flow = self.flow[flow] * elements[element].loudness(&at);
            if way > 0.0 { flow * Complex::from_polar(1.0, -self.omega / air.speed * way) } else { flow }
        };
        -self.wiring.outside.iter().map(heard).sum::<Complex>()
    }

    /// Pressure at 1 m in the space of the network, without the travel time: `j w rho U/(Omega r)`, Pa RMS.
    pub fn heard_pressure(&self) -> Complex {
        let Network { air, space, .. } = self.network;
        J * (self.omega * air.density / space.angle()) * self.heard_outflow()
    }

    /// Current that the amplifier gives, A RMS.
    pub fn current(&self) -> Complex {
        self.wiring.supplied.iter().map(|&flow| self.flow[flow]).sum()
    }

    /// Power that leaves as sound, W.
    ///
    /// Every opening works against its own radiation resistance; as long as they stand close together they
    /// also work against each other, all against `rho w^2/(Omega c)` of their sum.
    pub fn radiated(&self) -> f64 {
        let Network { air, space, elements, paths, .. } = self.network;
        let at = At { omega: self.omega, air, space: *space };
        let together = air.density * self.omega * self.omega / (space.angle() * air.speed);
        let apart = !paths.is_empty();
        let mut power = 0.0;
        let mut sum = ZERO;
        for (index, element) in elements.iter().enumerate() {
            let resistance = element.radiation(&at);
            let Some(terminal) = element.terminals().iter().position(|node| *node == Node::Outside) else {
                continue;
            };
            let flow = self.outflow(index, terminal);
            sum += flow;
            let own = if apart || resistance <= 0.0 { resistance } else { resistance - together };
            power += own * flow.norm_sqr();
        }
        if !apart {
            power += together * sum.norm_sqr();
        }
        power.max(0.0)
    }

    fn assemble(&mut self, at: &At<'_>, volts: f64) {
        let drive = self.network.nodes;
        self.matrix.fill(ZERO);
        self.across.fill(ZERO);
        self.across[drive] = volts.into();
        for (element, slot) in self.network.elements.iter().zip(&self.slots) {
            let n = slot.terminals;
            element.admit(at, &mut self.admittance[slot.admittance..slot.admittance + n * n]);
        }
        for &(admittance, entry) in &self.wiring.stamps {
            self.matrix[entry] += self.admittance[admittance];
        }
        for &(admittance, node) in &self.wiring.drives {
            self.across[node] -= self.admittance[admittance] * volts;
        }
    }
}
