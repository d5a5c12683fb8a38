//! The box in its place: what does not fit, and the ways out that the program finds.

use crate::support::{demo_build, demo_builds};
use oak_acoustics::Stop;
use oak_design::conditions::RawConditions;
use oak_design::conditions::RawQuestion;
use oak_design::file::{
    RawBody, RawBrief, RawBuild, RawDesign, RawDriver, RawEnclosureShape, RawFace, RawFamily, RawFold,
    RawPlace, Typed,
};
use oak_design::resolve::{resolve_brief, resolve_design};
use oak_design::start::RawAsk;
use oak_planning::check::{Check, Verdict, judge};

use oak_planning::suggestion::{RawSuggestionRequest, suggest};
use oak_planning::{Case, cabinet, firings, starts};

fn nook() -> RawBuild {
    demo_build("Narrowboat nook")
}

fn question(design: &RawDesign, brief: Option<&RawBrief>) -> RawQuestion {
    RawQuestion { brief: brief.cloned(), ..RawQuestion::of(design.clone()) }
}

fn length(text: &str) -> Option<Typed> {
    Some(Typed::from(text))
}

/// The slotted sub with a straight slot, as wide and high as the bunk allows.
fn straight() -> (RawBrief, RawDesign) {
    let build = nook();
    let mut design =
        build.variants.iter().find(|design| design.name == "Slot, all-round").expect("in the demo").clone();
    design.body = Some(RawBody { width: length("600 mm"), height: length("360 mm"), ..RawBody::default() });
    (build.brief.expect("a brief"), design)
}

fn check(brief: &RawBrief, design: &RawDesign, id: &str) -> Check {
    let brief = resolve_brief(brief).expect("a brief");
    let found = judge(&Case::of(&brief, design).expect("whole"));
    found.into_iter().find(|check| check.id == id).expect("judged")
}

#[test]
fn a_port_that_does_not_fit_the_bunk_is_said_and_a_way_out_found() {
    let (brief, design) = straight();
    let fits = check(&brief, &design, "fits");
    assert_eq!(fits.verdict, Verdict::Short);
    assert!(fits.why.contains("458 mm inside, and there are 278 mm"), "{}", fits.why);
    let found = suggest(
        &RawSuggestionRequest {
            brief: brief.clone(),
            design: design.clone(),
            check: "fits".to_owned(),
            conditions: RawConditions::default(),
        },
        &Stop::default(),
    )
    .expect("suggestions");
    assert!(found.suggestions.len() >= 4, "{:?}", found.nearest);
    for suggestion in &found.suggestions {
        let Some(changed) = &suggestion.design else { continue };
        let asked = suggestion.brief.as_ref().unwrap_or(&brief);
        assert_eq!(check(asked, changed, "fits").verdict, Verdict::Met, "{}", suggestion.words);
        let report = cabinet(&question(changed, Some(asked))).expect("builds").expect("a box");
        assert!(
            report.findings.iter().all(|finding| !finding.forbids),
            "{}: {:?}",
            suggestion.words,
            report.findings
        );
    }
    // The way out that changes least: the demo's sub is built so, and lies within its bunk.
    let best = found.suggestions[0].design.as_ref().expect("a design");
    let build = nook();
    let built = build.variants.iter().find(|variant| variant.name == "Slot, all-round").expect("in the demo");
    assert_eq!(best.body, built.body);
    assert_eq!(check(&brief, built, "size").verdict, Verdict::Met);
    let report = cabinet(&question(built, Some(&brief))).expect("builds").expect("a box");
    assert!(
        report.outside.iter().zip([0.6, 0.36, 0.4]).all(|(size, most)| *size <= most + 1e-9),
        "{:?}",
        report.outside
    );
}

#[test]
fn the_cabinets_of_the_demo_fit_together_and_into_their_places() {
    let mut built = 0;
    for build in demo_builds() {
        let brief = build.brief.expect("a brief");
        for design in &build.variants {
            let fits = check(&brief, design, "fits");
            assert_eq!(fits.verdict, Verdict::Met, "{}, {}: {}", build.name, design.name, fits.why);
            // Of what nobody has drawn yet the usual proportions may not go in.
            if design.body.is_none() {
                continue;
            }
            built += 1;
            let size = check(&brief, design, "size");
            assert_eq!(size.verdict, Verdict::Met, "{}, {}: {}", build.name, design.name, size.words);
        }
    }
    assert!(built >= 10, "{built} cabinets");
}

#[test]
fn a_box_larger_than_its_place_says_by_how_much() {
    let (brief, mut design) = straight();
    let body = design.body.as_mut().expect("written");
    body.height = length("380 mm");
    let size = check(&brief, &design, "size");
    assert_eq!((size.verdict, size.words.as_str()), (Verdict::Short, "20 mm too high"));
    // Left open, it is as high as its volume makes it, and judged by that.
    design.body.as_mut().expect("written").height = None;
    design.enclosure.volume = Some(Typed::from("70 l"));
    design.enclosure.tuning = Some(Typed::from("24 Hz"));
    let size = check(&brief, &design, "size");
    assert_eq!(size.verdict, Verdict::Short);
    assert!(size.words.ends_with("mm too high"), "{}", size.words);
}

#[test]
fn a_box_of_which_nothing_is_written_is_judged_like_any_other() {
    let (brief, mut design) = straight();
    design.body = None;
    let brief = resolve_brief(&brief).expect("a brief");
    let found = judge(&Case::of(&brief, &design).expect("whole"));
    let verdict = |id: &str| found.iter().find(|check| check.id == id).expect("judged").verdict;
    // Of the usual proportions it is higher than a bunk leaves, and its slot finds no place in it.
    assert_eq!((verdict("size"), verdict("fits")), (Verdict::Short, Verdict::Short), "{found:?}");
}

#[test]
fn proposed_braces_make_the_boards_ring_higher_and_the_box_still_fits() {
    let build = nook();
    let design =
        build.variants.iter().find(|design| design.name == "Sealed, bench berth").expect("in the demo");
    let report = oak_planning::panels(&question(design, build.brief.as_ref()), &Stop::default())
        .expect("builds")
        .expect("a box");
    assert!((report.wanted - 180.0).abs() < 1e-9, "twice the crossover");
    let mut braced = design.clone();
    braced.body.get_or_insert_default().braces = report.braces.clone();
    let again = cabinet(&question(&braced, build.brief.as_ref())).expect("builds").expect("a box");
    let weakest = again.panels.iter().filter_map(|panel| panel.resonance).fold(f64::INFINITY, f64::min);
    assert!((weakest - report.braced).abs() < 1.0, "{weakest} {}", report.braced);
    assert!(report.braced >= report.resonance);
    assert!(again.findings.iter().all(|finding| !finding.forbids), "{:?}", again.findings);
    // Stiff and light against heavy and soft.
    let of = |id: &str| report.materials.iter().find(|material| material.id == id).expect("in the table");
    assert!(of("birch_ply").resonance > 1.3 * of("mdf").resonance);
    assert!(of("poplar_ply").mass < 0.7 * of("mdf").mass);
    assert!(of("birch_ply").panel_radiation < of("mdf").panel_radiation);
    // What it is of weighs there what it weighs everywhere.
    let shown = cabinet(&question(design, build.brief.as_ref())).expect("builds").expect("a box");
    assert!(shown.panels.iter().all(|panel| panel.material == "mdf"));
    assert!((of("mdf").mass - shown.weight.panels - shown.weight.braces).abs() < 1e-9);
}

#[test]
fn a_place_that_is_a_wedge_takes_a_wedge_and_not_the_box_of_its_foot() {
    let (mut brief, mut design) = straight();
    brief.top_depth = length("200 mm");
    let place = check(&brief, &design, "place");
    assert_eq!(place.verdict, Verdict::Short, "{}", place.words);
    assert!(place.reached.ends_with("mm too deep"), "{}", place.reached);
    // As deep at its top as the place: the same lean.
    let body = design.body.as_mut().expect("written");
    body.shape = RawEnclosureShape::Wedge;
    (body.height, body.depth, body.top_depth) = (length("360 mm"), length("400 mm"), length("200 mm"));
    // The frame on the upright side stands proud of it, unless it is let in.
    assert_eq!(check(&brief, &design, "place").reached, "6 mm too deep");
    design.body.as_mut().expect("written").recess = length("6 mm");
    assert_eq!(check(&brief, &design, "place").verdict, Verdict::Met);
    // Nothing is said where the place asks for no shape.
    brief.top_depth = None;
    let brief = resolve_brief(&brief).expect("a brief");
    assert!(judge(&Case::of(&brief, &design).expect("whole")).iter().all(|check| check.id != "place"));
}

#[test]
fn only_a_frame_that_can_be_let_in_is_told_to_be() {
    let (mut brief, mut design) = straight();
    let flush = "let in flush it would not";
    assert!(check(&brief, &design, "size").why.contains(flush));
    // Of two face to face the whole outer one stands before the board.
    let pair = serde_json::json!({ "isobaric": { "arrangement": "face_to_face" } });
    design.driver_array = Some(serde_json::from_value(pair).expect("an array"));
    brief.depth = length("350 mm");
    let size = check(&brief, &design, "size");
    assert_eq!(size.verdict, Verdict::Short, "{}", size.why);
    assert!(size.why.contains("stands proud") && !size.why.contains(flush), "{}", size.why);
    let request = RawSuggestionRequest {
        brief,
        design,
        check: "size".to_owned(),
        conditions: RawConditions::default(),
    };
    let found = suggest(&request, &Stop::default()).expect("whole");
    let mut ways = found.suggestions.iter().chain(&found.nearest);
    assert!(ways.all(|way| !way.words.contains("The frame let")), "{found:?}");
}

#[test]
fn a_driver_that_fires_down_stands_on_feet_that_count() {
    let (brief, mut design) = straight();
    let body = design.body.as_mut().expect("written");
    body.driver = Some(RawPlace { face: RawFace::Bottom, across: None, up: None });
    let place = check(&brief, &design, "place");
    // 360 mm of 360 mm, and a gap of a quarter of the cone.
    assert_eq!(place.verdict, Verdict::Short);
    assert!(place.words.ends_with("mm too high on them"), "{}", place.words);
    let cone = (4.0 * 0.0346_f64 / std::f64::consts::PI).sqrt();
    let feet: f64 = place.reached.split(' ').next().and_then(|word| word.parse().ok()).expect("a measure");
    assert!(feet > 250.0 * cone && feet < 250.0 * cone + 20.0, "{feet} mm under a cone of {cone} m");
}

#[test]
fn a_cabinet_suits_the_head_that_stands_on_it() {
    let (mut brief, design) = straight();
    for (head, verdict, words) in [
        ("560 mm", Verdict::Met, "suits a head of 560 mm"),
        ("700 mm", Verdict::Short, "100 mm narrower than the head"),
        ("400 mm", Verdict::Short, "200 mm wider than the head"),
    ] {
        brief.head_width = length(head);
        let place = check(&brief, &design, "place");
        assert_eq!((place.verdict, place.words.as_str()), (verdict, words));
    }
}

#[test]
fn a_way_that_does_not_fit_is_folded_otherwise() {
    let build = demo_build("Pit organ");
    let brief = build.brief.expect("a brief");
    let mut design =
        build.variants.into_iter().find(|design| design.name == "Pedal line").expect("in the demo");
    // So often that no channel is as high as its driver is wide.
    let folds = Some(Typed::Number(5.0));
    let fold = RawFold { folds, ..RawFold::default() };
    design.body = Some(RawBody { fold: Some(fold), ..RawBody::default() });
    let fits = check(&brief, &design, "fits");
    assert_eq!(fits.verdict, Verdict::Short);
    assert!(fits.why.contains("another number of folds"), "{}", fits.why);
    let found = suggest(
        &RawSuggestionRequest {
            brief: brief.clone(),
            design,
            check: "fits".to_owned(),
            conditions: RawConditions::default(),
        },
        &Stop::default(),
    )
    .expect("searches");
    let folded = found
        .suggestions
        .iter()
        .find(|suggestion| suggestion.words.starts_with("Folded"))
        .expect("folded otherwise");
    let changed = folded.design.as_ref().expect("a design");
    assert_eq!(check(&brief, changed, "fits").verdict, Verdict::Met, "{}", folded.words);
}

#[test]
fn firing_forward_up_and_down_are_laid_side_by_side_in_the_same_place() {
    let (mut brief, design) = straight();
    (brief.width, brief.height, brief.depth) = (length("600 mm"), length("400 mm"), length("420 mm"));
    let ask = question(&design, Some(&brief));
    let found = firings(&ask, &Stop::default()).expect("works out");
    assert_eq!(found.iter().map(|one| one.name).collect::<Vec<_>>(), ["Forward", "Up", "Down"]);
    let size = resolve_design(&design).expect("whole");
    let (cone, travel) = (size.driver_size().cone, size.driver.driver.xmax.expect("in the sheet"));
    for one in &found {
        // The clearance and the box are the place, and the design that is offered is just that box.
        let axis = if one.name == "Forward" { 2 } else { 1 };
        assert!((one.outside[axis] + one.clearance - [0.6, 0.4, 0.42][axis]).abs() < 1e-9);
        let shown = cabinet(&question(&one.design, Some(&brief))).expect("builds").expect("a box");
        assert!((0..3).all(|k| (shown.outside[k] - one.outside[k]).abs() < 1.1e-3), "{:?}", shown.outside);
        assert!((shown.chambers[0].net - one.air).abs() < 1e-9);
    }
    // Down: the rim of the gap is as large as the cone, and the cone may move.
    assert!((found[2].clearance - cone / 4.0 - travel).abs() < 1e-9);
    assert!(found[2].air < found[0].air && found[2].f3 > found[0].f3, "a gap eats the box");
    // A place that leans: the box leans with it, and the gap pushes it out of none of its corners.
    brief.top_depth = length("300 mm");
    for one in firings(&question(&design, Some(&brief)), &Stop::default()).expect("works out") {
        let shape = check(&brief, &one.design, "place");
        assert!(one.forbids.is_empty() || shape.verdict == Verdict::Short || shape.ratio >= 1.0, "{shape:?}");
        assert_eq!(shape.verdict, Verdict::Met, "{}: {} {}", one.name, shape.reached, shape.words);
    }
    // A folded way is not offered.
    let organ = demo_build("Pit organ");
    let line = organ.variants.iter().find(|design| design.name == "Pedal line").expect("in the demo");
    assert!(firings(&question(line, organ.brief.as_ref()), &Stop::default()).expect("answers").is_empty());
}

/// A horn to 18 Hz would have a mouth of 13 m2: whatever a rule gives, a design that is offered can be opened.
#[test]
fn no_starting_point_offers_what_would_be_refused() {
    let mut refused = 0;
    for build in demo_builds() {
        for design in build.variants {
            let plain = RawFamily::ALL.iter().map(|family| RawAsk::of(design.driver.clone(), *family));
            let low = RawAsk {
                lowest: Some(Typed::from("18 Hz")),
                ..RawAsk::of(design.driver.clone(), RawFamily::FrontHorn)
            };
            for ask in plain.chain([low]) {
                for start in ask.answer(&Stop::default()).expect("answers") {
                    match &start.design {
                        Some(offered) => {
                            assert!(resolve_design(offered).is_ok(), "{}: {}", ask.family.id(), start.name);
                        }
                        None => refused += usize::from(start.reason.contains("is outside")),
                    }
                }
            }
        }
    }
    assert!(refused > 0);
}

/// A box comes with the starting point, and it can be built: what a newcomer without a brief sees first.
#[test]
fn without_a_brief_starting_points_are_boxes_that_can_be_built() {
    let drivers: Vec<RawDriver> = demo_builds()
        .into_iter()
        .flat_map(|build| build.variants)
        .map(|design| design.driver)
        .fold(Vec::new(), |mut seen, driver| {
            if !seen.contains(&driver) {
                seen.push(driver);
            }
            seen
        });
    assert!(drivers.len() >= 4);
    let unasked = RawBrief::default();
    for (family, least) in [
        (RawFamily::Sealed, 0.8),
        (RawFamily::Ported, 0.85),
        (RawFamily::PassiveRadiator, 0.8),
        (RawFamily::Bandpass4, 0.9),
        (RawFamily::Bandpass6Parallel, 0.85),
        (RawFamily::Bandpass6Series, 0.8),
        (RawFamily::Line, 1.0),
        (RawFamily::SlotFlare, 1.0),
        (RawFamily::BackHorn, 1.0),
        (RawFamily::FrontHorn, 0.9),
    ] {
        let designs: Vec<RawDesign> = drivers
            .iter()
            .filter_map(|driver| starts(&RawAsk::of(driver.clone(), family), &Stop::default()).ok())
            .flatten()
            .filter_map(|start| start.design)
            .collect();
        let built = designs.iter().filter(|design| check(&unasked, design, "fits").verdict == Verdict::Met);
        let share = built.count() as f64 / designs.len() as f64;
        assert!(share >= least, "{}: {share:.2} of {}", family.id(), designs.len());
    }
}
