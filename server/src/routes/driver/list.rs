use actix_web::{get, web};

use crate::app::State;
use crate::db::queries::driver;
use crate::db::{self, rows};
use crate::error::ApiError;

/// All drivers, by size.
#[utoipa::path(tag = "drivers", responses((status = 200, body = Vec<rows::Driver>)))]
#[get("/drivers")]
pub async fn list(state: web::Data<State>) -> Result<web::Json<Vec<rows::Driver>>, ApiError> {
    Ok(web::Json(db::run(&state.pool, driver::list).await?))
}
