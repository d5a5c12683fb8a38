use actix_web::web::Payload;
use actix_web::{HttpRequest, HttpResponse, post, web};
use oak_design::file::{RawDriver, open_driver};

use crate::db::queries::driver;
use crate::db::{self, rows};
use crate::error::{ApiError, ProblemDocument};
use crate::state::State;
use crate::{body, tag};

/// Adds a driver to the library from a driver file.
#[utoipa::path(operation_id = "createDriver", tag = "drivers", request_body = RawDriver, responses(
    (status = 201, body = rows::Driver),
    (status = 422, body = ProblemDocument, content_type = "application/problem+json"),
))]
#[post("/drivers")]
pub async fn create(
    request: HttpRequest,
    payload: Payload,
    state: web::Data<State>,
) -> Result<HttpResponse, ApiError> {
    let raw = open_driver(&body::json_bytes(&request, payload).await?)?;
    let added = db::run(&state.pool, move |connection| driver::add(connection, &[raw])).await?;
    let driver = added.into_iter().next().ok_or(ApiError::NotFound { what: "driver" })?;
    Ok(HttpResponse::Created().insert_header(tag::header(driver.revision)).json(driver))
}
