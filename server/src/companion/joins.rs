//! How often joining has failed lately.

use std::sync::{Mutex, PoisonError};
use std::time::{Duration, Instant};

use crate::error::ApiError;

/// Tries to join that failed lately.
#[derive(Debug, Default)]
pub struct Joins(Mutex<Vec<Instant>>);

/// How many may fail in how long before all wait.
const MOST_FAILED: usize = 20;
const LATELY: Duration = Duration::from_secs(60);

impl Joins {
    /// Refuses while too many have failed.
    pub fn check(&self) -> Result<(), ApiError> {
        let mut failed = self.0.lock().unwrap_or_else(PoisonError::into_inner);
        failed.retain(|at| at.elapsed() < LATELY);
        if failed.len() < MOST_FAILED { Ok(()) } else { Err(ApiError::Overloaded) }
    }

    /// Counts one that failed.
    pub fn failed(&self) {
        self.0.lock().unwrap_or_else(PoisonError::into_inner).push(Instant::now());
    }
}
