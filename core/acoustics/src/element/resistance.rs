//! A plain acoustic resistance: a leak, a vent stuffed with felt.

use super::{At, Effect};
use crate::Complex;
use crate::lanes::Real;
use crate::node::Node;

/// A resistance between two nodes.
#[derive(Debug, Clone)]
pub struct Resistance {
    nodes: [Node; 2],
    conductance: f64,
}

impl Resistance {
    /// A resistance in Pa s/m3.
    pub fn new(from: Node, to: Node, resistance: f64) -> Self {
        Self { nodes: [from, to], conductance: 1.0 / resistance }
    }

    /// The leak that gives a chamber of a compliance (m3/Pa) the quality `ql` at `omega` (rad/s):
    /// `R = QL/(omega C)` (Small 1973, part I). It leaks to the outside, where it is heard.
    pub fn leak(node: Node, compliance: f64, ql: f64, omega: f64) -> Self {
        Self::new(node, Node::Outside, ql / (omega * compliance))
    }
}

impl Effect for Resistance {
    fn terminals(&self) -> &[Node] {
        &self.nodes
    }

    #[inline(always)]
    fn flows<T: Real>(&self, _: &At<'_, T>, admittance: &mut [Complex<T>]) -> T {
        let g = Complex::from(T::of(self.conductance));
        admittance.copy_from_slice(&[g, -g, -g, g]);
        T::of(0.0)
    }
}
