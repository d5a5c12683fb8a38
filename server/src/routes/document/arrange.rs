use actix_web::web::Payload;
use actix_web::{HttpRequest, HttpResponse, put, web};
use serde::Deserialize;
use utoipa::ToSchema;
use uuid::Uuid;

use crate::db::queries::document;
use crate::error::{ApiError, ProblemDocument};
use crate::state::State;
use crate::{body, db};

/// Documents of one kind in the order in which they shall stand.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Order {
    /// Their keys.
    documents: Vec<Uuid>,
}

/// Puts documents of a build in an order; those of their kind that are not named come after.
#[utoipa::path(operation_id = "arrangeDocuments", tag = "documents", params(("id" = Uuid, Path)), request_body = Order, responses(
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
    let Order { documents }: Order = body::json(&request, payload).await?;
    db::run(&state.pool, move |connection| document::arrange(connection, *id, &documents)).await?;
    Ok(HttpResponse::NoContent().finish())
}
