//! A resistor, a coil and a capacitor one behind the other.

use super::{At, Effect};
use crate::lanes::Real;
use crate::node::Node;
use crate::source::Branch;
use crate::{Complex, inverse};

/// A coil and a capacitor without any loss would short their resonance, ohm.
const WIRE: f64 = 1e-9;

/// `Z = R + j w L + 1/(j w C)` between two electrical nodes.
#[derive(Debug, Clone)]
pub struct ElectricalBranch {
    nodes: [Node; 2],
    branch: Branch,
}

impl ElectricalBranch {
    /// A branch between two nodes.
    pub fn new(from: Node, to: Node, branch: Branch) -> Self {
        Self { nodes: [from, to], branch }
    }
}

impl Effect for ElectricalBranch {
    fn terminals(&self) -> &[Node] {
        &self.nodes
    }

    #[inline(always)]
    fn flows<T: Real>(&self, at: &At<'_, T>, admittance: &mut [Complex<T>]) -> T {
        let Branch { resistance, inductance, capacitance } = self.branch;
        let mut reactance = at.omega * T::of(inductance);
        if let Some(capacitance) = capacitance {
            reactance -= (at.omega * T::of(capacitance)).reciprocal();
        }
        let y = inverse(Complex::new(T::of(resistance.max(WIRE)), reactance));
        admittance.copy_from_slice(&[y, -y, -y, y]);
        T::of(0.0)
    }
}
