//! Arithmetic at one frequency, or at four side by side in the processor's wide registers.
//!
//! The physics is written once over [`Real`]. It is compiled for one number, which every processor can, and for four in AVX2's
//! registers; [`Path::best`] says what this processor can, and [`crate::solve::Sweep`] takes it once for a whole sweep. No
//! multiplications are fused, so the results are the same.

#[cfg(target_arch = "x86_64")]
mod avx2;
#[cfg(not(target_arch = "x86_64"))]
#[path = "no_avx2.rs"]
mod avx2;

mod real;

pub use avx2::Avx2;
pub(crate) use avx2::{on_in_avx2, work_in_avx2};
pub use real::Real;
pub(crate) use real::{Task, constant, each, lane};

use std::cell::Cell;

/// How a sweep is computed.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Path {
    /// One frequency at a time.
    Scalar,
    /// Four in AVX2's registers.
    Avx2,
}

thread_local! {
    static FORCED: Cell<Option<Path>> = const { Cell::new(None) };
}

impl Path {
    /// The quickest that this processor has.
    pub fn best() -> Self {
        FORCED.get().unwrap_or(if avx2::there() { Self::Avx2 } else { Self::Scalar })
    }

    /// All that this processor has.
    pub fn all() -> Vec<Self> {
        let mut all = vec![Self::Scalar];
        all.extend(avx2::there().then_some(Self::Avx2));
        all
    }

    /// Has everything on this thread computed in one way, to compare it with another. A path that the processor has not is passed over.
    pub fn forced<T>(self, work: impl FnOnce() -> T) -> T {
        let before = FORCED.replace(Some(self).filter(|path| *path != Self::Avx2 || avx2::there()));
        let done = work();
        FORCED.set(before);
        done
    }
}
