//! One handler a file, `noun/verb`.

mod brief;
mod build;
mod cabinet;
mod compare;
mod driver;
mod driver_array;
mod driver_match;
mod health;
mod job;
mod motion;
mod simulate;
mod start;
mod suggestions;
mod sweep;
mod tolerance;
mod transient;
mod variant;
mod workings;

use actix_web::HttpResponse;
use actix_web::http::header::{
    CONTENT_DISPOSITION, CONTENT_TYPE, Charset, ContentDisposition, DispositionParam, DispositionType,
    ExtendedValue,
};
use utoipa_actix_web::service_config::ServiceConfig;

use crate::error::ApiError;

/// All routes below `/api/v1`.
pub fn configure(config: &mut ServiceConfig<'_>) {
    config
        .service(health::health)
        .service(simulate::simulate)
        .service(start::starts)
        .service(transient::transient)
        .service(brief::list)
        .service(brief::check_brief)
        .service(brief::judge)
        .service(driver_array::wirings)
        .service(driver_array::changes)
        .service(cabinet::cabinet)
        .service(cabinet::panels)
        .service(cabinet::firings)
        .service(cabinet::folds)
        .service(cabinet::cabinet_model)
        .service(cabinet::drawing)
        .service(cabinet::cavity_check)
        .service(compare::compare)
        .service(suggestions::suggestions)
        .service(motion::motion)
        .service(sweep::sweep)
        .service(tolerance::tolerance)
        .service(workings::workings);
    driver::configure(config);
    build::configure(config);
    variant::configure(config);
    driver_match::configure(config);
    job::configure(config);
}

/// Answers what is not there.
pub async fn unknown() -> Result<HttpResponse, ApiError> {
    Err(ApiError::NotFound { what: "address" })
}

/// A text as a download. The name goes out plain for any reader and whole for those that know RFC 6266.
fn download(name: &str, kind: &'static str, text: String) -> HttpResponse {
    let safe: String =
        name.chars().map(|c| if c.is_alphanumeric() || " -_.,".contains(c) { c } else { '-' }).collect();
    let plain = safe.chars().map(|c| if c.is_ascii() { c } else { '-' }).collect();
    let mut parameters = vec![DispositionParam::Filename(plain)];
    if !safe.is_ascii() {
        let charset = Charset::Ext("UTF-8".to_owned());
        let value = ExtendedValue { charset, language_tag: None, value: safe.into_bytes() };
        parameters.push(DispositionParam::FilenameExt(value));
    }
    let disposition = ContentDisposition { disposition: DispositionType::Attachment, parameters };
    HttpResponse::Ok()
        .insert_header((CONTENT_TYPE, kind))
        .insert_header((CONTENT_DISPOSITION, disposition))
        .body(text)
}

/// A raw form as a file.
fn download_json(name: &str, document: &impl serde::Serialize) -> Result<HttpResponse, ApiError> {
    let text = serde_json::to_string_pretty(document).map_err(ApiError::internal)?;
    Ok(download(&format!("{name}.json"), "application/json", text + "\n"))
}
