use actix_web::web::{Data, Json, Payload};
use actix_web::{HttpRequest, post};
use oak_design::file::RawDesign;
use oak_design::problem::Problem;
use oak_design::resolve::resolve_design;
use oak_metering::plan::{MeasuringPlan, measuring_plan};

use crate::body;
use crate::error::{ApiError, ProblemDocument};
use crate::state::State;

/// What is measured of a design, in the order in which a builder can do it.
#[utoipa::path(operation_id = "planMeasuring", tag = "measure", request_body = RawDesign, responses(
    (status = 200, body = MeasuringPlan),
    (status = 400, body = ProblemDocument, content_type = "application/problem+json"),
    (status = 422, body = ProblemDocument, content_type = "application/problem+json"),
))]
#[post("/measure/plan")]
pub async fn plan(
    request: HttpRequest,
    payload: Payload,
    state: Data<State>,
) -> Result<Json<MeasuringPlan>, ApiError> {
    let design: RawDesign = body::json(&request, payload).await?;
    let plan = move || -> Result<MeasuringPlan, Vec<Problem>> {
        let built = resolve_design(&design)?.built().map_err(|problem| vec![problem])?;
        Ok(measuring_plan(&built))
    };
    Ok(Json(state.compute.quick(plan).await??))
}
