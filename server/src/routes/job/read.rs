use actix_web::web::Json;
use actix_web::{get, web};
use uuid::Uuid;

use crate::db::queries::job;
use crate::db::{self, rows};
use crate::error::{ApiError, ProblemDocument};
use crate::state::State;

/// How a job stands.
#[utoipa::path(operation_id = "readJob", tag = "jobs", params(("id" = Uuid, Path)), responses(
    (status = 200, body = rows::Job),
    (status = 404, body = ProblemDocument, content_type = "application/problem+json"),
))]
#[get("/jobs/{id}")]
pub async fn read(id: web::Path<Uuid>, state: web::Data<State>) -> Result<Json<rows::Job>, ApiError> {
    Ok(Json(db::run(&state.pool, move |connection| job::find(connection, *id)).await?))
}
