//! What is cut.

use actix_web::web::{Data, Json, Payload, Query};
use actix_web::{Either, HttpRequest, HttpResponse, post};
use oak_design::conditions::RawQuestion;
use oak_design::report::CutReport;
use oak_planning::cut::{cut, cut_list};
use serde::Deserialize;
use utoipa::{IntoParams, ToSchema};

use super::download::download;
use crate::body;
use crate::error::{ApiError, ProblemDocument};
use crate::state::State;

/// How the boards are wanted.
#[derive(Debug, Deserialize, IntoParams)]
#[serde(deny_unknown_fields)]
pub struct CutQuery {
    /// As a document, or as a list for the saw.
    #[serde(default)]
    #[param(inline)]
    format: CutFormat,
}

/// Form of an answer.
#[derive(Debug, Clone, Copy, Default, PartialEq, Eq, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum CutFormat {
    /// JSON.
    #[default]
    Json,
    /// A table with a line a board.
    Csv,
}

/// The boards of a design as they are cut; null where it has no box.
#[utoipa::path(operation_id = "cutPanels", tag = "cut", params(CutQuery), request_body = RawQuestion, responses(
    (status = 200, content((Option<CutReport> = "application/json"), (String = "text/csv"))),
    (status = 400, body = ProblemDocument, content_type = "application/problem+json"),
    (status = 422, body = ProblemDocument, content_type = "application/problem+json"),
))]
#[post("/cut/panels")]
pub async fn panels(
    request: HttpRequest,
    query: Query<CutQuery>,
    payload: Payload,
    state: Data<State>,
) -> Result<Either<Json<Option<CutReport>>, HttpResponse>, ApiError> {
    let question: RawQuestion = body::json(&request, payload).await?;
    let name = format!("{}, cut list.csv", question.design.name);
    let report = state.compute.quick(move || cut(&question)).await??;
    Ok(match query.format {
        CutFormat::Json => Either::Left(Json(report)),
        CutFormat::Csv => {
            let table = report.as_ref().map(cut_list).unwrap_or_default();
            Either::Right(download(&name, "text/csv; charset=utf-8", table))
        }
    })
}
