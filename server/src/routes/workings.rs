use actix_web::web::{Data, Json, Payload};
use actix_web::{HttpRequest, post};
use oak_design::file::{RawBrief, RawDesign};
use oak_design::working::Working;
use oak_planning as planning;
use serde::Deserialize;
use utoipa::ToSchema;

use crate::app::State;
use crate::body;
use crate::error::{ApiError, ProblemDocument};

/// A design, and the brief in whose surroundings it is looked at.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Questioned {
    /// Whose figures are asked about.
    pub design: RawDesign,
    /// Its space, amplifier and air count where it is given.
    #[serde(default)]
    pub brief: Option<RawBrief>,
}

/// How each figure of a design is worked out.
#[utoipa::path(tag = "workbench", request_body = Questioned, responses(
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
    let Questioned { design, brief }: Questioned = body::json(&request, payload).await?;
    Ok(Json(state.compute.quick(move || planning::workings(&design, brief.as_ref())).await??))
}
