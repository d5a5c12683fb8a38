//! Searches of the library and what they found.

use chrono::{DateTime, Utc};
use diesel::dsl::now;
use diesel::pg::PgConnection;
use diesel::prelude::*;
use oak_design::file::{RawBrief, RawDriver, RawFamily};
use oak_planning::driver_match::{Found, Outcome, front};
use serde_json::Value;
use uuid::Uuid;

use crate::db::documents::{from_value, to_value};
use crate::db::rows::{Search, SearchPage, SearchPoint, SearchRow, SearchState};
use crate::db::schema::{builds, drivers, search_rows, searches};
use crate::error::ApiError;

/// A score that is all but rounding.
const COMPLETE: f64 = 99.999;

#[derive(Queryable, Selectable)]
#[diesel(table_name = searches, check_for_backend(diesel::pg::Pg))]
struct Row {
    id: Uuid,
    build_id: Uuid,
    brief: Value,
    drivers: i32,
    total: i32,
    done: i32,
    found: i32,
    complete: i32,
    failure: Option<String>,
    cancelled_at: Option<DateTime<Utc>>,
    created_at: DateTime<Utc>,
    finished_at: Option<DateTime<Utc>>,
}

impl Row {
    fn show(self) -> Result<Search, ApiError> {
        let state = match &self {
            Self { failure: Some(_), .. } => SearchState::Failed,
            Self { cancelled_at: Some(_), .. } => SearchState::Cancelled,
            Self { done, total, .. } if done >= total => SearchState::Finished,
            Self { done: 0, .. } => SearchState::Waiting,
            _ => SearchState::Running,
        };
        Ok(Search {
            id: self.id,
            build: self.build_id,
            brief: from_value(self.brief)?,
            drivers: self.drivers,
            state,
            total: self.total,
            done: self.done,
            found: self.found,
            complete: self.complete,
            failure: self.failure,
            created_at: self.created_at,
            finished_at: self.finished_at.or(self.cancelled_at),
        })
    }
}

/// Begins a search for a build, in the place of an earlier one; returns it with the drivers to look at.
pub fn begin(
    connection: &mut PgConnection,
    build: Uuid,
    brief: &RawBrief,
    count: u32,
) -> Result<(Search, Vec<Uuid>), ApiError> {
    connection.transaction(|connection| {
        let known = builds::table.find(build).filter(builds::archived_at.is_null()).count();
        if known.get_result::<i64>(connection)? == 0 {
            return Err(ApiError::NotFound { what: "build" });
        }
        diesel::delete(searches::table.filter(searches::build_id.eq(build))).execute(connection)?;
        let ids: Vec<Uuid> = drivers::table
            .filter(drivers::archived_at.is_null())
            .order(drivers::id)
            .select(drivers::id)
            .load(connection)?;
        let total = i32::try_from(ids.len()).map_err(|error| ApiError::Database(error.into()))?;
        let row: Row = diesel::insert_into(searches::table)
            .values((
                searches::id.eq(Uuid::now_v7()),
                searches::build_id.eq(build),
                searches::brief.eq(to_value(brief)?),
                searches::drivers.eq(i32::try_from(count).unwrap_or(1)),
                searches::total.eq(total),
                searches::finished_at.eq((total == 0).then(Utc::now)),
            ))
            .returning(Row::as_returning())
            .get_result(connection)?;
        Ok((row.show()?, ids))
    })
}

/// One search.
pub fn find(connection: &mut PgConnection, id: Uuid) -> Result<Search, ApiError> {
    let row = searches::table.find(id).select(Row::as_select()).first(connection).optional()?;
    row.ok_or(ApiError::NotFound { what: "search" })?.show()
}

/// The search of a build, if it has one.
pub fn of_build(connection: &mut PgConnection, build: Uuid) -> Result<Option<Search>, ApiError> {
    let row = searches::table
        .filter(searches::build_id.eq(build))
        .select(Row::as_select())
        .first(connection)
        .optional()?;
    row.map(Row::show).transpose()
}

/// Calls a search off; one that has ended stays as it is.
pub fn cancel(connection: &mut PgConnection, id: Uuid) -> Result<Search, ApiError> {
    let running = searches::table
        .find(id)
        .filter(searches::finished_at.is_null())
        .filter(searches::cancelled_at.is_null());
    diesel::update(running).set(searches::cancelled_at.eq(now)).execute(connection)?;
    find(connection, id)
}

/// Notes why a search cannot go on.
pub fn fail(connection: &mut PgConnection, id: Uuid, why: &str) -> Result<(), ApiError> {
    let running = searches::table.find(id).filter(searches::finished_at.is_null());
    diesel::update(running)
        .set((searches::failure.eq(why), searches::finished_at.eq(now)))
        .execute(connection)?;
    Ok(())
}

/// Whether a search still wants drivers to be looked at.
pub fn wanted(connection: &mut PgConnection, id: Uuid) -> Result<bool, ApiError> {
    let running = searches::table
        .find(id)
        .filter(searches::finished_at.is_null())
        .filter(searches::cancelled_at.is_null());
    Ok(running.count().get_result::<i64>(connection)? > 0)
}

/// Drivers by their keys; those that have gone are left out.
pub fn sheets(connection: &mut PgConnection, ids: &[Uuid]) -> Result<Vec<(Uuid, RawDriver)>, ApiError> {
    let rows: Vec<(Uuid, Value)> = drivers::table
        .filter(drivers::id.eq_any(ids))
        .order(drivers::id)
        .select((drivers::id, drivers::document))
        .load(connection)?;
    rows.into_iter().map(|(id, document)| Ok((id, from_value(document)?))).collect()
}

/// Keeps what came of some drivers, counted once however often it is kept, and ends the search with the last of them.
pub fn keep(
    connection: &mut PgConnection,
    id: Uuid,
    looked_at: &[Uuid],
    outcomes: &[(Uuid, Vec<Outcome>)],
) -> Result<(), ApiError> {
    connection.transaction(|connection| {
        // Workers on one search take turns here, so that none counts what another has.
        let search: Option<(i32, i32)> = searches::table
            .find(id)
            .select((searches::done, searches::total))
            .for_update()
            .first(connection)
            .optional()?;
        let Some((done, total)) = search else { return Ok(()) };
        let known: Vec<Uuid> = search_rows::table
            .filter(search_rows::search_id.eq(id))
            .filter(search_rows::driver_id.eq_any(looked_at))
            .select(search_rows::driver_id)
            .distinct()
            .load(connection)?;
        let rows = outcomes
            .iter()
            .filter(|(driver, _)| !known.contains(driver))
            .flat_map(|(driver, outcomes)| outcomes.iter().map(move |outcome| (*driver, outcome)))
            .map(|(driver, outcome)| values(id, driver, outcome))
            .collect::<Result<Vec<_>, _>>()?;
        let count = |wanted: fn(f64) -> bool| {
            i32::try_from(rows.iter().filter(|row| row.score.is_some_and(wanted)).count()).unwrap_or(i32::MAX)
        };
        let (found, complete) = (count(|_| true), count(|score| score >= COMPLETE));
        diesel::insert_into(search_rows::table).values(rows).execute(connection)?;
        let counted = i32::try_from(looked_at.len() - known.len()).unwrap_or(0);
        let done = (done + counted).min(total);
        diesel::update(searches::table.find(id))
            .set((
                searches::done.eq(done),
                searches::found.eq(searches::found + found),
                searches::complete.eq(searches::complete + complete),
                searches::finished_at.eq((done == total).then(Utc::now)),
            ))
            .execute(connection)?;
        Ok(())
    })
}

#[derive(Insertable)]
#[diesel(table_name = search_rows)]
struct NewRow {
    search_id: Uuid,
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

fn values(search_id: Uuid, driver_id: Uuid, outcome: &Outcome) -> Result<NewRow, ApiError> {
    let found = outcome.found.as_ref().ok();
    Ok(NewRow {
        search_id,
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
    search_rows::family,
    search_rows::found,
    search_rows::refused,
) = (
    drivers::id,
    drivers::name,
    drivers::on_hand,
    drivers::updated_at,
    search_rows::family,
    search_rows::found,
    search_rows::refused,
);

fn show(search: &Search, row: Shown) -> Result<SearchRow, ApiError> {
    let (driver, name, on_hand, updated_at, family, found, refused) = row;
    Ok(SearchRow {
        driver,
        name,
        on_hand,
        stale: updated_at > search.created_at,
        family: family_of(&family)?,
        found: found.map(from_value::<Found>).transpose()?,
        refused,
    })
}

fn family_of(id: &str) -> Result<RawFamily, ApiError> {
    RawFamily::of_id(id).ok_or_else(|| ApiError::Database(format!("unknown family {id}").into()))
}

/// The best of a search, of one family or of all.
pub fn best(
    connection: &mut PgConnection,
    id: Uuid,
    family: Option<RawFamily>,
    limit: i64,
) -> Result<SearchPage, ApiError> {
    let search = find(connection, id)?;
    let rows = search_rows::table
        .inner_join(drivers::table)
        .filter(search_rows::search_id.eq(id))
        .filter(search_rows::found.is_not_null())
        .into_boxed();
    let rows = match family {
        Some(family) => rows.filter(search_rows::family.eq(family.id())),
        None => rows,
    };
    let rows: Vec<Shown> = rows
        .order((search_rows::score.desc(), search_rows::spare.desc(), search_rows::driver_id))
        .limit(limit)
        .select(SHOWN)
        .load(connection)?;
    let rows = rows.into_iter().map(|row| show(&search, row)).collect::<Result<_, _>>()?;
    Ok(SearchPage { search, rows })
}

/// Everything that came of one driver.
pub fn of_driver(connection: &mut PgConnection, id: Uuid, driver: Uuid) -> Result<Vec<SearchRow>, ApiError> {
    let search = find(connection, id)?;
    let rows: Vec<Shown> = search_rows::table
        .inner_join(drivers::table)
        .filter(search_rows::search_id.eq(id))
        .filter(search_rows::driver_id.eq(driver))
        .order((search_rows::score.desc().nulls_last(), search_rows::family))
        .select(SHOWN)
        .load(connection)?;
    rows.into_iter().map(|row| show(&search, row)).collect()
}

/// Cabinets as points of size, lowest note and loudness: all that no other beats, and the best-scored of the rest.
pub fn points(connection: &mut PgConnection, id: Uuid, most: usize) -> Result<Vec<SearchPoint>, ApiError> {
    find(connection, id)?;
    type Point = (Uuid, String, String, f64, f64, f64, f64);
    let rows: Vec<Point> = search_rows::table
        .inner_join(drivers::table)
        .filter(search_rows::search_id.eq(id))
        .filter(search_rows::found.is_not_null())
        .order((search_rows::score.desc(), search_rows::spare.desc(), search_rows::driver_id))
        .select((
            drivers::id,
            drivers::name,
            search_rows::family,
            search_rows::volume_m3.assume_not_null(),
            search_rows::f3_hz.assume_not_null(),
            search_rows::loudness_db.assume_not_null(),
            search_rows::score.assume_not_null(),
        ))
        .filter(search_rows::f3_hz.is_not_null())
        .filter(search_rows::loudness_db.is_not_null())
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
            Ok(SearchPoint { driver, name, family, volume, f3, loudness, score, front })
        })
        .collect()
}
