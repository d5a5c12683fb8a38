use actix_web::web::{Json, Payload};
use actix_web::{HttpRequest, post};
use oak_planning::mend as planning;
use oak_planning::mend::{Mending, RawMending};

use crate::body;
use crate::error::{ApiError, ProblemDocument};
use crate::routes::computing;

/// What would mend a design that falls short of its brief, each change simulated.
#[utoipa::path(tag = "workbench", request_body = RawMending, responses(
    (status = 200, body = Mending),
    (status = 400, body = ProblemDocument, content_type = "application/problem+json"),
    (status = 422, body = ProblemDocument, content_type = "application/problem+json"),
))]
#[post("/mend")]
pub async fn mend(request: HttpRequest, payload: Payload) -> Result<Json<Mending>, ApiError> {
    let ask: RawMending = body::json(&request, payload).await?;
    Ok(Json(computing(move || planning::mend(&ask)).await??))
}
