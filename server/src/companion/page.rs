//! The page itself: built from `web/companion`, without anything of the application.

use actix_web::http::header::{CONTENT_SECURITY_POLICY, CONTENT_TYPE};
use actix_web::{HttpResponse, get, web};
use rust_embed::RustEmbed;

use crate::error::ApiError;

#[derive(RustEmbed)]
#[folder = "../web/dist-companion"]
struct Pages;

const POLICY: &str = "default-src 'none'; script-src 'self'; style-src 'self'; connect-src 'self'; font-src 'self'; base-uri 'none'; \
                      form-action 'none'; frame-ancestors 'none'";

fn file(name: &str) -> Result<HttpResponse, ApiError> {
    let file = Pages::get(name).ok_or(ApiError::NotFound { what: "page" })?;
    Ok(HttpResponse::Ok()
        .insert_header((CONTENT_TYPE, file.metadata.mimetype()))
        .insert_header((CONTENT_SECURITY_POLICY, POLICY))
        .body(file.data.into_owned()))
}

/// The page.
#[get("/")]
pub async fn page() -> Result<HttpResponse, ApiError> {
    file("companion.html")
}

/// What it is made of.
#[get("/assets/{name}")]
pub async fn asset(name: web::Path<String>) -> Result<HttpResponse, ApiError> {
    file(&format!("assets/{name}"))
}

/// Everything else.
pub async fn nothing() -> Result<HttpResponse, ApiError> {
    Err(ApiError::NotFound { what: "page" })
}
