//! Dense complex elimination without allocation.
//!
//! The general linear-algebra crates allocate a factorisation per call; with one to twenty nodes and
//! thousands of frequencies that would cost more than the arithmetic.

use crate::{Complex, inverse};

/// Solves `matrix x = rhs` by Gaussian elimination with partial pivoting; `rhs` `[n]` becomes `x`,
/// `matrix` `[n * n]` row-major is overwritten.
///
/// A singular matrix yields non-finite values. That cannot come from a passive network above 0 Hz.
pub(super) fn solve_in_place(matrix: &mut [Complex], rhs: &mut [Complex]) {
    let n = rhs.len();
    for column in 0..n.saturating_sub(1) {
        let size = |row: usize| matrix[row * n + column].norm_sqr();
        let pivot = (column + 1..n).fold(column, |best, row| if size(row) > size(best) { row } else { best });
        if pivot != column {
            for k in column..n {
                matrix.swap(column * n + k, pivot * n + k);
            }
            rhs.swap(column, pivot);
        }
        let pivot = inverse(matrix[column * n + column]);
        for row in column + 1..n {
            let factor = matrix[row * n + column] * pivot;
            for k in column + 1..n {
                let upper = matrix[column * n + k];
                matrix[row * n + k] -= factor * upper;
            }
            let upper = rhs[column];
            rhs[row] -= factor * upper;
        }
    }
    for row in (0..n).rev() {
        let known: Complex = (row + 1..n).map(|k| matrix[row * n + k] * rhs[k]).sum();
        rhs[row] = (rhs[row] - known) * inverse(matrix[row * n + row]);
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use proptest::prelude::*;

    proptest! {
        #[test]
        fn the_solution_satisfies_the_equations(
            n in 1usize..9,
            parts in proptest::collection::vec(-1.0f64..1.0, 2 * (81 + 9)),
        ) {
            let value = |k: usize| Complex::new(parts[2 * k], parts[2 * k + 1]);
            let mut matrix: Vec<_> = (0..n * n).map(value).collect();
            // A zero on the diagonal must be pivoted away; the added ring keeps the matrix regular.
            for row in 0..n {
                matrix[row * n + row] = Complex::new(0.0, 0.0);
                matrix[row * n + (row + 1) % n] += 4.0 * n as f64;
            }
            let rhs: Vec<_> = (81..81 + n).map(value).collect();
            let (mut work, mut x) = (matrix.clone(), rhs.clone());
            solve_in_place(&mut work, &mut x);
            for row in 0..n {
                let left: Complex = (0..n).map(|k| matrix[row * n + k] * x[k]).sum();
                prop_assert!((left - rhs[row]).norm() < 1e-11);
            }
        }
    }
}
