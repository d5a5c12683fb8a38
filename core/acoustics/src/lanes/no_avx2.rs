//! Processors that have no AVX2 by their kind: what stands for it is never entered.

use crate::Complex;
use crate::element::{At, Effect};
use crate::solve::{Solver, Work};

/// One number.
pub type Avx2 = f64;

pub(super) fn there() -> bool {
    false
}

pub(crate) fn work_in_avx2<W: Work>(work: W, solver: &mut Solver<'_, Avx2>) -> W::Output {
    work.run(solver)
}

pub(crate) fn flows_in_avx2<E: Effect>(
    effect: &E,
    at: &At<'_, Avx2>,
    admittance: &mut [Complex<Avx2>],
) -> Avx2 {
    effect.flows(at, admittance)
}
