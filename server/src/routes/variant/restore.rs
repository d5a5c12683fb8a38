use actix_web::{HttpResponse, post, web};
use uuid::Uuid;

use crate::db::queries::variant;
use crate::db::{self, rows};
use crate::error::ApiError;
use crate::state::State;
use crate::tag;

/// Brings back what was put away.
#[utoipa::path(operation_id = "restoreVariant", tag = "variants", params(("id" = Uuid, Path)), responses((status = 200, body = rows::Variant)))]
#[post("/variants/{id}/restore")]
pub async fn restore(id: web::Path<Uuid>, state: web::Data<State>) -> Result<HttpResponse, ApiError> {
    let variant = db::run(&state.pool, move |connection| variant::restore(connection, *id)).await?;
    Ok(HttpResponse::Ok().insert_header(tag::header(variant.revision)).json(variant))
}
