use actix_web::{HttpResponse, get, web};
use uuid::Uuid;

use crate::db::queries::variant;
use crate::db::{self, rows};
use crate::error::ApiError;
use crate::state::State;
use crate::tag;

/// One variant at its newest revision.
#[utoipa::path(operation_id = "readVariant", tag = "variants", params(("id" = Uuid, Path)), responses((status = 200, body = rows::Variant)))]
#[get("/variants/{id}")]
pub async fn read(id: web::Path<Uuid>, state: web::Data<State>) -> Result<HttpResponse, ApiError> {
    let variant = db::run(&state.pool, move |connection| variant::find(connection, *id)).await?;
    Ok(HttpResponse::Ok().insert_header(tag::header(variant.revision)).json(variant))
}
