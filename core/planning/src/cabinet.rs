//! The box of a design, in the place of its brief.

use oak_acoustics::Stop;
use oak_acoustics::response::FrequencyGrid;
use oak_cabinetry::drawing::{self, Drawing, View};
use oak_cabinetry::geometry::Axis;
use oak_cabinetry::panel;
use oak_design::Problem;
use oak_design::built::Boxed;
use oak_design::cavity_check::{CavityCheckReport, CavityModel};
use oak_design::conditions::{Question, RawQuestion};
use oak_design::field;
use oak_design::file::{RawAxis, RawBrace, RawDesign};
use oak_design::report::{
    BodyReport, CLEAR, FoldOffer, ModelReport, USUAL_CROSSOVER, board_masses, compute_undelayed, fold_offers,
    panel_radiation,
};
use oak_design::resolve::resolve_design;
use serde::Serialize;
use utoipa::ToSchema;

/// Where the talk of the panels is looked at, Hz, and at how many frequencies.
const SPAN: (f64, f64) = (10.0, 500.0);
const POINTS: usize = 120;

/// The box of a design, in its conditions; `None` where the cabinet has none.
///
/// # Errors
/// What is wrong with design or brief.
pub fn cabinet(ask: &RawQuestion) -> Result<Option<BodyReport>, Vec<Problem>> {
    let Question { design, brief } = ask.resolve()?;
    let grid = FrequencyGrid::logarithmic(SPAN.0, SPAN.1, POINTS).expect("within the allowed range");
    let computed = compute_undelayed(&design, &grid).map_err(|problem| vec![problem])?;
    let crossover = brief.and_then(|brief| brief.crossover);
    BodyReport::of(&design, &computed, crossover).map_err(|problem| vec![problem])
}

/// The way of a design folded other times, in its conditions; empty where it has none.
///
/// # Errors
/// What is wrong with design or brief.
pub fn folds(ask: &RawQuestion, stop: &Stop) -> Result<Vec<FoldOffer>, Vec<Problem>> {
    let Question { design, .. } = ask.resolve()?;
    let built = design.built().map_err(|problem| vec![problem])?;
    Ok(fold_offers(&built, stop))
}

/// The box of a design in three dimensions; `None` where the cabinet has none.
///
/// # Errors
/// What is wrong with the design.
pub fn model(raw: &RawDesign) -> Result<Option<ModelReport>, Vec<Problem>> {
    let one = |problem| vec![problem];
    let built = resolve_design(raw)?.built().map_err(one)?;
    let boxed = built.drawn().map_err(one)?;
    Ok(boxed.map(|Boxed { contents, cabinet }| ModelReport::of(&built.design, contents, cabinet)))
}

/// A view of the box of a design; `None` where the cabinet has none.
///
/// # Errors
/// What is wrong with the design.
pub fn drawing(raw: &RawDesign, view: View) -> Result<Option<Drawing>, Vec<Problem>> {
    let one = |problem| vec![problem];
    let built = resolve_design(raw)?.built().map_err(one)?;
    let boxed = built.drawn().map_err(one)?;
    Ok(boxed.map(|Boxed { contents, cabinet }| drawing::view(view, &built.design.body, contents, cabinet)))
}

/// What standing waves do to a design, in its conditions; `None` where its cabinet is no single
/// room, or where it was stopped. `told` hears how many of how many steps are done.
///
/// # Errors
/// What is wrong with design or brief.
pub fn cavity_check(
    ask: &RawQuestion,
    model: CavityModel,
    stop: &Stop,
    told: &(dyn Fn(usize, usize) + Sync),
) -> Result<Option<CavityCheckReport>, Vec<Problem>> {
    let Question { design, .. } = ask.resolve()?;
    oak_design::cavity_check::cavity_check(&design, model, stop, told).map_err(|problem| vec![problem])
}

/// A material compared.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct MaterialReport {
    /// Its name in files.
    pub id: &'static str,
    /// Its name for people.
    pub name: &'static str,
    /// What the boards weigh of it, kg.
    pub mass: f64,
    /// Lowest resonance of the boards, Hz.
    pub resonance: f64,
    /// How loud they are beside the sound at worst, dB.
    pub panel_radiation: Option<f64>,
    /// Where its values are from.
    pub source: &'static str,
}

/// What would stiffen the boards of a box.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct PanelsReport {
    /// Up to where the boards should not ring, Hz.
    pub wanted: f64,
    /// Lowest resonance as it stands, Hz.
    pub resonance: f64,
    /// Braces that raise it, besides those that are there.
    pub braces: Vec<RawBrace>,
    /// Lowest resonance with them, Hz.
    pub braced: f64,
    /// The same box of other materials, of the same thickness.
    pub materials: Vec<MaterialReport>,
}

/// What would stiffen the boards of a design's box; `None` where it has none.
///
/// # Errors
/// What is wrong with design or brief.
pub fn panels(ask: &RawQuestion, stop: &Stop) -> Result<Option<PanelsReport>, Vec<Problem>> {
    let Question { design, brief } = ask.resolve()?;
    let one = |problem: Problem| vec![problem];
    let grid = FrequencyGrid::logarithmic(SPAN.0, SPAN.1, POINTS).expect("within the allowed range");
    let computed = compute_undelayed(&design, &grid).map_err(one)?;
    let Some(Boxed { contents, cabinet }) = computed.built.drawn().map_err(one)? else { return Ok(None) };
    let design = &computed.built.design;
    let crossover = brief.and_then(|brief| brief.crossover).unwrap_or(USUAL_CROSSOVER);
    let wanted = CLEAR * crossover;
    let found = panel::propose(&design.body, contents, wanted, stop);
    let mut braced = design.body.clone();
    braced.braces.extend(found.iter().copied());
    let after = braced.build(contents).map_or(0.0, |cabinet| panel::weakest_of(&braced, contents, &cabinet));
    let materials = panel::MATERIALS
        .iter()
        .take_while(|_| !stop.stopped())
        .map(|material| {
            let mut body = design.body.clone();
            let panels = body.panels.iter_mut().map(|(_, panel)| panel);
            panels.chain([&mut body.panel, &mut body.partition]).for_each(|panel| panel.material = material);
            let panels = panel::walls(&body, contents, cabinet);
            MaterialReport {
                id: material.id,
                name: material.name,
                mass: board_masses(&body, contents, cabinet, &design.joints).iter().sum(),
                resonance: panel::weakest_of(&body, contents, cabinet),
                panel_radiation: panel_radiation(&computed, &panels, crossover)
                    .map(|panel_radiation| panel_radiation.level),
                source: material.source,
            }
        })
        .collect();
    let braces = found
        .iter()
        .map(|brace| RawBrace {
            along: match brace.axis {
                Axis::X => RawAxis::Width,
                Axis::Y => RawAxis::Height,
                Axis::Z => RawAxis::Depth,
            },
            at: brace.at.map(|at| field::BRACE_AT.typed(at, 4)),
            thickness: None,
            open: None,
        })
        .collect();
    let resonance = panel::weakest_of(&design.body, contents, cabinet);
    Ok(Some(PanelsReport { wanted, resonance, braces, braced: after, materials }))
}
