//! Answers that are files.

use actix_web::HttpResponse;
use actix_web::http::header::{
    CONTENT_DISPOSITION, CONTENT_TYPE, Charset, ContentDisposition, DispositionParam, DispositionType,
    ExtendedValue,
};
use actix_web::web::Bytes;

use crate::error::ApiError;

/// A file as a download. The name goes out plain for any reader and whole for those that know RFC 6266.
pub(super) fn download(name: &str, kind: &'static str, content: impl Into<Bytes>) -> HttpResponse {
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
        .body(content.into())
}

/// A raw form as a file.
pub(super) fn download_json(name: &str, document: &impl serde::Serialize) -> Result<HttpResponse, ApiError> {
    let text = serde_json::to_string_pretty(document).map_err(ApiError::internal)?;
    Ok(download(&format!("{name}.json"), "application/json", text + "\n"))
}
