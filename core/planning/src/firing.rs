//! Firing forward, up or down: what each leaves of the same place.

use oak_acoustics::Stop;
use oak_design::Problem;
use oak_design::conditions::RawQuestion;
use oak_design::field;
use oak_design::file::{RawBody, RawDesign, RawEnclosureShape, RawFace, RawMeasured, RawPlace};
use oak_design::resolve::{resolve_brief, resolve_design};
use serde::Serialize;
use utoipa::ToSchema;

use crate::Case;
use crate::check::place;

/// Air before a cone's travel for its surround, m (common practice).
const SURROUND: f64 = 0.005;
/// What a grille in front takes, m (common practice).
const GRILLE: f64 = 0.010;
/// How far a seat's cushion sinks towards a driver below it, m (common practice).
const CUSHION: f64 = 0.030;

/// One way to let the drivers fire.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct FiringReport {
    /// Into which board the drivers go.
    pub face: RawFace,
    /// In words.
    pub name: &'static str,
    /// What stays free before the drivers, m.
    pub clearance: f64,
    /// What it is made of.
    pub why: String,
    /// Width, height and depth that are left for the box outside, m.
    pub outside: [f64; 3],
    /// Air in it, m3.
    pub air: f64,
    /// F3, Hz.
    pub f3: Option<f64>,
    /// Maximum clean level at the listener at the lowest note, dB; where a brief asks for one.
    pub loudness: Option<f64>,
    /// What forbids building it, or why it cannot be worked out.
    pub forbids: Vec<String>,
    /// The design so.
    pub design: RawDesign,
}

/// A design with its drivers in front, on top and below, each time in the largest box that the place leaves, as the brief uses it; nothing
/// where it is folded or has no box. Without a place the box as it stands is one.
///
/// # Errors
/// What is wrong with design or brief.
pub fn firings(ask: &RawQuestion, stop: &Stop) -> Result<Vec<FiringReport>, Vec<Problem>> {
    let asked = ask.brief.clone().unwrap_or_default();
    let brief = resolve_brief(&asked)?;
    let resolved = resolve_design(&ask.design)?;
    let built = resolved.built().map_err(|problem| vec![problem])?;
    let (true, Some(standing)) = (ask.design.enclosure.family.is_of_its_volume(), built.standing()) else {
        return Ok(Vec::new());
    };
    let room = [0, 1, 2].map(|k| brief.outside[k].unwrap_or(standing[k]));
    let size = resolved.driver_size();
    let proud = size.proud(resolved.body.recess);
    let travel = resolved.driver.driver.xmax.unwrap_or(0.0);
    let before = travel.max(proud) + SURROUND;
    let gap = place::feet_of(size.cone, travel);
    let mm = |length: f64| format!("{:.0} mm", length * 1e3);
    let ways = [
        (
            RawFace::Front,
            "Forward",
            2,
            before + GRILLE,
            format!("travel or rim {}, surround, grille {}", mm(before - SURROUND), mm(GRILLE)),
        ),
        (
            RawFace::Top,
            "Up",
            1,
            before + CUSHION,
            format!(
                "travel or rim {}, surround, a cushion that sinks {}",
                mm(before - SURROUND),
                mm(CUSHION)
            ),
        ),
        (
            RawFace::Bottom,
            "Down",
            1,
            gap,
            format!("a quarter of the cone's {} and its travel {}, on feet", mm(size.cone), mm(travel)),
        ),
    ];
    let each = ways.into_iter().take_while(|_| !stop.stopped());
    Ok(each
        .map(|(face, name, axis, clearance, why)| {
            let mut outside = room;
            outside[axis] -= clearance;
            let design = in_place(&ask.design, brief.top_depth, room, outside, face);
            let mut report = FiringReport {
                face,
                name,
                clearance,
                why,
                outside,
                air: 0.0,
                f3: None,
                loudness: None,
                forbids: Vec::new(),
                design,
            };
            match Case::of(&brief, &report.design) {
                Ok(case) => {
                    let levels = case.computed.max_output.level[case.band.clone()].iter().copied();
                    let loudest = levels.fold(f64::INFINITY, f64::min) - 20.0 * brief.distance.log10();
                    (report.air, report.f3) = (case.air(), case.computed.figures.f3);
                    report.loudness = loudest.is_finite().then_some(loudest);
                    report.forbids = case.built().forbids();
                }
                Err(problems) => report.forbids = problems.iter().map(ToString::to_string).collect(),
            }
            report
        })
        .collect())
}

/// The design in a box as large as is left of a place, of the place's own shape where that is less deep at its top (m).
fn in_place(
    design: &RawDesign,
    top: Option<f64>,
    place: [f64; 3],
    outside: [f64; 3],
    face: RawFace,
) -> RawDesign {
    let own = design.body.clone().unwrap_or_default();
    let millimetres =
        |field: &oak_design::field::Field, size: f64| Some(field.typed((size * 1e3).floor() * 1e-3, 4));
    // Lower, the place's slanting side is met farther out; what is left before it stays the same.
    let lean = top.map(|top| outside[2] + (top - place[2]) * outside[1] / place[1]);
    let body = RawBody {
        shape: if lean.is_some() { RawEnclosureShape::Wedge } else { own.shape },
        measured: RawMeasured::Outside,
        width: millimetres(&field::BODY_WIDTH, outside[0]),
        height: millimetres(&field::BODY_HEIGHT, outside[1]),
        depth: millimetres(&field::BODY_DEPTH, outside[2]),
        top_depth: lean.map_or(own.top_depth.clone(), |lean| millimetres(&field::BODY_TOP_DEPTH, lean)),
        order: Vec::new(),
        driver: Some(RawPlace { face, across: None, up: None }),
        ..own
    };
    RawDesign { body: Some(body), ..design.clone() }
}
