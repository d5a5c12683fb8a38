//! Giving up a long computation.

use std::sync::Arc;
use std::sync::atomic::{AtomicBool, Ordering};

/// Told by whoever waits for a long computation that its result is not wanted any more. Copies are of one and the same.
///
/// What takes long looks at it at least every 200 ms.
#[derive(Debug, Clone, Default)]
pub struct Stop(Arc<AtomicBool>);

impl Stop {
    /// Asks to stop.
    pub fn stop(&self) {
        self.0.store(true, Ordering::Relaxed);
    }

    /// Whether that was asked.
    pub fn stopped(&self) -> bool {
        self.0.load(Ordering::Relaxed)
    }
}
