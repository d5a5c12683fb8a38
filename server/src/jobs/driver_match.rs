//! Looks at every driver of the library for a brief, some at a time.

use std::ops::ControlFlow;

use diesel::pg::PgConnection;
use oak_design::Problem;
use oak_planning::driver_match::{DriverMatch, Outcome};
use serde::{Deserialize, Serialize};
use serde_json::Value;
use uuid::Uuid;

use super::kind::{Failure, Keep, Kind, Next, Wanted};
use crate::db::Pool;
use crate::db::documents::{from_value, to_value};
use crate::db::driver_match::{ID, Input, NAME, Tally};
use crate::db::queries::driver_match as rows;
use crate::db::rows::Job;
use crate::error::ApiError;

/// Drivers in one piece, at least and at most: a part of a second, and so many that keeping what came of them weighs little.
const PIECE: [i64; 2] = [16, 64];
/// So many pieces a library has before they grow.
const PIECES: i64 = 160;
/// Boxes in one piece.
const BOXES: usize = 16;
/// How many of the best rows have their box drawn, whatever they are short of.
const DRAWN: i64 = 200;
/// How often the best are looked at again: a box that is larger than was estimated lets others rise.
const ROUNDS: u32 = 3;

/// The kind.
pub struct DriverMatches;
/// The kind.
pub static KIND: DriverMatches = DriverMatches;

impl Kind for DriverMatches {
    fn id(&self) -> &'static str {
        ID
    }

    fn name(&self) -> &'static str {
        NAME
    }

    fn count(&self, connection: &mut PgConnection, job: &Job) -> Result<i32, ApiError> {
        rows::count_drivers(connection, job)
    }

    fn next(
        &self,
        connection: &mut PgConnection,
        job: &Job,
        cursor: Option<&Value>,
        alone: bool,
    ) -> Result<Option<Next>, ApiError> {
        let cursor: Cursor =
            cursor.map(|cursor| from_value("cursor", cursor.clone())).transpose()?.unwrap_or_default();
        if let Cursor::Drivers(after) = cursor {
            let piece = (i64::from(job.total) / PIECES).clamp(PIECE[0], PIECE[1]);
            let ids = rows::drivers_after(connection, job, after, piece)?;
            if let Some(last) = ids.last() {
                let units = i32::try_from(ids.len()).unwrap_or(i32::MAX);
                let cursor = to_value(&Cursor::Drivers(Some(*last)))?;
                return Ok(Some(Next { cursor, work: to_value(&Work::Drivers(ids))?, units }));
            }
        }
        // The best are known when everything was looked at.
        let (mut left, round) = match cursor {
            Cursor::Boxes { left, round } if !left.is_empty() => (left, round),
            Cursor::Boxes { round: ROUNDS, .. } => return Ok(None),
            _ if !alone => return Ok(None),
            Cursor::Boxes { round, .. } => (rows::undrawn(connection, job.id, DRAWN)?, round + 1),
            Cursor::Drivers(_) => (rows::undrawn(connection, job.id, DRAWN)?, 1),
        };
        if left.is_empty() {
            return Ok(None);
        }
        let rest = left.split_off(left.len().min(BOXES));
        let cursor = to_value(&Cursor::Boxes { left: rest, round })?;
        // They were counted with their drivers.
        Ok(Some(Next { cursor, work: to_value(&Work::Boxes(left))?, units: 0 }))
    }

    fn work(&self, pool: &Pool, job: &Job, work: &Value, wanted: &Wanted<'_>) -> Result<Keep, Failure> {
        let Input { brief, drivers } = from_value("input", job.input.clone())?;
        let planned =
            DriverMatch::new(&brief, drivers).map_err(|problems| Failure::Final(in_words(&problems)))?;
        match from_value("piece", work.clone())? {
            Work::Drivers(ids) => look_at(&planned, pool, &ids, wanted),
            Work::Boxes(keys) => draw(&planned, pool, job.id, &keys, wanted),
        }
    }
}

/// Where the next piece begins: behind a driver, or with the boxes that are left.
#[derive(Debug, Clone, Serialize, Deserialize)]
#[serde(untagged)]
enum Cursor {
    Drivers(Option<Uuid>),
    Boxes { left: Vec<rows::Key>, round: u32 },
}

impl Default for Cursor {
    fn default() -> Self {
        Self::Drivers(None)
    }
}

/// What a piece is: drivers that are looked at, or cabinets whose boxes are drawn.
#[derive(Debug, Serialize, Deserialize)]
#[serde(untagged)]
enum Work {
    Drivers(Vec<Uuid>),
    Boxes(Vec<rows::Key>),
}

fn look_at(planned: &DriverMatch, pool: &Pool, ids: &[Uuid], wanted: &Wanted<'_>) -> Result<Keep, Failure> {
    let sheets = rows::sheets(&mut *pool.get().map_err(ApiError::unreachable)?, ids)?;
    let mut outcomes: Vec<(Uuid, Vec<Outcome>)> = Vec::new();
    for (id, sheet) in sheets {
        if let ControlFlow::Break(()) = wanted.check()? {
            return Err(Failure::Unwanted);
        }
        let refused = |why: String| -> Vec<Outcome> {
            let none = |family| Outcome { family, found: Err(why.clone()) };
            planned.families().map(none).collect()
        };
        let found = match sheet {
            Ok(driver) => planned.outcomes(&driver).unwrap_or_else(|problems| {
                refused(format!("Its sheet cannot be used: {}", in_words(&problems)))
            }),
            Err(error) => refused(format!("Its sheet cannot be read: {error}")),
        };
        outcomes.push((id, found));
    }
    Ok(Box::new(move |connection, job| {
        let mut tally = tally(job)?;
        let (found, complete) = rows::keep(connection, job.id, &outcomes)?;
        tally.found += found;
        tally.complete += complete;
        to_value(&tally)
    }))
}

/// Draws the boxes of cabinets that were ranked by an estimate of their size.
fn draw(
    planned: &DriverMatch,
    pool: &Pool,
    job: Uuid,
    keys: &[rows::Key],
    wanted: &Wanted<'_>,
) -> Result<Keep, Failure> {
    let mut drawn = Vec::new();
    for key in keys {
        if let ControlFlow::Break(()) = wanted.check()? {
            return Err(Failure::Unwanted);
        }
        let row = rows::estimated(&mut *pool.get().map_err(ApiError::unreachable)?, job, key)?;
        let found = row.and_then(|(driver, found)| planned.drawn(&driver, &found));
        drawn.extend(found.map(|found| (key.clone(), found)));
    }
    Ok(Box::new(move |connection, job| {
        rows::redraw(connection, job.id, &drawn)?;
        to_value(&Tally { complete: rows::count_complete(connection, job.id)?, ..tally(job)? })
    }))
}

fn tally(job: &Job) -> Result<Tally, ApiError> {
    Ok(job.result.clone().map(|result| from_value("result", result)).transpose()?.unwrap_or_default())
}

fn in_words(problems: &[Problem]) -> String {
    problems.iter().map(ToString::to_string).collect::<Vec<_>>().join("; ")
}
