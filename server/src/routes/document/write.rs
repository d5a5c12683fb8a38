use actix_web::web::Payload;
use actix_web::{HttpRequest, HttpResponse, put, web};
use oak_design::document::{DocumentKind, RawDocument};
use serde::Deserialize;
use serde_json::Value;
use utoipa::ToSchema;
use uuid::Uuid;

use crate::db::queries::document;
use crate::db::{self, rows};
use crate::error::{ApiError, ProblemDocument};
use crate::state::State;
use crate::tag::Condition;
use crate::{body, tag};

/// A document as it shall be saved.
#[derive(ToSchema)]
#[allow(dead_code, reason = "describes what `Sent` reads")]
struct NewDocument {
    /// The build it belongs to.
    build: Uuid,
    /// Whether it is put away; it can be brought back.
    #[schema(default = false)]
    archived: bool,
    #[schema(inline)]
    #[serde(flatten)]
    document: RawDocument,
}

#[derive(Deserialize)]
#[serde(deny_unknown_fields)]
struct Sent {
    build: Uuid,
    #[serde(default)]
    archived: bool,
    kind: String,
    content: Value,
}

/// Saves a document: a new one with `If-None-Match: *`, a new revision of one with `If-Match`. Earlier revisions stay. A write that is
/// based on an older revision is refused.
#[utoipa::path(operation_id = "writeDocument", tag = "documents",
    params(("id" = Uuid, Path), ("If-Match" = Option<String>, Header), ("If-None-Match" = Option<String>, Header)),
    request_body = NewDocument, responses(
    (status = 200, body = rows::Document),
    (status = 201, body = rows::Document),
    (status = 412, body = ProblemDocument, content_type = "application/problem+json"),
    (status = 422, body = ProblemDocument, content_type = "application/problem+json"),
    (status = 428, body = ProblemDocument, content_type = "application/problem+json"),
))]
#[put("/documents/{id}")]
pub async fn write(
    id: web::Path<Uuid>,
    request: HttpRequest,
    payload: Payload,
    state: web::Data<State>,
) -> Result<HttpResponse, ApiError> {
    let condition = tag::condition(&request)?;
    let Sent { build, archived, kind, content } = body::json(&request, payload).await?;
    let kind = DocumentKind::of(&kind).ok_or(ApiError::NotFound { what: "kind of document" })?;
    let content = kind.read(content)?;
    let (id, created) = (*id, condition == Condition::New);
    let saved = db::run(&state.pool, move |connection| match condition {
        Condition::New => document::add(connection, id, build, &content, archived),
        Condition::Revision(expected) => document::change(connection, id, expected, &content, archived),
    })
    .await?;
    let mut answer = if created { HttpResponse::Created() } else { HttpResponse::Ok() };
    Ok(answer.insert_header(tag::header(saved.revision)).json(saved))
}
