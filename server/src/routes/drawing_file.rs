//! Drawings as files.

use actix_web::HttpResponse;
use oak_cabinetry::drawing::{Drawing, write_dxf, write_svg};
use serde::Deserialize;
use utoipa::ToSchema;

use super::download::download;
use crate::error::ApiError;

/// A kind of file.
#[derive(Debug, Clone, Copy, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum DrawingFormat {
    /// For screens and paper.
    Svg,
    /// For drawing and cutting programs.
    Dxf,
}

/// A drawing at full size as a download.
pub(super) fn drawing_file(
    drawing: &Drawing,
    title: &str,
    format: DrawingFormat,
) -> Result<HttpResponse, ApiError> {
    Ok(match format {
        DrawingFormat::Svg => download(&format!("{title}.svg"), "image/svg+xml", write_svg(drawing, title)),
        DrawingFormat::Dxf => {
            let bytes = write_dxf(drawing).map_err(ApiError::internal)?;
            let text = String::from_utf8(bytes).map_err(ApiError::internal)?;
            download(&format!("{title}.dxf"), "image/vnd.dxf", text)
        }
    })
}
