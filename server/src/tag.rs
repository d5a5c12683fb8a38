//! Revisions as entity tags.

use actix_web::HttpRequest;
use actix_web::http::header::{ETAG, HeaderName, HeaderValue, IF_MATCH, IF_NONE_MATCH};

use crate::error::ApiError;

/// The ETag header of a revision: `"3"`.
pub fn header(revision: i32) -> (HeaderName, HeaderValue) {
    let value = HeaderValue::from_str(&format!("\"{revision}\"")).expect("digits are a header value");
    (ETAG, value)
}

/// What a write is based on.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Condition {
    /// There is no such thing yet.
    New,
    /// It is at a revision.
    Revision(i32),
}

/// What a write is based on.
///
/// # Errors
/// Neither `If-None-Match: *` nor an If-Match with one of our tags.
pub fn condition(request: &HttpRequest) -> Result<Condition, ApiError> {
    let new = request.headers().get(IF_NONE_MATCH).is_some_and(|value| value.as_bytes() == b"*");
    if new { Ok(Condition::New) } else { expected(request).map(Condition::Revision) }
}

/// The revision that a change is based on.
///
/// # Errors
/// Where If-Match is missing or is not one of our tags.
pub fn expected(request: &HttpRequest) -> Result<i32, ApiError> {
    let value = request.headers().get(IF_MATCH).and_then(|value| value.to_str().ok());
    value
        .and_then(|value| value.trim().strip_prefix('"')?.strip_suffix('"')?.parse().ok())
        .ok_or(ApiError::NoPrecondition)
}
