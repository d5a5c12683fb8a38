//! What a kind of job says of itself.

use std::ops::ControlFlow;
use std::time::{Duration, Instant};

use diesel::pg::PgConnection;
use serde_json::Value;
use uuid::Uuid;

use crate::db::Pool;
use crate::db::queries::job;
use crate::db::rows::Job;
use crate::error::ApiError;

/// One kind of job.
pub trait Kind: Sync {
    /// Its name in the database and in answers.
    fn id(&self) -> &'static str;

    /// Its name for people.
    fn name(&self) -> &'static str;

    /// How many units of work there are.
    ///
    /// # Errors
    /// The database.
    fn count(&self, connection: &mut PgConnection, job: &Job) -> Result<i32, ApiError>;

    /// The piece of work that begins at the job's cursor, a part of a second; nothing where none is left, or where it has to wait
    /// until nothing else of the job is under way: it is asked again then, `alone`.
    ///
    /// # Errors
    /// The database.
    fn next(
        &self,
        connection: &mut PgConnection,
        job: &Job,
        cursor: Option<&Value>,
        alone: bool,
    ) -> Result<Option<Next>, ApiError>;

    /// Does a piece. It may be done more than once, even at the same time, so it changes nothing itself; what it returns keeps
    /// its outcome.
    ///
    /// # Errors
    /// See [`Failure`].
    fn work(&self, pool: &Pool, job: &Job, work: &Value, wanted: &Wanted<'_>) -> Result<Keep, Failure>;
}

/// A piece of a job that is to be put into the queue.
#[derive(Debug)]
pub struct Next {
    /// What is to be done.
    pub work: Value,
    /// How many units that is.
    pub units: i32,
    /// Where the piece behind it begins.
    pub cursor: Value,
}

/// Keeps what came of a piece, within the transaction that counts it; returns what the job has come to so far.
pub type Keep = Box<dyn FnOnce(&mut PgConnection, &Job) -> Result<Value, ApiError>>;

/// Why a piece was not done.
#[derive(Debug)]
pub enum Failure {
    /// It cannot be done, ever: the job fails with this reason.
    Final(String),
    /// The database could not be reached or refused: it is tried again.
    Passing(ApiError),
    /// The job was cancelled or replaced.
    Unwanted,
}

impl From<ApiError> for Failure {
    fn from(error: ApiError) -> Self {
        match error {
            ApiError::Unavailable(_) => Self::Passing(error),
            other => Self::Final(other.to_string()),
        }
    }
}

/// Whether a job is still wanted: asked of the database now and then while a piece is worked on.
pub struct Wanted<'a> {
    pool: &'a Pool,
    job: Uuid,
    asked: std::cell::Cell<Instant>,
}

/// How often a job is asked whether it is still wanted.
const ASK: Duration = Duration::from_millis(50);

impl<'a> Wanted<'a> {
    pub(super) fn new(pool: &'a Pool, job: Uuid) -> Self {
        Self { pool, job, asked: std::cell::Cell::new(Instant::now()) }
    }

    /// Goes on, or breaks where nobody wants the job any more.
    ///
    /// # Errors
    /// The database.
    pub fn check(&self) -> Result<ControlFlow<()>, ApiError> {
        if self.asked.get().elapsed() < ASK {
            return Ok(ControlFlow::Continue(()));
        }
        self.asked.set(Instant::now());
        let mut connection = self.pool.get().map_err(ApiError::unreachable)?;
        let wanted = job::at_work(&mut connection, self.job)?;
        Ok(if wanted { ControlFlow::Continue(()) } else { ControlFlow::Break(()) })
    }
}
