use actix_web::web::{Json, Payload};
use actix_web::{HttpRequest, post};
use oak_design::exchange::{RawDataSheet, SheetReading};

use crate::body;
use crate::error::{ApiError, ProblemDocument};

/// Finds the values of a driver in a data sheet that was typed or pasted as text. Nothing is kept.
#[utoipa::path(operation_id = "readDataSheet", tag = "drivers", request_body = RawDataSheet, responses(
    (status = 200, body = SheetReading),
    (status = 400, body = ProblemDocument, content_type = "application/problem+json"),
    (status = 422, body = ProblemDocument, content_type = "application/problem+json"),
))]
#[post("/drivers/read-sheet")]
pub async fn read_sheet(request: HttpRequest, payload: Payload) -> Result<Json<SheetReading>, ApiError> {
    let sheet: RawDataSheet = body::json(&request, payload).await?;
    Ok(Json(sheet.read().map_err(|problem| vec![problem])?))
}
