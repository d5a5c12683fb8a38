use actix_web::web::{Json, Query};
use actix_web::{get, web};
use oak_design::file::RawFamily;
use serde::Deserialize;
use utoipa::IntoParams;
use uuid::Uuid;

use crate::db::queries::driver_match;
use crate::db::{self, rows};
use crate::error::{ApiError, ProblemDocument};
use crate::state::State;

/// Most rows of one answer.
const MOST: i64 = 200;

/// Which rows.
#[derive(Debug, Deserialize, IntoParams)]
#[into_params(parameter_in = Query)]
#[serde(deny_unknown_fields)]
pub struct Which {
    /// Only this kind of cabinet.
    family: Option<RawFamily>,
    /// How many rows, 50 where absent.
    #[param(minimum = 1, maximum = 200)]
    limit: Option<i64>,
}

/// How a driver match stands, and the best that it has found.
#[utoipa::path(operation_id = "readDriverMatch", tag = "driver_matches", params(("id" = Uuid, Path), Which), responses(
    (status = 200, body = rows::DriverMatchPage),
    (status = 404, body = ProblemDocument, content_type = "application/problem+json"),
))]
#[get("/driver-matches/{id}")]
pub async fn read(
    id: web::Path<Uuid>,
    which: Query<Which>,
    state: web::Data<State>,
) -> Result<Json<rows::DriverMatchPage>, ApiError> {
    let Which { family, limit } = which.into_inner();
    let limit = limit.unwrap_or(50);
    if !(1..=MOST).contains(&limit) {
        return Err(ApiError::Query { reason: format!("limit {limit} is outside 1 to {MOST}") });
    }
    let page = db::run(&state.pool, move |connection| driver_match::best(connection, *id, family, limit));
    Ok(Json(page.await?))
}
