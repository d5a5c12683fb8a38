use actix_web::{get, web};
use serde::Deserialize;
use utoipa::IntoParams;

use crate::db::queries::build;
use crate::db::{self, rows};
use crate::error::ApiError;
use crate::state::State;

/// Which builds are meant.
#[derive(Debug, Deserialize, IntoParams)]
#[serde(deny_unknown_fields)]
pub struct Wanted {
    /// Whether only archived ones.
    #[serde(default)]
    archived: bool,
}

/// All builds, or those that were archived.
#[utoipa::path(operation_id = "listBuilds", tag = "builds", params(Wanted), responses((status = 200, body = Vec<rows::Build>)))]
#[get("/builds")]
pub async fn list(
    wanted: web::Query<Wanted>,
    state: web::Data<State>,
) -> Result<web::Json<Vec<rows::Build>>, ApiError> {
    let archived = wanted.archived;
    Ok(web::Json(db::run(&state.pool, move |connection| build::list(connection, archived)).await?))
}
