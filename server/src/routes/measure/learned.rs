use actix_web::web::{Data, Json, Payload};
use actix_web::{HttpRequest, get, post};
use oak_design::file::RawDesign;
use oak_metering::learned::{LearnedDesign, LearnedValue, learned, with_learned};
use serde::Deserialize;
use utoipa::ToSchema;

use crate::body;
use crate::db;
use crate::db::queries::document::measured_designs;
use crate::error::{ApiError, ProblemDocument};
use crate::state::State;

/// A design that is to take what the workshop has learned.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct RawLearnedAsk {
    design: RawDesign,
    /// Take what one or two builds say as well.
    #[serde(default)]
    few_too: bool,
}

/// What the workshop has learned from its own builds: leakage by joints, ends by ports, fill, thickness of boards.
#[utoipa::path(operation_id = "listLearned", tag = "measure", responses(
    (status = 200, body = Vec<LearnedValue>),
))]
#[get("/workshop/learned")]
pub async fn list(state: Data<State>) -> Result<Json<Vec<LearnedValue>>, ApiError> {
    let builds = db::run(&state.pool, measured_designs).await?;
    Ok(Json(state.compute.quick(move || learned(&builds)).await?))
}

/// A design with the workshop's own values where nothing is written, and what that set. Nothing is kept.
#[utoipa::path(operation_id = "useLearned", tag = "measure", request_body = RawLearnedAsk, responses(
    (status = 200, body = LearnedDesign),
    (status = 400, body = ProblemDocument, content_type = "application/problem+json"),
    (status = 422, body = ProblemDocument, content_type = "application/problem+json"),
))]
#[post("/workshop/learned/design")]
pub async fn apply(
    request: HttpRequest,
    payload: Payload,
    state: Data<State>,
) -> Result<Json<LearnedDesign>, ApiError> {
    let ask: RawLearnedAsk = body::json(&request, payload).await?;
    let builds = db::run(&state.pool, measured_designs).await?;
    let answer = move || with_learned(&ask.design, &learned(&builds), ask.few_too);
    Ok(Json(state.compute.quick(answer).await?))
}
