use actix_web::web::Json;
use actix_web::{get, web};
use uuid::Uuid;

use crate::db::queries::driver_match;
use crate::db::{self, rows};
use crate::error::{ApiError, ProblemDocument};
use crate::state::State;

/// The newest driver match of a build; null where there has been none.
#[utoipa::path(operation_id = "readDriverMatchOfBuild", tag = "driver_matches", params(("id" = Uuid, Path)), responses(
    (status = 200, body = Option<rows::DriverMatch>),
    (status = 503, body = ProblemDocument, content_type = "application/problem+json"),
))]
#[get("/builds/{id}/driver-match")]
pub async fn of_build(
    id: web::Path<Uuid>,
    state: web::Data<State>,
) -> Result<Json<Option<rows::DriverMatch>>, ApiError> {
    Ok(Json(db::run(&state.pool, move |connection| driver_match::of_build(connection, *id)).await?))
}
