//! Links to the pages for phones.

use actix_web::web::{Data, Json, Path, Payload};
use actix_web::{HttpRequest, HttpResponse, get, post};
use qrcode::{Color, EcLevel, QrCode};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;
use uuid::Uuid;

use crate::companion::{Companion, Secret};
use crate::db::queries::companion::{self, CompanionLink, Purpose};
use crate::error::{ApiError, ProblemDocument};
use crate::state::State;
use crate::{body, db};

/// Whether phones can open pages, and the links of a build to them.
#[derive(Debug, Serialize, ToSchema)]
pub struct Companions {
    /// Where the listener for phones is; absent while it is off.
    address: Option<String>,
    /// SHA-256 of its certificate, as phones show it.
    fingerprint: Option<String>,
    /// The latest links.
    links: Vec<CompanionLink>,
}

/// What a link is for.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct NewCompanionLink {
    /// The variant that its page is about.
    variant: Uuid,
    /// What its page is for.
    purpose: Purpose,
}

/// A link that was made; its address is told this once.
#[derive(Debug, Serialize, ToSchema)]
pub struct MadeCompanionLink {
    /// How it stands.
    link: CompanionLink,
    /// What a phone opens.
    url: String,
    /// The same as a QR code: a row a text, `1` where it is dark.
    code: Vec<String>,
}

fn on(state: &State) -> Option<&Companion> {
    state.companion.as_deref().filter(|companion| companion.running())
}

/// Whether phones can open pages, and the latest links of a build.
#[utoipa::path(operation_id = "listCompanionLinks", tag = "companion", params(("id" = Uuid, Path)), responses(
    (status = 200, body = Companions),
    (status = 503, body = ProblemDocument, content_type = "application/problem+json"),
))]
#[get("/builds/{id}/companion-links")]
pub async fn companion_links(id: Path<Uuid>, state: Data<State>) -> Result<Json<Companions>, ApiError> {
    let links = db::run(&state.pool, move |connection| companion::of_build(connection, *id)).await?;
    let on = on(&state);
    Ok(Json(Companions {
        address: on.map(Companion::origin),
        fingerprint: on.map(|companion| companion.fingerprint.clone()),
        links,
    }))
}

/// Makes a link that a phone can open once, within ten minutes.
#[utoipa::path(operation_id = "makeCompanionLink", tag = "companion", params(("id" = Uuid, Path)), request_body = NewCompanionLink, responses(
    (status = 201, body = MadeCompanionLink),
    (status = 404, body = ProblemDocument, content_type = "application/problem+json"),
    (status = 409, body = ProblemDocument, content_type = "application/problem+json"),
))]
#[post("/builds/{id}/companion-links")]
pub async fn make_companion_link(
    id: Path<Uuid>,
    request: HttpRequest,
    payload: Payload,
    state: Data<State>,
) -> Result<HttpResponse, ApiError> {
    let NewCompanionLink { variant, purpose } = body::json(&request, payload).await?;
    let origin = on(&state).ok_or(ApiError::CompanionOff)?.origin();
    let token = Secret::new().map_err(ApiError::internal)?;
    let hash = token.hash();
    let made = move |connection: &mut _| companion::add(connection, *id, variant, purpose, &hash);
    let link = db::run(&state.pool, made).await?;
    // What follows # never leaves the phone with a request, nor stands in a log.
    let url = format!("{origin}/#{}", token.text());
    let code = QrCode::with_error_correction_level(&url, EcLevel::M).map_err(ApiError::internal)?;
    let dark: Vec<bool> = code.to_colors().iter().map(|colour| *colour == Color::Dark).collect();
    let row = |row: &[bool]| row.iter().map(|dark| if *dark { '1' } else { '0' }).collect();
    let code = dark.chunks(code.width()).map(row).collect();
    Ok(HttpResponse::Created().json(MadeCompanionLink { link, url, code }))
}

/// Takes a link back, whether or not a phone has opened it.
#[utoipa::path(operation_id = "revokeCompanionLink", tag = "companion", params(("id" = Uuid, Path)), responses(
    (status = 200, body = CompanionLink),
    (status = 404, body = ProblemDocument, content_type = "application/problem+json"),
))]
#[post("/companion-links/{id}/revoke")]
pub async fn revoke_companion_link(
    id: Path<Uuid>,
    state: Data<State>,
) -> Result<Json<CompanionLink>, ApiError> {
    Ok(Json(db::run(&state.pool, move |connection| companion::revoke(connection, *id)).await?))
}
