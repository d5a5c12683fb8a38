//! What came of looking for drivers.

use chrono::{DateTime, Utc};
use diesel::pg::PgConnection;
use diesel::prelude::*;
use oak_design::file::{RawDriver, RawFamily};
use oak_planning::driver_match::{Found, Outcome, front};
use serde_json::Value;
use uuid::Uuid;

use super::job;
use crate::db::documents::{from_value, to_value};
use crate::db::driver_match::{ID, Input, Tally};
use crate::db::rows::{DriverMatch, DriverMatchPage, DriverMatchPoint, DriverMatchRow, Job};
use crate::db::schema::{driver_match_rows, drivers};
use crate::error::ApiError;

/// A score that is all but rounding.
const COMPLETE: f64 = 99.999;

/// A job with what it was asked and has come to.
pub fn of_job(job: Job) -> Result<DriverMatch, ApiError> {
    let Input { brief, drivers } = from_value("what was looked for", job.input.clone())?;
    let tally = job.result.clone().map(|result| from_value("what was found", result)).transpose()?;
    let Tally { found, complete } = tally.unwrap_or_default();
    Ok(DriverMatch { job, brief, drivers, found, complete })
}

/// One job that looks for drivers.
pub fn find(connection: &mut PgConnection, id: Uuid) -> Result<DriverMatch, ApiError> {
    let job = job::lookup(connection, id)?.filter(|job| job.kind == ID);
    of_job(job.ok_or(ApiError::NotFound { what: "driver match" })?)
}

/// The one of a build, if it has one.
pub fn of_build(connection: &mut PgConnection, build: Uuid) -> Result<Option<DriverMatch>, ApiError> {
    job::of_build(connection, ID, build)?.map(of_job).transpose()
}

/// The drivers that were in the library when a job was started, whatever has become of it since.
#[diesel::dsl::auto_type(no_type_alias)]
fn library_at(moment: DateTime<Utc>) -> _ {
    drivers::table
        .filter(drivers::created_at.le(moment))
        .filter(drivers::archived_at.is_null().or(drivers::archived_at.gt(moment)))
}

/// How many drivers a job looks at.
pub fn count_drivers(connection: &mut PgConnection, job: &Job) -> Result<i32, ApiError> {
    let count: i64 = library_at(job.created_at).count().get_result(connection)?;
    i32::try_from(count).map_err(ApiError::internal)
}

/// The next drivers that a job looks at.
pub fn drivers_after(
    connection: &mut PgConnection,
    job: &Job,
    after: Option<Uuid>,
    limit: i64,
) -> Result<Vec<Uuid>, ApiError> {
    let found = library_at(job.created_at)
        .filter(drivers::id.gt(after.unwrap_or_default()))
        .order(drivers::id)
        .limit(limit)
        .select(drivers::id);
    Ok(found.load(connection)?)
}

/// A driver's sheet, or why it cannot be read.
type Sheet = (Uuid, Result<RawDriver, ApiError>);

/// Drivers by their keys; those that have gone are left out.
pub fn sheets(connection: &mut PgConnection, ids: &[Uuid]) -> Result<Vec<Sheet>, ApiError> {
    let rows: Vec<(Uuid, String, Value)> = drivers::table
        .filter(drivers::id.eq_any(ids))
        .order(drivers::id)
        .select((drivers::id, drivers::name, drivers::document))
        .load(connection)?;
    Ok(rows.into_iter().map(|(id, name, document)| (id, from_value(name, document))).collect())
}

/// Keeps what came of some drivers; how many cabinets were found, and how many of them reach all that is asked.
pub fn keep(
    connection: &mut PgConnection,
    job: Uuid,
    outcomes: &[(Uuid, Vec<Outcome>)],
) -> Result<(i32, i32), ApiError> {
    let rows = outcomes
        .iter()
        .flat_map(|(driver, outcomes)| outcomes.iter().map(move |outcome| (*driver, outcome)))
        .map(|(driver, outcome)| values(job, driver, outcome))
        .collect::<Result<Vec<_>, _>>()?;
    let count = |wanted: fn(f64) -> bool| {
        i32::try_from(rows.iter().filter(|row| row.score.is_some_and(wanted)).count()).unwrap_or(i32::MAX)
    };
    let counts = (count(|_| true), count(|score| score >= COMPLETE));
    diesel::insert_into(driver_match_rows::table)
        .values(rows)
        .on_conflict_do_nothing()
        .execute(connection)?;
    Ok(counts)
}

/// A row of a job: a driver and a family.
pub type Key = (Uuid, String);

/// Those of the best rows whose box was not drawn, from the best down.
pub fn undrawn(connection: &mut PgConnection, job: Uuid, best: i64) -> Result<Vec<Key>, ApiError> {
    let rows: Vec<(Uuid, String, Option<Value>)> = driver_match_rows::table
        .filter(driver_match_rows::job_id.eq(job))
        .filter(driver_match_rows::found.is_not_null())
        .order((
            driver_match_rows::score.desc(),
            driver_match_rows::spare.desc(),
            driver_match_rows::driver_id,
        ))
        .limit(best)
        .select((driver_match_rows::driver_id, driver_match_rows::family, driver_match_rows::found))
        .load(connection)?;
    let drawn = |found: &Option<Value>| found.as_ref().is_some_and(|found| found["box_checked"] == true);
    let rows = rows.into_iter().filter(|(.., found)| !drawn(found));
    Ok(rows.map(|(driver, family, _)| (driver, family)).collect())
}

/// The driver of a row and what was found for it; `None` where either is gone or cannot be read.
pub fn estimated(
    connection: &mut PgConnection,
    job: Uuid,
    (driver, family): &Key,
) -> Result<Option<(RawDriver, Found)>, ApiError> {
    let row: Option<(Option<Value>, Value)> = driver_match_rows::table
        .inner_join(drivers::table)
        .filter(driver_match_rows::job_id.eq(job))
        .filter(driver_match_rows::driver_id.eq(driver))
        .filter(driver_match_rows::family.eq(family))
        .select((driver_match_rows::found, drivers::document))
        .first(connection)
        .optional()?;
    let Some((Some(found), document)) = row else { return Ok(None) };
    let found = from_value::<Found>("a cabinet", found).ok();
    Ok(from_value::<RawDriver>("a driver", document).ok().zip(found))
}

/// Puts cabinets with their boxes drawn in the place of what was estimated.
pub fn redraw(connection: &mut PgConnection, job: Uuid, drawn: &[(Key, Found)]) -> Result<(), ApiError> {
    for ((driver, family), found) in drawn {
        diesel::update(driver_match_rows::table.find((job, driver, family)))
            .set((
                driver_match_rows::score.eq(found.score),
                driver_match_rows::spare.eq(found.spare),
                driver_match_rows::volume_m3.eq(found.volume),
                driver_match_rows::f3_hz.eq(found.f3),
                driver_match_rows::loudness_db.eq(found.loudness),
                driver_match_rows::found.eq(to_value(found)?),
            ))
            .execute(connection)?;
    }
    Ok(())
}

/// How many cabinets of a job reach all that is asked.
pub fn count_complete(connection: &mut PgConnection, job: Uuid) -> Result<i32, ApiError> {
    let complete = driver_match_rows::table
        .filter(driver_match_rows::job_id.eq(job))
        .filter(driver_match_rows::score.ge(COMPLETE));
    let count: i64 = complete.count().get_result(connection)?;
    i32::try_from(count).map_err(ApiError::internal)
}

#[derive(Insertable)]
#[diesel(table_name = driver_match_rows)]
struct NewRow {
    job_id: Uuid,
    driver_id: Uuid,
    family: &'static str,
    score: Option<f64>,
    spare: Option<f64>,
    volume_m3: Option<f64>,
    f3_hz: Option<f64>,
    loudness_db: Option<f64>,
    found: Option<Value>,
    refused: Option<String>,
}

fn values(job_id: Uuid, driver_id: Uuid, outcome: &Outcome) -> Result<NewRow, ApiError> {
    let found = outcome.found.as_ref().ok();
    Ok(NewRow {
        job_id,
        driver_id,
        family: outcome.family.id(),
        score: found.map(|found| found.score),
        spare: found.map(|found| found.spare),
        volume_m3: found.map(|found| found.volume),
        f3_hz: found.and_then(|found| found.f3),
        loudness_db: found.and_then(|found| found.loudness),
        found: found.map(to_value).transpose()?,
        refused: outcome.found.as_ref().err().cloned(),
    })
}

type Shown = (Uuid, String, Option<i32>, DateTime<Utc>, String, Option<Value>, Option<String>);

const SHOWN: (
    drivers::id,
    drivers::name,
    drivers::on_hand,
    drivers::updated_at,
    driver_match_rows::family,
    driver_match_rows::found,
    driver_match_rows::refused,
) = (
    drivers::id,
    drivers::name,
    drivers::on_hand,
    drivers::updated_at,
    driver_match_rows::family,
    driver_match_rows::found,
    driver_match_rows::refused,
);

fn show(job: &DriverMatch, row: Shown) -> Result<DriverMatchRow, ApiError> {
    let (driver, name, on_hand, updated_at, family, found, refused) = row;
    Ok(DriverMatchRow {
        driver,
        on_hand,
        stale: updated_at > job.job.created_at,
        family: family_of(&family)?,
        found: found.map(|found| from_value::<Found>(format!("a cabinet for {name}"), found)).transpose()?,
        refused,
        name,
    })
}

fn family_of(id: &str) -> Result<RawFamily, ApiError> {
    RawFamily::of_id(id).ok_or_else(|| ApiError::internal(format!("unknown family {id}")))
}

/// The best of what was found, of one family or of all.
pub fn best(
    connection: &mut PgConnection,
    id: Uuid,
    family: Option<RawFamily>,
    limit: i64,
) -> Result<DriverMatchPage, ApiError> {
    let job = find(connection, id)?;
    let rows = driver_match_rows::table
        .inner_join(drivers::table)
        .filter(driver_match_rows::job_id.eq(id))
        .filter(driver_match_rows::found.is_not_null())
        .into_boxed();
    let rows = match family {
        Some(family) => rows.filter(driver_match_rows::family.eq(family.id())),
        None => rows,
    };
    let rows: Vec<Shown> = rows
        .order((
            driver_match_rows::score.desc(),
            driver_match_rows::spare.desc(),
            driver_match_rows::driver_id,
        ))
        .limit(limit)
        .select(SHOWN)
        .load(connection)?;
    let rows = rows.into_iter().map(|row| show(&job, row)).collect::<Result<_, _>>()?;
    Ok(DriverMatchPage { job, rows })
}

/// Everything that came of one driver.
pub fn of_driver(
    connection: &mut PgConnection,
    id: Uuid,
    driver: Uuid,
) -> Result<Vec<DriverMatchRow>, ApiError> {
    let job = find(connection, id)?;
    let rows: Vec<Shown> = driver_match_rows::table
        .inner_join(drivers::table)
        .filter(driver_match_rows::job_id.eq(id))
        .filter(driver_match_rows::driver_id.eq(driver))
        .order((driver_match_rows::score.desc().nulls_last(), driver_match_rows::family))
        .select(SHOWN)
        .load(connection)?;
    rows.into_iter().map(|row| show(&job, row)).collect()
}

/// Cabinets as points of size, lowest note and loudness: all that no other beats, and the best-scored of the rest.
pub fn points(
    connection: &mut PgConnection,
    id: Uuid,
    most: usize,
) -> Result<Vec<DriverMatchPoint>, ApiError> {
    find(connection, id)?;
    type Point = (Uuid, String, String, f64, f64, f64, f64);
    let rows: Vec<Point> = driver_match_rows::table
        .inner_join(drivers::table)
        .filter(driver_match_rows::job_id.eq(id))
        .filter(driver_match_rows::found.is_not_null())
        .order((
            driver_match_rows::score.desc(),
            driver_match_rows::spare.desc(),
            driver_match_rows::driver_id,
        ))
        .select((
            drivers::id,
            drivers::name,
            driver_match_rows::family,
            driver_match_rows::volume_m3.assume_not_null(),
            driver_match_rows::f3_hz.assume_not_null(),
            driver_match_rows::loudness_db.assume_not_null(),
            driver_match_rows::score.assume_not_null(),
        ))
        .filter(driver_match_rows::f3_hz.is_not_null())
        .filter(driver_match_rows::loudness_db.is_not_null())
        .load(connection)?;
    let coordinates: Vec<[f64; 3]> =
        rows.iter().map(|(.., volume, f3, loudness, _)| [*volume, *f3, -*loudness]).collect();
    let mut on_front = vec![false; rows.len()];
    for at in front(&coordinates) {
        on_front[at] = true;
    }
    let shown = rows.into_iter().zip(on_front).enumerate().filter(|(at, (_, front))| *front || *at < most);
    shown
        .map(|(_, ((driver, name, family, volume, f3, loudness, score), front))| {
            let family = family_of(&family)?;
            Ok(DriverMatchPoint { driver, name, family, volume, f3, loudness, score, front })
        })
        .collect()
}
