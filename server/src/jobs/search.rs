//! A piece of a search: some drivers looked at for a brief.

use std::panic::{AssertUnwindSafe, catch_unwind};
use std::time::{Duration, Instant};

use apalis::prelude::{BoxDynError, Data};
use diesel::pg::PgConnection;
use oak_design::Problem;
use oak_planning::driver_match::{Outcome, Search};
use serde::{Deserialize, Serialize};
use uuid::Uuid;

use crate::db::Pool;
use crate::db::queries::search;
use crate::error::ApiError;

/// Some drivers of a search.
#[derive(Debug, Clone, Serialize, Deserialize)]
pub(super) struct Chunk {
    /// The search.
    pub search: Uuid,
    /// The drivers.
    pub drivers: Vec<Uuid>,
}

/// How often a search is asked whether it is still wanted.
const ASK: Duration = Duration::from_millis(50);

/// Looks at the drivers, off the runtime's threads. What fails for the database's sake is tried again, anything else ends the
/// search with the reason.
pub(super) async fn work(chunk: Chunk, pool: Data<Pool>) -> Result<(), BoxDynError> {
    let pool = Pool::clone(&pool);
    tokio::task::spawn_blocking(move || {
        let mut connection = pool.get()?;
        let looked = catch_unwind(AssertUnwindSafe(|| look(&mut connection, &chunk)));
        match looked {
            Ok(outcome) => outcome.map_err(BoxDynError::from),
            Err(_) => Ok(search::fail(&mut connection, chunk.search, "The computation broke down.")?),
        }
    })
    .await?
}

fn look(connection: &mut PgConnection, chunk: &Chunk) -> Result<(), ApiError> {
    let row = match search::find(connection, chunk.search) {
        // Another search took its place.
        Err(ApiError::NotFound { .. }) => return Ok(()),
        row => row?,
    };
    let drivers = u32::try_from(row.drivers).unwrap_or(1);
    let planned = match Search::new(&row.brief, drivers) {
        Ok(planned) => planned,
        Err(problems) => return search::fail(connection, chunk.search, &told(&problems)),
    };
    let mut asked: Option<Instant> = None;
    let mut outcomes: Vec<(Uuid, Vec<Outcome>)> = Vec::new();
    for (id, driver) in search::sheets(connection, &chunk.drivers)? {
        if asked.is_none_or(|at| at.elapsed() > ASK) {
            if !search::wanted(connection, chunk.search)? {
                return Ok(());
            }
            asked = Some(Instant::now());
        }
        let refused = |problems: Vec<Problem>| {
            let why = format!("Its sheet cannot be used: {}", told(&problems));
            let none = |family| Outcome { family, found: Err(why.clone()) };
            planned.families().map(none).collect()
        };
        outcomes.push((id, planned.outcomes(&driver).unwrap_or_else(refused)));
    }
    search::keep(connection, chunk.search, &chunk.drivers, &outcomes)
}

fn told(problems: &[Problem]) -> String {
    problems.iter().map(ToString::to_string).collect::<Vec<_>>().join("; ")
}
