//! Bodies of requests, read within limits.

use std::time::Duration;

use actix_web::HttpRequest;
use actix_web::http::header::CONTENT_TYPE;
use actix_web::web::{Bytes, Payload};
use oak_design::file::read_json;
use oak_design::{Problem, ProblemKind};
use serde::de::DeserializeOwned;

use crate::error::ApiError;

/// Longest JSON document, bytes: a build of a hundred variants with a hundred measurements.
pub const JSON_LIMIT: usize = 4 << 20;
/// Longest body that a phone sends, bytes.
pub const SMALL_LIMIT: usize = 16 << 10;
/// Longest table, bytes: twenty thousand drivers.
pub const TABLE_LIMIT: usize = 8 << 20;

/// Largest recording, bytes: 40 s of two channels at 192 kHz.
pub const RECORDING_LIMIT: usize = 64 << 20;
/// Largest picture, bytes.
pub const PHOTO_LIMIT: usize = 24 << 20;

/// Longest a body may take to come.
const PATIENCE: Duration = Duration::from_secs(10);

/// Reads a JSON body of whatever type.
///
/// # Errors
/// Another content type, a body over [`JSON_LIMIT`], or the place where it is not such a document.
pub async fn json<T: DeserializeOwned>(request: &HttpRequest, payload: Payload) -> Result<T, ApiError> {
    let bytes = json_bytes(request, payload).await?;
    Ok(read_json(&bytes)?)
}

/// Reads the JSON body of a phone.
///
/// # Errors
/// See [`json`]; [`SMALL_LIMIT`] is the longest.
pub async fn small_json<T: DeserializeOwned>(request: &HttpRequest, payload: Payload) -> Result<T, ApiError> {
    expect_type(request, "application/json")?;
    Ok(read_json(&bytes(payload, SMALL_LIMIT).await?)?)
}

/// Reads a JSON body as bytes, for the files that have a format and a version to look at first.
///
/// # Errors
/// See [`json`].
pub async fn json_bytes(request: &HttpRequest, payload: Payload) -> Result<Bytes, ApiError> {
    expect_type(request, "application/json")?;
    bytes(payload, JSON_LIMIT).await
}

/// Reads a CSV or JSON body of many drivers.
///
/// # Errors
/// Another content type or a body over [`TABLE_LIMIT`].
pub async fn table(request: &HttpRequest, payload: Payload) -> Result<Bytes, ApiError> {
    expect_type(request, "application/json").or_else(|_| expect_type(request, "text/csv"))?;
    bytes(payload, TABLE_LIMIT).await
}

/// Reads a text, such as a trace that another program wrote.
///
/// # Errors
/// Another content type, a body over [`TABLE_LIMIT`], or one that is not UTF-8.
pub async fn text(request: &HttpRequest, payload: Payload) -> Result<String, ApiError> {
    expect_type(request, "text/plain")?;
    let bytes = bytes(payload, TABLE_LIMIT).await?;
    String::from_utf8(bytes.to_vec()).map_err(|_| {
        let reason = "it is not text in UTF-8".to_owned();
        ApiError::Problems(vec![Problem::new("text", ProblemKind::Unshapeable { reason })])
    })
}

/// A file of a measurement.
#[derive(Debug)]
pub enum Measured {
    /// A text, whatever is in it.
    Text(Bytes),
    /// A WAV file by its first bytes.
    Wav(Bytes),
}

/// Reads a file of a measurement: a text, or what begins as a WAV file does.
///
/// # Errors
/// Another content type, a body over [`RECORDING_LIMIT`], or a recording that does not begin as one.
pub async fn measured(request: &HttpRequest, payload: Payload) -> Result<Measured, ApiError> {
    if expect_type(request, "text/plain").is_ok() {
        return Ok(Measured::Text(bytes(payload, TABLE_LIMIT).await?));
    }
    expect_type(request, "audio/wav")?;
    let bytes = bytes(payload, RECORDING_LIMIT).await?;
    if bytes.starts_with(b"RIFF") && bytes.get(8..12) == Some(b"WAVE") {
        return Ok(Measured::Wav(bytes));
    }
    let reason = "it does not begin as a WAV file does".to_owned();
    Err(ApiError::Problems(vec![Problem::new("file", ProblemKind::Unshapeable { reason })]))
}

/// Reads a picture as bytes, whatever it really is.
///
/// # Errors
/// Another content type or a body over [`PHOTO_LIMIT`].
pub async fn photo(request: &HttpRequest, payload: Payload) -> Result<Bytes, ApiError> {
    expect_type(request, "image/jpeg")
        .or_else(|_| expect_type(request, "image/png"))
        .or_else(|_| expect_type(request, "image/webp"))?;
    bytes(payload, PHOTO_LIMIT).await
}

fn expect_type(request: &HttpRequest, wanted: &'static str) -> Result<(), ApiError> {
    let given = request.headers().get(CONTENT_TYPE).and_then(|value| value.to_str().ok()).unwrap_or("");
    let essence = given.split(';').next().unwrap_or("").trim();
    if essence.eq_ignore_ascii_case(wanted) { Ok(()) } else { Err(ApiError::MediaType { wanted }) }
}

async fn bytes(payload: Payload, limit: usize) -> Result<Bytes, ApiError> {
    match tokio::time::timeout(PATIENCE, payload.to_bytes_limited(limit)).await {
        Ok(Ok(Ok(bytes))) => Ok(bytes),
        // The client broke off or sent something that is not HTTP; nobody is left to read the answer.
        Ok(Ok(Err(_)) | Err(_)) => Err(ApiError::TooLarge { limit }),
        Err(_) => Err(ApiError::TooSlow { seconds: PATIENCE.as_secs() }),
    }
}
