use actix_web::{HttpResponse, get, web};
use uuid::Uuid;

use crate::db::queries::driver;
use crate::db::{self, rows};
use crate::error::ApiError;
use crate::state::State;
use crate::tag;

/// One driver.
#[utoipa::path(operation_id = "readDriver", tag = "drivers", params(("id" = Uuid, Path)), responses((status = 200, body = rows::Driver)))]
#[get("/drivers/{id}")]
pub async fn read(id: web::Path<Uuid>, state: web::Data<State>) -> Result<HttpResponse, ApiError> {
    let driver = db::run(&state.pool, move |connection| driver::find(connection, *id)).await?;
    Ok(HttpResponse::Ok().insert_header(tag::header(driver.revision)).json(driver))
}
