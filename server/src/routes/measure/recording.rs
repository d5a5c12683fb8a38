use std::fmt::Write as _;

use actix_web::http::header::{CACHE_CONTROL, CONTENT_DISPOSITION, CONTENT_TYPE};
use actix_web::web::{Data, Path, Payload};
use actix_web::{HttpRequest, HttpResponse, get, post};
use serde::Serialize;
use sha2::{Digest, Sha256};
use utoipa::ToSchema;
use uuid::Uuid;

use crate::body::{self, Measured};
use crate::db;
use crate::db::queries::recording as kept;
use crate::error::{ApiError, ProblemDocument};
use crate::state::State;

/// A file that was kept.
#[derive(Debug, Serialize, ToSchema)]
pub struct KeptRecording {
    /// Its name, for a measurement.
    hash: String,
}

/// Keeps a file of a build as it came: a text, or a WAV file by its first bytes.
#[utoipa::path(operation_id = "keepRecording", tag = "measure", params(("id" = Uuid, Path)), request_body(content = Vec<u8>, content_type = "text/plain"), responses(
    (status = 201, body = KeptRecording),
    (status = 404, body = ProblemDocument, content_type = "application/problem+json"),
    (status = 413, body = ProblemDocument, content_type = "application/problem+json"),
    (status = 415, body = ProblemDocument, content_type = "application/problem+json"),
    (status = 422, body = ProblemDocument, content_type = "application/problem+json"),
))]
#[post("/builds/{id}/recordings")]
pub async fn keep(
    id: Path<Uuid>,
    request: HttpRequest,
    payload: Payload,
    state: Data<State>,
) -> Result<HttpResponse, ApiError> {
    let (Measured::Text(bytes) | Measured::Wav(bytes)) = body::measured(&request, payload).await?;
    let hashed = state.compute.quick(move || {
        let mut hash = String::new();
        for byte in Sha256::digest(&bytes) {
            let _ = write!(hash, "{byte:02x}");
        }
        (hash, bytes)
    });
    let (hash, bytes) = hashed.await?;
    let name = hash.clone();
    db::run(&state.pool, move |connection| kept::add(connection, *id, &name, &bytes)).await?;
    Ok(HttpResponse::Created().json(KeptRecording { hash }))
}

/// A file as it came, by its name; it is given to be saved, never to be shown.
#[utoipa::path(operation_id = "readRecording", tag = "measure", params(("hash" = String, Path)), responses(
    (status = 200, content_type = "application/octet-stream", body = Vec<u8>),
    (status = 404, body = ProblemDocument, content_type = "application/problem+json"),
))]
#[get("/recordings/{hash}")]
pub async fn give(hash: Path<String>, state: Data<State>) -> Result<HttpResponse, ApiError> {
    let is_name = hash.len() == 64 && hash.bytes().all(|byte| byte.is_ascii_hexdigit());
    if !is_name {
        return Err(ApiError::NotFound { what: "file of a measurement" });
    }
    let content = db::run(&state.pool, move |connection| kept::find(connection, &hash)).await?;
    Ok(HttpResponse::Ok()
        .insert_header((CONTENT_TYPE, "application/octet-stream"))
        .insert_header((CONTENT_DISPOSITION, "attachment"))
        .insert_header((CACHE_CONTROL, "private, max-age=31536000, immutable"))
        .body(content))
}
