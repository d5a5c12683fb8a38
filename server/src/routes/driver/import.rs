use actix_web::web::{Data, Json, Payload, Query};
use actix_web::{HttpRequest, post};
use oak_design::exchange::{ColumnChoice, ImportAsk, ImportReport, read_drivers};
use oak_design::file::read_json;
use serde::Deserialize;
use utoipa::{IntoParams, ToSchema};

use crate::body;
use crate::db;
use crate::db::queries::{driver, library};
use crate::error::{ApiError, ProblemDocument};
use crate::state::State;

/// What becomes of a file.
#[derive(Debug, Clone, Copy, Default, PartialEq, Eq, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Take {
    /// Every row, or none where any has a problem.
    #[default]
    All,
    /// The rows without a problem.
    Good,
    /// Nothing; it is only read and reported.
    Look,
}

/// How a file is imported.
#[derive(Debug, Deserialize, IntoParams)]
#[serde(deny_unknown_fields)]
pub struct Import {
    /// What becomes of it.
    #[serde(default)]
    #[param(inline)]
    take: Take,
    /// What each column holds, a JSON list of `{"field": "vas", "unit": "l"}`; guessed where absent.
    columns: Option<String>,
}

/// Imports drivers from a table or from JSON.
#[utoipa::path(operation_id = "importDrivers", tag = "drivers", params(Import), request_body(content = String, content_type = "text/csv"), responses(
    (status = 200, body = ImportReport),
    (status = 422, body = ProblemDocument, content_type = "application/problem+json"),
))]
#[post("/drivers/import")]
pub async fn import(
    request: HttpRequest,
    asked: Query<Import>,
    payload: Payload,
    state: Data<State>,
) -> Result<Json<ImportReport>, ApiError> {
    let columns = asked.columns.as_ref().map(|text| read_json::<Vec<ColumnChoice>>(text.as_bytes()));
    let ask = ImportAsk { columns: columns.transpose()?, skip_bad: asked.take != Take::All };
    let look = asked.take == Take::Look;
    let bytes = body::table(&request, payload).await?;
    let skip_bad = ask.skip_bad;
    let (drivers, mut report) = state.compute.long(move |_| read_drivers(&bytes, &ask)).await??;
    let report = db::run(&state.pool, move |connection| {
        if look {
            report.imported = 0;
            report.alike = library::alike_rows(connection, &drivers)?;
            return Ok(report);
        }
        if report.problem_count > 0 && !skip_bad {
            return Err(ApiError::Rows(Box::new(report)));
        }
        driver::add(connection, &drivers)?;
        Ok(report)
    });
    Ok(Json(report.await?))
}
