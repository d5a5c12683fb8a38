//! Looks for the places in a room from which cabinets play most evenly, some at a time.

use std::ops::ControlFlow;

use diesel::pg::PgConnection;
use oak_acoustics::Stop;
use oak_planning::place::{BestPlaces as Found, Candidates, RawPlaceSearch};
use serde::{Deserialize, Serialize};
use serde_json::Value;

use super::kind::{Failure, Keep, Kind, Next, Wanted};
use crate::db::Pool;
use crate::db::best_places::{ID, NAME};
use crate::db::documents::{from_value, to_value};
use crate::db::rows::Job;
use crate::error::ApiError;

/// Into how many pieces it is cut: each has to sum up the room anew.
const PIECES: usize = 4;

/// The kind.
pub struct BestPlaces;
/// The kind.
pub static KIND: BestPlaces = BestPlaces;

/// Candidates that are the first of those to be judged.
#[derive(Debug, Clone, Copy, Serialize, Deserialize)]
struct Piece {
    from: usize,
    to: usize,
}

impl Kind for BestPlaces {
    fn id(&self) -> &'static str {
        ID
    }

    fn name(&self) -> &'static str {
        NAME
    }

    fn count(&self, _: &mut PgConnection, job: &Job) -> Result<i32, ApiError> {
        Ok(i32::try_from(candidates(job)?.len()).unwrap_or(i32::MAX))
    }

    fn next(
        &self,
        _: &mut PgConnection,
        job: &Job,
        cursor: Option<&Value>,
        _: bool,
    ) -> Result<Option<Next>, ApiError> {
        let from: usize = cursor.map(|cursor| from_value("cursor", cursor.clone())).transpose()?.unwrap_or(0);
        let total = candidates(job)?.len();
        let to = (from + total.div_ceil(PIECES)).min(total);
        if from >= to {
            return Ok(None);
        }
        let units = i32::try_from(to - from).unwrap_or(i32::MAX);
        Ok(Some(Next { work: to_value(&Piece { from, to })?, units, cursor: to_value(&to)? }))
    }

    fn work(&self, _: &Pool, job: &Job, work: &Value, wanted: &Wanted<'_>) -> Result<Keep, Failure> {
        let Piece { from, to } = from_value("piece", work.clone())?;
        if let ControlFlow::Break(()) = wanted.check()? {
            return Err(Failure::Unwanted);
        }
        let found = candidates(job)?.best(from..to, &Stop::default()).ok_or(Failure::Unwanted)?;
        Ok(Box::new(move |_, job| {
            let before: Found = job
                .result
                .clone()
                .map(|result| from_value("result", result))
                .transpose()?
                .unwrap_or_default();
            to_value(&before.with(found))
        }))
    }
}

fn candidates(job: &Job) -> Result<Candidates, ApiError> {
    let search: RawPlaceSearch = from_value("input", job.input.clone())?;
    Ok(search.candidates()?)
}
