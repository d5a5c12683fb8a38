use actix_web::web::{Data, Json, Payload};
use actix_web::{HttpRequest, post};
use oak_design::file::RawDriver;

use crate::body;
use crate::db::queries::library::Holding;
use crate::db::{self, rows};
use crate::error::{ApiError, ProblemDocument};
use crate::state::State;

/// Drivers of the library that are much like one: the same name and maker, or the same values.
#[utoipa::path(operation_id = "findAlikeDrivers", tag = "drivers", request_body = RawDriver, responses(
    (status = 200, body = Vec<rows::AlikeDriver>),
    (status = 422, body = ProblemDocument, content_type = "application/problem+json"),
))]
#[post("/drivers/alike")]
pub async fn alike(
    request: HttpRequest,
    payload: Payload,
    state: Data<State>,
) -> Result<Json<Vec<rows::AlikeDriver>>, ApiError> {
    let raw: RawDriver = body::json(&request, payload).await?;
    let found = db::run(&state.pool, move |connection| Holding::load(connection)?.alike(&raw));
    Ok(Json(found.await?))
}
