//! Revisions as entity tags.

use actix_web::HttpRequest;
use actix_web::http::header::{ETAG, HeaderName, HeaderValue, IF_MATCH};

use crate::error::ApiError;

/// The ETag header of a revision: `"3"`.
pub fn header(revision: i32) -> (HeaderName, HeaderValue) {
    let value = HeaderValue::from_str(&format!("\"{revision}\"")).expect("digits are a header value");
    (ETAG, value)
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
