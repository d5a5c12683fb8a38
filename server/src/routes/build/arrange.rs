use actix_web::web::Payload;
use actix_web::{HttpRequest, HttpResponse, put, web};
use serde::Deserialize;
use utoipa::ToSchema;
use uuid::Uuid;

use crate::db::queries::variant;
use crate::error::{ApiError, ProblemDocument};
use crate::state::State;
use crate::{body, db};

/// Variants in the order in which they shall stand.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Order {
    /// Their keys.
    variants: Vec<Uuid>,
}

/// Puts the variants of a build in an order; those that are not named come after.
#[utoipa::path(operation_id = "arrangeVariants", tag = "builds", params(("id" = Uuid, Path)), request_body = Order, responses(
    (status = 204),
    (status = 404, body = ProblemDocument, content_type = "application/problem+json"),
))]
#[put("/builds/{id}/order")]
pub async fn arrange(
    id: web::Path<Uuid>,
    request: HttpRequest,
    payload: Payload,
    state: web::Data<State>,
) -> Result<HttpResponse, ApiError> {
    let Order { variants }: Order = body::json(&request, payload).await?;
    db::run(&state.pool, move |connection| variant::arrange(connection, *id, &variants)).await?;
    Ok(HttpResponse::NoContent().finish())
}
