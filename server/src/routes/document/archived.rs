use actix_web::{get, web};
use uuid::Uuid;

use crate::db::queries::document;
use crate::db::{self, rows};
use crate::error::ApiError;
use crate::state::State;

/// The documents of a build that were archived, the latest first.
#[utoipa::path(operation_id = "listArchivedDocuments", tag = "documents", params(("id" = Uuid, Path)), responses((status = 200, body = Vec<rows::Document>)))]
#[get("/builds/{id}/archived")]
pub async fn archived(
    id: web::Path<Uuid>,
    state: web::Data<State>,
) -> Result<web::Json<Vec<rows::Document>>, ApiError> {
    let (read, unreadable) =
        db::run(&state.pool, move |connection| document::of_build(connection, *id, true)).await?;
    for one in unreadable {
        tracing::error!(document = %one.id, name = one.name, reason = one.reason, "cannot be read");
    }
    Ok(web::Json(read))
}
