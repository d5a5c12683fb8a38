use actix_web::web::{Data, Json, Payload};
use actix_web::{HttpRequest, post};
use oak_planning::suggestion as planning;
use oak_planning::suggestion::{RawSuggestionRequest, Suggestions};

use crate::body;
use crate::error::{ApiError, ProblemDocument};
use crate::state::State;

/// What would fix a design that falls short of its brief, each change simulated.
#[utoipa::path(operation_id = "suggestChanges", tag = "workbench", request_body = RawSuggestionRequest, responses(
    (status = 200, body = Suggestions),
    (status = 400, body = ProblemDocument, content_type = "application/problem+json"),
    (status = 422, body = ProblemDocument, content_type = "application/problem+json"),
))]
#[post("/suggestions")]
pub async fn suggestions(
    request: HttpRequest,
    payload: Payload,
    state: Data<State>,
) -> Result<Json<Suggestions>, ApiError> {
    let ask: RawSuggestionRequest = body::json(&request, payload).await?;
    Ok(Json(state.compute.long(move |stop| planning::suggest(&ask, stop)).await??))
}
