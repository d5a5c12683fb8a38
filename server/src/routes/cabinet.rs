use super::drawing_file::{DrawingFormat, drawing_file};
use super::lines;
use crate::body;
use crate::error::{ApiError, FieldError, ProblemDocument};
use crate::state::State;
use actix_web::web::{Data, Json, Payload, Query};
use actix_web::{HttpRequest, HttpResponse, post};
use oak_cabinetry::drawing::View;
use oak_design::cavity_check::{CavityCheckReport, CavityModel};
use oak_design::conditions::RawQuestion;
use oak_design::exchange::{KitReading, RawKit};
use oak_design::file::RawDesign;
use oak_design::report::{BodyReport, FoldOffer, ModelReport};
use oak_planning::{self as planning, FiringReport, PanelsReport};
use serde::{Deserialize, Serialize};
use utoipa::{IntoParams, ToSchema};

/// The box of a design: sizes, ledger, boards, standing waves and what does not fit; nothing where the cabinet has none.
#[utoipa::path(operation_id = "buildCabinet", tag = "cabinet", request_body = RawQuestion, responses(
    (status = 200, body = Option<BodyReport>),
    (status = 400, body = ProblemDocument, content_type = "application/problem+json"),
    (status = 422, body = ProblemDocument, content_type = "application/problem+json"),
))]
#[post("/cabinet")]
pub async fn cabinet(
    request: HttpRequest,
    payload: Payload,
    state: Data<State>,
) -> Result<Json<Option<BodyReport>>, ApiError> {
    let question: RawQuestion = body::json(&request, payload).await?;
    Ok(Json(state.compute.quick(move || planning::cabinet(&question)).await??))
}

/// What would stiffen the boards: braces, and other materials; nothing where the cabinet has no box.
#[utoipa::path(operation_id = "listPanels", tag = "cabinet", request_body = RawQuestion, responses(
    (status = 200, body = Option<PanelsReport>),
    (status = 400, body = ProblemDocument, content_type = "application/problem+json"),
    (status = 422, body = ProblemDocument, content_type = "application/problem+json"),
))]
#[post("/cabinet/panels")]
pub async fn panels(
    request: HttpRequest,
    payload: Payload,
    state: Data<State>,
) -> Result<Json<Option<PanelsReport>>, ApiError> {
    let question: RawQuestion = body::json(&request, payload).await?;
    Ok(Json(state.compute.long(move |stop| planning::panels(&question, stop)).await??))
}

/// The design firing forward, up and down, each time in the largest box that the place leaves; empty where it is folded or has no box.
#[utoipa::path(operation_id = "compareFirings", tag = "cabinet", request_body = RawQuestion, responses(
    (status = 200, body = Vec<FiringReport>),
    (status = 400, body = ProblemDocument, content_type = "application/problem+json"),
    (status = 422, body = ProblemDocument, content_type = "application/problem+json"),
))]
#[post("/cabinet/firings")]
pub async fn firings(
    request: HttpRequest,
    payload: Payload,
    state: Data<State>,
) -> Result<Json<Vec<FiringReport>>, ApiError> {
    let question: RawQuestion = body::json(&request, payload).await?;
    Ok(Json(state.compute.long(move |stop| planning::firings(&question, stop)).await??))
}

/// The way of a line or horn with other numbers of folds; empty where there is none.
#[utoipa::path(operation_id = "listFolds", tag = "cabinet", request_body = RawQuestion, responses(
    (status = 200, body = Vec<FoldOffer>),
    (status = 400, body = ProblemDocument, content_type = "application/problem+json"),
    (status = 422, body = ProblemDocument, content_type = "application/problem+json"),
))]
#[post("/cabinet/folds")]
pub async fn folds(
    request: HttpRequest,
    payload: Payload,
    state: Data<State>,
) -> Result<Json<Vec<FoldOffer>>, ApiError> {
    let question: RawQuestion = body::json(&request, payload).await?;
    Ok(Json(state.compute.long(move |stop| planning::folds(&question, stop)).await??))
}

/// The box of a design in three dimensions; nothing where the cabinet has none.
#[utoipa::path(operation_id = "modelCabinet", tag = "cabinet", request_body = RawDesign, responses(
    (status = 200, body = Option<ModelReport>),
    (status = 400, body = ProblemDocument, content_type = "application/problem+json"),
    (status = 422, body = ProblemDocument, content_type = "application/problem+json"),
))]
#[post("/cabinet/model")]
pub async fn cabinet_model(
    request: HttpRequest,
    payload: Payload,
    state: Data<State>,
) -> Result<Json<Option<ModelReport>>, ApiError> {
    let design: RawDesign = body::json(&request, payload).await?;
    Ok(Json(state.compute.quick(move || planning::model(&design)).await??))
}

/// Which drawing, and as what.
#[derive(Debug, Deserialize, IntoParams)]
#[serde(deny_unknown_fields)]
pub struct WantedDrawing {
    /// `side`, `front`, `plan` or `exploded`.
    #[param(inline)]
    view: WantedView,
    /// `svg` or `dxf`.
    #[param(inline)]
    format: DrawingFormat,
}

/// A view.
#[derive(Debug, Clone, Copy, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum WantedView {
    /// Section through the middle.
    Side,
    /// From the front.
    Front,
    /// From above.
    Plan,
    /// Boards apart.
    Exploded,
}

/// A drawing of the box at full size, in mm, as a file.
#[utoipa::path(operation_id = "drawCabinet", tag = "cabinet", params(WantedDrawing), request_body = RawDesign, responses(
    (status = 200, description = "The file", content_type = "image/svg+xml", body = String),
    (status = 400, body = ProblemDocument, content_type = "application/problem+json"),
    (status = 404, body = ProblemDocument, content_type = "application/problem+json"),
    (status = 422, body = ProblemDocument, content_type = "application/problem+json"),
))]
#[post("/cabinet/drawing")]
pub async fn drawing(
    request: HttpRequest,
    wanted: Query<WantedDrawing>,
    payload: Payload,
    state: Data<State>,
) -> Result<HttpResponse, ApiError> {
    let design: RawDesign = body::json(&request, payload).await?;
    let WantedDrawing { view, format } = wanted.into_inner();
    let view = match view {
        WantedView::Side => View::Side,
        WantedView::Front => View::Front,
        WantedView::Plan => View::Plan,
        WantedView::Exploded => View::Exploded,
    };
    let name = design.name.clone();
    let drawn = state.compute.quick(move || planning::drawing(&design, view)).await??;
    let drawing = drawn.ok_or(ApiError::NotFound { what: "box to draw in this kind of cabinet" })?;
    let title = format!("{name}, {}", view.name().to_lowercase());
    drawing_file(&drawing, &title, format)
}

/// How the air is modelled.
#[derive(Debug, Deserialize, IntoParams)]
#[serde(deny_unknown_fields)]
pub struct WantedCavityCheck {
    /// `quick`, as ducts along the longest axis, or `full`, in three directions.
    #[param(inline)]
    model: WantedModel,
}

/// A model of the air.
#[derive(Debug, Clone, Copy, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum WantedModel {
    /// As ducts.
    Quick,
    /// In three directions.
    Full,
}

/// One line of a check that tells how far it is.
#[derive(Debug, Serialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum CavityCheckLine {
    /// How many of how many steps are done.
    Progress([usize; 2]),
    /// The last line: what was found; nothing where the cabinet is no single room.
    Report(Option<Box<CavityCheckReport>>),
    /// Instead of it: what is wrong.
    Errors(Vec<FieldError>),
}

/// What the standing waves in the box do to impedance and sound; nothing where the cabinet is no single room. Ends early where
/// the request is given up. Asked for as `application/x-ndjson` it tells line by line how far it is, and in the last what it found.
#[utoipa::path(operation_id = "checkCavity", tag = "cabinet", params(WantedCavityCheck), request_body = RawQuestion, responses(
    (status = 200, content((Option<CavityCheckReport> = "application/json"), (CavityCheckLine = "application/x-ndjson"))),
    (status = 400, body = ProblemDocument, content_type = "application/problem+json"),
    (status = 422, body = ProblemDocument, content_type = "application/problem+json"),
))]
#[post("/cabinet/cavity-check")]
pub async fn cavity_check(
    request: HttpRequest,
    wanted: Query<WantedCavityCheck>,
    payload: Payload,
    state: Data<State>,
) -> Result<HttpResponse, ApiError> {
    let question: RawQuestion = body::json(&request, payload).await?;
    let modelled = match wanted.model {
        WantedModel::Quick => CavityModel::Quick,
        WantedModel::Full => CavityModel::Full,
    };
    if lines::wanted(&request) {
        return lines::stream(&state, move |stop, lines| {
            let told = |done, of| lines.send(&CavityCheckLine::Progress([done, of]));
            lines.send(&match planning::cavity_check(&question, modelled, stop, &told) {
                Ok(report) => CavityCheckLine::Report(report.map(Box::new)),
                Err(problems) => CavityCheckLine::Errors(problems.iter().map(FieldError::from).collect()),
            });
        })
        .await;
    }
    let found = state.compute.long(move |stop| planning::cavity_check(&question, modelled, stop, &|_, _| {}));
    Ok(HttpResponse::Ok().json(found.await??))
}

/// What box the boards of a pre-cut kit make, as they are labelled.
#[utoipa::path(operation_id = "readKit", tag = "cabinet", request_body = RawKit, responses(
    (status = 200, body = KitReading),
    (status = 400, body = ProblemDocument, content_type = "application/problem+json"),
    (status = 422, body = ProblemDocument, content_type = "application/problem+json"),
))]
#[post("/cabinet/read-kit")]
pub async fn read_kit(request: HttpRequest, payload: Payload) -> Result<Json<KitReading>, ApiError> {
    let kit: RawKit = body::json(&request, payload).await?;
    Ok(Json(kit.read().map_err(|problem| vec![problem])?))
}
