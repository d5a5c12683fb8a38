//! The listener as the rest of the program sees it, and what its pages can reach.

use std::net::SocketAddr;
use std::sync::atomic::{AtomicBool, Ordering};
use std::sync::{Arc, Mutex, PoisonError};
use std::time::{Duration, Instant};

use super::joins::Joins;
use crate::compute::Compute;
use crate::db::Pool;

/// The listener, as the rest of the program sees it.
#[derive(Debug)]
pub struct Companion {
    /// Where it listens.
    pub address: SocketAddr,
    /// SHA-256 of its certificate, as phones show it.
    pub fingerprint: String,
    running: AtomicBool,
    used: Mutex<Instant>,
}

impl Companion {
    /// One that has just begun to listen.
    pub(super) fn at(address: SocketAddr, fingerprint: String) -> Self {
        Self { address, fingerprint, running: AtomicBool::new(true), used: Mutex::new(Instant::now()) }
    }

    /// Remembers that it has stopped.
    pub(super) fn end(&self) {
        self.running.store(false, Ordering::Relaxed);
    }

    /// Whether it still answers.
    pub fn running(&self) -> bool {
        self.running.load(Ordering::Relaxed)
    }

    /// Its address as a page has it.
    pub fn origin(&self) -> String {
        format!("https://{}", self.address)
    }

    /// Remembers that it is used.
    pub(crate) fn touch(&self) {
        *self.used.lock().unwrap_or_else(PoisonError::into_inner) = Instant::now();
    }

    /// For how long it has not been used.
    pub(super) fn unused(&self) -> Duration {
        self.used.lock().unwrap_or_else(PoisonError::into_inner).elapsed()
    }
}

/// What the pages can reach.
#[derive(Clone)]
pub(crate) struct CompanionState {
    pub pool: Pool,
    pub compute: Compute,
    pub companion: Arc<Companion>,
    pub joins: Arc<Joins>,
}
