use actix_web::{get, web};
use diesel::RunQueryDsl;
use serde::Serialize;
use utoipa::ToSchema;

use crate::app::State;
use crate::db;
use crate::error::ApiError;

#[derive(Serialize, ToSchema)]
struct Health {
    /// Version of the server.
    version: &'static str,
}

/// Answers when server and database work.
#[utoipa::path(tag = "health", responses((status = 200, body = Health)))]
#[get("/health")]
pub async fn health(state: web::Data<State>) -> Result<web::Json<Health>, ApiError> {
    db::run(&state.pool, |connection| Ok(diesel::sql_query("SELECT 1").execute(connection)?)).await?;
    Ok(web::Json(Health { version: env!("CARGO_PKG_VERSION") }))
}
