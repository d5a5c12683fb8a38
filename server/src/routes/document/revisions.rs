use actix_web::{get, web};
use serde::Deserialize;
use utoipa::IntoParams;
use uuid::Uuid;

use crate::db::queries::document;
use crate::db::{self, rows};
use crate::error::ApiError;
use crate::state::State;

/// Which revisions are meant.
#[derive(Debug, Deserialize, IntoParams)]
#[serde(deny_unknown_fields)]
pub struct Wanted {
    /// Only those before this one.
    before: Option<i32>,
}

/// The states in which a document was saved, newest first; at most 200, the others with `before`.
#[utoipa::path(operation_id = "listRevisions", tag = "documents", params(("id" = Uuid, Path), Wanted), responses((status = 200, body = Vec<rows::Revision>)))]
#[get("/documents/{id}/revisions")]
pub async fn revisions(
    id: web::Path<Uuid>,
    wanted: web::Query<Wanted>,
    state: web::Data<State>,
) -> Result<web::Json<Vec<rows::Revision>>, ApiError> {
    let before = wanted.before;
    let found = db::run(&state.pool, move |connection| document::revisions(connection, *id, before)).await?;
    Ok(web::Json(found))
}
