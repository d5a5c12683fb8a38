use actix_web::web::{Json, Payload};
use actix_web::{HttpRequest, post};
use oak_design::file::RawDriver;
use oak_design::report::DriverReport;
use oak_design::resolve::resolve_driver;

use crate::body;
use crate::error::{ApiError, ProblemDocument};

/// Completes a data sheet without keeping it.
#[utoipa::path(operation_id = "resolveDriver", tag = "drivers", request_body = RawDriver, responses(
    (status = 200, body = DriverReport),
    (status = 422, body = ProblemDocument, content_type = "application/problem+json"),
))]
#[post("/drivers/resolve")]
pub async fn resolve(request: HttpRequest, payload: Payload) -> Result<Json<DriverReport>, ApiError> {
    let raw: RawDriver = body::json(&request, payload).await?;
    Ok(Json(DriverReport::of(&resolve_driver(&raw)?)))
}
