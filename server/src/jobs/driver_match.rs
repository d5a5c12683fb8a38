//! Looks at every driver of the library for a brief, some at a time.

use std::ops::ControlFlow;

use diesel::pg::PgConnection;
use oak_design::Problem;
use oak_design::file::RawBrief;
use oak_planning::driver_match::{DriverMatch, Outcome};
use serde::{Deserialize, Serialize};
use serde_json::{Value, json};
use uuid::Uuid;

use super::{Failure, Keep, Kind, Next, Wanted};
use crate::db::Pool;
use crate::db::documents::{from_value, to_value};
use crate::db::queries::driver_match as rows;
use crate::db::rows::Job;
use crate::error::ApiError;

/// Drivers in one piece: about a quarter of a second.
const PIECE: i64 = 16;

/// What is looked for.
#[derive(Debug, Clone, Serialize, Deserialize)]
pub struct Input {
    /// What must be reached.
    pub brief: RawBrief,
    /// How many equal drivers each cabinet has.
    pub drivers: u32,
}

/// What was found so far.
#[derive(Debug, Clone, Copy, Default, Serialize, Deserialize)]
pub struct Tally {
    /// Cabinets.
    pub found: i32,
    /// Of these, such that reach all that is asked.
    pub complete: i32,
}

/// The kind.
pub struct DriverMatches;
/// The kind.
pub static KIND: DriverMatches = DriverMatches;

impl Kind for DriverMatches {
    fn id(&self) -> &'static str {
        "driver_match"
    }

    fn name(&self) -> &'static str {
        "Drivers for a brief"
    }

    fn count(&self, connection: &mut PgConnection, job: &Job) -> Result<i32, ApiError> {
        rows::count_drivers(connection, job)
    }

    fn next(
        &self,
        connection: &mut PgConnection,
        job: &Job,
        cursor: Option<&Value>,
    ) -> Result<Option<Next>, ApiError> {
        let after = cursor.map(|cursor| from_value::<Uuid>("cursor", cursor.clone())).transpose()?;
        let ids = rows::drivers_after(connection, job, after, PIECE)?;
        let Some(last) = ids.last() else { return Ok(None) };
        let units = i32::try_from(ids.len()).unwrap_or(i32::MAX);
        Ok(Some(Next { cursor: json!(last), work: json!(ids), units }))
    }

    fn work(&self, pool: &Pool, job: &Job, work: &Value, wanted: &Wanted<'_>) -> Result<Keep, Failure> {
        let Input { brief, drivers } = from_value("input", job.input.clone())?;
        let ids: Vec<Uuid> = from_value("piece", work.clone())?;
        let planned =
            DriverMatch::new(&brief, drivers).map_err(|problems| Failure::Final(in_words(&problems)))?;
        let sheets = rows::sheets(&mut *pool.get().map_err(ApiError::unreachable)?, &ids)?;
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
            let mut tally: Tally = job
                .result
                .clone()
                .map(|result| from_value("result", result))
                .transpose()?
                .unwrap_or_default();
            let (found, complete) = rows::keep(connection, job.id, &outcomes)?;
            tally.found += found;
            tally.complete += complete;
            to_value(&tally)
        }))
    }
}

fn in_words(problems: &[Problem]) -> String {
    problems.iter().map(ToString::to_string).collect::<Vec<_>>().join("; ")
}
