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
    /// For each element: where its admittances, its flows and its terminals begin.
    offsets: Vec<(usize, usize)>,
    admittance: Vec<Complex>,
    flow: Vec<Complex>,
    matrix: Vec<Complex>,
    pressure: Vec<Complex>,
}

impl<'a> Solver<'a> {
    /// Lays out the memory for a network.
    pub fn new(network: &'a Network) -> Self {
        let mut offsets = Vec::with_capacity(network.elements.len());
        let (mut matrix_at, mut flow_at) = (0, 0);
        for element in &network.elements {
            let n = element.terminals().len();
            offsets.push((matrix_at, flow_at));
            matrix_at += n * n;
            flow_at += n;
        }
        Self {
            network,
            offsets,
            admittance: vec![ZERO; matrix_at],
            flow: vec![ZERO; flow_at],
            matrix: vec![ZERO; network.nodes * network.nodes],
            pressure: vec![ZERO; network.nodes],
        }
    }

    /// Solves at a frequency (Hz) for a drive (V RMS); the results stay until the next call.
    pub fn solve(&mut self, frequency: f64, volts: f64) {
        let at = At { omega: 2.0 * std::f64::consts::PI * frequency, volts, air: &self.network.air };
        self.assemble(&at);
        solve_in_place(&mut self.matrix, &mut self.pressure);
        self.find_flows();
    }

    /// Volume velocity out of an element's terminal, m3/s RMS.
    pub fn outflow(&self, element: usize, terminal: usize) -> Complex {
        -self.flow[self.offsets[element].1 + terminal]
    }

    /// Pressure at a node, Pa RMS.
    pub fn pressure(&self, node: Node) -> Complex {
        match node {
            Node::Outside => ZERO,
            Node::Inside(index) => self.pressure[index],
        }
    }

    /// Everything that flows to the outside, m3/s RMS: cones, ports and leaks alike.
    pub fn total_outflow(&self) -> Complex {
        let mut total = ZERO;
        for (element, &(_, flow_at)) in self.network.elements.iter().zip(&self.offsets) {
            for (terminal, node) in element.terminals().iter().enumerate() {
                if *node == Node::Outside {
                    total -= self.flow[flow_at + terminal];
                }
            }
        }
        total
    }

    fn assemble(&mut self, at: &At<'_>) {
        for values in [&mut self.admittance, &mut self.flow, &mut self.matrix, &mut self.pressure] {
            values.fill(ZERO);
        }
        let nodes = self.network.nodes;
        for (element, &(matrix_at, flow_at)) in self.network.elements.iter().zip(&self.offsets) {
            let terminals = element.terminals();
            let n = terminals.len();
            let y = &mut self.admittance[matrix_at..matrix_at + n * n];
            let source = &mut self.flow[flow_at..flow_at + n];
            element.admit(at, y, source);
            for (row, from) in terminals.iter().enumerate() {
                let Node::Inside(from) = *from else { continue };
                self.pressure[from] -= source[row];
                for (column, to) in terminals.iter().enumerate() {
                    if let Node::Inside(to) = *to {
                        self.matrix[from * nodes + to] += y[row * n + column];
                    }
                }
            }
        }
    }

    /// Turns each element's source flows into its total flows, now that the pressures are known.
    fn find_flows(&mut self) {
        for (element, &(matrix_at, flow_at)) in self.network.elements.iter().zip(&self.offsets) {
            let terminals = element.terminals();
            let n = terminals.len();
            for row in 0..n {
                for (column, node) in terminals.iter().enumerate() {
                    if let Node::Inside(node) = *node {
                        self.flow[flow_at + row] +=
                            self.admittance[matrix_at + row * n + column] * self.pressure[node];
                    }
                }
            }
        }
    }
}
