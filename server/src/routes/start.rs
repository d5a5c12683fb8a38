use actix_web::web::{Data, Payload};
use actix_web::{HttpRequest, post, web};
use oak_design::start::{RawAsk, StartReport};

use crate::body;
use crate::error::{ApiError, ProblemDocument};
use crate::state::State;

/// Every starting point of a family around a driver, or why there is none.
#[utoipa::path(operation_id = "listStartingPoints", tag = "start", request_body = RawAsk, responses(
    (status = 200, body = Vec<StartReport>),
    (status = 400, body = ProblemDocument, content_type = "application/problem+json"),
    (status = 422, body = ProblemDocument, content_type = "application/problem+json"),
))]
#[post("/starts")]
pub async fn starts(
    request: HttpRequest,
    payload: Payload,
    state: Data<State>,
) -> Result<web::Json<Vec<StartReport>>, ApiError> {
    let ask: RawAsk = body::json(&request, payload).await?;
    let starts = state.compute.long(move |stop| oak_planning::starts(&ask, stop)).await??;
    Ok(web::Json(starts))
}
