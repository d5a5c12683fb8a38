use actix_web::web::{Data, Json, Payload, Query};
use actix_web::{HttpRequest, post};
use oak_design::conditions::RawQuestion;
use oak_design::motion::{Motion, motion as moving};
use serde::Deserialize;
use utoipa::IntoParams;

use crate::body;
use crate::error::{ApiError, ProblemDocument};
use crate::state::State;

/// Where it is looked at.
#[derive(Debug, Deserialize, IntoParams)]
#[serde(deny_unknown_fields)]
pub struct Moment {
    /// Hz, 5 to 1000.
    frequency: f64,
}

/// What cones and air do at one frequency.
#[utoipa::path(operation_id = "computeMotion", tag = "workbench", params(Moment), request_body = RawQuestion, responses(
    (status = 200, body = Motion),
    (status = 400, body = ProblemDocument, content_type = "application/problem+json"),
    (status = 422, body = ProblemDocument, content_type = "application/problem+json"),
))]
#[post("/motion")]
pub async fn motion(
    request: HttpRequest,
    moment: Query<Moment>,
    payload: Payload,
    state: Data<State>,
) -> Result<Json<Motion>, ApiError> {
    let question: RawQuestion = body::json(&request, payload).await?;
    let resolved = question.resolve()?.design;
    Ok(Json(state.compute.quick(move || moving(&resolved, moment.frequency)).await??))
}
