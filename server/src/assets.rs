//! The interface, built into the server.

use actix_web::http::header::{CACHE_CONTROL, CONTENT_SECURITY_POLICY, CONTENT_TYPE};
use actix_web::{HttpRequest, HttpResponse};
use rust_embed::RustEmbed;
use uuid::Uuid;

#[derive(RustEmbed)]
#[folder = "../web/dist"]
struct Interface;

/// Serves a built file, or the page itself for the interface's own addresses.
pub async fn serve(request: HttpRequest) -> HttpResponse {
    let path = request.path().trim_start_matches('/');
    if path.is_empty() || path == "index.html" || !path.contains('.') {
        return page();
    }
    let Some(file) = Interface::get(path) else {
        return HttpResponse::NotFound()
            .content_type("text/plain; charset=utf-8")
            .body("There is no such file.\n");
    };
    // Built files carry a hash of their content in their name.
    let caching =
        if path.starts_with("assets/") { "public, max-age=31536000, immutable" } else { "no-cache" };
    HttpResponse::Ok()
        .insert_header((CONTENT_TYPE, file.metadata.mimetype()))
        .insert_header((CACHE_CONTROL, caching))
        .body(file.data.into_owned())
}

fn page() -> HttpResponse {
    let Some(file) = Interface::get("index.html") else {
        return HttpResponse::ServiceUnavailable()
            .content_type("text/plain; charset=utf-8")
            .body("The interface is not built. Run: cargo xtask demo\n");
    };
    // Dialogs of the component library put a style element of their own into the page.
    let nonce = Uuid::new_v4().simple().to_string();
    let text = String::from_utf8_lossy(&file.data).replace("__NONCE__", &nonce);
    let policy = format!(
        "default-src 'none'; script-src 'self'; style-src 'self' 'nonce-{nonce}'; img-src 'self'; font-src 'self'; \
         connect-src 'self'; base-uri 'none'; form-action 'none'; frame-ancestors 'none'"
    );
    HttpResponse::Ok()
        .insert_header((CONTENT_TYPE, "text/html; charset=utf-8"))
        .insert_header((CACHE_CONTROL, "no-store"))
        .insert_header((CONTENT_SECURITY_POLICY, policy))
        .body(text)
}
