use actix_web::web::{Data, Json, Payload};
use actix_web::{HttpRequest, post};
use oak_design::conditions::RawQuestion;
use oak_design::working::Working;
use oak_planning as planning;

use crate::body;
use crate::error::{ApiError, ProblemDocument};
use crate::state::State;

/// How each figure of a design is worked out.
#[utoipa::path(operation_id = "explainFigures", tag = "workbench", request_body = RawQuestion, responses(
    (status = 200, body = Vec<Working>),
    (status = 400, body = ProblemDocument, content_type = "application/problem+json"),
    (status = 422, body = ProblemDocument, content_type = "application/problem+json"),
))]
#[post("/workings")]
pub async fn workings(
    request: HttpRequest,
    payload: Payload,
    state: Data<State>,
) -> Result<Json<Vec<Working>>, ApiError> {
    let question: RawQuestion = body::json(&request, payload).await?;
    Ok(Json(state.compute.quick(move || planning::workings(&question)).await??))
}
