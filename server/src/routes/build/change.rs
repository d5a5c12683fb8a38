use actix_web::web::Payload;
use actix_web::{HttpRequest, HttpResponse, put, web};
use uuid::Uuid;

use super::create::BuildText;
use crate::db::queries::build;
use crate::db::{self, rows};
use crate::error::{ApiError, ProblemDocument};
use crate::state::State;
use crate::{body, tag};

/// Changes the name, the notes and the brief of a build.
#[utoipa::path(operation_id = "changeBuild", tag = "builds", params(("id" = Uuid, Path), ("If-Match" = String, Header)), request_body = BuildText, responses(
    (status = 200, body = rows::Build),
    (status = 412, body = ProblemDocument, content_type = "application/problem+json"),
))]
#[put("/builds/{id}")]
pub async fn change(
    id: web::Path<Uuid>,
    request: HttpRequest,
    payload: Payload,
    state: web::Data<State>,
) -> Result<HttpResponse, ApiError> {
    let expected = tag::expected(&request)?;
    let text: BuildText = body::json(&request, payload).await?;
    let build = db::run(&state.pool, move |connection| {
        build::change(connection, *id, expected, &text.name, &text.notes, text.brief.as_ref())
    })
    .await?;
    Ok(HttpResponse::Ok().insert_header(tag::header(build.revision)).json(build))
}
