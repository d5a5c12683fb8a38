//! Traces that were measured.

use actix_web::web::{Data, Json, Payload};
use actix_web::{HttpRequest, post};
use oak_design::exchange::{TraceUnit, read_trace_text};
use oak_design::file::MOST_TRACE_POINTS;
use oak_design::problem::{Problem, ProblemKind};
use serde::Serialize;
use utoipa::ToSchema;

use crate::body;
use crate::error::{ApiError, ProblemDocument};
use crate::state::State;

/// A trace of levels as it was understood.
#[derive(Debug, Serialize, ToSchema)]
pub struct ReadTrace {
    /// Frequency in Hz, level in dB, phase in degrees; at most 2000 of them, evenly over the octaves.
    points: Vec<[f64; 3]>,
    /// How many rows the text has.
    rows: usize,
    /// Whether it has a phase; 0 stands for it otherwise.
    phase: bool,
    /// What the magnitude was in.
    unit: TraceUnit,
    /// What was between the numbers, and how decimals were written.
    form: String,
    /// What was found out of order, left out or taken for granted.
    notes: Vec<String>,
}

/// Reads a trace of levels from text, whatever its columns. Nothing is kept.
#[utoipa::path(operation_id = "readTrace", tag = "traces", request_body(content = String, content_type = "text/plain"), responses(
    (status = 200, body = ReadTrace),
    (status = 413, body = ProblemDocument, content_type = "application/problem+json"),
    (status = 415, body = ProblemDocument, content_type = "application/problem+json"),
    (status = 422, body = ProblemDocument, content_type = "application/problem+json"),
))]
#[post("/traces/read")]
pub async fn read_trace(
    request: HttpRequest,
    payload: Payload,
    state: Data<State>,
) -> Result<Json<ReadTrace>, ApiError> {
    let text = body::text(&request, payload).await?;
    let read = move || -> Result<ReadTrace, Vec<Problem>> {
        let found = read_trace_text(&text).map_err(|problem| vec![problem])?;
        let points = found.levels(MOST_TRACE_POINTS).ok_or_else(|| {
            let reason = "it is an impedance, not a level".to_owned();
            vec![Problem::new("text", ProblemKind::Unshapeable { reason })]
        })?;
        let (rows, phase) = (found.frequency.len(), found.phase.is_some());
        Ok(ReadTrace { points, rows, phase, unit: found.unit, form: found.form, notes: found.notes })
    };
    Ok(Json(state.compute.quick(read).await??))
}
