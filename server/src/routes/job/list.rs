use actix_web::web::Json;
use actix_web::{get, web};

use crate::db::queries::job;
use crate::db::{self, rows};
use crate::error::{ApiError, ProblemDocument};
use crate::state::State;

/// All jobs, the newest first; at most 200.
#[utoipa::path(operation_id = "listJobs", tag = "jobs", responses(
    (status = 200, body = Vec<rows::Job>),
    (status = 503, body = ProblemDocument, content_type = "application/problem+json"),
))]
#[get("/jobs")]
pub async fn list(state: web::Data<State>) -> Result<Json<Vec<rows::Job>>, ApiError> {
    Ok(Json(db::run(&state.pool, job::list).await?))
}
