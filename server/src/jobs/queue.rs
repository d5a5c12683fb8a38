//! Jobs in and out of the queue. The queue is fang's, in PostgreSQL; what it does not do stands here: that starting is one
//! transaction, that pieces are counted once, and that those of a lost worker are taken up again.

use diesel::pg::PgConnection;
use diesel::prelude::*;
use diesel::sql_query;
use diesel::sql_types::{Array, Double, Integer, Text, Uuid as SqlUuid};
use fang::{FangError, Queue, Queueable, Runnable, Task, typetag};
use serde::{Deserialize, Serialize};
use serde_json::Value;
use uuid::Uuid;

use super::{Keep, Kind, Next, OPEN, kind};
use crate::db::queries::job::{self, Progress};
use crate::db::rows::Job;
use crate::error::ApiError;

/// What our pieces are called in the queue.
const TASKS: &str = "oak-drum";
/// How often a piece is tried before its job fails.
pub(super) const ATTEMPTS: i32 = 5;

/// A piece of a job.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
pub(super) struct Piece {
    /// Of which job.
    pub job: Uuid,
    /// What is to be done.
    pub work: Value,
    /// How many units that is.
    pub units: i32,
}

#[typetag::serde]
impl Runnable for Piece {
    /// Pieces are carried out by [`super::worker`], which has connections and counts them.
    fn run(&self, _queue: &dyn Queueable) -> Result<(), FangError> {
        Err(FangError { description: "a piece of a job is carried out by an oak-drum worker".to_owned() })
    }

    fn task_type(&self) -> String {
        TASKS.to_owned()
    }

    fn max_retries(&self) -> i32 {
        ATTEMPTS - 1
    }

    /// 1, 2, 4, 8 s.
    fn backoff(&self, attempt: u32) -> u32 {
        1 << attempt.min(6)
    }
}

/// Starts a job in the place of an earlier one of its kind in the build.
///
/// # Errors
/// There is no such build, or one of the kind is at work there; nothing is changed then.
pub fn start(
    connection: &mut PgConnection,
    kind: &dyn Kind,
    build: Uuid,
    input: &Value,
) -> Result<Job, ApiError> {
    connection.transaction(|connection| {
        job::replace(connection, kind.id(), build)?;
        let job = job::insert(connection, kind.id(), build, input)?;
        let total = kind.count(connection, &job)?;
        let mut progress = Progress { total, ..Progress::of(&job) };
        fill(connection, kind, &job, &mut progress)?;
        job::advance(connection, job.id, &progress)
    })
}

/// Puts pieces into the queue until enough of the job stand in it; ends a job that has none left.
fn fill(
    connection: &mut PgConnection,
    kind: &dyn Kind,
    job: &Job,
    progress: &mut Progress,
) -> Result<(), ApiError> {
    let mut open = open_pieces(connection, job.id)?;
    while open < OPEN {
        let next = kind.next(connection, job, progress.cursor.as_ref(), open == 0)?;
        let Some(Next { work, units, cursor }) = next else {
            if open == 0 {
                // What went out of the library meanwhile is not waited for.
                progress.total = progress.done;
                progress.finished = true;
            }
            return Ok(());
        };
        Queue::insert_query(connection, &Piece { job: job.id, work, units }, chrono::Utc::now())?;
        progress.queued += units;
        progress.total = progress.total.max(progress.queued);
        progress.cursor = Some(cursor);
        open += 1;
    }
    Ok(())
}

#[derive(QueryableByName)]
struct Count {
    #[diesel(sql_type = diesel::sql_types::BigInt)]
    count: i64,
}

fn open_pieces(connection: &mut PgConnection, job: Uuid) -> Result<usize, ApiError> {
    let query = sql_query("SELECT count(*) FROM fang_tasks WHERE metadata ->> 'job' = $1");
    let found: Count = query.bind::<Text, _>(job.to_string()).get_result(connection)?;
    Ok(usize::try_from(found.count).unwrap_or(0))
}

/// The next piece of whatever job, marked as being worked on.
pub(super) fn take(connection: &mut PgConnection) -> Result<Option<Task>, ApiError> {
    Ok(Queue::fetch_and_touch_query(connection, TASKS.to_owned())?)
}

/// Counts a piece, keeps what came of it and puts the next into the queue; does nothing where it was counted already or its job
/// is no longer wanted.
pub(super) fn complete(
    connection: &mut PgConnection,
    task: &Task,
    piece: &Piece,
    keep: Keep,
) -> Result<(), ApiError> {
    connection.transaction(|connection| {
        // Workers on one job take turns here.
        let job = job::lock(connection, piece.job)?;
        if Queue::remove_task_query(connection, &task.id)? == 0 {
            return Ok(());
        }
        let Some(job) = job.filter(Job::at_work) else { return Ok(()) };
        let Some(kind) = kind(&job.kind) else { return Ok(()) };
        let mut progress = Progress::of(&job);
        progress.result = Some(keep(connection, &job)?);
        progress.done += piece.units;
        fill(connection, kind, &job, &mut progress)?;
        job::advance(connection, job.id, &progress)?;
        Ok(())
    })
}

/// Takes a piece out of the queue that nobody wants.
pub(super) fn discard(connection: &mut PgConnection, task: &Task) -> Result<(), ApiError> {
    Queue::remove_task_query(connection, &task.id)?;
    Ok(())
}

/// Puts a piece back for later, or fails its job where it was tried often enough.
pub(super) fn retry(
    connection: &mut PgConnection,
    task: &Task,
    piece: &Piece,
    why: &str,
) -> Result<(), ApiError> {
    if task.retries >= piece.max_retries() {
        return fail(connection, piece.job, &format!("It was tried {ATTEMPTS} times. The last time: {why}"));
    }
    let backoff = piece.backoff(u32::try_from(task.retries).unwrap_or(0));
    Queue::schedule_retry_query(connection, task, backoff, why)?;
    Ok(())
}

/// Fails a job for good and takes its pieces out of the queue.
pub(super) fn fail(connection: &mut PgConnection, id: Uuid, why: &str) -> Result<(), ApiError> {
    tracing::error!(job = %id, why, "a job failed");
    connection.transaction(|connection| {
        job::fail(connection, id, why)?;
        remove_pieces(connection, id)
    })
}

/// Cancels a job; what it has found stays. One that has ended stays as it is.
///
/// # Errors
/// There is no such job, or the database.
pub fn cancel(connection: &mut PgConnection, id: Uuid) -> Result<Job, ApiError> {
    connection.transaction(|connection| {
        job::cancel(connection, id)?;
        remove_pieces(connection, id)?;
        job::find(connection, id)
    })
}

fn remove_pieces(connection: &mut PgConnection, job: Uuid) -> Result<(), ApiError> {
    let query = sql_query("DELETE FROM fang_tasks WHERE metadata ->> 'job' = $1");
    query.bind::<Text, _>(job.to_string()).execute(connection)?;
    Ok(())
}

/// Says that pieces are still being worked on.
pub(super) fn touch(connection: &mut PgConnection, held: &[Uuid]) -> Result<(), ApiError> {
    let query =
        sql_query("UPDATE fang_tasks SET updated_at = now() WHERE id = ANY($1) AND state = 'in_progress'");
    query.bind::<Array<SqlUuid>, _>(held).execute(connection)?;
    Ok(())
}

/// Throws away pieces of jobs that have ended or are gone, all at once.
pub(super) fn sweep(connection: &mut PgConnection) -> Result<(), ApiError> {
    let query = sql_query(
        "DELETE FROM fang_tasks WHERE task_type = $1 AND NOT EXISTS (SELECT FROM jobs \
         WHERE id::text = metadata ->> 'job' AND finished_at IS NULL AND cancelled_at IS NULL)",
    );
    query.bind::<Text, _>(TASKS).execute(connection)?;
    Ok(())
}

#[derive(QueryableByName)]
struct Lost {
    #[diesel(sql_type = diesel::sql_types::Nullable<Text>)]
    job: Option<String>,
    #[diesel(sql_type = Integer)]
    retries: i32,
}

/// Puts pieces back that nobody has said for so many seconds to be working on; those that were lost too often fail their job.
pub(super) fn reclaim(connection: &mut PgConnection, lease: f64) -> Result<(), ApiError> {
    let query = sql_query(
        "UPDATE fang_tasks SET state = 'retried', retries = retries + 1, scheduled_at = now(), updated_at = now() \
         WHERE task_type = $1 AND state = 'in_progress' AND updated_at < now() - make_interval(secs => $2) \
         RETURNING metadata ->> 'job' AS job, retries",
    );
    let lost: Vec<Lost> = query.bind::<Text, _>(TASKS).bind::<Double, _>(lease).load(connection)?;
    for Lost { job, retries } in lost {
        let job = job.and_then(|job| job.parse().ok());
        if let Some(job) = job.filter(|_| retries >= ATTEMPTS) {
            fail(
                connection,
                job,
                &format!("Its worker was lost {ATTEMPTS} times over the same piece of it."),
            )?;
        }
    }
    Ok(())
}
