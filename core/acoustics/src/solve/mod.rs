//! Numbering, assembly and solution of a network, one frequency at a time.

mod elimination;

use crate::Complex;
use crate::element::At;
use crate::network::{Network, Node};
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
    pressure: Vec<Complex>,
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
    /// A flow and the node it is drawn from.
    drawn: Vec<(usize, usize)>,
    /// A flow, and the admittance and node whose product adds to it.
    driven: Vec<(usize, usize, usize)>,
    /// Flows that come from the outside.
    outside: Vec<usize>,
}

impl Wiring {
    fn add(&mut self, slot: Slot, terminals: &[Node], nodes: usize) {
        for (row, from) in terminals.iter().enumerate() {
            match *from {
                Node::Inside(from) => self.drawn.push((slot.flow + row, from)),
                Node::Outside => self.outside.push(slot.flow + row),
                Node::Elsewhere => {}
            }
            for (column, to) in terminals.iter().enumerate() {
                let Node::Inside(to) = *to else { continue };
                let admittance = slot.admittance + row * terminals.len() + column;
                self.driven.push((slot.flow + row, admittance, to));
                if let Node::Inside(from) = *from {
                    self.stamps.push((admittance, from * nodes + to));
                }
            }
        }
    }
}

impl<'a> Solver<'a> {
    /// Lays out the memory for a network.
    pub fn new(network: &'a Network) -> Self {
        let mut slots = Vec::with_capacity(network.elements.len());
        let mut wiring = Wiring::default();
        let mut next = Slot { admittance: 0, flow: 0, terminals: 0 };
        for element in &network.elements {
            let terminals = element.terminals();
            let n = terminals.len();
            let slot = Slot { terminals: n, ..next };
            wiring.add(slot, terminals, network.nodes);
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
            pressure: vec![ZERO; network.nodes],
        }
    }

    /// Solves at a frequency (Hz) for a drive (V RMS); the results stay until the next call.
    pub fn solve(&mut self, frequency: f64, volts: f64) {
        let at = At { omega: 2.0 * std::f64::consts::PI * frequency, volts, air: &self.network.air };
        self.assemble(&at);
        solve_in_place(&mut self.matrix, &mut self.pressure);
        for &(flow, admittance, node) in &self.wiring.driven {
            self.flow[flow] += self.admittance[admittance] * self.pressure[node];
        }
    }

    /// Volume velocity out of an element's terminal, m3/s RMS.
    pub fn outflow(&self, element: usize, terminal: usize) -> Complex {
        -self.flow[self.slots[element].flow + terminal]
    }

    /// Pressure at a node, Pa RMS.
    pub fn pressure(&self, node: Node) -> Complex {
        match node {
            Node::Outside | Node::Elsewhere => ZERO,
            Node::Inside(index) => self.pressure[index],
        }
    }

    /// Everything that flows to the outside, m3/s RMS: cones, ports and leaks alike.
    pub fn total_outflow(&self) -> Complex {
        -self.wiring.outside.iter().map(|&flow| self.flow[flow]).sum::<Complex>()
    }

    fn assemble(&mut self, at: &At<'_>) {
        for values in [&mut self.flow, &mut self.matrix, &mut self.pressure] {
            values.fill(ZERO);
        }
        for (element, slot) in self.network.elements.iter().zip(&self.slots) {
            let n = slot.terminals;
            let y = &mut self.admittance[slot.admittance..slot.admittance + n * n];
            element.admit(at, y, &mut self.flow[slot.flow..slot.flow + n]);
        }
        for &(admittance, entry) in &self.wiring.stamps {
            self.matrix[entry] += self.admittance[admittance];
        }
        for &(flow, node) in &self.wiring.drawn {
            self.pressure[node] -= self.flow[flow];
        }
    }
}
