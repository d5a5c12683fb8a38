use actix_web::web::{Json, Payload};
use actix_web::{HttpRequest, post};
use oak_planning::compare as planning;
use oak_planning::compare::{Comparison, RawComparison};

use crate::body;
use crate::error::{ApiError, ProblemDocument};
use crate::routes::computing;

/// Two to six drivers in the same box, and each in its own.
#[utoipa::path(tag = "compare", request_body = RawComparison, responses(
    (status = 200, body = Comparison),
    (status = 400, body = ProblemDocument, content_type = "application/problem+json"),
    (status = 422, body = ProblemDocument, content_type = "application/problem+json"),
))]
#[post("/compare")]
pub async fn compare(request: HttpRequest, payload: Payload) -> Result<Json<Comparison>, ApiError> {
    let ask: RawComparison = body::json(&request, payload).await?;
    Ok(Json(computing(move || planning::compare(&ask)).await??))
}
