use actix_web::web::{Data, Json, Payload};
use actix_web::{HttpRequest, HttpResponse, get, post};
use oak_design::conditions::RawConditions;
use oak_design::file::{RawBrief, RawDesign};
use oak_design::resolve::resolve_brief;
use oak_planning::Case;
use oak_planning::check::{self, Check};
use oak_planning::template::{Template, templates};
use serde::Deserialize;
use utoipa::ToSchema;

use crate::body;
use crate::error::{ApiError, ProblemDocument};
use crate::state::State;

/// A design and what it must reach.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Judged {
    /// What must be reached.
    brief: RawBrief,
    /// What is judged.
    design: RawDesign,
    /// In which conditions: what it is played through and where it is heard.
    #[serde(default)]
    conditions: RawConditions,
}

/// Briefs to begin with.
#[utoipa::path(operation_id = "listBriefTemplates", tag = "briefs", responses((status = 200, body = Vec<Template>)))]
#[get("/briefs")]
pub async fn list() -> Json<Vec<Template>> {
    Json(templates())
}

/// Says what is wrong with a brief before it is saved.
#[utoipa::path(operation_id = "checkBrief", tag = "briefs", request_body = RawBrief, responses(
    (status = 204),
    (status = 400, body = ProblemDocument, content_type = "application/problem+json"),
    (status = 422, body = ProblemDocument, content_type = "application/problem+json"),
))]
#[post("/briefs/check")]
pub async fn check_brief(request: HttpRequest, payload: Payload) -> Result<HttpResponse, ApiError> {
    let brief: RawBrief = body::json(&request, payload).await?;
    resolve_brief(&brief).map_err(|problems| {
        problems.into_iter().map(|problem| problem.within("brief")).collect::<Vec<_>>()
    })?;
    Ok(HttpResponse::NoContent().finish())
}

/// How a design stands to everything that a brief asks.
#[utoipa::path(operation_id = "judgeDesign", tag = "briefs", request_body = Judged, responses(
    (status = 200, body = Vec<Check>),
    (status = 400, body = ProblemDocument, content_type = "application/problem+json"),
    (status = 422, body = ProblemDocument, content_type = "application/problem+json"),
))]
#[post("/judge")]
pub async fn judge(
    request: HttpRequest,
    payload: Payload,
    state: Data<State>,
) -> Result<Json<Vec<Check>>, ApiError> {
    let Judged { brief, design, conditions } = body::json(&request, payload).await?;
    let brief = conditions.asked(&brief)?;
    let checks =
        state.compute.quick(move || Case::of(&brief, &design).map(|case| check::judge(&case))).await?;
    Ok(Json(checks?))
}
