//! Everything that touches PostgreSQL.

pub mod best_places;
pub(crate) mod documents;
pub mod driver_match;
mod migrate;
pub mod queries;
pub mod rows;
#[allow(missing_docs)]
pub mod schema;

pub use migrate::{MigrateError, check_schema, migrate};

use std::panic::{AssertUnwindSafe, catch_unwind};

use actix_web::web;
use diesel::connection::SimpleConnection;
use diesel::pg::PgConnection;
use diesel::r2d2::{ConnectionManager, CustomizeConnection};

use crate::error::ApiError;

/// A pool of connections.
pub type Pool = diesel::r2d2::Pool<ConnectionManager<PgConnection>>;

/// Longest a statement may run.
const LIMITS: &str = "SET statement_timeout = '15s'; SET lock_timeout = '5s'";
/// Longest to wait for a connection, so that a dead database is said and not sat out.
const WAIT: std::time::Duration = std::time::Duration::from_secs(5);

/// What a connection is told first.
#[derive(Debug)]
struct Told(&'static [&'static str]);

impl CustomizeConnection<PgConnection, diesel::r2d2::Error> for Told {
    fn on_acquire(&self, connection: &mut PgConnection) -> Result<(), diesel::r2d2::Error> {
        let mut told = self.0.iter();
        told.try_for_each(|words| connection.batch_execute(words)).map_err(diesel::r2d2::Error::QueryError)
    }
}

/// A pool that connects when it is first used.
pub fn pool(url: &str, size: u32) -> Pool {
    pool_told(url, size, &[LIMITS])
}

/// One whose connections may do no more than what phones need.
pub fn companion_pool(url: &str, size: u32) -> Pool {
    pool_told(url, size, &[LIMITS, "SET ROLE oak_companion"])
}

fn pool_told(url: &str, size: u32, told: &'static [&'static str]) -> Pool {
    Pool::builder()
        .max_size(size)
        .min_idle(Some(0))
        .connection_timeout(WAIT)
        .connection_customizer(Box::new(Told(told)))
        .build_unchecked(ConnectionManager::new(url))
}

/// Runs a query off the event loop.
///
/// # Errors
/// Whatever the query says, or that there is no connection.
pub async fn run<T: Send + 'static>(
    pool: &Pool,
    query: impl FnOnce(&mut PgConnection) -> Result<T, ApiError> + Send + 'static,
) -> Result<T, ApiError> {
    let pool = pool.clone();
    let answer = web::block(move || {
        let mut connection = pool.get().map_err(ApiError::unreachable)?;
        catch_unwind(AssertUnwindSafe(|| query(&mut connection)))
            .unwrap_or_else(|panic| Err(ApiError::panicked(&*panic)))
    });
    answer.await.map_err(ApiError::internal)?
}
