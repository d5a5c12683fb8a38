use actix_web::web::{Data, Json, Payload};
use actix_web::{HttpRequest, post};
use oak_planning::compare as planning;
use oak_planning::compare::{Comparison, RawComparison};

use crate::body;
use crate::error::{ApiError, ProblemDocument};
use crate::state::State;

/// Two to six drivers in the same box, and each in its own.
#[utoipa::path(operation_id = "compareDrivers", tag = "compare", request_body = RawComparison, responses(
    (status = 200, body = Comparison),
    (status = 400, body = ProblemDocument, content_type = "application/problem+json"),
    (status = 422, body = ProblemDocument, content_type = "application/problem+json"),
))]
#[post("/compare")]
pub async fn compare(
    request: HttpRequest,
    payload: Payload,
    state: Data<State>,
) -> Result<Json<Comparison>, ApiError> {
    let ask: RawComparison = body::json(&request, payload).await?;
    Ok(Json(state.compute.long(move |stop| planning::compare(&ask, stop)).await??))
}
