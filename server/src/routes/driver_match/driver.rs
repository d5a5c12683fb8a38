use actix_web::web::Json;
use actix_web::{get, web};
use uuid::Uuid;

use crate::db::queries::driver_match;
use crate::db::{self, rows};
use crate::error::{ApiError, ProblemDocument};
use crate::state::State;

/// Everything that came of one driver: its cabinets, and why there is none of some kinds.
#[utoipa::path(operation_id = "readDriverMatchOfDriver", tag = "driver_matches", params(("id" = Uuid, Path), ("driver" = Uuid, Path)), responses(
    (status = 200, body = Vec<rows::DriverMatchRow>),
    (status = 404, body = ProblemDocument, content_type = "application/problem+json"),
))]
#[get("/driver-matches/{id}/drivers/{driver}")]
pub async fn driver(
    place: web::Path<(Uuid, Uuid)>,
    state: web::Data<State>,
) -> Result<Json<Vec<rows::DriverMatchRow>>, ApiError> {
    let (id, driver) = place.into_inner();
    Ok(Json(db::run(&state.pool, move |connection| driver_match::of_driver(connection, id, driver)).await?))
}
