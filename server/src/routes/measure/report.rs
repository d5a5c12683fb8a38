use actix_web::web::{Data, Json, Payload};
use actix_web::{HttpRequest, post};
use oak_metering::report::{MeasuringReport, RawMeasuredQuestion, measure_report};

use crate::body;
use crate::error::{ApiError, ProblemDocument};
use crate::state::State;

/// What was measured of a design says: numbers with their errors, findings in words, remedies as designs, lines. Nothing is kept.
#[utoipa::path(operation_id = "reportMeasuring", tag = "measure", request_body = RawMeasuredQuestion, responses(
    (status = 200, body = MeasuringReport),
    (status = 400, body = ProblemDocument, content_type = "application/problem+json"),
    (status = 422, body = ProblemDocument, content_type = "application/problem+json"),
))]
#[post("/measure/report")]
pub async fn report(
    request: HttpRequest,
    payload: Payload,
    state: Data<State>,
) -> Result<Json<MeasuringReport>, ApiError> {
    let raw: RawMeasuredQuestion = body::json(&request, payload).await?;
    Ok(Json(state.compute.long(move |_| measure_report(&raw)).await??))
}
