//! Where a build is listened to.

use actix_web::web::{Data, Json, Path, Payload, Query};
use actix_web::{HttpRequest, HttpResponse, get, post};
use oak_design::conditions::RawQuestion;
use oak_planning::place::{BestPlaces, LevelMap, PlaceReport, RawPlaceSearch, level_map, place as report};
use serde::{Deserialize, Serialize};
use utoipa::{IntoParams, ToSchema};
use uuid::Uuid;

use crate::body;
use crate::db::best_places::ID;
use crate::db::documents::{from_value, to_value};
use crate::db::queries::job;
use crate::db::{self, rows};
use crate::error::{ApiError, ProblemDocument};
use crate::jobs::{self, BEST_PLACES};
use crate::state::State;

/// Reports on a design where it is listened to: the place of its conditions.
#[utoipa::path(operation_id = "reportPlace", tag = "places", request_body = RawQuestion, responses(
    (status = 200, body = PlaceReport),
    (status = 400, body = ProblemDocument, content_type = "application/problem+json"),
    (status = 422, body = ProblemDocument, content_type = "application/problem+json"),
))]
#[post("/place")]
pub async fn place(
    request: HttpRequest,
    payload: Payload,
    state: Data<State>,
) -> Result<Json<PlaceReport>, ApiError> {
    let question: RawQuestion = body::json(&request, payload).await?;
    Ok(Json(state.compute.quick(move || report(&question)).await??))
}

/// Which frequency is looked at.
#[derive(Debug, Deserialize, IntoParams)]
#[serde(deny_unknown_fields)]
pub struct MapQuery {
    /// Hz, 10 to 200.
    frequency: f64,
}

/// How loud one frequency is everywhere in a place.
#[utoipa::path(operation_id = "mapPlace", tag = "places", params(MapQuery), request_body = RawQuestion, responses(
    (status = 200, body = LevelMap),
    (status = 400, body = ProblemDocument, content_type = "application/problem+json"),
    (status = 422, body = ProblemDocument, content_type = "application/problem+json"),
))]
#[post("/place/map")]
pub async fn place_map(
    request: HttpRequest,
    query: Query<MapQuery>,
    payload: Payload,
    state: Data<State>,
) -> Result<Json<LevelMap>, ApiError> {
    let MapQuery { frequency } = query.into_inner();
    let [low, high] = oak_design::heard::SPAN;
    if !(low..=high).contains(&frequency) {
        let reason = format!("frequency {frequency} is outside {low} to {high} Hz");
        return Err(ApiError::Query { reason });
    }
    let question: RawQuestion = body::json(&request, payload).await?;
    Ok(Json(state.compute.quick(move || level_map(&question, frequency)).await??))
}

/// What is placed where.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct BestPlacesAsk {
    /// The design in its place.
    question: RawQuestion,
    /// How many cabinets are placed: 1 or 2.
    #[schema(minimum = 1, maximum = 2)]
    cabinets: u32,
}

/// A search for places, and what it has come to so far.
#[derive(Debug, Serialize, ToSchema)]
pub struct PlaceSearch {
    /// How it stands.
    job: rows::Job,
    /// What was asked.
    asked: RawPlaceSearch,
    /// The best so far.
    best: BestPlaces,
}

impl PlaceSearch {
    fn of(job: rows::Job) -> Result<Self, ApiError> {
        let asked = from_value("input", job.input.clone())?;
        let best = job.result.clone().map(|result| from_value("result", result)).transpose()?;
        Ok(Self { job, asked, best: best.unwrap_or_default() })
    }
}

/// Starts to look for the places from which a build plays most evenly, instead of what was found before; workers carry it out.
#[utoipa::path(operation_id = "startBestPlaces", tag = "places", params(("id" = Uuid, Path)), request_body = BestPlacesAsk, responses(
    (status = 202, body = PlaceSearch),
    (status = 404, body = ProblemDocument, content_type = "application/problem+json"),
    (status = 409, body = ProblemDocument, content_type = "application/problem+json"),
    (status = 422, body = ProblemDocument, content_type = "application/problem+json"),
))]
#[post("/builds/{id}/best-places")]
pub async fn start_best_places(
    id: Path<Uuid>,
    request: HttpRequest,
    payload: Payload,
    state: Data<State>,
) -> Result<HttpResponse, ApiError> {
    let BestPlacesAsk { question, cabinets } = body::json(&request, payload).await?;
    if !(1..=2).contains(&cabinets) {
        return Err(ApiError::Query { reason: format!("cabinets {cabinets} is outside 1 to 2") });
    }
    let search = state.compute.quick(move || RawPlaceSearch::of(&question, cabinets)).await??;
    search.candidates()?;
    let input = to_value(&search)?;
    let started =
        db::run(&state.pool, move |connection| jobs::start(connection, &BEST_PLACES, *id, &input)).await?;
    Ok(HttpResponse::Accepted().json(PlaceSearch::of(started)?))
}

/// The newest search for places of a build; null where there has been none.
#[utoipa::path(operation_id = "readBestPlacesOfBuild", tag = "places", params(("id" = Uuid, Path)), responses(
    (status = 200, body = Option<PlaceSearch>),
    (status = 503, body = ProblemDocument, content_type = "application/problem+json"),
))]
#[get("/builds/{id}/best-places")]
pub async fn best_places_of_build(
    id: Path<Uuid>,
    state: Data<State>,
) -> Result<Json<Option<PlaceSearch>>, ApiError> {
    let found = db::run(&state.pool, move |connection| job::of_build(connection, ID, *id)).await?;
    Ok(Json(found.map(PlaceSearch::of).transpose()?))
}
