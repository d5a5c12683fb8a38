//! Air enclosed in a volume small against the wavelength.

use super::{At, Effect};
use crate::Complex;
use crate::lanes::Real;
use crate::node::Node;

/// A lumped chamber: compliance `V/(rho c^2)` in series with an absorption resistance.
#[derive(Debug, Clone)]
pub struct Chamber {
    node: [Node; 1],
    compliance: f64,
    absorption: f64,
}

impl Chamber {
    /// A chamber of a compliance (m3/Pa) with absorption quality `qa` referred to `omega` (rad/s):
    /// `R = 1/(omega C QA)` (Small 1973, part I).
    pub fn new(node: Node, compliance: f64, qa: Option<f64>, omega: f64) -> Self {
        Self { node: [node], compliance, absorption: qa.map_or(0.0, |qa| 1.0 / (omega * compliance * qa)) }
    }
}

impl Effect for Chamber {
    fn terminals(&self) -> &[Node] {
        &self.node
    }

    #[inline(always)]
    fn flows<T: Real>(&self, at: &At<'_, T>, admittance: &mut [Complex<T>]) -> T {
        // j w C / (1 + j w C R)
        let one = T::of(1.0);
        let spring = at.omega * T::of(self.compliance);
        let lost = spring * T::of(self.absorption);
        admittance[0] = Complex::new(lost, one) * (spring / (one + lost * lost));
        T::of(0.0)
    }
}
