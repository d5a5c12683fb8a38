//! Jobs: their rows.

use chrono::{DateTime, Utc};
use diesel::dsl::now;
use diesel::pg::PgConnection;
use diesel::prelude::*;
use serde_json::Value;
use uuid::Uuid;

use super::document;
use crate::db::rows::{Job, JobState};
use crate::db::schema::{builds, jobs};
use crate::db::{best_places, driver_match};
use crate::error::ApiError;

/// Most jobs in a list.
const MOST: i64 = 200;

#[derive(Queryable, Selectable)]
#[diesel(table_name = jobs, check_for_backend(diesel::pg::Pg))]
struct Row {
    id: Uuid,
    kind: String,
    build_id: Option<Uuid>,
    input: Value,
    total: i32,
    queued: i32,
    done: i32,
    cursor: Option<Value>,
    result: Option<Value>,
    failure: Option<String>,
    created_at: DateTime<Utc>,
    cancelled_at: Option<DateTime<Utc>>,
    finished_at: Option<DateTime<Utc>>,
}

impl Row {
    fn show(self, build_name: Option<String>) -> Job {
        let state = match &self {
            Self { failure: Some(_), .. } => JobState::Failed,
            Self { cancelled_at: Some(_), .. } => JobState::Cancelled,
            Self { finished_at: Some(_), .. } => JobState::Finished,
            Self { done: 0, .. } => JobState::Waiting,
            _ => JobState::Running,
        };
        Job {
            id: self.id,
            name: name_of(&self.kind).unwrap_or("Unknown work"),
            kind: self.kind,
            build: self.build_id,
            build_name,
            state,
            total: self.total,
            done: self.done,
            failure: self.failure,
            created_at: self.created_at,
            finished_at: self.finished_at.or(self.cancelled_at),
            input: self.input,
            result: self.result,
            queued: self.queued,
            cursor: self.cursor,
        }
    }
}

/// How far a job is.
#[derive(Debug, Clone)]
pub struct Progress {
    /// Units in all.
    pub total: i32,
    /// Units in the queue so far.
    pub queued: i32,
    /// Units done.
    pub done: i32,
    /// Where the next piece begins.
    pub cursor: Option<Value>,
    /// What it has come to.
    pub result: Option<Value>,
    /// Whether all is done.
    pub finished: bool,
}

impl Progress {
    /// Where a job stands.
    pub fn of(job: &Job) -> Self {
        Self {
            total: job.total,
            queued: job.queued,
            done: job.done,
            cursor: job.cursor.clone(),
            result: job.result.clone(),
            finished: false,
        }
    }
}

/// Makes way for a new job of a kind in a build: takes away what an earlier one had come to.
///
/// # Errors
/// There is no such build, or one is at work.
pub fn replace(connection: &mut PgConnection, kind: &str, build: Uuid) -> Result<(), ApiError> {
    // The lock has two starts at once take turns.
    let found: Option<Uuid> = builds::table
        .find(build)
        .filter(builds::archived_at.is_null())
        .select(builds::id)
        .for_update()
        .first(connection)
        .optional()?;
    found.ok_or(ApiError::NotFound { what: "build" })?;
    let earlier = jobs::table.filter(jobs::kind.eq(kind)).filter(jobs::build_id.eq(build));
    let at_work = earlier.filter(jobs::finished_at.is_null()).filter(jobs::cancelled_at.is_null());
    if at_work.count().get_result::<i64>(connection)? > 0 {
        let what = name_of(kind).unwrap_or("such a job");
        return Err(ApiError::AtWork { what });
    }
    diesel::delete(earlier).execute(connection)?;
    Ok(())
}

/// A job of which nothing is done yet.
pub fn insert(
    connection: &mut PgConnection,
    kind: &str,
    build: Uuid,
    input: &Value,
) -> Result<Job, ApiError> {
    let row: Row = diesel::insert_into(jobs::table)
        .values((
            jobs::id.eq(Uuid::now_v7()),
            jobs::kind.eq(kind),
            jobs::build_id.eq(build),
            jobs::input.eq(input),
            jobs::total.eq(0),
        ))
        .returning(Row::as_returning())
        .get_result(connection)?;
    Ok(row.show(None))
}

/// Notes how far a job is.
pub fn advance(connection: &mut PgConnection, id: Uuid, progress: &Progress) -> Result<Job, ApiError> {
    diesel::update(jobs::table.find(id))
        .set((
            jobs::total.eq(progress.total),
            jobs::queued.eq(progress.queued),
            jobs::done.eq(progress.done),
            jobs::cursor.eq(progress.cursor.as_ref()),
            jobs::result.eq(progress.result.as_ref()),
        ))
        .execute(connection)?;
    if progress.finished {
        diesel::update(jobs::table.find(id)).set(jobs::finished_at.eq(now)).execute(connection)?;
    }
    find(connection, id)
}

/// One job, locked until the transaction ends; nothing where it is gone.
pub fn lock(connection: &mut PgConnection, id: Uuid) -> Result<Option<Job>, ApiError> {
    let row: Option<Row> =
        jobs::table.find(id).select(Row::as_select()).for_update().first(connection).optional()?;
    Ok(row.map(|row| row.show(None)))
}

/// One job; nothing where it is gone.
pub fn lookup(connection: &mut PgConnection, id: Uuid) -> Result<Option<Job>, ApiError> {
    let row: Option<Row> = jobs::table.find(id).select(Row::as_select()).first(connection).optional()?;
    Ok(named(connection, row.into_iter().collect())?.pop())
}

fn named(connection: &mut PgConnection, rows: Vec<Row>) -> Result<Vec<Job>, ApiError> {
    let names = document::build_names(connection, rows.iter().filter_map(|row| row.build_id))?;
    let name = |row: &Row| row.build_id.and_then(|build| names.get(&build).cloned());
    Ok(rows.into_iter().map(|row| (name(&row), row)).map(|(name, row)| row.show(name)).collect())
}

/// One job.
pub fn find(connection: &mut PgConnection, id: Uuid) -> Result<Job, ApiError> {
    lookup(connection, id)?.ok_or(ApiError::NotFound { what: "job" })
}

/// The job of a kind in a build, if it has one.
pub fn of_build(connection: &mut PgConnection, kind: &str, build: Uuid) -> Result<Option<Job>, ApiError> {
    let row: Option<Row> = jobs::table
        .filter(jobs::kind.eq(kind))
        .filter(jobs::build_id.eq(build))
        .order(jobs::id.desc())
        .select(Row::as_select())
        .first(connection)
        .optional()?;
    Ok(row.map(|row| row.show(None)))
}

/// All jobs, the newest first.
pub fn list(connection: &mut PgConnection) -> Result<Vec<Job>, ApiError> {
    let rows: Vec<Row> =
        jobs::table.order(jobs::id.desc()).limit(MOST).select(Row::as_select()).load(connection)?;
    named(connection, rows)
}

/// Whether a job is to be carried on.
pub fn at_work(connection: &mut PgConnection, id: Uuid) -> Result<bool, ApiError> {
    Ok(unended(id).count().get_result::<i64>(connection)? > 0)
}

#[diesel::dsl::auto_type(no_type_alias)]
fn unended(id: Uuid) -> _ {
    jobs::table
        .filter(jobs::id.eq(id))
        .filter(jobs::finished_at.is_null())
        .filter(jobs::cancelled_at.is_null())
}

/// Notes that a job was cancelled; one that has ended stays as it is.
pub fn cancel(connection: &mut PgConnection, id: Uuid) -> Result<(), ApiError> {
    diesel::update(unended(id)).set(jobs::cancelled_at.eq(now)).execute(connection)?;
    Ok(())
}

/// Notes why a job cannot be done; one that has ended stays as it is.
pub fn fail(connection: &mut PgConnection, id: Uuid, why: &str) -> Result<(), ApiError> {
    diesel::update(unended(id))
        .set((jobs::failure.eq(why), jobs::finished_at.eq(now)))
        .execute(connection)?;
    Ok(())
}

/// What people call each kind of job.
pub const NAMES: [(&str, &str); 2] =
    [(driver_match::ID, driver_match::NAME), (best_places::ID, best_places::NAME)];

fn name_of(kind: &str) -> Option<&'static str> {
    NAMES.into_iter().find(|(id, _)| *id == kind).map(|(_, name)| name)
}
