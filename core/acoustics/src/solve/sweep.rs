//! A network solved at many frequencies, in the widest way that the processor has.

use crate::element::Asking;
use crate::lanes::{Avx2, Path, Task, work_in_avx2};
use crate::network::Network;

use super::Solver;

/// Something done with a solver, however many frequencies it takes at a time.
pub(crate) trait Work {
    /// What comes of it.
    type Output;

    /// Does it. Implementations are `inline(always)`, to be compiled for the registers of `T`.
    fn run<T: Asking>(self, solver: &mut Solver<'_, T>) -> Self::Output;
}

/// A solver that was laid out for what this processor can.
#[derive(Debug)]
pub(crate) enum Sweep<'a> {
    Scalar(Solver<'a, f64>),
    Avx2(Solver<'a, Avx2>),
}

impl<'a> Sweep<'a> {
    /// Lays out the memory for a network.
    pub fn new(network: &'a Network) -> Self {
        match Path::best() {
            Path::Scalar => Self::Scalar(Solver::new(network)),
            Path::Avx2 => Self::Avx2(Solver::new(network)),
        }
    }

    /// Does something with it.
    pub fn run<W: Work>(&mut self, work: W) -> W::Output {
        match self {
            Self::Scalar(solver) => work.run(solver),
            Self::Avx2(solver) => work_in_avx2(Solved { work, solver }),
        }
    }
}

/// Work with a solver, to be carried out in AVX2's registers.
struct Solved<'a, 'b, W> {
    work: W,
    solver: &'a mut Solver<'b, Avx2>,
}

impl<W: Work> Task for Solved<'_, '_, W> {
    type Output = W::Output;

    #[inline(always)]
    fn run(self) -> W::Output {
        self.work.run(self.solver)
    }
}
