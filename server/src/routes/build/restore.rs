use actix_web::{post, web};
use uuid::Uuid;

use crate::db::queries::build;
use crate::db::{self, rows};
use crate::error::ApiError;
use crate::state::State;

/// Brings back what was put away.
#[utoipa::path(operation_id = "restoreBuild", tag = "builds", params(("id" = Uuid, Path)), responses((status = 200, body = rows::Build)))]
#[post("/builds/{id}/restore")]
pub async fn restore(
    id: web::Path<Uuid>,
    state: web::Data<State>,
) -> Result<web::Json<rows::Build>, ApiError> {
    let build = db::run(&state.pool, move |connection| build::restore(connection, *id)).await?;
    Ok(web::Json(build))
}
