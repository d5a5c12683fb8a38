use actix_web::web::Payload;
use actix_web::{HttpRequest, HttpResponse, post, web};
use oak_design::file::RawBrief;
use oak_planning::driver_match;
use serde::Deserialize;
use utoipa::ToSchema;
use uuid::Uuid;

use crate::app::State;
use crate::body;
use crate::db::queries::search;
use crate::db::{self, rows};
use crate::error::{ApiError, ProblemDocument};

/// What is searched for.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct SearchAsk {
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

/// Begins to search the library for a build, in the place of an earlier search; workers carry it out.
#[utoipa::path(tag = "searches", params(("id" = Uuid, Path)), request_body = SearchAsk, responses(
    (status = 202, body = rows::Search),
    (status = 404, body = ProblemDocument, content_type = "application/problem+json"),
    (status = 422, body = ProblemDocument, content_type = "application/problem+json"),
))]
#[post("/builds/{id}/searches")]
pub async fn begin(
    id: web::Path<Uuid>,
    request: HttpRequest,
    payload: Payload,
    state: web::Data<State>,
) -> Result<HttpResponse, ApiError> {
    let SearchAsk { brief, drivers } = body::json(&request, payload).await?;
    driver_match::Search::new(&brief, drivers)?;
    let begun = db::run(&state.pool, move |connection| search::begin(connection, *id, &brief, drivers));
    let (search, ids) = begun.await?;
    if let Err(error) = state.queue.search(search.id, &ids).await {
        let why = "It could not be handed to the workers.";
        db::run(&state.pool, move |connection| search::fail(connection, search.id, why)).await?;
        return Err(error);
    }
    Ok(HttpResponse::Accepted().json(search))
}
