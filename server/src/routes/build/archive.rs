use actix_web::{HttpRequest, HttpResponse, delete, web};
use uuid::Uuid;

use crate::db;
use crate::db::queries::build;
use crate::error::{ApiError, ProblemDocument};
use crate::state::State;
use crate::tag;

/// Puts a build away. It can be restored.
#[utoipa::path(operation_id = "archiveBuild", tag = "builds", params(("id" = Uuid, Path), ("If-Match" = String, Header)), responses(
    (status = 204),
    (status = 412, body = ProblemDocument, content_type = "application/problem+json"),
))]
#[delete("/builds/{id}")]
pub async fn archive(
    id: web::Path<Uuid>,
    request: HttpRequest,
    state: web::Data<State>,
) -> Result<HttpResponse, ApiError> {
    let expected = tag::expected(&request)?;
    db::run(&state.pool, move |connection| build::archive(connection, *id, expected)).await?;
    Ok(HttpResponse::NoContent().finish())
}
