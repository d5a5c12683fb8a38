use actix_web::web::{Data, Query};
use actix_web::{HttpResponse, get};
use oak_metering::sweep::{Depth, Sweep, write_wav};
use serde::Deserialize;
use utoipa::IntoParams;

use crate::error::{ApiError, ProblemDocument};
use crate::routes::download::download;
use crate::state::State;

/// A sweep.
#[derive(Debug, Clone, Copy, Deserialize, IntoParams)]
#[serde(deny_unknown_fields)]
pub struct SweepQuery {
    /// Samples a second.
    #[serde(default = "rate")]
    #[param(default = 48000)]
    pub rate: u32,
    /// How long it lasts, s.
    #[serde(default = "seconds")]
    #[param(default = 10.0)]
    pub seconds: f64,
    /// Where it begins, Hz.
    #[serde(default = "from")]
    #[param(default = 5.0)]
    pub from: f64,
    /// Where it ends, Hz.
    #[serde(default = "to")]
    #[param(default = 1000.0)]
    pub to: f64,
    /// How many bits a sample has: 16, 24 or 32; 0 for floating ones.
    #[serde(default = "bits")]
    #[param(default = 24)]
    pub bits: u32,
}

fn rate() -> u32 {
    48_000
}

pub(super) fn seconds() -> f64 {
    10.0
}

pub(super) fn from() -> f64 {
    5.0
}

pub(super) fn to() -> f64 {
    1000.0
}

fn bits() -> u32 {
    24
}

/// An exponential sweep to measure with, as a WAV file (Farina 2000).
#[utoipa::path(operation_id = "writeSweep", tag = "measure", params(SweepQuery), responses(
    (status = 200, description = "The file", content_type = "audio/wav", body = Vec<u8>),
    (status = 400, body = ProblemDocument, content_type = "application/problem+json"),
    (status = 422, body = ProblemDocument, content_type = "application/problem+json"),
))]
#[get("/measure/sweep")]
pub async fn sweep(query: Query<SweepQuery>, state: Data<State>) -> Result<HttpResponse, ApiError> {
    let SweepQuery { rate, seconds, from, to, bits } = *query;
    let depth = match bits {
        16 => Depth::Bits16,
        24 => Depth::Bits24,
        32 => Depth::Bits32,
        0 => Depth::Float,
        other => {
            return Err(ApiError::Query { reason: format!("bits {other}: 16, 24, 32 and 0 are allowed") });
        }
    };
    let sweep = Sweep::new(rate, seconds, from, to)?;
    let bytes = state.compute.long(move |_| write_wav(rate, &sweep.samples(), depth)).await?;
    Ok(download(&format!("sweep {from:.0} to {to:.0} Hz, {seconds:.0} s.wav"), "audio/wav", bytes))
}
