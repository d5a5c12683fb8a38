use actix_web::web::Json;
use actix_web::{get, web};
use oak_design::file::{RawDesign, RawFamily};
use oak_planning::driver_match;
use uuid::Uuid;

use crate::app::State;
use crate::db;
use crate::db::queries::{driver, search};
use crate::error::{ApiError, ProblemDocument};

/// A cabinet that was found, as a whole design with the amplifier and the space of the brief.
#[utoipa::path(tag = "searches", params(
    ("id" = Uuid, Path), ("driver" = Uuid, Path), ("family" = RawFamily, Path),
), responses(
    (status = 200, body = RawDesign),
    (status = 404, body = ProblemDocument, content_type = "application/problem+json"),
))]
#[get("/searches/{id}/drivers/{driver}/{family}")]
pub async fn design(
    place: web::Path<(Uuid, Uuid, RawFamily)>,
    state: web::Data<State>,
) -> Result<Json<RawDesign>, ApiError> {
    let (id, driver, family) = place.into_inner();
    let rows = db::run(&state.pool, move |connection| {
        let sheet = driver::find(connection, driver)?.document;
        Ok((search::find(connection, id)?, search::of_driver(connection, id, driver)?, sheet))
    });
    let (search, rows, sheet) = rows.await?;
    let row = rows.into_iter().find(|row| row.family == family).and_then(|row| row.found);
    let found = row.ok_or(ApiError::NotFound { what: "cabinet" })?;
    let planned = driver_match::Search::new(&search.brief, u32::try_from(search.drivers).unwrap_or(1))?;
    Ok(Json(planned.design(sheet, found.driver_array, found.enclosure, found.reason)))
}
