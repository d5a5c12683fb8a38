use actix_web::web::{Data, Json, Payload};
use actix_web::{HttpRequest, post};
use oak_planning::recommend::{RawRecommend, Recommendation};

use crate::body;
use crate::error::{ApiError, ProblemDocument};
use crate::state::State;

/// Which kind of cabinet suits a driver and a brief, and what every kind comes to as it is built.
#[utoipa::path(operation_id = "recommendCabinet", tag = "start", request_body = RawRecommend, responses(
    (status = 200, body = Recommendation),
    (status = 400, body = ProblemDocument, content_type = "application/problem+json"),
    (status = 422, body = ProblemDocument, content_type = "application/problem+json"),
))]
#[post("/recommendation")]
pub async fn recommend(
    request: HttpRequest,
    payload: Payload,
    state: Data<State>,
) -> Result<Json<Recommendation>, ApiError> {
    let ask: RawRecommend = body::json(&request, payload).await?;
    let found = state.compute.long(move |stop| oak_planning::recommend::recommend(&ask, stop)).await??;
    Ok(Json(found))
}
