use actix_web::web::Payload;
use actix_web::{HttpRequest, HttpResponse, put, web};
use oak_design::document::{RawDocument, RawTitle};
use oak_design::file::{RawBrief, RawBuild};
use serde::Deserialize;
use utoipa::ToSchema;
use uuid::Uuid;

use crate::body;
use crate::db::queries::build;
use crate::db::{self, rows};
use crate::error::{ApiError, ProblemDocument};
use crate::state::State;

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

/// Begins a build without variants, under a key that no other has.
#[utoipa::path(operation_id = "createBuild", tag = "builds", params(("id" = Uuid, Path)), request_body = BuildText, responses(
    (status = 201, body = rows::OpenBuild),
    (status = 409, body = ProblemDocument, content_type = "application/problem+json"),
    (status = 422, body = ProblemDocument, content_type = "application/problem+json"),
))]
#[put("/builds/{id}")]
pub async fn create(
    id: web::Path<Uuid>,
    request: HttpRequest,
    payload: Payload,
    state: web::Data<State>,
) -> Result<HttpResponse, ApiError> {
    let BuildText { name, notes, brief } = body::json(&request, payload).await?;
    let title = RawDocument::Title(RawTitle { name, notes });
    let brief = brief.map(|brief| RawDocument::Brief(Box::new(brief)));
    let raw = RawBuild::of_documents(std::iter::once(title).chain(brief));
    let opened = db::run(&state.pool, move |connection| build::add(connection, *id, raw)).await?;
    Ok(HttpResponse::Created().json(opened))
}
