//! The steps of a build on a phone: read, ticked, and nothing else.

use actix_web::cookie::{Cookie, SameSite};
use actix_web::web::{Data, Json, Payload};
use actix_web::{HttpRequest, HttpResponse, get, post};
use oak_design::file::RawTick;
use oak_planning::build_plan::{StepsOnPhone, ToldStep, build_plan};
use serde::Deserialize;

use super::guard::{COOKIE, visit};
use super::secret::Secret;
use super::state::CompanionState;
use crate::db::queries::companion::{self, Purpose};
use crate::error::ApiError;
use crate::{body, db};

#[derive(Deserialize)]
#[serde(deny_unknown_fields)]
struct Join {
    token: String,
}

/// Swaps what stands in a link for a cookie, once.
#[post("/join")]
pub async fn join(
    request: HttpRequest,
    payload: Payload,
    state: Data<CompanionState>,
) -> Result<HttpResponse, ApiError> {
    state.joins.check()?;
    let Join { token } = body::small_json(&request, payload).await?;
    let session = Secret::new().map_err(ApiError::internal)?;
    let (kept, cookie) = (session.hash(), session.text().to_owned());
    let joined = match Secret::read(&token) {
        Some(token) => {
            db::run(&state.pool, move |connection| companion::join(connection, &token.hash(), &kept)).await
        }
        None => Err(ApiError::NotJoined),
    };
    let left = joined.inspect_err(|_| state.joins.failed())?;
    state.companion.touch();
    let cookie = Cookie::build(COOKIE, cookie)
        .path("/")
        .secure(true)
        .http_only(true)
        .same_site(SameSite::Strict)
        .max_age(actix_web::cookie::time::Duration::seconds(left))
        .finish();
    Ok(HttpResponse::NoContent().cookie(cookie).finish())
}

/// The steps as they stand.
#[get("/steps")]
pub async fn read(request: HttpRequest, state: Data<CompanionState>) -> Result<Json<StepsOnPhone>, ApiError> {
    let visit = visit(&request, &state, Purpose::Steps).await?;
    let asked = db::run(&state.pool, move |connection| companion::question(connection, &visit)).await?;
    let (build, variant) = (asked.build, asked.question.question.design.name.clone());
    let ticks = asked.question.progress.ticks.clone();
    let plan = state.compute.quick(move || build_plan(&asked.question)).await??;
    let plan = plan.ok_or(ApiError::NotFound { what: "box to build in this kind of cabinet" })?;
    Ok(Json(StepsOnPhone::of(build, variant, plan, ticks)))
}

#[derive(Deserialize)]
#[serde(deny_unknown_fields)]
struct Told {
    steps: Vec<ToldStep>,
}

/// Takes over what became of steps; returns what is known of all.
#[post("/ticks")]
pub async fn write(
    request: HttpRequest,
    payload: Payload,
    state: Data<CompanionState>,
) -> Result<Json<Vec<RawTick>>, ApiError> {
    let visit = visit(&request, &state, Purpose::Steps).await?;
    let Told { steps } = body::small_json(&request, payload).await?;
    if steps.len() > companion::MOST_TOLD {
        return Err(ApiError::Quota { most: companion::MOST_TOLD as i32, what: "steps at once" });
    }
    Ok(Json(db::run(&state.pool, move |connection| companion::tell(connection, &visit, &steps)).await?))
}
