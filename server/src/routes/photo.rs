//! Pictures of the workshop.

use actix_web::http::header::{CACHE_CONTROL, CONTENT_TYPE};
use actix_web::web::{Data, Path, Payload};
use actix_web::{HttpRequest, HttpResponse, get, post};
use serde::Serialize;
use utoipa::ToSchema;
use uuid::Uuid;

use crate::body;
use crate::db;
use crate::db::queries::photo as kept;
use crate::error::{ApiError, ProblemDocument};
use crate::photo::reencode;
use crate::state::State;

/// A picture that was kept.
#[derive(Debug, Serialize, ToSchema)]
pub struct KeptPhoto {
    /// Its name, for an entry of the log.
    hash: String,
}

/// Keeps a picture of a build: JPEG, PNG or WebP by its content; it is made smaller and written anew without anything but the picture.
#[utoipa::path(operation_id = "keepPhoto", tag = "photos", params(("id" = Uuid, Path)), request_body(content = Vec<u8>, content_type = "image/jpeg"), responses(
    (status = 201, body = KeptPhoto),
    (status = 404, body = ProblemDocument, content_type = "application/problem+json"),
    (status = 413, body = ProblemDocument, content_type = "application/problem+json"),
    (status = 415, body = ProblemDocument, content_type = "application/problem+json"),
    (status = 422, body = ProblemDocument, content_type = "application/problem+json"),
))]
#[post("/builds/{id}/photos")]
pub async fn keep_photo(
    id: Path<Uuid>,
    request: HttpRequest,
    payload: Payload,
    state: Data<State>,
) -> Result<HttpResponse, ApiError> {
    let bytes = body::photo(&request, payload).await?;
    let photo = state.compute.long(move |_| reencode(&bytes)).await??;
    let hash = photo.hash.clone();
    db::run(&state.pool, move |connection| kept::add(connection, *id, &photo)).await?;
    Ok(HttpResponse::Created().json(KeptPhoto { hash }))
}

/// A picture by its name.
#[utoipa::path(operation_id = "readPhoto", tag = "photos", params(("hash" = String, Path)), responses(
    (status = 200, content_type = "image/jpeg", body = Vec<u8>),
    (status = 404, body = ProblemDocument, content_type = "application/problem+json"),
))]
#[get("/photos/{hash}")]
pub async fn read_photo(hash: Path<String>, state: Data<State>) -> Result<HttpResponse, ApiError> {
    // A name is digits; anything else is none, and not the database's to judge.
    let is_name = hash.len() == 64 && hash.bytes().all(|byte| byte.is_ascii_hexdigit());
    if !is_name {
        return Err(ApiError::NotFound { what: "picture" });
    }
    let content = db::run(&state.pool, move |connection| kept::find(connection, &hash)).await?;
    Ok(HttpResponse::Ok()
        .insert_header((CONTENT_TYPE, "image/jpeg"))
        // Its name is its content.
        .insert_header((CACHE_CONTROL, "private, max-age=31536000, immutable"))
        .body(content))
}
