use actix_web::web::Payload;
use actix_web::{HttpRequest, HttpResponse, post, web};
use oak_design::file::{BUILD_FORMAT, RawBrief, RawBuild, VERSION};
use serde::Deserialize;
use utoipa::ToSchema;

use crate::db::queries::build;
use crate::db::{self, rows};
use crate::error::{ApiError, ProblemDocument};
use crate::state::State;
use crate::{body, tag};

/// Name, notes and brief of a build.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct BuildText {
    /// What to call it.
    pub name: String,
    /// What it is for.
    #[serde(default)]
    pub notes: String,
    /// What it must reach.
    #[serde(default)]
    pub brief: Option<RawBrief>,
}

/// Begins a build without variants.
#[utoipa::path(operation_id = "createBuild", tag = "builds", request_body = BuildText, responses(
    (status = 201, body = rows::BuildWithVariants),
    (status = 422, body = ProblemDocument, content_type = "application/problem+json"),
))]
#[post("/builds")]
pub async fn create(
    request: HttpRequest,
    payload: Payload,
    state: web::Data<State>,
) -> Result<HttpResponse, ApiError> {
    let BuildText { name, notes, brief } = body::json(&request, payload).await?;
    let (format, variants) = (BUILD_FORMAT.to_owned(), Vec::new());
    let raw = RawBuild { format, version: VERSION, name, notes, brief, variants };
    let opened = db::run(&state.pool, move |connection| build::add(connection, &raw)).await?;
    Ok(HttpResponse::Created().insert_header(tag::header(opened.build.revision)).json(opened))
}
