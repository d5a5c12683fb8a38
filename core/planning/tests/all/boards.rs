//! Sheets, holes and boards of the plan, of the demo builds in workshops of every kind.

use approx::assert_relative_eq;
use oak_acoustics::Stop;
use oak_cabinetry::cut::HoleKind;
use oak_design::conditions::RawQuestion;
use oak_design::file::{
    RawBody, RawBrief, RawDesign, RawFace, RawFinish, RawMaterial, RawMeasuredBoard, RawMeasuredVolume,
    RawMeasurements, RawPlace, RawPrinted, RawSheet, RawTerminal, RawWorkshop, Typed,
};
use oak_planning::build_plan::{BuildPlan, Flat, build_plan, flat_drawing, search_layouts, with_terminal};
use oak_planning::cut::cut;
use serde_json::Value;

use crate::support::workshop::{plan, plans, question, text};
use crate::support::{demo_build, demo_builds};

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

#[test]
fn a_terminal_without_a_hole_gets_one_where_nothing_is_in_its_way() {
    let kinds = [RawTerminal::Cup, RawTerminal::Posts, RawTerminal::Locking];
    let (mut placed, mut tried) = (0, 0);
    for (turn, design) in demo_builds().into_iter().flat_map(|build| build.variants).enumerate() {
        let workshop = RawWorkshop { terminal: kinds[turn % 3], ..RawWorkshop::default() };
        let before = question(&design, None, &workshop);
        let Ok(Some(plan)) = build_plan(&before) else { continue };
        let found = with_terminal(&before.question).expect("it can be built");
        if !plan.terminal_lacks_hole {
            assert_eq!(found, None, "{}", design.name);
            continue;
        }
        tried += 1;
        let Some(found) = found else { continue };
        placed += 1;
        let after = question(&found.design, None, &workshop);
        let with = build_plan(&after).expect("it can be built").expect("it has a box");
        assert!(!with.terminal_lacks_hole, "{}", design.name);
        assert!(with.faults.len() <= plan.faults.len(), "{}: {:?}", design.name, with.faults);
        let items = &found.design.body.as_ref().expect("a body").items;
        let names: Vec<&str> =
            items.iter().map(|item| item.name.as_str()).filter(|name| found.words.contains(*name)).collect();
        assert!(with.holes.iter().any(|hole| names.contains(&hole.hole.what.as_str())), "{}", design.name);
        assert!(
            !items.iter().any(|item| item.face.is_none() && item.name == "Terminal cup"),
            "{}",
            design.name
        );
        let step = with.steps.iter().find(|step| step.id == "fit.terminal").expect("a step");
        assert!(!step.how.contains("not in the drawing"), "{}", design.name);
        assert_eq!(with_terminal(&after.question), Ok(None), "{}", design.name);
    }
    assert!(tried > 8 && placed * 10 >= tried * 8, "{placed} of {tried}");
}

#[test]
fn boards_cut_to_a_rule_say_what_that_does_to_volume_and_tuning() {
    let mut design = demo_build("Pit organ").variants.remove(0);
    design.body = Some(RawBody {
        width: text("15.3 in"),
        height: text("30.02 in"),
        depth: text("18.04 in"),
        ..RawBody::default()
    });
    design.enclosure.volume = None;
    let rounded = plan(&design, None, &RawWorkshop::default()).rounded;
    let sixteenths = rounded.last().expect("a box of one room");
    assert_relative_eq!(sixteenths.division, 0.0254 / 16.0);
    for (side, inches) in sixteenths.outside.iter().zip([15.3125, 30.0, 18.0625]) {
        assert_relative_eq!(*side, 0.0254 * inches, max_relative = 1e-9);
    }
    // The same box drawn with those sizes, its port as long as before.
    let built = |design: &RawDesign| {
        let resolved = RawQuestion::of(design.clone()).resolve().expect("whole").design;
        let built = resolved.built().expect("builds");
        let net = built.boxed.as_ref().expect("a box").cabinet.chambers[0].ledger.net();
        let tuning = built.compiled.port_tuning.as_ref().expect("a port");
        (net, tuning.reactance, tuning.ports[0].length)
    };
    let (net, tuning, length) = built(&design);
    design.enclosure.tuning = None;
    design.enclosure.ports[0].length = text(&format!("{} mm", length * 1e3));
    let body = design.body.as_mut().expect("a body");
    (body.width, body.height, body.depth) = (text("15.3125 in"), text("30 in"), text("18.0625 in"));
    let (rounded_net, rounded_tuning, _) = built(&design);
    assert!(
        (sixteenths.volume - (rounded_net - net)).abs() < 2e-5,
        "{} {}",
        sixteenths.volume,
        rounded_net - net
    );
    let told = sixteenths.tuning.expect("a tuning");
    assert!((told - (rounded_tuning - tuning)).abs() < 0.02, "{told} {}", rounded_tuning - tuning);
}

/// What ezdxf reads in the files of boards (`reference/dxf/run.py`) against the boards themselves, to 0.2 mm.
#[test]
fn another_program_reads_the_boards_as_large_as_they_are_with_all_their_holes() {
    let path = concat!(env!("CARGO_MANIFEST_DIR"), "/../../reference/dxf/results.json");
    let results: Value = serde_json::from_slice(&std::fs::read(path).expect("results")).expect("JSON");
    let near = |a: f64, b: f64| assert!((a - b).abs() < 0.2, "{a} mm, {b} mm");
    let number = |value: &Value| value.as_f64().expect("a number");
    for (file, name) in
        [("pit-organ", "Pit organ"), ("barn-dance", "Barn dance"), ("narrowboat-nook", "Narrowboat nook")]
    {
        let design = demo_build(name).variants.remove(0);
        let found = cut(&RawQuestion::of(design)).expect("it can be built").expect("it has a box");
        let read = results[file].as_array().expect("boards");
        assert_eq!(read.len(), found.panels.len(), "{name}");
        for (panel, read) in found.panels.iter().zip(read) {
            assert_eq!(read["millimetres"], true);
            let span = |axis: usize| {
                let along = panel.outer.iter().map(|point| point[axis] * 1e3);
                let low = along.clone().fold(f64::INFINITY, f64::min);
                (low, along.fold(f64::NEG_INFINITY, f64::max) - low)
            };
            for axis in [0, 1] {
                near(number(&read["from"][axis]), span(axis).0);
                near(number(&read["size"][axis]), span(axis).1);
            }
            let mut circles: Vec<[f64; 3]> = panel
                .holes
                .iter()
                .filter(|hole| hole.round && hole.kind != HoleKind::Bolt)
                .map(|hole| [hole.at[0], hole.at[1], hole.size[0]].map(|length| length * 1e3))
                .collect();
            let read: Vec<&Value> = read["circles"].as_array().expect("circles").iter().collect();
            let mut read: Vec<[f64; 3]> = read
                .into_iter()
                .filter(|circle| {
                    circle[0] != "drill" || panel.holes.iter().all(|hole| hole.kind != HoleKind::Bolt)
                })
                .map(|circle| [1, 2, 3].map(|at| number(&circle[at])))
                .collect();
            let order = |a: &[f64; 3], b: &[f64; 3]| {
                a.map(f64::round).partial_cmp(&b.map(f64::round)).expect("finite")
            };
            circles.sort_by(order);
            read.sort_by(order);
            assert_eq!(read.len(), circles.len(), "{name}, {}", panel.name);
            for (read, own) in read.iter().flatten().zip(circles.iter().flatten()) {
                near(*read, *own);
            }
        }
    }
}
