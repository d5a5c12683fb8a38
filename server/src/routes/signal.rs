//! What comes before the drivers.

use actix_web::web::{Data, Json, Payload, Query};
use actix_web::{Either, HttpRequest, HttpResponse, get, post};
use oak_design::conditions::RawQuestion;
use oak_planning::signal::{
    BiquadFailure, BiquadSheet, CrossoverReport, SignalReport, biquads, crossover, signal as report,
};
use oak_signal::amplifier::{AMPLIFIER_KINDS, AmplifierKind};
use serde::Deserialize;
use utoipa::{IntoParams, ToSchema};

use super::download::download;
use crate::body;
use crate::error::{ApiError, ProblemDocument};
use crate::state::State;

/// Reports on filters, amplifier and passive parts of a design, and proposes filters that would help.
#[utoipa::path(operation_id = "reportSignal", tag = "signal", request_body = RawQuestion, responses(
    (status = 200, body = SignalReport),
    (status = 400, body = ProblemDocument, content_type = "application/problem+json"),
    (status = 422, body = ProblemDocument, content_type = "application/problem+json"),
))]
#[post("/signal")]
pub async fn signal(
    request: HttpRequest,
    payload: Payload,
    state: Data<State>,
) -> Result<Json<SignalReport>, ApiError> {
    let question: RawQuestion = body::json(&request, payload).await?;
    Ok(Json(state.compute.quick(move || report(&question)).await??))
}

/// How the sub and the main loudspeakers add up, and with which delay and polarity best.
#[utoipa::path(operation_id = "alignCrossover", tag = "signal", request_body = RawQuestion, responses(
    (status = 200, body = CrossoverReport),
    (status = 400, body = ProblemDocument, content_type = "application/problem+json"),
    (status = 422, body = ProblemDocument, content_type = "application/problem+json"),
))]
#[post("/signal/crossover")]
pub async fn signal_crossover(
    request: HttpRequest,
    payload: Payload,
    state: Data<State>,
) -> Result<Json<CrossoverReport>, ApiError> {
    let question: RawQuestion = body::json(&request, payload).await?;
    Ok(Json(state.compute.quick(move || crossover(&question)).await??))
}

/// How biquads are wanted.
#[derive(Debug, Deserialize, IntoParams)]
#[serde(deny_unknown_fields)]
pub struct BiquadQuery {
    /// Samples a second, 8000 to 768000.
    sample_rate: f64,
    /// As a document or as a table.
    #[serde(default)]
    #[param(inline)]
    format: BiquadFormat,
}

/// Form of an answer.
#[derive(Debug, Clone, Copy, Default, PartialEq, Eq, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum BiquadFormat {
    /// JSON.
    #[default]
    Json,
    /// A table with a line a section.
    Csv,
}

const SAMPLE_RATES: std::ops::RangeInclusive<f64> = 8000.0..=768_000.0;

/// The filters of a design as biquads.
#[utoipa::path(operation_id = "exportBiquads", tag = "signal", params(BiquadQuery), request_body = RawQuestion, responses(
    (status = 200, content((BiquadSheet = "application/json"), (String = "text/csv"))),
    (status = 400, body = ProblemDocument, content_type = "application/problem+json"),
    (status = 422, body = ProblemDocument, content_type = "application/problem+json"),
))]
#[post("/signal/biquads")]
pub async fn signal_biquads(
    request: HttpRequest,
    query: Query<BiquadQuery>,
    payload: Payload,
) -> Result<Either<Json<BiquadSheet>, HttpResponse>, ApiError> {
    let BiquadQuery { sample_rate, format } = query.into_inner();
    if !SAMPLE_RATES.contains(&sample_rate) {
        let [low, high] = [SAMPLE_RATES.start(), SAMPLE_RATES.end()];
        let reason = format!("sample_rate {sample_rate} is outside {low} to {high} samples a second");
        return Err(ApiError::Query { reason });
    }
    let question: RawQuestion = body::json(&request, payload).await?;
    let sheet = biquads(question.filters(), sample_rate).map_err(|failure| match failure {
        BiquadFailure::Problems(problems) => ApiError::Problems(problems),
        BiquadFailure::Sampling(error) => ApiError::Biquad(error),
    })?;
    Ok(match format {
        BiquadFormat::Json => Either::Left(Json(sheet)),
        BiquadFormat::Csv => {
            let name = format!("{}, biquads at {sample_rate} Hz.csv", question.design.name);
            Either::Right(download(&name, "text/csv; charset=utf-8", sheet.csv()))
        }
    })
}

/// Kinds of amplifiers to begin with.
#[utoipa::path(operation_id = "listAmplifierKinds", tag = "signal", responses((status = 200, body = Vec<AmplifierKind>)))]
#[get("/amplifier-kinds")]
pub async fn amplifier_kinds() -> Json<&'static [AmplifierKind]> {
    Json(AMPLIFIER_KINDS)
}
