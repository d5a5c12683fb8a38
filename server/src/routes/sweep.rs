use actix_web::web::{Data, Json, Payload};
use actix_web::{HttpRequest, post};
use oak_planning::sweep as planning;
use oak_planning::sweep::{RawSweep, Sweep};

use crate::body;
use crate::error::{ApiError, ProblemDocument};
use crate::state::State;

/// One value of a design turned step by step.
#[utoipa::path(operation_id = "sweepParameter", tag = "workbench", request_body = RawSweep, responses(
    (status = 200, body = Sweep),
    (status = 400, body = ProblemDocument, content_type = "application/problem+json"),
    (status = 422, body = ProblemDocument, content_type = "application/problem+json"),
))]
#[post("/sweep")]
pub async fn sweep(
    request: HttpRequest,
    payload: Payload,
    state: Data<State>,
) -> Result<Json<Sweep>, ApiError> {
    let ask: RawSweep = body::json(&request, payload).await?;
    Ok(Json(state.compute.long(move |stop| planning::sweep(&ask, stop)).await??))
}
