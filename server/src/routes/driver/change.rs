use actix_web::web::Payload;
use actix_web::{HttpRequest, HttpResponse, put, web};
use oak_design::file::{RawDriver, open_driver};
use uuid::Uuid;

use crate::db::queries::driver;
use crate::db::{self, rows};
use crate::error::{ApiError, ProblemDocument};
use crate::state::State;
use crate::{body, tag};

/// Changes a driver in the library; variants keep the copy they were made with.
#[utoipa::path(operation_id = "changeDriver", tag = "drivers", params(("id" = Uuid, Path), ("If-Match" = String, Header)), request_body = RawDriver, responses(
    (status = 200, body = rows::Driver),
    (status = 412, body = ProblemDocument, content_type = "application/problem+json"),
    (status = 422, body = ProblemDocument, content_type = "application/problem+json"),
))]
#[put("/drivers/{id}")]
pub async fn change(
    id: web::Path<Uuid>,
    request: HttpRequest,
    payload: Payload,
    state: web::Data<State>,
) -> Result<HttpResponse, ApiError> {
    let expected = tag::expected(&request)?;
    let raw = open_driver(&body::json_bytes(&request, payload).await?)?;
    let driver =
        db::run(&state.pool, move |connection| driver::change(connection, *id, expected, &raw)).await?;
    Ok(HttpResponse::Ok().insert_header(tag::header(driver.revision)).json(driver))
}
