//! What is bought and done, of the demo builds in workshops of every kind.

use approx::assert_relative_eq;
use chrono::{Duration, NaiveDateTime};
use oak_design::file::{
    RawBody, RawBrief, RawDesign, RawFamily, RawOverlap, RawStock, RawTick, RawWorkshop, Typed,
};
use oak_planning::Case;
use oak_planning::build_plan::hardware::{Screw, Wire, clamps, nut_hole, thread_for};
use oak_planning::build_plan::{
    Phase, build_plan, calendar_file, parts_table, price_table, prices_of, with_making,
};
use oak_planning::check::judge;
use std::collections::HashSet;

use crate::support::workshop::{plan, plans, question, text, workshops};
use crate::support::{demo_build, demo_builds};

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
fn a_kit_is_compared_with_cutting_the_boards_oneself() {
    let design = demo_build("Pit organ").variants.remove(0);
    let own = plan(&design, None, &RawWorkshop::default());
    assert_eq!(own.kit, None);
    let workshop = RawWorkshop { kit: Some(Typed::Number(90.0)), ..RawWorkshop::default() };
    let two = RawBrief { cabinets: Some(Typed::Number(2.0)), ..RawBrief::default() };
    for (brief, cabinets) in [(None, 1.0), (Some(&two), 2.0)] {
        let found = plan(&design, brief, &workshop);
        let kit = found.kit.expect("its price is known");
        assert_relative_eq!(kit.boards, 90.0 * cabinets);
        // The same parts but for the boards, the same steps but for cutting and drilling.
        let [all, boards] = [found.cost, kit.own_boards].map(|cost| cost.expect("usual prices"));
        let sheets: f64 = found.sheets.iter().map(|group| group.cost).sum();
        assert_relative_eq!(boards, sheets, max_relative = 1e-9);
        assert_relative_eq!(kit.cost.expect("usual prices"), all - boards + kit.boards, max_relative = 1e-9);
        let spared = |phase: Phase| matches!(phase, Phase::Cut | Phase::Holes);
        let spared: Vec<_> = found.steps.iter().filter(|step| spared(step.phase)).collect();
        let minutes: f64 = spared.iter().map(|step| step.minutes).sum();
        assert_relative_eq!(found.hours - kit.hours, minutes / 60.0, max_relative = 1e-9);
        assert_eq!(kit.saves.len(), spared.len());
        assert!(
            kit.tools.contains(&"table saw or guide rail") && !kit.tools.contains(&"clamps"),
            "{:?}",
            kit.tools
        );
    }
}
