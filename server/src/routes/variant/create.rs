use actix_web::web::Payload;
use actix_web::{HttpRequest, HttpResponse, post, web};
use oak_design::file::{RawDesign, open_design};
use uuid::Uuid;

use crate::db::queries::variant;
use crate::db::{self, rows};
use crate::error::{ApiError, ProblemDocument};
use crate::state::State;
use crate::{body, tag};

/// Adds a variant to a build from a design file.
#[utoipa::path(operation_id = "createVariant", tag = "variants", params(("id" = Uuid, Path)), request_body = RawDesign, responses(
    (status = 201, body = rows::Variant),
    (status = 422, body = ProblemDocument, content_type = "application/problem+json"),
))]
#[post("/builds/{id}/variants")]
pub async fn create(
    id: web::Path<Uuid>,
    request: HttpRequest,
    payload: Payload,
    state: web::Data<State>,
) -> Result<HttpResponse, ApiError> {
    let raw = open_design(&body::json_bytes(&request, payload).await?)?;
    let variant = db::run(&state.pool, move |connection| variant::add(connection, *id, &raw)).await?;
    Ok(HttpResponse::Created().insert_header(tag::header(variant.revision)).json(variant))
}
