use actix_web::web::Payload;
use actix_web::{HttpRequest, HttpResponse, post, web};
use oak_design::file::{RawBuild, open_build};
use uuid::Uuid;

use crate::body;
use crate::db::queries::build;
use crate::db::{self, rows};
use crate::error::{ApiError, ProblemDocument};
use crate::state::State;

/// Adds a build with its variants from a build file, whole or not at all.
#[utoipa::path(operation_id = "importBuild", tag = "builds", request_body = RawBuild, responses(
    (status = 201, body = rows::OpenBuild),
    (status = 422, body = ProblemDocument, content_type = "application/problem+json"),
))]
#[post("/builds/import")]
pub async fn import(
    request: HttpRequest,
    payload: Payload,
    state: web::Data<State>,
) -> Result<HttpResponse, ApiError> {
    let raw = open_build(&body::json_bytes(&request, payload).await?)?;
    let opened = db::run(&state.pool, move |connection| build::add(connection, Uuid::now_v7(), raw)).await?;
    Ok(HttpResponse::Created().json(opened))
}
