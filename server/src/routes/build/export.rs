use actix_web::{HttpResponse, get, web};
use oak_design::file::RawBuild;
use uuid::Uuid;

use crate::db;
use crate::db::queries::build;
use crate::error::ApiError;
use crate::routes::download::download_json;
use crate::state::State;

/// A build with its documents as a build file.
#[utoipa::path(operation_id = "exportBuild", tag = "builds", params(("id" = Uuid, Path)), responses((status = 200, body = RawBuild)))]
#[get("/builds/{id}/build.json")]
pub async fn export(id: web::Path<Uuid>, state: web::Data<State>) -> Result<HttpResponse, ApiError> {
    let opened = db::run(&state.pool, move |connection| build::open(connection, *id)).await?;
    let raw = RawBuild::of_documents(opened.documents.into_iter().map(|one| one.document));
    download_json(&raw.name, &raw)
}
