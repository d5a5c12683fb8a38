//! Who may ask, and what browsers are told.

use std::panic::AssertUnwindSafe;

use actix_web::body::{BoxBody, MessageBody};
use actix_web::dev::{ServiceRequest, ServiceResponse};
use actix_web::http::Method;
use actix_web::http::header::{HOST, HeaderMap, HeaderName, ORIGIN};
use actix_web::middleware::Next;
use actix_web::{Error, ResponseError};
use futures_util::FutureExt;

use crate::error::ApiError;
use crate::headers::secure;

/// Names a loopback server answers to. Any other Host header means a foreign page has pointed its own
/// name at this machine.
const NAMES: [&str; 3] = ["127.0.0.1", "localhost", "[::1]"];

/// Turns a panic of a handler into an answer that names what stands in the log.
pub async fn panics(
    request: ServiceRequest,
    next: Next<impl MessageBody + 'static>,
) -> Result<ServiceResponse<BoxBody>, Error> {
    match AssertUnwindSafe(next.call(request)).catch_unwind().await {
        Ok(answer) => Ok(answer?.map_into_boxed_body()),
        Err(panic) => Err(ApiError::panicked(&*panic).into()),
    }
}

/// Refuses foreign hosts, and changes asked for by pages of another origin.
pub async fn origin(
    request: ServiceRequest,
    next: Next<impl MessageBody + 'static>,
) -> Result<ServiceResponse<BoxBody>, Error> {
    match judge(request.method(), request.headers()) {
        Ok(()) => Ok(next.call(request).await?.map_into_boxed_body()),
        Err(refusal) => {
            let (request, _) = request.into_parts();
            Ok(ServiceResponse::new(request, refusal.error_response()))
        }
    }
}

fn judge(method: &Method, headers: &HeaderMap) -> Result<(), ApiError> {
    let text = |name: HeaderName| headers.get(name).and_then(|value| value.to_str().ok());
    let host = text(HOST).unwrap_or("");
    let name = host
        .rsplit_once(':')
        .filter(|(_, port)| port.bytes().all(|b| b.is_ascii_digit()))
        .map_or(host, |(name, _)| name);
    if !NAMES.contains(&name) {
        return Err(ApiError::ForeignHost { host: host.to_owned() });
    }
    if matches!(*method, Method::GET | Method::HEAD | Method::OPTIONS) {
        return Ok(());
    }
    let own = |origin: &str| origin.strip_prefix("http://") == Some(host);
    let site = text(HeaderName::from_static("sec-fetch-site"));
    match (text(ORIGIN), site) {
        (Some(origin), _) if !own(origin) => Err(ApiError::ForeignOrigin { origin: origin.to_owned() }),
        (None, Some(site @ ("cross-site" | "same-site"))) => {
            Err(ApiError::ForeignOrigin { origin: site.to_owned() })
        }
        _ => Ok(()),
    }
}

/// Adds the headers that every answer carries.
pub async fn headers(
    request: ServiceRequest,
    next: Next<impl MessageBody>,
) -> Result<ServiceResponse<impl MessageBody>, Error> {
    let mut response = next.call(request).await?;
    secure(response.headers_mut());
    Ok(response)
}
