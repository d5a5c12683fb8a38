use actix_web::web::{Data, Json, Payload};
use actix_web::{HttpRequest, post};
use oak_planning::scale::{RawScale, Scaled, scale};

use crate::body;
use crate::error::{ApiError, ProblemDocument};
use crate::state::State;

/// Scales every length of a design's box by a factor, or into its brief's place, and says what becomes of it.
#[utoipa::path(operation_id = "scaleDesign", tag = "cabinet", request_body = RawScale, responses(
    (status = 200, body = Scaled),
    (status = 400, body = ProblemDocument, content_type = "application/problem+json"),
    (status = 422, body = ProblemDocument, content_type = "application/problem+json"),
))]
#[post("/scale")]
pub async fn scale_design(
    request: HttpRequest,
    payload: Payload,
    state: Data<State>,
) -> Result<Json<Scaled>, ApiError> {
    let ask: RawScale = body::json(&request, payload).await?;
    Ok(Json(state.compute.long(move |_| scale(&ask)).await??))
}
