use actix_web::web::{Data, Payload};
use actix_web::{HttpRequest, post, web};
use oak_design::conditions::RawQuestion;
use oak_design::transient::{Played, TransientReport, excitation};
use serde::Deserialize;
use utoipa::IntoParams;

use crate::body;
use crate::error::{ApiError, ProblemDocument};
use crate::state::State;

/// What is played.
#[derive(Debug, Deserialize, IntoParams)]
#[serde(deny_unknown_fields)]
pub struct Tone {
    /// A step or a tone burst.
    #[param(inline)]
    play: Played,
    /// Frequency of a burst, Hz, 5 to 500.
    #[serde(default = "frequency")]
    #[param(default = 40.0)]
    frequency: f64,
    /// Cycles of a burst, from 1 to what fits into 0.4 s.
    #[serde(default = "cycles")]
    #[param(default = 5.0)]
    cycles: f64,
}

fn frequency() -> f64 {
    40.0
}

fn cycles() -> f64 {
    5.0
}

/// What is heard of a step or of a tone burst, band-limited.
#[utoipa::path(operation_id = "computeTransient", tag = "transient", params(Tone), request_body = RawQuestion, responses(
    (status = 200, body = TransientReport),
    (status = 400, body = ProblemDocument, content_type = "application/problem+json"),
    (status = 422, body = ProblemDocument, content_type = "application/problem+json"),
))]
#[post("/transient")]
pub async fn transient(
    request: HttpRequest,
    tone: web::Query<Tone>,
    payload: Payload,
    state: Data<State>,
) -> Result<web::Json<TransientReport>, ApiError> {
    let question: RawQuestion = body::json(&request, payload).await?;
    let resolved = question.resolve()?.design;
    let excitation = excitation(tone.play, tone.frequency, tone.cycles)?;
    Ok(web::Json(state.compute.quick(move || TransientReport::of(&resolved, excitation)).await??))
}
