use actix_web::web::{Data, Payload};
use actix_web::{HttpRequest, post, web};
use oak_design::conditions::{RawBasis, RawQuestion};
use oak_design::report::Report;
use oak_design::response::FrequencyGrid;
use serde::Deserialize;
use utoipa::{IntoParams, ToSchema};
use uuid::Uuid;

use crate::body;
use crate::error::{ApiError, ProblemDocument};
use crate::state::State;

/// The frequencies and conditions to compute a table at.
#[derive(Debug, Deserialize, IntoParams)]
#[serde(deny_unknown_fields)]
pub struct Span {
    /// Lowest frequency, Hz, from 1.
    #[serde(default = "lowest")]
    #[param(default = 10.0)]
    from: f64,
    /// Highest frequency, Hz, up to 20000.
    #[serde(default = "highest")]
    #[param(default = 500.0)]
    to: f64,
    /// How many, 2 to 20000.
    #[serde(default = "points")]
    #[param(default = 600)]
    points: usize,
    /// `in_use`, as the brief of its build has it, or on the `bench`.
    #[serde(default)]
    #[param(inline)]
    pub basis: RawBasis,
    /// The document of the preset that it is played through.
    #[serde(default)]
    pub preset: Option<Uuid>,
    /// The document of the place where it is heard.
    #[serde(default)]
    pub place: Option<Uuid>,
}

fn lowest() -> f64 {
    10.0
}

fn highest() -> f64 {
    500.0
}

fn points() -> usize {
    600
}

impl Span {
    pub fn grid(&self) -> Result<FrequencyGrid, ApiError> {
        Ok(FrequencyGrid::logarithmic(self.from, self.to, self.points)?)
    }
}

/// The frequencies to compute at, and which traces to answer with.
#[derive(Debug, Deserialize, IntoParams)]
#[serde(deny_unknown_fields)]
pub struct Wanted {
    /// Lowest frequency, Hz, from 1.
    #[serde(default = "lowest")]
    #[param(default = 10.0)]
    from: f64,
    /// Highest frequency, Hz, up to 20000.
    #[serde(default = "highest")]
    #[param(default = 500.0)]
    to: f64,
    /// How many, 2 to 20000.
    #[serde(default = "points")]
    #[param(default = 600)]
    points: usize,
    /// `all`, or only those that are drawn as `lanes`.
    #[serde(default)]
    #[param(inline)]
    traces: WantedTraces,
}

/// Which traces to answer with.
#[derive(Debug, Clone, Copy, Default, PartialEq, Eq, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum WantedTraces {
    /// All there are.
    #[default]
    All,
    /// What the lanes of the interface draw: half as much.
    Lanes,
}

/// Computes a design: traces, figures and the completed driver.
#[utoipa::path(operation_id = "simulateDesign", tag = "simulate", params(Wanted), request_body = RawQuestion, responses(
    (status = 200, body = Report),
    (status = 400, body = ProblemDocument, content_type = "application/problem+json"),
    (status = 422, body = ProblemDocument, content_type = "application/problem+json"),
))]
#[post("/simulate")]
pub async fn simulate(
    request: HttpRequest,
    wanted: web::Query<Wanted>,
    payload: Payload,
    state: Data<State>,
) -> Result<web::Json<Report>, ApiError> {
    let question: RawQuestion = body::json(&request, payload).await?;
    let Wanted { from, to, points, traces } = wanted.into_inner();
    let grid = FrequencyGrid::logarithmic(from, to, points)?;
    let mut report = state
        .compute
        .quick(move || -> Result<_, ApiError> { Ok(Report::of(&question.resolve()?.design, &grid)?) })
        .await??;
    if traces == WantedTraces::Lanes {
        report.keep_what_lanes_draw();
    }
    Ok(web::Json(report))
}
