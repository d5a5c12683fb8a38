//! What is bought, cut and done, of the demo builds in workshops of every kind.

use std::collections::HashSet;

use approx::assert_relative_eq;
use chrono::{Duration, NaiveDateTime};
use oak_acoustics::Stop;
use oak_cabinetry::cut::HoleKind;
use oak_design::conditions::{RawConditions, RawQuestion};
use oak_design::file::{
    RawAssembly, RawBody, RawBrief, RawDesign, RawFace, RawFamily, RawFinish, RawFixing, RawGlue, RawJoinery,
    RawLeads, RawMaterial, RawMeasuredBoard, RawMeasuredVolume, RawMeasurements, RawOverlap, RawPlace,
    RawPortBuild, RawPortSection, RawPrinted, RawProgress, RawSheet, RawStock, RawStuffing, RawTick,
    RawWorkshop, Typed,
};
use oak_planning::Case;
use oak_planning::build_plan::hardware::{Screw, Wire, clamps, nut_hole, thread_for};
use oak_planning::build_plan::{
    BuildPlan, Flat, RawPlanQuestion, build_plan, calendar_file, flat_drawing, parts_table, price_table,
    prices_of, search_layouts, with_making,
};
use oak_planning::check::judge;

use crate::support::{demo_build, demo_builds};

const TODAY: &str = "2026-05-01";

fn text(quantity: &str) -> Option<Typed> {
    Some(Typed::from(quantity))
}

fn question(design: &RawDesign, brief: Option<&RawBrief>, workshop: &RawWorkshop) -> RawPlanQuestion {
    let conditions = RawConditions { workshop: Some(workshop.clone()), ..RawConditions::default() };
    let question = RawQuestion { brief: brief.cloned(), conditions, ..RawQuestion::of(design.clone()) };
    RawPlanQuestion { question, progress: RawProgress::default(), today: TODAY.to_owned() }
}

fn plan(design: &RawDesign, brief: Option<&RawBrief>, workshop: &RawWorkshop) -> BuildPlan {
    build_plan(&question(design, brief, workshop)).expect("it can be built").expect("it has a box")
}

/// Workshops that have every kind of everything, in turn.
fn workshops() -> Vec<RawWorkshop> {
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
fn plans() -> Vec<(RawDesign, BuildPlan)> {
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

#[test]
fn the_chips_of_cost_and_weight_are_those_of_the_parts_list() {
    for build in demo_builds() {
        let mut brief = build.brief.expect("the demo has briefs");
        brief.budget = Some(Typed::Number(900.0));
        brief.weight = text("90 kg");
        for design in &build.variants {
            for workshop in workshops().iter().step_by(3) {
                let asked = question(design, Some(&brief), workshop);
                let Ok(Some(plan)) = build_plan(&asked) else { continue };
                let resolved = asked.question.conditions.asked(&brief).expect("a brief");
                let case = Case::of(&resolved, design).expect("whole");
                let checks = judge(&case);
                let reached =
                    |id: &str| checks.iter().find(|check| check.id == id).expect("asked").reached.clone();
                assert_eq!(
                    reached("cost"),
                    format!("{:.0}", plan.cost.expect("the demo has prices")),
                    "{}",
                    design.name
                );
                assert_eq!(reached("weight"), format!("{:.1} kg", plan.mass), "{}", design.name);
                // Shops together are the whole, and lines together are their shops.
                let shops: f64 = plan.shops.iter().filter_map(|shop| shop.cost).sum();
                let lines: f64 = plan.items.iter().filter_map(|item| item.cost).sum();
                assert_relative_eq!(shops, plan.cost.expect("priced"), epsilon = 1e-9);
                assert_relative_eq!(lines, plan.cost.expect("priced"), epsilon = 1e-9);
            }
        }
    }
}

#[test]
fn what_it_weighs_is_its_boards_and_its_parts() {
    for build in demo_builds() {
        for design in &build.variants {
            let brief = RawBrief { cabinets: Some(Typed::Number(2.0)), ..RawBrief::default() };
            let asked =
                question(design, Some(&brief), &RawWorkshop { mirrored: true, ..RawWorkshop::default() });
            let weighed = with_making(&asked.question, |making, _| {
                let boards = making.cut.panels.iter().map(|panel| panel.mass * f64::from(panel.count));
                boards.sum::<f64>() + making.parts().mass()
            });
            let Ok(Some(weighed)) = weighed else { continue };
            let plan = build_plan(&asked).expect("whole").expect("a box");
            assert_relative_eq!(weighed, 2.0 * plan.mass, max_relative = 1e-9);
            let label = plan.steps.iter().find(|step| step.id == "cut.label").expect("labelled");
            assert!(label.how.contains("mirror images"), "{}", label.how);
        }
    }
}

#[test]
fn every_part_is_used_by_a_step_and_no_step_uses_what_is_not_there() {
    for (design, plan) in plans() {
        let known: HashSet<&str> = plan.items.iter().map(|line| line.item.id.as_str()).collect();
        assert_eq!(known.len(), plan.items.len(), "{}: a line stands twice", design.name);
        let used: HashSet<&str> =
            plan.steps.iter().flat_map(|step| &step.parts).map(String::as_str).collect();
        let missing: Vec<_> = used.difference(&known).collect();
        assert!(missing.is_empty(), "{}: {missing:?} {known:?}", design.name);
        let idle: Vec<_> = known.difference(&used).collect();
        assert!(idle.is_empty(), "{}: {idle:?}", design.name);
        for step in &plan.steps {
            assert!(step.parts.len() <= 8, "{} {:?}", step.id, step.parts);
            assert!(
                !step.how.is_empty() && !step.why.is_empty()
                    || step.phase == oak_planning::build_plan::Phase::Finish,
                "{}",
                step.id
            );
            assert!(!step.check.is_empty(), "{} has no check", step.id);
        }
        let steps: HashSet<&str> = plan.steps.iter().map(|step| step.id.as_str()).collect();
        assert_eq!(steps.len(), plan.steps.len(), "{}: a step stands twice", design.name);
    }
}

/// What comes before what, as builders have learned it (common practice).
const BEFORE: [(&str, &str); 42] = [
    ("mock.cut", "mock.assemble"),
    ("mock.assemble", "mock.measure"),
    ("mock.measure", "cut.panels"),
    ("arrive.parts", "cut.panels"),
    ("arrive.cutout", "holes.test"),
    ("arrive.cutout", "cut.panels"),
    ("arrive.board", "cut.panels"),
    ("cut.shop", "cut.panels"),
    ("cut.panels", "cut.trim"),
    ("cut.trim", "cut.label"),
    ("cut.panels", "cut.label"),
    ("cut.label", "cut.bevels"),
    ("cut.label", "holes.cut"),
    ("holes.test", "holes.recess"),
    ("holes.recess", "holes.cut"),
    ("holes.test", "holes.cut"),
    ("holes.test", "holes.ports"),
    ("holes.cut", "holes.pilots"),
    ("holes.cut", "glue.dry"),
    ("holes.windows", "glue.dry"),
    ("holes.grooves", "glue.dry"),
    ("glue.dry", "glue.port_paint"),
    ("glue.dry", "glue.first"),
    ("glue.mark", "glue.inside"),
    ("glue.port_paint", "glue.close"),
    ("glue.first", "glue.inside"),
    ("glue.inside", "glue.close"),
    ("glue.strips", "glue.close"),
    ("glue.layers", "glue.close"),
    ("glue.flares", "glue.close"),
    ("glue.listen", "glue.close"),
    ("glue.close", "fit.driver"),
    ("holes.pilots", "fit.driver"),
    ("fit.wire", "fit.driver"),
    ("fit.fill", "fit.driver"),
    ("fit.driver", "prove.leak"),
    ("prove.leak", "prove.tuning"),
    ("prove.tuning", "prove.port"),
    ("prove.travel", "finish.unmount"),
    ("prove.leak", "finish.fill"),
    ("finish.sand", "done.fit"),
    ("done.fit", "done.leak"),
];

#[test]
fn steps_come_in_the_order_that_builders_have_learned() {
    let mut held = HashSet::new();
    for (design, plan) in plans() {
        let place = |name: &str, last: bool| {
            let named = |id: &str| id == name || id.starts_with(&format!("{name} "));
            let mut found =
                plan.steps.iter().enumerate().filter(|(_, step)| named(&step.id)).map(|(at, _)| at);
            if last { found.next_back() } else { found.next() }
        };
        for (first, then) in BEFORE {
            let (Some(first_at), Some(then_at)) = (place(first, true), place(then, false)) else { continue };
            assert!(first_at < then_at, "{}: {first} comes after {then}", design.name);
            held.insert((first, then));
        }
        // What a step waits for stands before it, and phases follow each other.
        for (at, step) in plan.steps.iter().enumerate() {
            for before in &step.after {
                let found = plan.steps.iter().position(|other| other.id == *before);
                assert!(
                    found.is_some_and(|found| found < at),
                    "{}: {before} before {}",
                    design.name,
                    step.id
                );
            }
        }
    }
    let never: Vec<_> = BEFORE.iter().filter(|pair| !held.contains(*pair)).collect();
    assert!(never.is_empty(), "nothing shows {never:?}");
}

#[test]
fn nothing_is_fitted_inside_after_the_last_board_that_no_hand_reaches() {
    let mut early = 0;
    for (design, plan) in plans() {
        let closed = plan.steps.iter().position(|step| step.id == "glue.close").expect("it is closed");
        let hand = |step: &oak_planning::build_plan::Step| {
            ["seams", "fill", "wire"].iter().any(|what| step.id.ends_with(&format!(".{what}")))
        };
        for (at, step) in
            plan.steps.iter().enumerate().filter(|(_, step)| hand(step) && step.id != "finish.fill")
        {
            if at > closed {
                assert!(step.reach.is_some(), "{}: {} after the box is closed", design.name, step.id);
            } else {
                early += 1;
            }
        }
    }
    assert!(early > 10, "{early}");
    // A hand of 350 mm reaches nowhere: seams, fill and leads come first.
    let design = &demo_build("Narrowboat nook").variants[0];
    let wide = RawWorkshop { hand: text("350 mm"), ..RawWorkshop::default() };
    let found = plan(design, None, &wide);
    let at = |id: &str| found.steps.iter().position(|step| step.id == id);
    assert!(at("glue.seams").expect("sealed early") < at("glue.close").expect("closed"));
    assert!(at("fit.seams").is_none());
}

#[test]
fn the_calendar_keeps_to_free_hours_and_to_every_wait() {
    for (design, plan) in plans().into_iter().step_by(3) {
        assert!(!plan.calendar.is_empty());
        let mut last: Option<NaiveDateTime> = None;
        for slot in &plan.calendar {
            let step = plan.steps.iter().find(|step| step.id == slot.step).expect("a step");
            assert!(slot.from < slot.to || step.minutes == 0.0, "{}", slot.step);
            assert!(last.is_none_or(|last| slot.from >= last), "two at a time");
            last = Some(slot.to);
            // Evenings of two hours from six, Saturdays and Sundays of six from nine.
            let day = slot.from.format("%u").to_string();
            let hours = if ["6", "7"].contains(&day.as_str()) { (9, 15) } else { (18, 20) };
            let clock =
                |moment: NaiveDateTime| moment.format("%H%M").to_string().parse::<u32>().expect("digits");
            assert!(clock(slot.from) >= hours.0 * 100 && clock(slot.to) <= hours.1 * 100, "{slot:?}");
            for before in &step.after {
                let done = plan.calendar.iter().rfind(|other| other.step == *before).expect("planned");
                let ready = done.waits.as_ref().map_or(done.to, |(_, until)| *until);
                assert!(slot.from >= ready, "{}: {} before {before} is dry", design.name, slot.step);
                let wanted =
                    plan.steps.iter().find(|step| step.id == *before).and_then(|step| step.wait.clone());
                if let Some((_, hours)) = wanted {
                    let waited = (ready - done.to).num_minutes() as f64 / 60.0;
                    assert!((waited - hours).abs() < 0.02, "{before}: {waited} {hours}");
                }
            }
        }
        // Every step has its time, all of it.
        for step in &plan.steps {
            let slots = plan.calendar.iter().filter(|slot| slot.step == step.id);
            let minutes: i64 = slots.map(|slot| (slot.to - slot.from).num_minutes()).sum();
            assert_eq!(minutes, step.minutes.round() as i64, "{}", step.id);
        }
    }
}

#[test]
fn a_step_that_slips_moves_what_comes_after_it() {
    let design = &demo_build("Narrowboat nook").variants[0];
    let mut asked = question(design, None, &RawWorkshop::default());
    let first = build_plan(&asked).expect("whole").expect("a box");
    asked.today = "2026-05-08".to_owned();
    let later = build_plan(&asked).expect("whole").expect("a box");
    assert_eq!(later.ends.expect("an end") - first.ends.expect("an end"), Duration::days(7));
    // Half of it done: it ends sooner, and what dries is waited for.
    let ticks = first.steps.iter().take_while(|step| step.id != "glue.inside" && step.id != "glue.close");
    let at = "2026-05-08T10:00:00Z".to_owned();
    asked.progress.ticks =
        ticks.map(|step| RawTick { step: step.id.clone(), at: at.clone(), failed: false }).collect();
    let half = build_plan(&asked).expect("whole").expect("a box");
    assert!(half.ends <= later.ends, "{:?} {:?}", half.ends, later.ends);
    assert!(half.calendar.len() < later.calendar.len());
    // A check that failed is not done.
    asked.progress.ticks.iter_mut().for_each(|tick| tick.failed = true);
    assert_eq!(build_plan(&asked).expect("whole").expect("a box").calendar, later.calendar);
    let calendar = calendar_file(&later, "Nook");
    assert_eq!(calendar.matches("BEGIN:VEVENT").count(), later.calendar.len());
    assert!(
        calendar.contains("DTSTART:20260508T180000") && calendar.contains("\r\n"),
        "{}",
        &calendar[..600]
    );
    assert!(calendar.lines().all(|line| line.len() <= 75), "RFC 5545 folds at 75 octets");
}

#[test]
fn glue_paint_and_fill_follow_from_what_is_drawn() {
    let mut design = demo_build("Pit organ").variants[0].clone();
    let amount = |design: &RawDesign, id: &str| {
        let found = plan(design, None, &RawWorkshop::default());
        found.items.iter().find(|line| line.item.id == id).map(|line| line.item.amount)
    };
    let body = design.body.get_or_insert_with(RawBody::default);
    (body.width, body.height, body.depth) = (text("600 mm"), text("900 mm"), text("500 mm"));
    body.panels.clear();
    body.braces.clear();
    body.overlap = RawOverlap::FrontAndBack;
    body.thickness = text("18 mm");
    let paint = amount(&design, "paint.eggshell").expect("painted");
    // 2 (0.6 x 0.9 + 0.6 x 0.5 + 0.9 x 0.5) m2 less holes and what the front hides of the edges, 95 ml, three coats.
    let whole = 2.0 * (0.6 * 0.9 + 0.6 * 0.5 + 0.9 * 0.5) * 95.0 * 3.0;
    assert!(paint < whole && paint > 0.8 * whole, "{paint} {whole}");
    // Thicker boards have more glue on their edges; what lies inside keeps its own thickness.
    let thin = amount(&design, "glue.pva").expect("glued");
    design.body.as_mut().expect("a body").thickness = text("25 mm");
    let thick = amount(&design, "glue.pva").expect("glued");
    assert!(thick > 1.05 * thin && thick < 25.0 / 18.0 * thin, "{thin} {thick}");
}

#[test]
fn equal_cabinets_need_no_more_sheets_than_as_many_ones() {
    for build in demo_builds() {
        let Some(design) = build.variants.first() else { continue };
        let sheets = |count: f64| {
            let brief = RawBrief { cabinets: Some(Typed::Number(count)), ..RawBrief::default() };
            let found = plan(design, Some(&brief), &RawWorkshop::default());
            let sheets: usize = found.sheets.iter().map(|group| group.sheets.len()).sum();
            (
                sheets,
                found.items.iter().find(|line| line.item.id == "driver").expect("a driver").item.amount,
                found.hours,
            )
        };
        let (one, drivers, hours) = sheets(1.0);
        for many in [2.0, 3.0] {
            let (found, driven, worked) = sheets(many);
            assert!(found as f64 <= many * one as f64, "{}", design.name);
            assert_relative_eq!(driven, many * drivers);
            assert_relative_eq!(worked, many * hours, max_relative = 0.02);
        }
    }
}

#[test]
fn holes_are_the_same_everywhere() {
    for (design, plan) in plans().into_iter().step_by(5) {
        let report = oak_planning::cut::cut(&RawQuestion::of(design.clone())).expect("whole").expect("a box");
        let holes =
            report.panels.iter().flat_map(|panel| panel.holes.iter().map(|hole| (panel.number, hole)));
        let listed: Vec<_> = holes.collect();
        assert_eq!(listed.len(), plan.holes.len(), "{}", design.name);
        for ((number, hole), found) in listed.iter().zip(&plan.holes) {
            assert_eq!(
                (*number, &hole.what, hole.at, hole.size),
                (found.panel, &found.hole.what, found.hole.at, found.hole.size)
            );
            // In inches it is never smaller, and by less than a 32nd larger.
            let inches = f64::from(found.inch32) / 32.0 * 0.0254;
            assert!(inches >= hole.size[0] - 1e-8 && inches < hole.size[0] + 0.0254 / 32.0);
        }
    }
}

#[test]
fn a_hole_across_a_joint_and_a_screw_that_is_too_long_are_said() {
    let design = demo_build("Narrowboat nook").variants[0].clone();
    let clean = plan(&design, None, &RawWorkshop::default());
    assert!(clean.faults.is_empty(), "{:?}", clean.faults);
    let mut thin = design.clone();
    thin.body.get_or_insert_with(RawBody::default).thickness = text("6 mm");
    let found = build_plan(&question(&thin, None, &RawWorkshop::default())).expect("whole").expect("a box");
    let bolted = found.holes.iter().any(|hole| hole.hole.kind == HoleKind::Bolt);
    assert_eq!(
        found.faults.iter().any(|fault| fault.contains("no screw holds")),
        bolted,
        "{:?}",
        found.faults
    );
    // A board that no sheet holds.
    let small = RawSheet {
        material: design.body.as_ref().and_then(|body| body.material),
        thickness: design.body.as_ref().and_then(|body| body.thickness.clone()).or(text("18 mm")),
        width: text("200 mm"),
        height: text("250 mm"),
        ..RawSheet::default()
    };
    let tight = plan(&design, None, &RawWorkshop { sheets: vec![small], ..RawWorkshop::default() });
    assert!(
        tight.faults.iter().any(|fault| fault.contains("is larger than any sheet")),
        "{:?}",
        tight.faults
    );
}

#[test]
fn what_is_measured_flows_back_and_marks_what_was_printed() {
    let design = demo_build("Pit organ").variants[0].clone();
    let workshop = RawWorkshop::default();
    let before = plan(&design, None, &workshop);
    let printed = RawPrinted {
        page: "panels".to_owned(),
        at: "2026-05-01T10:00:00Z".to_owned(),
        said: before.says.clone(),
    };
    let mut asked = question(&design, None, &workshop);
    asked.progress.printed = vec![printed];
    assert!(build_plan(&asked).expect("whole").expect("a box").outdated.is_empty());
    let board = before
        .steps
        .iter()
        .find_map(|step| step.measures.as_ref().filter(|one| one.what == "thickness"))
        .expect("measured");
    let nominal = format!("{} mm", board.drawn * 1e3);
    let material = design.body.as_ref().and_then(|body| body.material).unwrap_or(RawMaterial::Mdf);
    let thinner = RawMeasuredBoard {
        material,
        nominal: Typed::from(nominal.as_str()),
        measured: Typed::from(format!("{} mm", board.drawn * 1e3 - 0.7).as_str()),
    };
    asked.question.design.measured =
        Some(RawMeasurements { boards: vec![thinner], cutout: text("300 mm"), ..RawMeasurements::default() });
    let after = build_plan(&asked).expect("whole").expect("a box");
    let thick = |plan: &BuildPlan| plan.sheets.iter().map(|group| group.thickness).fold(0.0, f64::max);
    assert_relative_eq!(thick(&before) - thick(&after), 0.0007, epsilon = 1e-9);
    // The same step asks for it again, by the name of the design's thickness.
    let again = after
        .steps
        .iter()
        .find_map(|step| step.measures.as_ref().filter(|one| one.what == "thickness"))
        .expect("measured");
    assert_relative_eq!(again.drawn, board.drawn, epsilon = 1e-9);
    assert!(
        after
            .holes
            .iter()
            .any(|hole| hole.hole.kind == HoleKind::Driver && (hole.hole.size[0] - 0.3).abs() < 1e-9)
    );
    let [old] = after.outdated.as_slice() else { panic!("{:?}", after.outdated) };
    assert!(old.page == "panels" && old.changed.len() > 3, "{old:?}");
    // A volume that was found is one more thing in the ledger, whichever way it differs.
    for (measured, sign) in [("90 l", 1.0), ("110 l", -1.0)] {
        let mut found = design.clone();
        let body = found.body.get_or_insert_with(RawBody::default);
        (body.width, body.height, body.depth) = (text("600 mm"), text("900 mm"), text("500 mm"));
        let eaten = |design: &RawDesign| {
            let built =
                RawQuestion::of(design.clone()).resolve().expect("whole").design.built().expect("built");
            let ledger = built.boxed.as_ref().expect("a box").cabinet.chambers[0].ledger.clone();
            ledger.entries.iter().find(|entry| entry.what == "Found difference").map(|entry| entry.volume)
        };
        assert_eq!(eaten(&found), None);
        found.measured = Some(RawMeasurements {
            volume: Some(RawMeasuredVolume {
                measured: Typed::from(measured),
                expected: Typed::from("100 l"),
            }),
            ..RawMeasurements::default()
        });
        assert_relative_eq!(eaten(&found).expect("in the ledger"), sign * 0.01, epsilon = 1e-9);
    }
}

#[test]
fn own_prices_and_stock_stand_over_the_usual_ones_and_go_out_and_in_as_a_table() {
    let design = &demo_build("Narrowboat nook").variants[0];
    let usual = plan(design, None, &RawWorkshop::default());
    let glue = &usual.items.iter().find(|line| line.item.id == "glue.pva").expect("glue").item;
    let own =
        RawStock { item: "glue.pva".to_owned(), price: Some(Typed::Number(7.5)), ..RawStock::default() };
    let stocked = RawStock {
        item: "driver".to_owned(),
        stock: Some(Typed::Number(9.0)),
        bought: true,
        ..RawStock::default()
    };
    let workshop = RawWorkshop { items: vec![own, stocked], ..RawWorkshop::default() };
    let mine = plan(design, None, &workshop);
    let driver = &usual.items.iter().find(|line| line.item.id == "driver").expect("a driver").item;
    let saved = driver.cost().expect("priced") - (7.5 - 5.0) * glue.packs();
    assert_relative_eq!(usual.cost.expect("priced") - mine.cost.expect("priced"), saved, epsilon = 1e-9);
    let table = price_table(&mine);
    let read = prices_of(&table).expect("a table");
    let again = plan(design, None, &RawWorkshop { items: read, ..RawWorkshop::default() });
    assert_eq!(again.cost, mine.cost);
    // With semicolons, a decimal comma and a mark of bytes, as spreadsheets write it.
    let other = prices_of("\u{feff}item;price;in_stock;bought\nglue.pva;6,25;;yes\n").expect("a table");
    assert_eq!((other[0].price.clone(), other[0].bought), (Some(Typed::Number(6.25)), true));
    assert!(prices_of("name,cost\nglue,4").expect_err("no column").contains("column item"));
    assert!(prices_of("item,price\nglue.pva,dear").expect_err("no number").contains("line 2"));
    assert!(parts_table(&mine).lines().count() == mine.items.len() + 1);
}

#[test]
fn a_long_search_is_kept_while_it_is_for_these_boards() {
    let design = &demo_build("Barn dance").variants[0];
    let mut asked = question(design, None, &RawWorkshop::default());
    let quick = build_plan(&asked).expect("whole").expect("a box");
    let found = search_layouts(&asked.question, 60, &mut |_, _| (), &Stop::default()).expect("whole");
    assert!(!found.is_empty());
    let conditions = &mut asked.question.conditions;
    conditions.workshop = Some(RawWorkshop { layouts: found, ..RawWorkshop::default() });
    let searched = build_plan(&asked).expect("whole").expect("a box");
    assert!(searched.cost <= quick.cost && searched.sheets.iter().all(|group| group.searched));
    // For another kerf it is not.
    if let Some(workshop) = &mut asked.question.conditions.workshop {
        workshop.kerf = text("4 mm");
    }
    let other = build_plan(&asked).expect("whole").expect("a box");
    assert!(other.sheets.iter().all(|group| !group.searched));
}

#[test]
fn screws_pilots_nuts_and_wires_are_those_of_the_tables() {
    let mdf = oak_cabinetry::panel::Material::named("mdf").expect("MDF");
    let pine = oak_cabinetry::panel::Material::named("pine_ply").expect("pine");
    // USDA Wood Handbook, chapter 8, from memory: root two thirds of the shank, 90 and 70 % of it: 2.4 and 1.87 mm for 4 mm.
    let four = Screw { diameter: 0.004, length: 0.04 };
    assert_relative_eq!(four.pilot(mdf), 0.0025, epsilon = 1e-9);
    assert_relative_eq!(four.pilot(pine), 0.002, epsilon = 1e-9);
    assert_eq!(Screw::into_edge(0.018).name(), "4 x 45 mm");
    assert_eq!(Screw::within(0.005, 0.0231).map(|screw| screw.name()).as_deref(), Some("5 x 20 mm"));
    assert_eq!(Screw::within(0.005, 0.01), None);
    assert_relative_eq!(thread_for(0.0055), 0.005);
    assert_relative_eq!(nut_hole(0.005, false), 0.0065);
    // ASTM B258: 12 AWG is 3.31 mm2, 5.2 mohm a metre.
    let twelve = Wire::gauge(12);
    assert_relative_eq!(twelve.area * 1e6, 3.31, max_relative = 2e-3);
    assert_relative_eq!(twelve.resistance(0.5), 0.0052, max_relative = 5e-3);
    assert_eq!(Wire::usual(8.0, 2.0, 4.0).gauge, 12);
    assert_eq!(Wire::usual(2.0, 0.8, 8.0).gauge, 14);
    assert_eq!(Wire::usual(15.0, 2.0, 2.0).gauge, 10);
    assert_eq!([clamps(0.4), clamps(2.4), clamps(9.0)], [4, 12, 12]);
}

#[test]
fn what_is_typed_wrongly_is_refused_with_field_and_range() {
    let design = &demo_build("Narrowboat nook").variants[0];
    let wrong = |workshop: RawWorkshop| {
        let problems = build_plan(&question(design, None, &workshop)).expect_err("refused");
        problems.iter().map(ToString::to_string).collect::<Vec<_>>().join("; ")
    };
    let kerf = wrong(RawWorkshop { kerf: text("30 mm"), ..RawWorkshop::default() });
    assert!(kerf.contains("conditions.workshop.kerf") && kerf.contains("10 mm"), "{kerf}");
    assert!(
        wrong(RawWorkshop { start: Some("2026-02-30".to_owned()), ..RawWorkshop::default() })
            .contains("start")
    );
    assert!(wrong(RawWorkshop { hours: vec![0.0; 7], ..RawWorkshop::default() }).contains("no hour"));
    assert!(wrong(RawWorkshop { hours: vec![25.0; 7], ..RawWorkshop::default() }).contains("hours[0]"));
    let mut asked = question(design, None, &RawWorkshop::default());
    asked.today = "today".to_owned();
    assert!(build_plan(&asked).is_err());
    let mut baffle = question(design, None, &RawWorkshop::default());
    baffle.question.design.enclosure.family = RawFamily::InfiniteBaffle;
    assert_eq!(build_plan(&baffle).expect("whole"), None);
}

#[test]
fn every_second_cabinet_of_a_mirrored_pair_has_its_handed_boards_turned_over() {
    let build = demo_build("Pit organ");
    let mut design = build.variants[0].clone();
    let body = design.body.get_or_insert_with(RawBody::default);
    body.driver = Some(RawPlace { face: RawFace::Front, across: text("300 mm"), up: None });
    let brief = RawBrief { cabinets: Some(Typed::from(2.0)), ..RawBrief::default() };
    let mirrored_of = |mirrored: bool| {
        let workshop = RawWorkshop { mirrored, ..RawWorkshop::default() };
        let asked = question(&design, Some(&brief), &workshop);
        let plan = build_plan(&asked).expect("it can be built").expect("it has a box");
        let sheets: Vec<_> = plan.sheets.into_iter().flat_map(|group| group.sheets).collect();
        (asked.question, sheets)
    };
    let (_, sheets) = mirrored_of(false);
    assert!(sheets.iter().flat_map(|sheet| &sheet.boards).all(|board| !board.mirrored));

    let (asked, sheets) = mirrored_of(true);
    let boards = |name: &str| -> Vec<bool> {
        let all = sheets.iter().flat_map(|sheet| &sheet.boards);
        all.filter(|board| board.name.starts_with(name)).map(|board| board.mirrored).collect()
    };
    let fronts = boards("front");
    assert_eq!(fronts.iter().filter(|mirrored| **mirrored).count() * 2, fronts.len(), "{fronts:?}");
    assert!(!fronts.is_empty() && boards("left").iter().all(|mirrored| !mirrored));

    // As it is drawn, its driver is as far from the other side.
    let mut off = Vec::new();
    for (at, sheet) in sheets.iter().enumerate() {
        let drawing = flat_drawing(&asked, Flat::Sheet(at)).expect("drawn").expect("a sheet");
        for board in sheet.boards.iter().filter(|board| board.name.starts_with("front")) {
            let name = format!("{} {}", board.number, board.name);
            let hole =
                drawing.rings.iter().filter(|ring| ring.part == name).map(|ring| (ring.radius, ring.middle));
            // The length of the sheet lies level, its width down.
            let [x, y] = [board.at[1], sheet.size[0] - board.at[0]];
            let inside =
                |[a, b]: [f64; 2]| (x..x + board.size[1]).contains(&a) && (y - board.size[0]..y).contains(&b);
            let mine = hole.filter(|(_, middle)| inside(*middle));
            let (_, middle) = mine.max_by(|a, b| a.0.total_cmp(&b.0)).expect("a driver");
            let from = if board.turned { x + board.size[1] - middle[0] } else { y - middle[1] };
            off.push((board.mirrored, (from * 1e4).round() / 1e4));
        }
    }
    off.sort_by_key(|board| board.0);
    let plain = off[0].1;
    let width = sheets.iter().flat_map(|sheet| &sheet.boards).find(|board| board.name.starts_with("front"));
    let width = width.map(|board| board.size[usize::from(board.turned)]).expect("a front");
    for (mirrored, from) in off {
        let wanted = if mirrored { width - plain } else { plain };
        assert!((from - wanted).abs() < 1e-3, "{mirrored} {from} {wanted}");
    }
}

#[test]
fn veneer_is_cut_over_its_boards_and_bought_by_what_is_cut() {
    let build = demo_build("Pit organ");
    let veneered = RawWorkshop { finish: RawFinish::Veneer, ..RawWorkshop::default() };
    let found = plan(&build.variants[0], None, &veneered);
    let cut = oak_design::report::CutReport::of(
        &oak_design::resolve::resolve_design(&build.variants[0]).expect("whole").built().expect("built"),
    )
    .expect("a box");
    let outer: Vec<_> = cut
        .panels
        .iter()
        .filter(|panel| panel.outside && panel.layer.is_none_or(|[at, _]| at == 1))
        .collect();
    assert_eq!(found.veneers.len(), outer.len());
    let mut area = 0.0;
    for (piece, panel) in found.veneers.iter().zip(outer) {
        assert_eq!((piece.panel, piece.count), (panel.number, panel.count));
        for axis in 0..2 {
            assert_relative_eq!(piece.size[axis], panel.size[axis] + 0.05, epsilon = 1e-9);
        }
        area += f64::from(piece.count) * piece.size[0] * piece.size[1];
    }
    let bought = &found.items.iter().find(|line| line.item.id == "veneer").expect("veneer").item;
    assert_relative_eq!(bought.amount, 1.15 * area, max_relative = 1e-9);
    let painted = plan(&build.variants[0], None, &RawWorkshop::default());
    assert!(painted.veneers.is_empty());
}
