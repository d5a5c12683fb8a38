//! Workshops, and plans in them.

use oak_design::conditions::{RawConditions, RawQuestion};
use oak_design::file::{
    RawAssembly, RawBody, RawBrief, RawDesign, RawFamily, RawFinish, RawFixing, RawGlue, RawJoinery,
    RawLeads, RawOverlap, RawPortBuild, RawPortSection, RawProgress, RawStuffing, RawWorkshop, Typed,
};
use oak_planning::build_plan::{BuildPlan, RawPlanQuestion, build_plan};

use super::demo_builds;

pub const TODAY: &str = "2026-05-01";

/// A quantity as typed.
pub fn text(quantity: &str) -> Option<Typed> {
    Some(Typed::from(quantity))
}

/// What is asked of a plan.
pub fn question(design: &RawDesign, brief: Option<&RawBrief>, workshop: &RawWorkshop) -> RawPlanQuestion {
    let conditions = RawConditions { workshop: Some(workshop.clone()), ..RawConditions::default() };
    let question = RawQuestion { brief: brief.cloned(), conditions, ..RawQuestion::of(design.clone()) };
    RawPlanQuestion { question, progress: RawProgress::default(), today: TODAY.to_owned() }
}

/// The plan of a design.
pub fn plan(design: &RawDesign, brief: Option<&RawBrief>, workshop: &RawWorkshop) -> BuildPlan {
    build_plan(&question(design, brief, workshop)).expect("it can be built").expect("it has a box")
}

/// Workshops that have every kind of everything, in turn.
pub fn workshops() -> Vec<RawWorkshop> {
    let glues = [RawGlue::Pva, RawGlue::Polyurethane, RawGlue::Construction];
    let assemblies =
        [RawAssembly::Clamps, RawAssembly::Nails, RawAssembly::Screws, RawAssembly::PocketScrews];
    let fixings = [RawFixing::WoodScrews, RawFixing::TNuts, RawFixing::Inserts];
    let leads = [RawLeads::Spades, RawLeads::Rings, RawLeads::Soldered];
    let finishes = [
        RawFinish::Raw,
        RawFinish::Rolled,
        RawFinish::Texture,
        RawFinish::Gloss,
        RawFinish::Veneer,
        RawFinish::Stain,
        RawFinish::Clear,
        RawFinish::Carpet,
    ];
    (0..8)
        .map(|turn| RawWorkshop {
            glue: glues[turn % 3],
            assembly: assemblies[turn % 4],
            fixing: fixings[turn % 3],
            leads: leads[turn % 3],
            finish: finishes[turn],
            mock_up: turn % 2 == 0,
            corners: turn % 3 == 0,
            grille: turn % 3 == 1,
            handles: (turn % 2 == 1).then_some(Typed::Number(2.0)),
            round_over: (turn % 2 == 1).then(|| Typed::from("6 mm")),
            oversize: (turn % 4 == 2).then(|| Typed::from("6 mm")),
            hand: (turn % 4 == 3).then(|| Typed::from("350 mm")),
            temperature: (turn % 3 == 2).then(|| Typed::from("12 degC")),
            ..RawWorkshop::default()
        })
        .collect()
}

/// Every demo design that has a box, joined in every way, in every workshop.
pub fn plans() -> Vec<(RawDesign, BuildPlan)> {
    let joineries = [RawJoinery::Butt, RawJoinery::Dowels, RawJoinery::Rabbet, RawJoinery::Tongue];
    let overlaps =
        [RawOverlap::FrontAndBack, RawOverlap::Sides, RawOverlap::TopAndBottom, RawOverlap::Mitred];
    let designs = demo_builds().into_iter().flat_map(|build| build.variants);
    let workshops = workshops();
    let mut all = Vec::new();
    for (turn, mut design) in designs.enumerate() {
        let body = design.body.get_or_insert_with(RawBody::default);
        (body.joinery, body.overlap) = (joineries[turn % 4], overlaps[turn / 2 % 4]);
        body.housed = turn % 3 == 0;
        body.recess = (turn % 3 == 1).then(|| Typed::from("6 mm"));
        let round = design.enclosure.ports.first().is_some_and(|port| port.shape == RawPortSection::Round);
        if round {
            body.ports.resize(design.enclosure.ports.len(), RawPortBuild::default());
            body.ports[0].inner_flare = text(if turn % 2 == 0 { "30 mm" } else { "110 mm" });
            body.ports[0].outer_flare = text("20 mm");
        }
        if design.enclosure.family == RawFamily::Ported {
            design.enclosure.fill = Some(RawStuffing::Lined);
        }
        for workshop in workshops.iter().skip(turn % 2).step_by(2) {
            if let Ok(Some(plan)) = build_plan(&question(&design, None, workshop)) {
                all.push((design.clone(), plan));
            }
        }
    }
    assert!(all.len() > 40, "{}", all.len());
    all
}
