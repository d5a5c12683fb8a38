use actix_web::{HttpResponse, delete, web};
use uuid::Uuid;

use crate::db;
use crate::db::queries::build;
use crate::error::{ApiError, ProblemDocument};
use crate::state::State;

/// Archives a build. It can be restored.
#[utoipa::path(operation_id = "archiveBuild", tag = "builds", params(("id" = Uuid, Path)), responses(
    (status = 204),
    (status = 404, body = ProblemDocument, content_type = "application/problem+json"),
))]
#[delete("/builds/{id}")]
pub async fn archive(id: web::Path<Uuid>, state: web::Data<State>) -> Result<HttpResponse, ApiError> {
    db::run(&state.pool, move |connection| build::archive(connection, *id)).await?;
    Ok(HttpResponse::NoContent().finish())
}
