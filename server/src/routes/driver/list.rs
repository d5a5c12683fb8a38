use actix_web::{get, web};

use crate::db::queries::library::{self, Wanted};
use crate::db::{self, rows};
use crate::error::{ApiError, ProblemDocument};
use crate::state::State;

/// A page of the library: searched, filtered and sorted.
#[utoipa::path(operation_id = "listDrivers", tag = "drivers", params(Wanted), responses(
    (status = 200, body = rows::DriverPage),
    (status = 400, body = ProblemDocument, content_type = "application/problem+json"),
))]
#[get("/drivers")]
pub async fn list(
    wanted: web::Query<Wanted>,
    state: web::Data<State>,
) -> Result<web::Json<rows::DriverPage>, ApiError> {
    Ok(web::Json(db::run(&state.pool, move |connection| library::page(connection, &wanted)).await?))
}
