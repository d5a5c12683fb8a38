//! Long work, through a queue that PostgreSQL keeps: any number of servers put work in, any number of workers on any
//! machine take it out, and what a dead worker held goes to another.

mod search;

use std::time::Duration;

use apalis::prelude::*;
use apalis_postgres::{Config, PgPool, PostgresStorage};
use uuid::Uuid;

use crate::db::Pool;
use crate::error::ApiError;
use search::Chunk;

/// What the queue is called in the database.
const QUEUE: &str = "oak-drum/search";
/// How often a worker says that it lives, and how many times it may fail to before its work goes to others.
const HEARTBEAT: Duration = Duration::from_secs(2);
const MISSED: usize = 3;
/// How often a worker looks for work besides being told of it.
const LOOK: Duration = Duration::from_millis(200);
/// Drivers in one piece of work: about a quarter of a second.
const PIECE: usize = 16;
/// How often a piece is tried while the database fails.
const ATTEMPTS: usize = 5;

/// The queue.
#[derive(Clone)]
pub struct Queue {
    pool: PgPool,
}

impl Queue {
    /// A queue in a database; it connects when it is first used. Must be called within a runtime.
    ///
    /// # Errors
    /// An address that is none.
    pub fn new(database_url: &str) -> Result<Self, ApiError> {
        let pool = PgPool::connect_lazy(database_url).map_err(|error| ApiError::Database(error.into()))?;
        Ok(Self { pool })
    }

    /// Brings the queue's own tables to this version.
    ///
    /// # Errors
    /// The database.
    pub async fn set_up(&self) -> Result<(), ApiError> {
        PostgresStorage::setup(&self.pool).await.map_err(|error| ApiError::Database(error.into()))
    }

    /// Puts a search in, cut into pieces.
    ///
    /// # Errors
    /// The database.
    pub async fn search(&self, search: Uuid, drivers: &[Uuid]) -> Result<(), ApiError> {
        let piece = |drivers: &[Uuid]| {
            let chunk = Chunk { search, drivers: drivers.to_vec() };
            let bytes = serde_json::to_vec(&chunk).map_err(|error| ApiError::Database(error.into()))?;
            Ok(TaskBuilder::new(bytes).max_attempts(ATTEMPTS).build())
        };
        let tasks = drivers.chunks(PIECE).map(piece).collect::<Result<Vec<_>, ApiError>>()?;
        let push = async {
            let mut transaction = self.pool.begin().await?;
            apalis_postgres::queries::push_tasks(&mut *transaction, QUEUE, tasks).await?;
            transaction.commit().await?;
            Ok::<(), apalis_postgres::Error>(())
        };
        push.await.map_err(|error| ApiError::Database(error.into()))
    }
}

/// Takes work out of the queue on a number of threads until a signal comes.
///
/// # Errors
/// The database.
pub async fn work(
    queue: &Queue,
    pool: Pool,
    threads: usize,
    signal: impl Future<Output = std::io::Result<()>> + Send + 'static,
) -> Result<(), ApiError> {
    let config = Config::default()
        .queue(QUEUE)
        .batch_size(2 * threads)
        .heartbeat_interval(HEARTBEAT)
        .missed_heartbeats(MISSED)
        .persist_results(false);
    let backend =
        PostgresStorage::new(&queue.pool).with_config(config).with_pubsub().poll_with_interval(LOOK);
    let worker = WorkerBuilder::new(format!("oak-drum-{}", Uuid::now_v7()))
        .backend(backend)
        .concurrency(threads)
        .data(pool)
        .build(search::work);
    worker.run_until(signal).await.map_err(|error| ApiError::Database(error.into()))
}

/// A worker in this program for as long as it runs, on threads and connections of its own, so that answers do not wait for it.
///
/// # Errors
/// An address that is none.
pub fn start(database_url: &str, threads: usize) -> std::io::Result<()> {
    let runtime = tokio::runtime::Builder::new_multi_thread()
        .worker_threads(1)
        .max_blocking_threads(threads)
        .thread_name("oak-drum-worker")
        .enable_all()
        .build()?;
    let pool = crate::db::pool(database_url, u32::try_from(threads).unwrap_or(1) + 1);
    let url = database_url.to_owned();
    let forever = move || {
        runtime.block_on(async {
            // A worker that lost the database begins again when it is back.
            loop {
                let worked = match Queue::new(&url) {
                    Ok(queue) => work(&queue, pool.clone(), threads, std::future::pending()).await,
                    Err(error) => Err(error),
                };
                if let Err(error) = worked {
                    tracing::error!(%error, "worker");
                }
                tokio::time::sleep(Duration::from_secs(1)).await;
            }
        });
    };
    std::thread::Builder::new().name("oak-drum-worker".to_owned()).spawn(forever)?;
    Ok(())
}
