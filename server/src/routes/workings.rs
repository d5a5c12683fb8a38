use actix_web::web::{Json, Payload};
use actix_web::{HttpRequest, post};
use oak_design::file::RawDesign;
use oak_design::resolve::resolve_design;
use oak_design::working::{self, Working};

use crate::body;
use crate::error::{ApiError, ProblemDocument};
use crate::routes::computing;

/// How each figure of a design is worked out.
#[utoipa::path(tag = "workbench", request_body = RawDesign, responses(
    (status = 200, body = Vec<Working>),
    (status = 400, body = ProblemDocument, content_type = "application/problem+json"),
    (status = 422, body = ProblemDocument, content_type = "application/problem+json"),
))]
#[post("/workings")]
pub async fn workings(request: HttpRequest, payload: Payload) -> Result<Json<Vec<Working>>, ApiError> {
    let design: RawDesign = body::json(&request, payload).await?;
    let resolved = resolve_design(&design)?;
    Ok(Json(computing(move || working::workings(&resolved)).await??))
}
