use actix_web::{HttpResponse, get, web};
use uuid::Uuid;

use crate::db::queries::build;
use crate::db::{self, rows};
use crate::error::ApiError;
use crate::state::State;
use crate::tag;

/// One build with its variants.
#[utoipa::path(operation_id = "readBuild", tag = "builds", params(("id" = Uuid, Path)), responses((status = 200, body = rows::BuildWithVariants)))]
#[get("/builds/{id}")]
pub async fn open(id: web::Path<Uuid>, state: web::Data<State>) -> Result<HttpResponse, ApiError> {
    let opened = db::run(&state.pool, move |connection| build::open(connection, *id)).await?;
    Ok(HttpResponse::Ok().insert_header(tag::header(opened.build.revision)).json(opened))
}
