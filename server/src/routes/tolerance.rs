use actix_web::web::{Data, Json, Payload};
use actix_web::{HttpRequest, post};
use oak_planning::tolerance as planning;
use oak_planning::tolerance::{RawTolerance, Tolerance};

use crate::body;
use crate::error::{ApiError, ProblemDocument};
use crate::state::State;

/// A design built many times with drivers and boards as built.
#[utoipa::path(operation_id = "computeTolerance", tag = "workbench", request_body = RawTolerance, responses(
    (status = 200, body = Tolerance),
    (status = 400, body = ProblemDocument, content_type = "application/problem+json"),
    (status = 422, body = ProblemDocument, content_type = "application/problem+json"),
))]
#[post("/tolerance")]
pub async fn tolerance(
    request: HttpRequest,
    payload: Payload,
    state: Data<State>,
) -> Result<Json<Tolerance>, ApiError> {
    let ask: RawTolerance = body::json(&request, payload).await?;
    Ok(Json(state.compute.long(move |stop| planning::tolerance(&ask, stop)).await??))
}
