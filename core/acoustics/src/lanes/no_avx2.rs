//! Processors that have no AVX2 by their kind: what stands for it is never entered.

use super::real::Task;

/// One number.
pub type Avx2 = f64;

pub(super) fn there() -> bool {
    false
}

pub(crate) fn work_in_avx2<T: Task>(task: T) -> T::Output {
    task.run()
}

pub(crate) fn on_in_avx2<T: Task>(_evidence: Avx2, task: T) -> T::Output {
    task.run()
}
