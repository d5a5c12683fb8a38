use actix_web::web::Json;
use actix_web::{post, web};
use uuid::Uuid;

use crate::app::State;
use crate::db::queries::search;
use crate::db::{self, rows};
use crate::error::{ApiError, ProblemDocument};

/// Calls a search off; what it has found stays.
#[utoipa::path(tag = "searches", params(("id" = Uuid, Path)), responses(
    (status = 200, body = rows::Search),
    (status = 404, body = ProblemDocument, content_type = "application/problem+json"),
))]
#[post("/searches/{id}/cancel")]
pub async fn cancel(id: web::Path<Uuid>, state: web::Data<State>) -> Result<Json<rows::Search>, ApiError> {
    Ok(Json(db::run(&state.pool, move |connection| search::cancel(connection, *id)).await?))
}
