use std::net::SocketAddr;

use actix_web::web::{Data, Json, Payload};
use actix_web::{HttpRequest, HttpResponse, get, post};
use oak_design::field;
use oak_design::file::{RawTraceKind, Typed};
use oak_metering::reading::ReadMeasurement;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use crate::body;
use crate::error::{ApiError, ProblemDocument};
use crate::rig::{Asked, Rig, RigError};
use crate::routes::lines;
use crate::state::State;

/// The measuring box.
#[derive(Debug, Serialize, ToSchema)]
pub struct RigReport {
    /// What it says it is, and what stands on it.
    name: String,
    /// By its thermometer, degC.
    room: Option<f64>,
    /// Whether it only simulates a cabinet, and can be told what a builder would do to it.
    simulated: bool,
}

fn address(state: &State) -> Result<SocketAddr, ApiError> {
    state.rig.ok_or(ApiError::RigOff)
}

/// What measuring box is connected; null where none was named when the program was started.
#[utoipa::path(operation_id = "identifyRig", tag = "measure", responses(
    (status = 200, body = Option<RigReport>),
    (status = 502, body = ProblemDocument, content_type = "application/problem+json"),
))]
#[get("/measure/rig")]
pub async fn identify(state: Data<State>) -> Result<Json<Option<RigReport>>, ApiError> {
    let Some(address) = state.rig else { return Ok(Json(None)) };
    let asked = move |_: &_| -> Result<RigReport, RigError> {
        let mut rig = Rig::connect(address)?;
        let said = rig.ask("identify")?;
        let room = rig.ask("room").ok().and_then(|degrees| degrees.parse().ok());
        let name = said.splitn(3, ' ').nth(2).unwrap_or(&said).to_owned();
        Ok(RigReport { name, room, simulated: said.starts_with("oak-rig ") })
    };
    Ok(Json(Some(state.compute.long(asked).await??)))
}

/// What is swept.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct RigSweep {
    /// What is connected.
    of: RawTraceKind,
    /// On the cone.
    #[serde(default)]
    added_mass: Option<Typed>,
}

/// One line of a sweep.
#[derive(Debug, Serialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum RigLine {
    /// How many of a hundred parts are done.
    Progress(u32),
    /// The last line: what was measured.
    Found(ReadMeasurement),
    /// Instead of it: what went wrong. Nothing was kept.
    Failed(String),
}

/// How many points a measuring box sweeps.
const POINTS: usize = 400;
/// From where to where a measuring box sweeps, Hz.
const RANGE: [f64; 2] = [8.0, 800.0];

/// Sweeps with the measuring box, and tells line by line how far it is; ends early where the request is given up. Nothing is kept.
#[utoipa::path(operation_id = "sweepRig", tag = "measure", request_body = RigSweep, responses(
    (status = 200, body = RigLine, content_type = "application/x-ndjson"),
    (status = 400, body = ProblemDocument, content_type = "application/problem+json"),
    (status = 409, body = ProblemDocument, content_type = "application/problem+json"),
))]
#[post("/measure/rig/sweep")]
pub async fn sweep(
    request: HttpRequest,
    payload: Payload,
    state: Data<State>,
) -> Result<HttpResponse, ApiError> {
    let address = address(&state)?;
    let RigSweep { of, added_mass } = body::json(&request, payload).await?;
    let mass = field::MEASUREMENT_MASS.read(added_mass.as_ref());
    if of == RawTraceKind::ImpedanceMass && mass.is_none() {
        return Err(ApiError::Query { reason: "added_mass: what is stuck to the cone is needed".to_owned() });
    }
    let asked = Asked { of, mass, range: RANGE, points: POINTS };
    lines::stream(&state, move |stop, lines| {
        let mut told = |percent: u32| lines.send(&RigLine::Progress(percent));
        let found = Rig::connect(address).and_then(|mut rig| rig.sweep(&asked, stop, &mut told));
        lines.send(&match found {
            Ok(points) => RigLine::Found(ReadMeasurement {
                rows: points.len(),
                points,
                phased: true,
                form: "measuring box".to_owned(),
                harmonics: Vec::new(),
                arrives: None,
                remarks: Vec::new(),
            }),
            Err(error) => RigLine::Failed(error.to_string()),
        });
    })
    .await
}

/// What is done to the cabinet of a simulated measuring box, or goes wrong there, as one of its commands.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct RigAct {
    /// `act seal`, `act cut 12`, `act swap`, `act block 3.5`, `act break_in`, `act bypass`, `act reset`, `fault unplugged` and so on.
    #[schema(max_length = 60)]
    command: String,
}

/// Does to the cabinet of a simulated measuring box what a builder would do.
#[utoipa::path(operation_id = "actOnRig", tag = "measure", request_body = RigAct, responses(
    (status = 204),
    (status = 400, body = ProblemDocument, content_type = "application/problem+json"),
    (status = 409, body = ProblemDocument, content_type = "application/problem+json"),
    (status = 502, body = ProblemDocument, content_type = "application/problem+json"),
))]
#[post("/measure/rig/act")]
pub async fn act(
    request: HttpRequest,
    payload: Payload,
    state: Data<State>,
) -> Result<HttpResponse, ApiError> {
    let address = address(&state)?;
    let RigAct { command } = body::json(&request, payload).await?;
    let allowed = (command.starts_with("act ") || command.starts_with("fault "))
        && command.len() <= 60
        && command.bytes().all(|byte| byte.is_ascii_alphanumeric() || b" ._-".contains(&byte));
    if !allowed {
        return Err(ApiError::Query { reason: "command: begins with \"act\" or \"fault\"".to_owned() });
    }
    let done = move |_: &_| Rig::connect(address).and_then(|mut rig| rig.ask(&command));
    state.compute.long(done).await??;
    Ok(HttpResponse::NoContent().finish())
}
