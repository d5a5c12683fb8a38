use actix_web::web::{Json, Payload};
use actix_web::{HttpRequest, post, web};
use oak_design::exchange::{ImportReport, read_driver_table};

use crate::app::State;
use crate::body;
use crate::db;
use crate::db::queries::driver;
use crate::error::{ApiError, ProblemDocument};

/// Imports a table of drivers: every row, or none where any has a problem.
#[utoipa::path(tag = "drivers", request_body(content = String, content_type = "text/csv"), responses(
    (status = 200, body = ImportReport),
    (status = 422, body = ProblemDocument, content_type = "application/problem+json"),
))]
#[post("/drivers/import")]
pub async fn import(
    request: HttpRequest,
    payload: Payload,
    state: web::Data<State>,
) -> Result<Json<ImportReport>, ApiError> {
    let bytes = body::table(&request, payload).await?;
    let report = db::run(&state.pool, move |connection| {
        let (drivers, report) = read_driver_table(&bytes)?;
        if report.problem_count > 0 {
            return Err(ApiError::Rows(Box::new(report)));
        }
        driver::add(connection, &drivers)?;
        Ok(report)
    });
    Ok(Json(report.await?))
}
