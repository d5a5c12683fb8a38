use actix_web::{HttpResponse, get, web};
use oak_design::file::{BUILD_FORMAT, RawBuild, VERSION};
use uuid::Uuid;

use crate::db;
use crate::db::queries::build;
use crate::error::ApiError;
use crate::routes::download::download_json;
use crate::state::State;

/// A build with its variants as a build file.
#[utoipa::path(operation_id = "exportBuild", tag = "builds", params(("id" = Uuid, Path)), responses((status = 200, body = RawBuild)))]
#[get("/builds/{id}/build.json")]
pub async fn export(id: web::Path<Uuid>, state: web::Data<State>) -> Result<HttpResponse, ApiError> {
    let opened = db::run(&state.pool, move |connection| build::open(connection, *id)).await?;
    let raw = RawBuild {
        format: BUILD_FORMAT.to_owned(),
        version: VERSION,
        name: opened.build.name,
        notes: opened.build.notes,
        brief: opened.build.brief,
        variants: opened.variants.into_iter().map(|variant| variant.document).collect(),
    };
    download_json(&raw.name, &raw)
}
