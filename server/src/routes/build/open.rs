use actix_web::{get, web};
use uuid::Uuid;

use crate::db::queries::build;
use crate::db::{self, rows};
use crate::error::ApiError;
use crate::state::State;

/// One build with its documents.
#[utoipa::path(operation_id = "readBuild", tag = "builds", params(("id" = Uuid, Path)), responses((status = 200, body = rows::OpenBuild)))]
#[get("/builds/{id}")]
pub async fn open(
    id: web::Path<Uuid>,
    state: web::Data<State>,
) -> Result<web::Json<rows::OpenBuild>, ApiError> {
    let opened = db::run(&state.pool, move |connection| build::open(connection, *id)).await?;
    Ok(web::Json(opened))
}
