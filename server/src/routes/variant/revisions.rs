use actix_web::{get, web};
use uuid::Uuid;

use crate::db::queries::variant;
use crate::db::{self, rows};
use crate::error::ApiError;
use crate::state::State;

/// Every kept state of a variant, newest first.
#[utoipa::path(operation_id = "listRevisions", tag = "variants", params(("id" = Uuid, Path)), responses((status = 200, body = Vec<rows::Revision>)))]
#[get("/variants/{id}/revisions")]
pub async fn revisions(
    id: web::Path<Uuid>,
    state: web::Data<State>,
) -> Result<web::Json<Vec<rows::Revision>>, ApiError> {
    Ok(web::Json(db::run(&state.pool, move |connection| variant::revisions(connection, *id)).await?))
}
