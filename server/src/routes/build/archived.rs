use actix_web::{get, web};
use uuid::Uuid;

use crate::db::queries::variant;
use crate::db::{self, rows};
use crate::error::ApiError;
use crate::state::State;

/// The variants of a build that were put away, the latest first.
#[utoipa::path(operation_id = "listArchivedVariants", tag = "builds", params(("id" = Uuid, Path)), responses((status = 200, body = Vec<rows::Variant>)))]
#[get("/builds/{id}/archived")]
pub async fn archived(
    id: web::Path<Uuid>,
    state: web::Data<State>,
) -> Result<web::Json<Vec<rows::Variant>>, ApiError> {
    Ok(web::Json(db::run(&state.pool, move |connection| variant::archived(connection, *id)).await?))
}
