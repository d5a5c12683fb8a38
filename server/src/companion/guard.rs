//! Who may ask a page of the companion.

use actix_web::body::{BoxBody, MessageBody};
use actix_web::dev::{ServiceRequest, ServiceResponse};
use actix_web::http::Method;
use actix_web::http::header::{CACHE_CONTROL, HOST, HeaderMap, HeaderName, HeaderValue, ORIGIN};
use actix_web::middleware::Next;
use actix_web::web::Data;
use actix_web::{Error, HttpRequest, ResponseError};

use super::secret::Secret;
use super::state::CompanionState;
use crate::db;
use crate::db::queries::companion::{self, Purpose, Visit};
use crate::error::ApiError;
use crate::headers::secure;

/// The cookie that a link is swapped for.
pub const COOKIE: &str = "__Host-oak-drum";

/// Refuses what is meant for another host, and writes from another page; tells browsers what every answer tells them.
pub async fn ours(
    state: Data<CompanionState>,
    request: ServiceRequest,
    next: Next<impl MessageBody + 'static>,
) -> Result<ServiceResponse<BoxBody>, Error> {
    let mut answer = match judge(request.method(), request.headers(), &state) {
        Ok(()) => next.call(request).await?.map_into_boxed_body(),
        Err(refusal) => {
            let (request, _) = request.into_parts();
            ServiceResponse::new(request, refusal.error_response())
        }
    };
    let headers = answer.headers_mut();
    secure(headers);
    headers.insert(CACHE_CONTROL, HeaderValue::from_static("no-store"));
    Ok(answer)
}

fn judge(method: &Method, headers: &HeaderMap, state: &CompanionState) -> Result<(), ApiError> {
    let text = |name: HeaderName| headers.get(name).and_then(|value| value.to_str().ok()).unwrap_or("");
    let companion = &state.companion;
    let host = text(HOST);
    if host != companion.address.to_string() {
        return Err(ApiError::ForeignHost { host: host.to_owned() });
    }
    let reads = matches!(*method, Method::GET | Method::HEAD);
    let origin = text(ORIGIN);
    if !reads && origin != companion.origin() {
        return Err(ApiError::ForeignOrigin { origin: origin.to_owned() });
    }
    Ok(())
}

/// The link that a request belongs to, if it may be used for this.
///
/// # Errors
/// There is no such link, it has ended, or it is for something else.
pub async fn visit(
    request: &HttpRequest,
    state: &CompanionState,
    purpose: Purpose,
) -> Result<Visit, ApiError> {
    let cookie = request.cookie(COOKIE);
    let secret = cookie.as_ref().and_then(|cookie| Secret::read(cookie.value()));
    let secret = secret.ok_or(ApiError::NotJoined)?;
    let visit =
        db::run(&state.pool, move |connection| companion::visit(connection, &secret.hash(), purpose)).await?;
    state.companion.touch();
    Ok(visit)
}
