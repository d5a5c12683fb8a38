use actix_web::web::Payload;
use actix_web::{HttpRequest, HttpResponse, post, web};
use oak_design::file::RawBrief;
use oak_planning::driver_match::DriverMatch;
use serde::Deserialize;
use utoipa::ToSchema;
use uuid::Uuid;

use crate::body;
use crate::db::documents::to_value;
use crate::db::driver_match::Input;
use crate::db::queries::driver_match;
use crate::db::{self, rows};
use crate::error::{ApiError, ProblemDocument};
use crate::jobs::{self, DRIVER_MATCH};
use crate::state::State;

/// What is looked for.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct DriverMatchAsk {
    /// What must be reached; it must name a lowest note.
    brief: RawBrief,
    /// How many equal drivers each cabinet has.
    #[schema(minimum = 1, maximum = 8)]
    #[serde(default = "one")]
    drivers: u32,
}

fn one() -> u32 {
    1
}

/// Starts to look at every driver of the library for a build, in the place of what was found before; workers carry it out.
#[utoipa::path(operation_id = "startDriverMatch", tag = "driver_matches", params(("id" = Uuid, Path)), request_body = DriverMatchAsk, responses(
    (status = 202, body = rows::DriverMatch),
    (status = 404, body = ProblemDocument, content_type = "application/problem+json"),
    (status = 409, body = ProblemDocument, content_type = "application/problem+json"),
    (status = 422, body = ProblemDocument, content_type = "application/problem+json"),
))]
#[post("/builds/{id}/driver-matches")]
pub async fn start(
    id: web::Path<Uuid>,
    request: HttpRequest,
    payload: Payload,
    state: web::Data<State>,
) -> Result<HttpResponse, ApiError> {
    let DriverMatchAsk { brief, drivers } = body::json(&request, payload).await?;
    DriverMatch::new(&brief, drivers)?;
    let input = to_value(&Input { brief, drivers })?;
    let started = db::run(&state.pool, move |connection| {
        driver_match::of_job(jobs::start(connection, &DRIVER_MATCH, *id, &input)?)
    });
    Ok(HttpResponse::Accepted().json(started.await?))
}
