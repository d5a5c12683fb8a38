use actix_web::web::Payload;
use actix_web::{HttpRequest, HttpResponse, put, web};
use oak_design::file::{RawDesign, open_design};
use uuid::Uuid;

use crate::db::queries::variant;
use crate::db::{self, rows};
use crate::error::{ApiError, ProblemDocument};
use crate::state::State;
use crate::{body, tag};

/// Keeps a new revision of a variant; earlier ones stay. A write based on an older revision is refused.
#[utoipa::path(operation_id = "changeVariant", tag = "variants", params(("id" = Uuid, Path), ("If-Match" = String, Header)), request_body = RawDesign, responses(
    (status = 200, body = rows::Variant),
    (status = 412, body = ProblemDocument, content_type = "application/problem+json"),
    (status = 422, body = ProblemDocument, content_type = "application/problem+json"),
    (status = 428, body = ProblemDocument, content_type = "application/problem+json"),
))]
#[put("/variants/{id}")]
pub async fn change(
    id: web::Path<Uuid>,
    request: HttpRequest,
    payload: Payload,
    state: web::Data<State>,
) -> Result<HttpResponse, ApiError> {
    let expected = tag::expected(&request)?;
    let raw = open_design(&body::json_bytes(&request, payload).await?)?;
    let variant =
        db::run(&state.pool, move |connection| variant::change(connection, *id, expected, &raw)).await?;
    Ok(HttpResponse::Ok().insert_header(tag::header(variant.revision)).json(variant))
}
