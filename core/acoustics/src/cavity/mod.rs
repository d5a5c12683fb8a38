//! A chamber whose standing waves count: a box of air with fill in it, and openings in its walls.
//!
//! `div((1/rho) grad p) + w^2 p/K = -j w q` with a density and a modulus for every region, on spectral elements whose faces lie
//! on the edges of fill and openings. Expanding in the waves of the empty box would be wrong for thick, dense fill. The
//! matrices are affine in the few `1/rho` and `1/K`: some frequencies are solved in full, the sweep on the basis that they
//! span, and one more full solution says how far that is off.

mod description;
mod mesh;
mod operator;

use std::f64::consts::PI;
use std::sync::atomic::{AtomicUsize, Ordering};

use nalgebra::{DMatrix, DVector};
use rayon::prelude::*;

use crate::Complex;
use crate::Stop;
use crate::element::{At, Effect};
use crate::lanes::Real;
use crate::medium::{Air, Fill};
use crate::node::Node;
use description::dot;
pub use description::{Block, Cavity, CavityError, MOST_UNKNOWNS, Patch};
use operator::Operator;

/// What the empty room loses at each wave, as one over Q: its walls and joints (common practice, a box of bare boards).
const LOSS: f64 = 0.01;
/// Frequencies that are solved in full, Hz.
const SOLVED: [f64; 8] = [15.0, 90.0, 180.0, 270.0, 370.0, 480.0, 600.0, 760.0];
/// Where the reduced model is compared with one more full solution, Hz.
const CHECKED: f64 = 330.0;

/// A chamber ready to be swept.
#[derive(Debug, Clone)]
pub struct Reduced {
    /// For each medium, air first: stiffness and mass on the basis, `[n x n]`.
    regions: Vec<(DMatrix<f64>, DMatrix<f64>)>,
    fills: Vec<Fill>,
    /// Each opening on the basis, `[n]`.
    sources: Vec<DVector<f64>>,
    /// What the air that crowds before each opening weighs, kg/m4: drivers and ports count it as their own already.
    near: Vec<f64>,
    free: f64,
    /// By how much the reduced model differs from a full solution where that was compared, as a share.
    pub error: f64,
    /// Unknowns of the full model.
    pub unknowns: usize,
}

/// `1/rho` and `1/K` of air, its losses counted, and of each fill.
fn media(air: &Air, fills: &[Fill], omega: f64) -> Vec<[Complex; 2]> {
    let lossy = Complex::new(1.0, -LOSS) / air.bulk_modulus();
    let mut media = vec![[Complex::from(air.density.recip()), lossy]];
    media.extend(fills.iter().map(|fill| {
        let (density, modulus) = fill.at(omega, air);
        [density.inv(), modulus.inv()]
    }));
    media
}

impl Cavity {
    /// Solves the chamber at some frequencies and reduces it; `told` hears how many of how many are done.
    ///
    /// # Errors
    /// It is too large, or was stopped.
    pub fn reduce(
        &self,
        air: &Air,
        stop: &Stop,
        told: &(dyn Fn(usize, usize) + Sync),
    ) -> Result<Reduced, CavityError> {
        let mut fills: Vec<Fill> = Vec::new();
        for block in &self.blocks {
            if !fills.contains(&block.fill) {
                fills.push(block.fill);
            }
        }
        let operator = Operator::new(self, &fills)?;
        let mut basis: Vec<Vec<f64>> = vec![vec![1.0; operator.unknowns()]];
        let done = AtomicUsize::new(0);
        let total = SOLVED.len() + 1;
        let solved: Option<Vec<Vec<Vec<Complex>>>> = SOLVED
            .into_par_iter()
            .map(|frequency| {
                let omega = 2.0 * PI * frequency;
                let media = media(air, &fills, omega);
                told(done.load(Ordering::Relaxed), total);
                let solve = |source: &Vec<f64>| operator.solve(&media, omega, source, stop);
                let found = operator.sources.iter().map(solve).collect();
                done.fetch_add(1, Ordering::Relaxed);
                found
            })
            .collect();
        for found in solved.ok_or(CavityError::Stopped)?.iter().flatten() {
            basis.push(found.iter().map(|value| value.re).collect());
            basis.push(found.iter().map(|value| value.im).collect());
        }
        let basis = operator.orthonormal(basis);
        let regions = (0..=fills.len()).map(|region| operator.reduced(region, &basis)).collect();
        let sources: Vec<DVector<f64>> = operator
            .sources
            .iter()
            .map(|source| DVector::from_iterator(basis.len(), basis.iter().map(|vector| dot(vector, source))))
            .collect();
        let near = self.openings.iter().map(|patches| self.near(patches, air)).collect();
        let mut reduced = Reduced {
            regions,
            fills,
            sources,
            near,
            free: self.free,
            error: 0.0,
            unknowns: operator.unknowns(),
        };
        told(SOLVED.len(), total);
        let omega = 2.0 * PI * CHECKED;
        let media = media(air, &reduced.fills, omega);
        let full = operator.solve(&media, omega, &operator.sources[0], stop).ok_or(CavityError::Stopped)?;
        let exact: Complex = full.iter().zip(&operator.sources[0]).map(|(p, b)| p * *b).sum();
        let near = reduced.impedance(air, omega)[(0, 0)] / Complex::new(0.0, omega / self.free);
        reduced.error = (near / exact - 1.0).norm();
        Ok(reduced)
    }
}

impl Cavity {
    /// The near field of an opening: of a piston in a wide wall `8 a/(3 pi)`, in free air half of that, which sounds both ways.
    fn near(&self, patches: &[Patch], air: &Air) -> f64 {
        let one = |patch: &Patch| {
            let size = [0, 1, 2].map(|k| patch.high[k] - patch.low[k]);
            let area: f64 = size.iter().filter(|side| **side > 0.0).product();
            let flush =
                (0..3).any(|k| size[k] <= 0.0 && (patch.low[k] < 1e-6 || patch.low[k] > self.size[k] - 1e-6));
            let share = if flush { 1.0 } else { 0.5 };
            share * 8.0 / (3.0 * PI) * air.density * (area / PI).sqrt() / area
        };
        patches.iter().map(one).sum::<f64>() / (patches.len() * patches.len()) as f64
    }
}

impl Reduced {
    /// How many openings there are.
    pub fn openings(&self) -> usize {
        self.sources.len()
    }

    /// Mean pressure over each opening for a unit of flow through each, at an angular frequency, Pa s/m3.
    pub fn impedance(&self, air: &Air, omega: f64) -> DMatrix<Complex> {
        let n = self.sources[0].len();
        let media = media(air, &self.fills, omega);
        let mut matrix = DMatrix::<Complex>::zeros(n, n);
        for ((stiffness, mass), [light, soft]) in self.regions.iter().zip(&media) {
            for (value, (k, m)) in matrix.iter_mut().zip(stiffness.iter().zip(mass.iter())) {
                *value += light * *k - soft * (omega * omega * m);
            }
        }
        let count = self.sources.len();
        let sources = DMatrix::from_fn(n, count, |row, column| Complex::from(self.sources[column][row]));
        let solved = matrix.lu().solve(&sources).unwrap_or_else(|| DMatrix::zeros(n, count));
        sources.transpose() * solved * Complex::new(0.0, omega / self.free)
    }
}

/// A reduced chamber in a network; its terminals are its openings.
#[derive(Debug, Clone)]
pub struct Chamber {
    /// Where each opening leads.
    pub nodes: Vec<Node>,
    /// The chamber.
    pub reduced: std::sync::Arc<Reduced>,
}

impl Effect for Chamber {
    fn terminals(&self) -> &[Node] {
        &self.nodes
    }

    fn flows<T: Real>(&self, at: &At<'_, T>, admittance: &mut [Complex<T>]) -> T {
        let count = self.nodes.len();
        for lane in 0..T::LANES {
            let omega = at.omega.extract(lane);
            let mut impedance = self.reduced.impedance(at.air, omega);
            for (index, near) in self.reduced.near.iter().enumerate() {
                impedance[(index, index)] -= Complex::new(0.0, omega * near);
            }
            let inverse = impedance.try_inverse().unwrap_or_else(|| DMatrix::zeros(count, count));
            for row in 0..count {
                for column in 0..count {
                    let value = inverse[(row, column)];
                    let entry = &mut admittance[row * count + column];
                    entry.re.replace(lane, value.re);
                    entry.im.replace(lane, value.im);
                }
            }
        }
        T::of(0.0)
    }
}
