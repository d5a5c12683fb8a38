use actix_web::web::Json;
use actix_web::{post, web};
use uuid::Uuid;

use crate::db::{self, rows};
use crate::error::{ApiError, ProblemDocument};
use crate::jobs;
use crate::state::State;

/// Cancels a job; what it has come to stays. One that has ended stays as it is.
#[utoipa::path(operation_id = "cancelJob", tag = "jobs", params(("id" = Uuid, Path)), responses(
    (status = 200, body = rows::Job),
    (status = 404, body = ProblemDocument, content_type = "application/problem+json"),
))]
#[post("/jobs/{id}/cancel")]
pub async fn cancel(id: web::Path<Uuid>, state: web::Data<State>) -> Result<Json<rows::Job>, ApiError> {
    Ok(Json(db::run(&state.pool, move |connection| jobs::cancel(connection, *id)).await?))
}
