use actix_web::web::Json;
use actix_web::{get, web};
use oak_design::file::{RawDesign, RawFamily};
use oak_planning::driver_match::DriverMatch;
use uuid::Uuid;

use crate::db;
use crate::db::queries::{driver, driver_match};
use crate::error::{ApiError, ProblemDocument};
use crate::state::State;

/// A cabinet that was found, as a whole design with the amplifier and the space of the brief.
#[utoipa::path(operation_id = "readMatchedDesign", tag = "driver_matches", params(
    ("id" = Uuid, Path), ("driver" = Uuid, Path), ("family" = RawFamily, Path),
), responses(
    (status = 200, body = RawDesign),
    (status = 404, body = ProblemDocument, content_type = "application/problem+json"),
))]
#[get("/driver-matches/{id}/drivers/{driver}/{family}")]
pub async fn design(
    place: web::Path<(Uuid, Uuid, RawFamily)>,
    state: web::Data<State>,
) -> Result<Json<RawDesign>, ApiError> {
    let (id, driver, family) = place.into_inner();
    let rows = db::run(&state.pool, move |connection| {
        let sheet = driver::find(connection, driver)?.document;
        Ok((driver_match::find(connection, id)?, driver_match::of_driver(connection, id, driver)?, sheet))
    });
    let (asked, rows, sheet) = rows.await?;
    let row = rows.into_iter().find(|row| row.family == family).and_then(|row| row.found);
    let found = row.ok_or(ApiError::NotFound { what: "cabinet" })?;
    let planned = DriverMatch::new(&asked.brief, asked.drivers)?;
    Ok(Json(planned.found(sheet, found)))
}
