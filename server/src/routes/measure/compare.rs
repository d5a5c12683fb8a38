use actix_web::web::{Data, Json, Payload};
use actix_web::{HttpRequest, post};
use oak_metering::compare::{ComparedTraces, RawComparedTraces, compare_traces};

use crate::body;
use crate::error::{ApiError, ProblemDocument};
use crate::state::State;

/// Levels of several traces beside each other: smoothed or in bands, at equal level. Nothing is kept.
#[utoipa::path(operation_id = "compareTraces", tag = "measure", request_body = RawComparedTraces, responses(
    (status = 200, body = ComparedTraces),
    (status = 400, body = ProblemDocument, content_type = "application/problem+json"),
    (status = 422, body = ProblemDocument, content_type = "application/problem+json"),
))]
#[post("/measure/compare")]
pub async fn compare(
    request: HttpRequest,
    payload: Payload,
    state: Data<State>,
) -> Result<Json<ComparedTraces>, ApiError> {
    let raw: RawComparedTraces = body::json(&request, payload).await?;
    Ok(Json(state.compute.quick(move || compare_traces(&raw)).await??))
}
