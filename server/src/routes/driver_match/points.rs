use actix_web::web::Json;
use actix_web::{get, web};
use uuid::Uuid;

use crate::db::queries::driver_match;
use crate::db::{self, rows};
use crate::error::{ApiError, ProblemDocument};
use crate::state::State;

/// Points that are shown besides those that no other beats.
const BESIDES: usize = 300;

/// What was found as points of size, lowest note and loudness.
#[utoipa::path(operation_id = "listTradeOffs", tag = "driver_matches", params(("id" = Uuid, Path)), responses(
    (status = 200, body = Vec<rows::DriverMatchPoint>),
    (status = 404, body = ProblemDocument, content_type = "application/problem+json"),
))]
#[get("/driver-matches/{id}/points")]
pub async fn points(
    id: web::Path<Uuid>,
    state: web::Data<State>,
) -> Result<Json<Vec<rows::DriverMatchPoint>>, ApiError> {
    Ok(Json(db::run(&state.pool, move |connection| driver_match::points(connection, *id, BESIDES)).await?))
}
