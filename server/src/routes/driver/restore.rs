use actix_web::{HttpResponse, post, web};
use uuid::Uuid;

use crate::db::queries::driver;
use crate::db::{self, rows};
use crate::error::ApiError;
use crate::state::State;
use crate::tag;

/// Brings back what was put away.
#[utoipa::path(operation_id = "restoreDriver", tag = "drivers", params(("id" = Uuid, Path)), responses((status = 200, body = rows::Driver)))]
#[post("/drivers/{id}/restore")]
pub async fn restore(id: web::Path<Uuid>, state: web::Data<State>) -> Result<HttpResponse, ApiError> {
    let driver = db::run(&state.pool, move |connection| driver::restore(connection, *id)).await?;
    Ok(HttpResponse::Ok().insert_header(tag::header(driver.revision)).json(driver))
}
