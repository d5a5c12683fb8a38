use actix_web::{HttpResponse, get, web};
use oak_design::conditions::{RawConditions, RawQuestion};
use oak_design::document::RawDocument;
use oak_design::exchange::write_response_table;
use oak_design::file::RawDesign;
use oak_design::report::compute;
use uuid::Uuid;

use crate::db;
use crate::db::queries::document;
use crate::error::ApiError;
use crate::routes::download::{download, download_json};
use crate::routes::simulate::Span;
use crate::state::State;

/// A variant as a design file.
#[utoipa::path(operation_id = "exportVariant", tag = "documents", params(("id" = Uuid, Path)), responses((status = 200, body = RawDesign)))]
#[get("/variants/{id}/design.json")]
pub async fn file(id: web::Path<Uuid>, state: web::Data<State>) -> Result<HttpResponse, ApiError> {
    let (design, _) = db::run(&state.pool, move |connection| document::variant(connection, *id)).await?;
    download_json(&design.name, &design)
}

/// The response of a variant as a table.
#[utoipa::path(operation_id = "exportResponse", tag = "documents", params(("id" = Uuid, Path), Span), responses((status = 200, body = String, content_type = "text/csv")))]
#[get("/variants/{id}/response.csv")]
pub async fn response(
    id: web::Path<Uuid>,
    span: web::Query<Span>,
    state: web::Data<State>,
) -> Result<HttpResponse, ApiError> {
    let span = span.into_inner();
    let grid = span.grid()?;
    let question = db::run(&state.pool, move |connection| {
        let (design, brief) = document::variant(connection, *id)?;
        let mut conditions = RawConditions { basis: span.basis, ..RawConditions::default() };
        for chosen in [span.preset, span.place].into_iter().flatten() {
            match document::find(connection, chosen)?.document {
                RawDocument::Preset(preset) => conditions.preset = Some(preset),
                RawDocument::Place(place) => conditions.place = Some(*place),
                _ => return Err(ApiError::NotFound { what: "preset or place" }),
            }
        }
        Ok(RawQuestion { design, brief, conditions })
    })
    .await?;
    let name = format!("{} response.csv", question.design.name);
    let table = state.compute.quick(move || -> Result<String, ApiError> {
        Ok(write_response_table(&compute(&question.resolve()?.design, &grid)?))
    });
    Ok(download(&name, "text/csv; charset=utf-8", table.await??))
}
