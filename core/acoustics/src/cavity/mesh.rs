//! A box cut into spectral elements whose faces lie on the edges of everything in it.

use nalgebra::{DMatrix, SymmetricEigen};

/// Degree of the elements along each axis.
const DEGREE: usize = 3;
/// Nodes of an element along an axis.
pub(super) const NODES: usize = DEGREE + 1;
/// Longest element, m: a fifth of a wave at 430 Hz, where the degree leaves less than a thousandth.
const LONGEST: f64 = 0.16;
/// Edges of openings nearer than this to another share it, m.
const TOGETHER: f64 = 0.012;
/// The same of fill: a thinner lining does nothing at the frequencies of a box, m.
const THINNEST: f64 = 0.002;

/// Gauss-Lobatto nodes from -1 to 1 and their weights, for degree 3.
const PLACES: [f64; NODES] = [-1.0, -0.447_213_595_499_957_9, 0.447_213_595_499_957_9, 1.0];
const WEIGHTS: [f64; NODES] = [1.0 / 6.0, 5.0 / 6.0, 5.0 / 6.0, 1.0 / 6.0];

/// One axis of the mesh.
#[derive(Debug, Clone)]
pub(super) struct Line {
    /// Where elements begin and end, m.
    pub edges: Vec<f64>,
    /// Mass of each node, m.
    pub mass: Vec<f64>,
    /// Eigenvalues of the stiffness over the mass, 1/m2, and their vectors with unit mass, `[node][mode]`.
    pub modes: (Vec<f64>, DMatrix<f64>),
}

/// `l_j'(x_i)` on the reference element: Lagrange polynomials of its nodes.
fn slopes() -> [[f64; NODES]; NODES] {
    let weight = |j: usize| -> f64 {
        (0..NODES).filter(|k| *k != j).map(|k| PLACES[j] - PLACES[k]).product::<f64>().recip()
    };
    let mut slopes = [[0.0; NODES]; NODES];
    for i in 0..NODES {
        for j in (0..NODES).filter(|j| *j != i) {
            slopes[i][j] = weight(j) / weight(i) / (PLACES[i] - PLACES[j]);
        }
        slopes[i][i] = -(0..NODES).filter(|j| *j != i).map(|j| slopes[i][j]).sum::<f64>();
    }
    slopes
}

/// Stiffness of the reference element of length 2.
pub(super) fn reference_stiffness() -> [[f64; NODES]; NODES] {
    let slopes = slopes();
    let mut stiffness = [[0.0; NODES]; NODES];
    for (a, row) in stiffness.iter_mut().enumerate() {
        for (b, value) in row.iter_mut().enumerate() {
            *value = (0..NODES).map(|q| WEIGHTS[q] * slopes[q][a] * slopes[q][b]).sum();
        }
    }
    stiffness
}

/// Cuts an axis of a length (m) into elements with edges at the faces of fill, at those of openings where none of these is near, and at
/// places that it is better for beside them, m.
pub(super) fn cut(length: f64, fills: &[f64], openings: &[f64], beside: &[f64]) -> Vec<f64> {
    let mut edges = vec![0.0, length];
    for (places, near) in [(fills, THINNEST), (openings, TOGETHER), (beside, TOGETHER)] {
        let mut wanted: Vec<f64> = places.to_vec();
        wanted.sort_by(f64::total_cmp);
        for at in wanted {
            let free = edges.iter().all(|edge| (at - edge).abs() > near);
            if (0.0..length).contains(&at) && free {
                edges.push(at);
            }
        }
    }
    edges.sort_by(f64::total_cmp);
    edges
        .windows(2)
        .flat_map(|pair| {
            let pieces = ((pair[1] - pair[0]) / LONGEST).ceil().max(1.0) as usize;
            let step = (pair[1] - pair[0]) / pieces as f64;
            let from = pair[0];
            (0..pieces).map(move |piece| from + step * piece as f64)
        })
        .chain([length])
        .collect()
}

/// How many nodes the elements of an axis have.
pub(super) fn nodes(cut: &[f64]) -> usize {
    (cut.len() - 1) * DEGREE + 1
}

impl Line {
    /// An axis that was cut.
    pub fn new(cut: Vec<f64>) -> Self {
        let count = nodes(&cut);
        let (mut mass, mut stiffness) = (vec![0.0; count], DMatrix::<f64>::zeros(count, count));
        let reference = reference_stiffness();
        for (element, pair) in cut.windows(2).enumerate() {
            let half = (pair[1] - pair[0]) / 2.0;
            for a in 0..NODES {
                mass[element * DEGREE + a] += WEIGHTS[a] * half;
                for b in 0..NODES {
                    stiffness[(element * DEGREE + a, element * DEGREE + b)] += reference[a][b] / half;
                }
            }
        }
        let scaled = DMatrix::from_fn(count, count, |i, j| stiffness[(i, j)] / (mass[i] * mass[j]).sqrt());
        let SymmetricEigen { eigenvalues, eigenvectors } = SymmetricEigen::new(scaled);
        let vectors = DMatrix::from_fn(count, count, |i, j| eigenvectors[(i, j)] / mass[i].sqrt());
        Self { edges: cut, mass, modes: (eigenvalues.iter().map(|value| value.max(0.0)).collect(), vectors) }
    }

    /// How many nodes.
    pub fn nodes(&self) -> usize {
        self.mass.len()
    }

    /// How many elements.
    pub fn elements(&self) -> usize {
        self.edges.len() - 1
    }

    /// The edge nearest to a place, as a node.
    pub fn node_at(&self, place: f64) -> usize {
        self.edge_at(place) * DEGREE
    }

    fn edge_at(&self, place: f64) -> usize {
        let away = |edge: &usize| (self.edges[*edge] - place).abs();
        (0..self.edges.len()).min_by(|a, b| away(a).total_cmp(&away(b))).unwrap_or(0)
    }

    /// The elements between two places, at least one.
    pub fn between(&self, from: f64, to: f64) -> std::ops::Range<usize> {
        let (first, last) = (self.edge_at(from), self.edge_at(to));
        if first < last {
            return first..last;
        }
        let first = first.min(self.elements() - 1);
        first..first + 1
    }

    /// What each node of an axis weighs within some elements, m.
    pub fn weights(&self, elements: std::ops::Range<usize>) -> Vec<(usize, f64)> {
        let mut weights = vec![0.0; self.nodes()];
        for element in elements {
            let half = (self.edges[element + 1] - self.edges[element]) / 2.0;
            for (a, weight) in WEIGHTS.iter().enumerate() {
                weights[element * DEGREE + a] += weight * half;
            }
        }
        weights.into_iter().enumerate().filter(|(_, weight)| *weight > 0.0).collect()
    }

    /// First node of an element, and half its length, m.
    pub fn element(&self, element: usize) -> (usize, f64) {
        (element * DEGREE, (self.edges[element + 1] - self.edges[element]) / 2.0)
    }
}

/// Weights of the reference element.
pub(super) const fn reference_weights() -> [f64; NODES] {
    WEIGHTS
}
