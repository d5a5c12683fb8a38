use actix_web::{get, web};

use crate::app::State;
use crate::db::queries::build;
use crate::db::{self, rows};
use crate::error::ApiError;

/// All builds.
#[utoipa::path(tag = "builds", responses((status = 200, body = Vec<rows::Build>)))]
#[get("/builds")]
pub async fn list(state: web::Data<State>) -> Result<web::Json<Vec<rows::Build>>, ApiError> {
    Ok(web::Json(db::run(&state.pool, build::list).await?))
}
