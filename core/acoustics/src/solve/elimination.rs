//! Dense complex elimination without allocation.
//!
//! The general linear-algebra crates allocate a factorisation per call; with one to twenty nodes and
//! thousands of frequencies that would cost more than the arithmetic.

use crate::lanes::Real;
use crate::{Complex, inverse};

/// Solves `matrix x = rhs` by Gaussian elimination with partial pivoting; `rhs` `[n]` becomes `x`, so does each of `more`, one
/// after the other, `matrix` `[n * n]` row-major is overwritten. Where several systems stand side by side they share their pivots: the
/// row whose smallest is largest.
///
/// A singular matrix yields non-finite values. That cannot come from a passive network above 0 Hz.
#[inline(always)]
pub(super) fn solve_in_place<T: Real>(
    matrix: &mut [Complex<T>],
    rhs: &mut [Complex<T>],
    more: &mut [Complex<T>],
) {
    // Most cabinets are this small; a size known beforehand unrolls the loops.
    match rhs.len() {
        1 => eliminate(1, matrix, rhs, more),
        2 => eliminate(2, matrix, rhs, more),
        3 => eliminate(3, matrix, rhs, more),
        4 => eliminate(4, matrix, rhs, more),
        5 => eliminate(5, matrix, rhs, more),
        n => eliminate(n, matrix, rhs, more),
    }
}

#[inline(always)]
fn eliminate<T: Real>(n: usize, matrix: &mut [Complex<T>], rhs: &mut [Complex<T>], more: &mut [Complex<T>]) {
    let (matrix, rhs) = (&mut matrix[..n * n], &mut rhs[..n]);
    for column in 0..n.saturating_sub(1) {
        // A plain loop: what an iterator calls is not inlined into the work in vector registers.
        let (mut pivot, mut largest) = (column, matrix[column * n + column].norm_sqr().smallest());
        for row in column + 1..n {
            let size = matrix[row * n + column].norm_sqr().smallest();
            if size > largest {
                (pivot, largest) = (row, size);
            }
        }
        if pivot != column {
            for k in column..n {
                matrix.swap(column * n + k, pivot * n + k);
            }
            rhs.swap(column, pivot);
            for right in more.chunks_exact_mut(n) {
                right.swap(column, pivot);
            }
        }
        let pivot = inverse(matrix[column * n + column]);
        let (upper, lower) = matrix.split_at_mut((column + 1) * n);
        let upper = &upper[column * n..];
        let (known, unknown) = rhs.split_at_mut(column + 1);
        for (at, (row, right)) in lower.chunks_exact_mut(n).zip(unknown).enumerate() {
            let factor = row[column] * pivot;
            for (entry, upper) in row[column + 1..].iter_mut().zip(&upper[column + 1..]) {
                *entry -= factor * *upper;
            }
            *right -= factor * known[column];
            for right in more.chunks_exact_mut(n) {
                let above = right[column];
                right[column + 1 + at] -= factor * above;
            }
        }
    }
    for row in (0..n).rev() {
        let diagonal = inverse(matrix[row * n + row]);
        let right = &matrix[row * n + row + 1..(row + 1) * n];
        rhs[row] = back(right, &rhs[row..]) * diagonal;
        for x in more.chunks_exact_mut(n) {
            x[row] = back(right, &x[row..]) * diagonal;
        }
    }
}

/// What is left of the first of `x` when the known rest is taken out of it.
#[inline(always)]
fn back<T: Real>(row: &[Complex<T>], x: &[Complex<T>]) -> Complex<T> {
    let mut left = x[0];
    for (entry, known) in row.iter().zip(&x[1..]) {
        left -= *entry * *known;
    }
    left
}

#[cfg(test)]
mod tests {
    use super::*;
    use proptest::prelude::*;

    proptest! {
        #[test]
        fn the_solution_satisfies_the_equations(
            n in 1usize..9,
            parts in proptest::collection::vec(-1.0f64..1.0, 2 * (81 + 3 * 9)),
        ) {
            let value = |k: usize| Complex::new(parts[2 * k], parts[2 * k + 1]);
            let mut matrix: Vec<_> = (0..n * n).map(value).collect();
            // A zero on the diagonal must be pivoted away; the added ring keeps the matrix regular.
            for row in 0..n {
                matrix[row * n + row] = Complex::new(0.0, 0.0);
                matrix[row * n + (row + 1) % n] += 4.0 * n as f64;
            }
            let rhs: Vec<_> = (81..81 + 3 * n).map(value).collect();
            let (mut work, mut x) = (matrix.clone(), rhs.clone());
            let (first, more) = x.split_at_mut(n);
            solve_in_place(&mut work, first, more);
            for (x, rhs) in x.chunks_exact(n).zip(rhs.chunks_exact(n)) {
                for row in 0..n {
                    let left: Complex = (0..n).map(|k| matrix[row * n + k] * x[k]).sum();
                    prop_assert!((left - rhs[row]).norm() < 1e-11);
                }
            }
        }
    }
}
