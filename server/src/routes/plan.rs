//! What is bought, cut and done.

use actix_web::web::{Data, Json, Payload, Query};
use actix_web::{HttpRequest, HttpResponse, post};
use oak_book::{Chapter, book, templates};
use oak_design::conditions::RawQuestion;
use oak_design::file::{RawLayout, RawStock};
use oak_design::problem::{Problem, ProblemKind};
use oak_planning::build_plan::{
    BuildPlan, Flat, RawPlanQuestion, TerminalReport, build_plan, calendar_file, flat_drawing, parts_table,
    price_table, prices_of, search_layouts, with_terminal,
};
use serde::{Deserialize, Serialize};
use utoipa::{IntoParams, ToSchema};

use super::download::download;
use super::drawing_file::{DrawingFormat, drawing_file};
use super::lines;
use crate::body;
use crate::error::{ApiError, FieldError, ProblemDocument};
use crate::state::State;

/// Everything that it takes to build a design: parts, sheets, holes, steps, calendar; null where it has no box.
#[utoipa::path(operation_id = "planBuild", tag = "plan", request_body = RawPlanQuestion, responses(
    (status = 200, body = Option<BuildPlan>),
    (status = 400, body = ProblemDocument, content_type = "application/problem+json"),
    (status = 422, body = ProblemDocument, content_type = "application/problem+json"),
))]
#[post("/plan")]
pub async fn plan_build(
    request: HttpRequest,
    payload: Payload,
    state: Data<State>,
) -> Result<Json<Option<BuildPlan>>, ApiError> {
    let question: RawPlanQuestion = body::json(&request, payload).await?;
    Ok(Json(state.compute.quick(move || build_plan(&question)).await??))
}

/// A design with a hole for the terminal of its workshop, at the first place that is free; null where it has one, needs none, or no board has room.
#[utoipa::path(operation_id = "placeTerminal", tag = "plan", request_body = RawQuestion, responses(
    (status = 200, body = Option<TerminalReport>),
    (status = 400, body = ProblemDocument, content_type = "application/problem+json"),
    (status = 422, body = ProblemDocument, content_type = "application/problem+json"),
))]
#[post("/plan/terminal")]
pub async fn place_terminal(
    request: HttpRequest,
    payload: Payload,
    state: Data<State>,
) -> Result<Json<Option<TerminalReport>>, ApiError> {
    let question: RawQuestion = body::json(&request, payload).await?;
    Ok(Json(state.compute.quick(move || with_terminal(&question)).await??))
}

/// Which part of a plan is wanted as a file.
#[derive(Debug, Deserialize, IntoParams)]
#[serde(deny_unknown_fields)]
pub struct PlanFileQuery {
    /// `parts`, `prices` or `calendar`.
    #[param(inline)]
    file: PlanFile,
}

/// A file of a plan.
#[derive(Debug, Clone, Copy, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum PlanFile {
    /// The parts list (CSV).
    Parts,
    /// The price list, to be edited and read back (CSV).
    Prices,
    /// The calendar (iCalendar).
    Calendar,
}

/// A part of a plan as a file.
#[utoipa::path(operation_id = "writePlanFile", tag = "plan", params(PlanFileQuery), request_body = RawPlanQuestion, responses(
    (status = 200, description = "The file", content_type = "text/csv", body = String),
    (status = 400, body = ProblemDocument, content_type = "application/problem+json"),
    (status = 404, body = ProblemDocument, content_type = "application/problem+json"),
    (status = 422, body = ProblemDocument, content_type = "application/problem+json"),
))]
#[post("/plan/file")]
pub async fn plan_file(
    request: HttpRequest,
    query: Query<PlanFileQuery>,
    payload: Payload,
    state: Data<State>,
) -> Result<HttpResponse, ApiError> {
    let question: RawPlanQuestion = body::json(&request, payload).await?;
    let name = question.question.design.name.clone();
    let plan = state.compute.quick(move || build_plan(&question)).await??;
    let plan = plan.ok_or(ApiError::NotFound { what: "box to build in this kind of cabinet" })?;
    const CSV: &str = "text/csv; charset=utf-8";
    Ok(match query.file {
        PlanFile::Parts => download(&format!("{name}, parts.csv"), CSV, parts_table(&plan)),
        PlanFile::Prices => download(&format!("{name}, prices.csv"), CSV, price_table(&plan)),
        PlanFile::Calendar => {
            let text = calendar_file(&plan, &name);
            download(&format!("{name}.ics"), "text/calendar; charset=utf-8", text)
        }
    })
}

/// Reads a price list. Nothing is kept.
#[utoipa::path(operation_id = "readPrices", tag = "plan", request_body(content = String, content_type = "text/csv"), responses(
    (status = 200, body = Vec<RawStock>),
    (status = 413, body = ProblemDocument, content_type = "application/problem+json"),
    (status = 415, body = ProblemDocument, content_type = "application/problem+json"),
    (status = 422, body = ProblemDocument, content_type = "application/problem+json"),
))]
#[post("/plan/prices")]
pub async fn read_prices(request: HttpRequest, payload: Payload) -> Result<Json<Vec<RawStock>>, ApiError> {
    let bytes = body::table(&request, payload).await?;
    let wrong = |reason: String| vec![Problem::new("prices", ProblemKind::Unshapeable { reason })];
    let text =
        std::str::from_utf8(&bytes).map_err(|error| wrong(format!("it is no text in UTF-8: {error}")))?;
    Ok(Json(prices_of(text).map_err(wrong)?))
}

/// Which board or sheet, and as what.
#[derive(Debug, Deserialize, IntoParams)]
#[serde(deny_unknown_fields)]
pub struct WantedFlat {
    /// Number of a board; or `sheet`.
    panel: Option<u32>,
    /// Which sheet, counted through all materials from 0.
    sheet: Option<usize>,
    /// `svg` or `dxf`.
    #[param(inline)]
    format: DrawingFormat,
}

/// A board, or a sheet with its boards, at full size: cut, recess, drill, mark and label on layers of their own.
#[utoipa::path(operation_id = "drawFlat", tag = "plan", params(WantedFlat), request_body = RawQuestion, responses(
    (status = 200, description = "The file", content_type = "image/svg+xml", body = String),
    (status = 400, body = ProblemDocument, content_type = "application/problem+json"),
    (status = 404, body = ProblemDocument, content_type = "application/problem+json"),
    (status = 422, body = ProblemDocument, content_type = "application/problem+json"),
))]
#[post("/plan/drawing")]
pub async fn draw_flat(
    request: HttpRequest,
    wanted: Query<WantedFlat>,
    payload: Payload,
    state: Data<State>,
) -> Result<HttpResponse, ApiError> {
    let question: RawQuestion = body::json(&request, payload).await?;
    let (flat, what) = match (wanted.panel, wanted.sheet) {
        (Some(number), None) => (Flat::Panel(number), format!("board {number}")),
        (None, Some(at)) => (Flat::Sheet(at), format!("sheet {}", at + 1)),
        _ => {
            let names = &["panel", "sheet"];
            return Err(vec![Problem::new("query", ProblemKind::MissingOneOf { names, needed: 1 })].into());
        }
    };
    let title = format!("{}, {what}", question.design.name);
    let drawn = state.compute.quick(move || flat_drawing(&question, flat)).await??;
    drawing_file(&drawn.ok_or(ApiError::NotFound { what: "such board or sheet" })?, &title, wanted.format)
}

/// Which pages are wanted.
#[derive(Debug, Deserialize, IntoParams)]
#[serde(deny_unknown_fields)]
pub struct WantedPages {
    /// `book`, `templates`, or one part of the book: `design`, `drawings`, `panels`, `sheets`, `holes`, `parts`, `steps`, `calendar`, `measuring`,
    /// `signal`, `notes`.
    pages: String,
}

/// Pages to print, as PDF: the build book, one part of it, or the templates of the holes at full size.
#[utoipa::path(operation_id = "printPlan", tag = "plan", params(WantedPages), request_body = RawPlanQuestion, responses(
    (status = 200, description = "The pages", content_type = "application/pdf", body = Vec<u8>),
    (status = 400, body = ProblemDocument, content_type = "application/problem+json"),
    (status = 404, body = ProblemDocument, content_type = "application/problem+json"),
    (status = 422, body = ProblemDocument, content_type = "application/problem+json"),
))]
#[post("/plan/pages")]
pub async fn print_plan(
    request: HttpRequest,
    wanted: Query<WantedPages>,
    payload: Payload,
    state: Data<State>,
) -> Result<HttpResponse, ApiError> {
    let question: RawPlanQuestion = body::json(&request, payload).await?;
    let name = format!("{}, {}.pdf", question.question.design.name, wanted.pages);
    let pages = match wanted.pages.as_str() {
        "book" => Some(Chapter::ALL.to_vec()),
        "templates" => None,
        id => match Chapter::ALL.into_iter().find(|chapter| chapter.id() == id) {
            Some(chapter) => Some(vec![chapter]),
            None => return Err(ApiError::NotFound { what: "such pages" }),
        },
    };
    let made = state
        .compute
        .long(move |_| match pages {
            Some(chapters) => book(&question, &chapters, &mut |_, _| ()),
            None => templates(&question),
        })
        .await??;
    let bytes = made.ok_or(ApiError::NotFound { what: "box or hole to print in this design" })?;
    Ok(download(&name, "application/pdf", bytes))
}

/// How many layouts a long search tries for each kind of board.
const ROUNDS: u32 = 4000;

/// One line of a search for layouts.
#[derive(Debug, Serialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum LayoutLine {
    /// How many of how many layouts were tried.
    Progress([u32; 2]),
    /// The last line: how the best were found.
    Found(Vec<RawLayout>),
    /// Instead of it: what is wrong.
    Errors(Vec<FieldError>),
}

/// Looks longer for better layouts on the sheets of a design, and tells line by line how far it is; ends early where the request is given up. What it
/// finds goes into the workshop's document.
#[utoipa::path(operation_id = "searchLayouts", tag = "plan", request_body = RawQuestion, responses(
    (status = 200, body = LayoutLine, content_type = "application/x-ndjson"),
    (status = 400, body = ProblemDocument, content_type = "application/problem+json"),
))]
#[post("/plan/layouts")]
pub async fn layouts(
    request: HttpRequest,
    payload: Payload,
    state: Data<State>,
) -> Result<HttpResponse, ApiError> {
    let question: RawQuestion = body::json(&request, payload).await?;
    lines::stream(&state, move |stop, lines| {
        let mut told = |done: u32, of: u32| {
            // Every hundredth is enough for a bar.
            if done.is_multiple_of((of / 100).max(1)) {
                lines.send(&LayoutLine::Progress([done, of]));
            }
        };
        lines.send(&match search_layouts(&question, ROUNDS, &mut told, stop) {
            Ok(found) => LayoutLine::Found(found),
            Err(problems) => LayoutLine::Errors(problems.iter().map(FieldError::from).collect()),
        });
    })
    .await
}
