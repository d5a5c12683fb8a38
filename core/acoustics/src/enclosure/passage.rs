//! What lines and horns have in common: a profile whose air leads from the drivers to a mouth.

use std::f64::consts::PI;

use super::{CompileError, Fidelity};
use crate::element::{Asking, End, Passage};
use crate::inverse;
use crate::medium::Air;
use crate::network::{Network, Node, Opening, OpeningKind, Path};
use crate::profile::Profile;
use crate::root::begin_of;
use crate::solve::{Solver, Sweep, Work};

/// Span in which a resonance is looked for, Hz, and the ratio of its steps.
const SEARCH: std::ops::Range<f64> = 2.0..400.0;
const STEP: f64 = 1.05;
/// Rounds of dividing a step by five that refine a resonance to a ten-millionth.
const ROUNDS: usize = 8;

/// What a network shows at a node, at four frequencies, m3/(s Pa).
struct Susceptance {
    frequencies: [f64; 4],
    node: Node,
}

impl Work for Susceptance {
    type Output = [f64; 4];

    #[inline(always)]
    fn run<T: Asking>(self, solver: &mut Solver<'_, T>) -> [f64; 4] {
        let mut found = [0.0; 4];
        for (some, found) in self.frequencies.chunks(T::LANES).zip(found.chunks_mut(T::LANES)) {
            let shown = inverse(solver.input_impedance(T::by_lane(|lane| some[lane]), self.node)).im;
            found.iter_mut().enumerate().for_each(|(lane, value)| *value = shown.extract(lane));
        }
        found
    }
}

/// Where the susceptance that a network of passive parts shows at a node rises through zero for the first time.
pub(super) fn first_resonance(network: &Network, node: Node) -> Option<f64> {
    let mut sweep = Sweep::new(network);
    let mut susceptance = |frequencies: [f64; 4]| sweep.run(Susceptance { frequencies, node });
    let mut low = SEARCH.start;
    let mut before = susceptance([low; 4])[0];
    while low < SEARCH.end {
        let places = [1, 2, 3, 4].map(|k| low * STEP.powi(k));
        for (high, after) in places.into_iter().zip(susceptance(places)) {
            if before < 0.0 && after >= 0.0 {
                return Some(begin_of(low, high, ROUNDS, |all| susceptance(all).map(|found| found >= 0.0)));
            }
            (low, before) = (high, after);
        }
    }
    None
}

impl Profile {
    /// Acoustic mass of the whole way, kg/m4.
    pub(super) fn mass(&self, air: &Air) -> f64 {
        self.slices(0.0, self.length())
            .iter()
            .map(|slice| slice.length / (slice.start * slice.end).sqrt())
            .sum::<f64>()
            * air.density
    }

    pub(super) fn checked(&self) -> Result<(), CompileError> {
        self.check().map_err(|(segment, error)| CompileError::Flare { segment, error })
    }

    /// Adds the part between two places along the way (m).
    pub(super) fn install(
        &self,
        network: &mut Network,
        [from, to]: [f64; 2],
        nodes: [Node; 2],
        ends: [Option<End>; 2],
        fidelity: Fidelity,
    ) -> usize {
        network.add(Passage::new(nodes, &self.slices(from, to), ends, fidelity.ducts))
    }

    /// Adds the part from a place to the open air, with its mouth, and its throat where that is narrower, as openings.
    pub(super) fn install_mouth(
        &self,
        network: &mut Network,
        from: f64,
        node: Node,
        ends: [Option<End>; 2],
        path: f64,
        fidelity: Fidelity,
    ) {
        let element = self.install(network, [from, self.length()], [node, Node::Outside], ends, fidelity);
        let mut opening = |label: &str, kind, terminal, area| {
            network.openings.push(Opening {
                label: label.to_owned(),
                kind,
                element,
                terminal,
                area,
                xmax: None,
            });
        };
        let entered = self.area_at(from);
        if entered < 0.9 * self.end() {
            // Out of a chamber it begins with an edge.
            let kind = if ends[0].is_some() { OpeningKind::Port } else { OpeningKind::Throat };
            opening(if from > 0.0 { "At the driver" } else { "Throat" }, kind, 0, entered);
        }
        opening("Mouth", OpeningKind::Port, 1, self.end());
        if path > 0.0 {
            network.paths.push(Path { element, terminal: 1, distance: path });
        }
    }
}

/// Helmholtz's frequency of a chamber (m3) with a way of an acoustic mass (kg/m4) out of it, rad/s.
pub(super) fn helmholtz(volume: f64, mass: f64, air: &Air) -> f64 {
    (mass * air.compliance(volume)).sqrt().recip().max(2.0 * PI)
}
