//! What every handler can reach.

use std::net::SocketAddr;
use std::sync::Arc;
use std::sync::atomic::AtomicBool;

use crate::companion::Companion;
use crate::compute::Compute;
use crate::db::{self, Pool};
use crate::error::ApiError;

/// What every handler can reach.
#[derive(Clone)]
pub struct State {
    /// Connections to the database.
    pub pool: Pool,
    /// Whether none could be had when it was last asked for its health.
    pub unreachable: Arc<AtomicBool>,
    /// Where computation happens.
    pub compute: Compute,
    /// What listens to phones, where that is wanted.
    pub companion: Option<Arc<Companion>>,
    /// Where a measuring box listens, where one was named.
    pub rig: Option<SocketAddr>,
}

impl State {
    /// What handlers reach in a database, computing on one thread for each core.
    ///
    /// # Errors
    /// No threads can be started.
    pub fn new(database_url: &str, connections: u32) -> Result<Self, ApiError> {
        let threads = std::thread::available_parallelism().map_or(1, usize::from);
        let compute = Compute::new(threads).map_err(ApiError::internal)?;
        Ok(Self {
            pool: db::pool(database_url, connections),
            unreachable: Arc::default(),
            compute,
            companion: None,
            rig: None,
        })
    }
}
