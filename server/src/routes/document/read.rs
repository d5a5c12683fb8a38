use actix_web::{HttpResponse, get, web};
use uuid::Uuid;

use crate::db::queries::document;
use crate::db::{self, rows};
use crate::error::ApiError;
use crate::state::State;
use crate::tag;

/// One document at its newest revision, archived or not.
#[utoipa::path(operation_id = "readDocument", tag = "documents", params(("id" = Uuid, Path)), responses((status = 200, body = rows::Document)))]
#[get("/documents/{id}")]
pub async fn read(id: web::Path<Uuid>, state: web::Data<State>) -> Result<HttpResponse, ApiError> {
    let found = db::run(&state.pool, move |connection| document::find(connection, *id)).await?;
    Ok(HttpResponse::Ok().insert_header(tag::header(found.revision)).json(found))
}
