use actix_web::{HttpResponse, get, web};
use oak_design::conditions::RawQuestion;
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
    let (design, brief) = db::run(&state.pool, move |connection| document::variant(connection, *id)).await?;
    let grid = span.grid()?;
    let name = format!("{} response.csv", design.name);
    let question = RawQuestion { design, brief, conditions: span.conditions };
    let table = state.compute.quick(move || -> Result<String, ApiError> {
        Ok(write_response_table(&compute(&question.resolve()?.design, &grid)?))
    });
    Ok(download(&name, "text/csv; charset=utf-8", table.await??))
}
