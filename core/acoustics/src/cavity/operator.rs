//! The full model: applied element by element, solved by iteration.

use nalgebra::DMatrix;

use super::description::{Cavity, CavityError, MOST_UNKNOWNS, Patch, dot};
use super::mesh::{Line, NODES, cut, nodes, reference_stiffness, reference_weights};
use crate::medium::Fill;
use crate::{Complex, Stop};

/// Most steps of an iteration.
const STEPS: usize = 160;
/// How small the remainder must become.
const EXACT: f64 = 1e-7;

/// The mesh with the medium of each element and the sources.
pub(super) struct Operator {
    lines: [Line; 3],
    /// 0 is air.
    media: Vec<usize>,
    /// Share of the room that each medium takes.
    shares: Vec<f64>,
    /// Mean over each opening, `[unknowns]`.
    pub sources: Vec<Vec<f64>>,
    stiffness: [[f64; NODES]; NODES],
}

impl Operator {
    pub fn new(cavity: &Cavity, fills: &[Fill]) -> Result<Self, CavityError> {
        let cuts = [0, 1, 2].map(|k| {
            let patches = || cavity.openings.iter().flatten();
            let blocks: Vec<f64> =
                cavity.blocks.iter().flat_map(|block| [block.low[k], block.high[k]]).collect();
            let own: Vec<f64> = patches().flat_map(|patch| [patch.low[k], patch.high[k]]).collect();
            let beside: Vec<f64> = patches().flat_map(|patch| patch.beside(k)).collect();
            cut(cavity.size[k], &blocks, &own, &beside)
        });
        let unknowns = cuts.iter().map(|cut| nodes(cut)).product();
        if unknowns > MOST_UNKNOWNS {
            return Err(CavityError::TooLarge { unknowns });
        }
        let lines = cuts.map(Line::new);
        let counts = lines.each_ref().map(Line::elements);
        let mut media = vec![0; counts.iter().product()];
        let mut volumes = vec![0.0; fills.len() + 1];
        for z in 0..counts[2] {
            for y in 0..counts[1] {
                for x in 0..counts[0] {
                    let place = [x, y, z];
                    let span = |k: usize| [lines[k].edges[place[k]], lines[k].edges[place[k] + 1]];
                    let middle = [0, 1, 2].map(|k| f64::midpoint(span(k)[0], span(k)[1]));
                    let block = cavity
                        .blocks
                        .iter()
                        .find(|block| (0..3).all(|k| middle[k] > block.low[k] && middle[k] < block.high[k]));
                    let medium = block
                        .and_then(|block| fills.iter().position(|fill| *fill == block.fill))
                        .map_or(0, |index| index + 1);
                    media[x + counts[0] * (y + counts[1] * z)] = medium;
                    volumes[medium] += (0..3).map(|k| span(k)[1] - span(k)[0]).product::<f64>();
                }
            }
        }
        let whole: f64 = volumes.iter().sum();
        let shares = volumes.iter().map(|volume| volume / whole).collect();
        let mut operator =
            Self { lines, media, shares, sources: Vec::new(), stiffness: reference_stiffness() };
        operator.sources = cavity.openings.iter().map(|patches| operator.source(patches)).collect();
        Ok(operator)
    }

    pub fn unknowns(&self) -> usize {
        self.lines.iter().map(Line::nodes).product()
    }

    fn index(&self, [x, y, z]: [usize; 3]) -> usize {
        let [nx, ny, _] = self.lines.each_ref().map(Line::nodes);
        x + nx * (y + ny * z)
    }

    /// The mean over the patches of an opening.
    fn source(&self, patches: &[Patch]) -> Vec<f64> {
        let mut source = vec![0.0; self.unknowns()];
        for patch in patches {
            let flat = (0..3)
                .min_by(|a, b| (patch.high[*a] - patch.low[*a]).total_cmp(&(patch.high[*b] - patch.low[*b])))
                .unwrap_or(0);
            let along = [0, 1, 2].map(|k| {
                if k == flat {
                    vec![(self.lines[k].node_at(patch.low[k]), 1.0)]
                } else {
                    self.lines[k].weights(self.lines[k].between(patch.low[k], patch.high[k]))
                }
            });
            for (x, a) in &along[0] {
                for (y, b) in &along[1] {
                    for (z, c) in &along[2] {
                        source[self.index([*x, *y, *z])] += a * b * c;
                    }
                }
            }
        }
        let total: f64 = source.iter().sum();
        source.iter_mut().for_each(|value| *value /= total);
        source
    }

    /// Calls for each element with its medium, its nodes and half its lengths.
    fn each(&self, mut act: impl FnMut(usize, [usize; 3], [f64; 3])) {
        let counts = self.lines.each_ref().map(Line::elements);
        for z in 0..counts[2] {
            for y in 0..counts[1] {
                for x in 0..counts[0] {
                    let places = [(0, x), (1, y), (2, z)].map(|(k, element)| self.lines[k].element(element));
                    let medium = self.media[x + counts[0] * (y + counts[1] * z)];
                    act(medium, places.map(|place| place.0), places.map(|place| place.1));
                }
            }
        }
    }

    /// `(sum light K + heavy M) x` with coefficients for each medium, added to `out`.
    fn apply<S>(&self, coefficients: &[[S; 2]], x: &[S], out: &mut [S])
    where
        S: Copy + std::ops::Mul<f64, Output = S> + std::ops::Mul<Output = S> + std::ops::AddAssign + Default,
    {
        let weights = reference_weights();
        let [nx, ny, _] = self.lines.each_ref().map(Line::nodes);
        let strides = [1, nx, nx * ny];
        self.each(|medium, first, half| {
            let [light, heavy] = coefficients[medium];
            let base = first[0] + nx * (first[1] + ny * first[2]);
            for c in 0..NODES {
                for b in 0..NODES {
                    for a in 0..NODES {
                        let at = [a, b, c];
                        let here = base + a + strides[1] * b + strides[2] * c;
                        let mut bent = S::default();
                        for k in 0..3 {
                            let (i, j) = ((k + 1) % 3, (k + 2) % 3);
                            // Mass across the axis, stiffness along it.
                            let across = weights[at[i]] * weights[at[j]] * half[i] * half[j] / half[k];
                            let line = here - strides[k] * at[k];
                            for (m, stiff) in self.stiffness[at[k]].iter().enumerate() {
                                bent += x[line + strides[k] * m] * (across * stiff);
                            }
                        }
                        let mass: f64 = (0..3).map(|k| weights[at[k]] * half[k]).product();
                        out[here] += bent * light;
                        out[here] += x[here] * mass * heavy;
                    }
                }
            }
        });
    }

    /// Solves for the pressure that a source makes: iterated to the remainder from the waves of a room evenly filled. Nothing
    /// where it was stopped.
    pub fn solve(
        &self,
        media: &[[Complex; 2]],
        omega: f64,
        source: &[f64],
        stop: &Stop,
    ) -> Option<Vec<Complex>> {
        let coefficients: Vec<[Complex; 2]> =
            media.iter().map(|[light, soft]| [*light, -soft * (omega * omega)]).collect();
        let even = [0, 1]
            .map(|k| coefficients.iter().zip(&self.shares).map(|(medium, share)| medium[k] * *share).sum());
        let right: Vec<Complex> = source.iter().map(|value| Complex::from(*value)).collect();
        let multiply = |x: &[Complex]| {
            let mut out = vec![Complex::default(); x.len()];
            self.apply(&coefficients, x, &mut out);
            out
        };
        minimal_residual(multiply, |x| self.in_waves(even, x), &right, stop)
    }

    /// Solves for one medium everywhere, by the waves of each axis.
    fn in_waves(&self, [light, heavy]: [Complex; 2], x: &[Complex]) -> Vec<Complex> {
        let mut values = x.to_vec();
        for (axis, line) in self.lines.iter().enumerate() {
            values = self.along(axis, &values, |row, column| line.modes.1[(column, row)]);
        }
        let [nx, ny, nz] = self.lines.each_ref().map(Line::nodes);
        for z in 0..nz {
            for y in 0..ny {
                for x in 0..nx {
                    let bent = self.lines[0].modes.0[x] + self.lines[1].modes.0[y] + self.lines[2].modes.0[z];
                    values[x + nx * (y + ny * z)] /= light * bent + heavy;
                }
            }
        }
        for (axis, line) in self.lines.iter().enumerate() {
            values = self.along(axis, &values, |row, column| line.modes.1[(row, column)]);
        }
        values
    }

    /// A matrix along one axis.
    fn along(&self, axis: usize, x: &[Complex], matrix: impl Fn(usize, usize) -> f64) -> Vec<Complex> {
        let counts = self.lines.each_ref().map(Line::nodes);
        let strides = [1, counts[0], counts[0] * counts[1]];
        let (n, stride) = (counts[axis], strides[axis]);
        let dense: Vec<f64> = (0..n * n).map(|index| matrix(index / n, index % n)).collect();
        let mut out = vec![Complex::default(); x.len()];
        let (i, j) = ((axis + 1) % 3, (axis + 2) % 3);
        for a in 0..counts[i] {
            for b in 0..counts[j] {
                let base = a * strides[i] + b * strides[j];
                for row in 0..n {
                    let sum: Complex =
                        (0..n).map(|column| x[base + column * stride] * dense[row * n + column]).sum();
                    out[base + row * stride] = sum;
                }
            }
        }
        out
    }

    /// A basis of unit mass out of vectors; those that add nothing are left out.
    pub fn orthonormal(&self, vectors: Vec<Vec<f64>>) -> Vec<Vec<f64>> {
        let [nx, ny, _] = self.lines.each_ref().map(Line::nodes);
        let mass: Vec<f64> = (0..self.unknowns())
            .map(|index| {
                let place = [index % nx, index / nx % ny, index / (nx * ny)];
                (0..3).map(|k| self.lines[k].mass[place[k]]).product()
            })
            .collect();
        let inner =
            |a: &[f64], b: &[f64]| -> f64 { a.iter().zip(b).zip(&mass).map(|((a, b), m)| a * b * m).sum() };
        let mut basis: Vec<Vec<f64>> = Vec::new();
        for mut vector in vectors {
            let before = inner(&vector, &vector).sqrt();
            if before < 1e-300 {
                continue;
            }
            // Twice is enough.
            for _ in 0..2 {
                for other in &basis {
                    let share = inner(&vector, other);
                    vector.iter_mut().zip(other).for_each(|(value, other)| *value -= share * other);
                }
            }
            let left = inner(&vector, &vector).sqrt();
            if left > 1e-7 * before {
                vector.iter_mut().for_each(|value| *value /= left);
                basis.push(vector);
            }
        }
        basis
    }

    /// Stiffness and mass of one medium on a basis.
    pub fn reduced(&self, medium: usize, basis: &[Vec<f64>]) -> (DMatrix<f64>, DMatrix<f64>) {
        let n = basis.len();
        let on_basis = |which: usize| {
            let mut coefficients = vec![[0.0; 2]; self.shares.len()];
            coefficients[medium][which] = 1.0;
            let mut matrix = DMatrix::zeros(n, n);
            for (column, vector) in basis.iter().enumerate() {
                let mut out = vec![0.0; vector.len()];
                self.apply(&coefficients, vector, &mut out);
                for (row, other) in basis.iter().enumerate() {
                    matrix[(row, column)] = dot(other, &out);
                }
            }
            matrix
        };
        (on_basis(0), on_basis(1))
    }
}

/// Smallest remainder over a growing space (Saad and Schultz 1986), preconditioned from the right.
fn minimal_residual(
    multiply: impl Fn(&[Complex]) -> Vec<Complex>,
    nearly: impl Fn(&[Complex]) -> Vec<Complex>,
    right: &[Complex],
    stop: &Stop,
) -> Option<Vec<Complex>> {
    let norm = |x: &[Complex]| x.iter().map(Complex::norm_sqr).sum::<f64>().sqrt();
    let size = norm(right);
    let mut space = vec![right.iter().map(|value| value / size).collect::<Vec<_>>()];
    let mut triangle: Vec<Vec<Complex>> = Vec::new();
    let mut turns: Vec<(f64, Complex)> = Vec::new();
    let mut remainder = vec![Complex::from(size)];
    for step in 0..STEPS {
        if stop.stopped() {
            return None;
        }
        let mut next = multiply(&nearly(&space[step]));
        let mut column: Vec<Complex> = Vec::with_capacity(step + 2);
        for vector in &space {
            let share: Complex = vector.iter().zip(&next).map(|(a, b)| a.conj() * b).sum();
            next.iter_mut().zip(vector).for_each(|(value, a)| *value -= share * a);
            column.push(share);
        }
        let left = norm(&next);
        for (index, (cosine, sine)) in turns.iter().enumerate() {
            let (a, b) = (column[index], column[index + 1]);
            column[index] = a * *cosine + sine * b;
            column[index + 1] = b * *cosine - sine.conj() * a;
        }
        // A turn that takes the last entry away.
        let a = column[step];
        let long = (a.norm_sqr() + left * left).sqrt();
        let (cosine, sine) = if a.norm() > 0.0 {
            (a.norm() / long, a / a.norm() * (left / long))
        } else {
            (0.0, Complex::from(1.0))
        };
        column[step] = a * cosine + sine * left;
        turns.push((cosine, sine));
        let last = remainder[step];
        remainder[step] = last * cosine;
        remainder.push(-sine.conj() * last);
        triangle.push(column);
        let done = remainder[step + 1].norm() < EXACT * size || left < 1e-300;
        if done {
            break;
        }
        space.push(next.iter().map(|value| value / left).collect());
    }
    let count = triangle.len();
    let mut shares = vec![Complex::default(); count];
    for row in (0..count).rev() {
        let known: Complex = (row + 1..count).map(|column| triangle[column][row] * shares[column]).sum();
        shares[row] = (remainder[row] - known) / triangle[row][row];
    }
    let mut found = vec![Complex::default(); right.len()];
    for (vector, share) in space.iter().zip(&shares) {
        found.iter_mut().zip(vector).for_each(|(value, a)| *value += share * a);
    }
    Some(nearly(&found))
}
