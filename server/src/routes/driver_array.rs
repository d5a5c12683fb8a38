use actix_web::web::{Data, Json, Payload};
use actix_web::{HttpRequest, post};
use oak_design::file::{RawDesign, RawDriver};
use oak_design::{Problem, ProblemKind};
use oak_planning::change::{ChangeStep, steps};
use oak_planning::wiring::{MOST, WiringOption, wiring_options};
use serde::Deserialize;
use utoipa::ToSchema;

use crate::body;
use crate::error::{ApiError, ProblemDocument};
use crate::state::State;

/// Equal drivers that are to be wired.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct ToWire {
    /// One of them.
    driver: RawDriver,
    /// How many, 1 to 8.
    #[schema(minimum = 1, maximum = 8)]
    count: u32,
    /// Least nominal load that is wanted, ohm.
    least: f64,
    /// Highest one, ohm.
    most: f64,
}

/// Every way to wire equal drivers whose load lies in a range, the best first.
#[utoipa::path(operation_id = "listWirings", tag = "driver_array", request_body = ToWire, responses(
    (status = 200, body = Vec<WiringOption>),
    (status = 400, body = ProblemDocument, content_type = "application/problem+json"),
    (status = 422, body = ProblemDocument, content_type = "application/problem+json"),
))]
#[post("/wirings")]
pub async fn wirings(request: HttpRequest, payload: Payload) -> Result<Json<Vec<WiringOption>>, ApiError> {
    let ToWire { driver, count, least, most } = body::json(&request, payload).await?;
    if !(1..=MOST).contains(&count) {
        return Err(wrong("count", format!("{count} is outside 1 to {MOST}")));
    }
    if !(least >= 0.0 && most >= least) {
        return Err(wrong("most", format!("{most} ohm is below the minimum load, {least} ohm")));
    }
    Ok(Json(wiring_options(&driver, count, least, most)?))
}

fn wrong(field: &str, reason: String) -> ApiError {
    ApiError::Malformed(Problem::new(field, ProblemKind::Malformed { reason }))
}

/// What each change that a design makes to its drivers does, one after the other, in the same box.
#[utoipa::path(operation_id = "changeDriverArray", tag = "driver_array", request_body = RawDesign, responses(
    (status = 200, body = Vec<ChangeStep>),
    (status = 400, body = ProblemDocument, content_type = "application/problem+json"),
    (status = 422, body = ProblemDocument, content_type = "application/problem+json"),
))]
#[post("/changes")]
pub async fn changes(
    request: HttpRequest,
    payload: Payload,
    state: Data<State>,
) -> Result<Json<Vec<ChangeStep>>, ApiError> {
    let design: RawDesign = body::json(&request, payload).await?;
    Ok(Json(state.compute.quick(move || steps(&design)).await??))
}
