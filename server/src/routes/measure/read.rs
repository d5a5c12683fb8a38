use actix_web::web::{Data, Json, Payload, Query};
use actix_web::{HttpRequest, post};
use oak_design::file::RawTraceKind;
use oak_design::problem::Problem;
use oak_metering::reading::{Calibration, ReadMeasurement, Take, read_recording, read_trace};
use oak_metering::sweep::{Sweep, read_wav};
use serde::Deserialize;
use utoipa::IntoParams;

use super::sweep::{from, seconds, to};
use crate::body::{self, Measured};
use crate::db;
use crate::db::queries::recording as kept;
use crate::error::{ApiError, ProblemDocument};
use crate::state::State;

/// What a file is, and of a recording what was played.
#[derive(Debug, Clone, Deserialize, IntoParams)]
#[serde(deny_unknown_fields)]
pub struct ReadQuery {
    /// What was measured.
    #[param(inline)]
    of: RawTraceKind,
    /// What the file is called.
    #[serde(default)]
    file: String,
    /// The microphone's calibration, by the hash of a text that was kept.
    #[serde(default)]
    calibration: Option<String>,
    /// Of a recording: how long the sweep lasts, s.
    #[serde(default = "seconds")]
    seconds: f64,
    /// Where it begins, Hz.
    #[serde(default = "from")]
    from: f64,
    /// Where it ends, Hz.
    #[serde(default = "to")]
    to: f64,
    /// Of a jig: the resistor between its two channels, ohm.
    #[serde(default)]
    resistor: Option<f64>,
    /// After so long the response is cut off, s; not at all where absent.
    #[serde(default)]
    gate: Option<f64>,
}

/// Reads a trace from a text, whatever its columns, or from a recording of the sweep. Nothing is kept.
#[utoipa::path(operation_id = "readMeasurement", tag = "measure", params(ReadQuery), request_body(content = Vec<u8>, content_type = "text/plain"), responses(
    (status = 200, body = ReadMeasurement),
    (status = 400, body = ProblemDocument, content_type = "application/problem+json"),
    (status = 404, body = ProblemDocument, content_type = "application/problem+json"),
    (status = 413, body = ProblemDocument, content_type = "application/problem+json"),
    (status = 415, body = ProblemDocument, content_type = "application/problem+json"),
    (status = 422, body = ProblemDocument, content_type = "application/problem+json"),
))]
#[post("/measure/read")]
pub async fn read(
    request: HttpRequest,
    query: Query<ReadQuery>,
    payload: Payload,
    state: Data<State>,
) -> Result<Json<ReadMeasurement>, ApiError> {
    let query = query.into_inner();
    for (name, value, range) in
        [("resistor", query.resistor, 0.1..=10_000.0), ("gate", query.gate, 1e-3..=2.0)]
    {
        if value.is_some_and(|value| !range.contains(&value)) {
            let (value, [low, high]) = (value.unwrap_or_default(), [range.start(), range.end()]);
            return Err(ApiError::Query { reason: format!("{name} {value} is outside {low} to {high}") });
        }
    }
    let body = body::measured(&request, payload).await?;
    let calibration = match query.calibration.clone() {
        None => None,
        Some(hash) => Some(db::run(&state.pool, move |connection| kept::find(connection, &hash)).await?),
    };
    let read = move || -> Result<ReadMeasurement, Vec<Problem>> {
        let one = |problem| vec![problem];
        let file = if query.file.is_empty() { "file" } else { query.file.as_str() };
        let mut read = match &body {
            Measured::Text(bytes) => read_trace(query.of, file, bytes).map_err(one)?,
            Measured::Wav(bytes) => {
                let recording = read_wav(file, bytes).map_err(one)?;
                let sweep = Sweep::new(recording.rate, query.seconds, query.from, query.to)?;
                let take = Take { sweep, resistor: query.resistor, gate: query.gate };
                read_recording(query.of, file, &recording, &take).map_err(one)?
            }
        };
        if let Some(calibration) = &calibration
            && !query.of.is_impedance()
        {
            Calibration::read("calibration", calibration).map_err(one)?.taken_out(&mut read.points);
        }
        Ok(read)
    };
    Ok(Json(state.compute.long(move |_| read()).await??))
}
