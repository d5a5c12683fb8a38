//! The box of a design: the loop of volume and port, what it does to the tuning, what is said where it does not fit.

use crate::support::demo_builds;
use approx::assert_relative_eq;
use oak_acoustics::Stop;
use oak_design::cavity_check::{CavityCheckReport, CavityModel, cavity_check};
use oak_design::file::{RawBody, RawDesign, RawMaterial, RawMeasured, RawRatio, Typed};
use oak_design::report::{BodyReport, compute_undelayed};
use oak_design::resolve::resolve_design;
use oak_design::response::FrequencyGrid;
use proptest::prelude::*;

pub fn design(build: &str, variant: &str) -> RawDesign {
    let builds = demo_builds();
    let build = builds.iter().find(|found| found.name == build).expect("a demo build");
    build.variants.iter().find(|found| found.name == variant).expect("a demo variant").clone()
}

/// A ported design of whose box nothing is said.
pub fn ported() -> RawDesign {
    RawDesign { body: None, ..design("Barn dance", "Drover, big ported") }
}

pub fn report(raw: &RawDesign) -> BodyReport {
    let resolved = resolve_design(raw).expect("resolves");
    let grid = FrequencyGrid::logarithmic(10.0, 500.0, 60).expect("a grid");
    let computed = compute_undelayed(&resolved, &grid).expect("computes");
    BodyReport::of(&resolved, &computed, None).expect("builds").expect("a box")
}

fn sized<'a>(raw: &'a mut RawDesign, sizes: [&str; 3]) -> &'a mut RawBody {
    let body = raw.body.get_or_insert_default();
    let [width, height, depth] = sizes.map(|size| Some(Typed::from(size)));
    (body.width, body.height, body.depth) = (width, height, depth);
    body
}

#[test]
fn every_demo_cabinet_with_a_chamber_is_built_with_the_volume_it_asks_for() {
    let mut built = 0;
    for build in demo_builds() {
        for raw in &build.variants {
            let resolved = resolve_design(raw).expect("resolves");
            let grid = FrequencyGrid::logarithmic(10.0, 500.0, 60).expect("a grid");
            let computed = compute_undelayed(&resolved, &grid).expect("computes");
            let Some(report) = BodyReport::of(&resolved, &computed, None).expect("builds") else { continue };
            built += 1;
            if report.solved.iter().any(|solved| *solved) {
                for chamber in &report.chambers {
                    assert_relative_eq!(chamber.net, chamber.wanted, max_relative = 2e-5);
                }
            }
            assert!(report.weight.panels > 1.0, "{}", raw.name);
        }
    }
    assert!(built >= 6, "{built} boxes");
}

#[test]
fn a_way_that_comes_out_too_short_is_told_as_such() {
    // In a box 30 mm deep a way of 3.2 m ends before the place where the drivers' front would speak into it.
    let mut raw = design("Barn dance", "Tapped");
    for front_at in ["1 m", "3 m"] {
        raw.enclosure = serde_json::from_value(serde_json::json!({ "family": "tapped_horn", "passage": {
            "driver_at": "0.2 m", "front_at": front_at, "segments": [{ "length": "3.2 m", "start": "358 cm2" }],
        } }))
        .expect("an enclosure");
        let body = raw.body.insert(RawBody { measured: RawMeasured::Inside, ..RawBody::default() });
        (body.height, body.depth) = (Some(Typed::from("508 mm")), Some(Typed::from("30 mm")));
        let report = report(&raw);
        let fold = report.fold.as_ref().expect("laid");
        assert!(fold.length[1] < 0.5 * fold.length[0], "{:?}", fold.length);
        assert!(fold.words.contains("too short"), "{}", fold.words);
        assert!(fold.change.is_some(), "what was laid is simulated all the same");
    }
}

#[test]
fn the_built_box_is_tuned_where_it_was_wanted() {
    // Sizes solved for the volume: the port's own room counts, so nothing moves.
    let report = report(&ported());
    let tuning = &report.tuning;
    assert!((tuning.frequency.expect("tuned") - 38.0).abs() < 0.01, "{tuning:?}");
    let chamber = &report.chambers[0];
    assert_relative_eq!(chamber.net, chamber.wanted, max_relative = 1e-5);
}

#[test]
fn volume_and_port_are_solved_together() {
    let mut raw = ported();
    sized(&mut raw, ["600 mm", "700 mm", "450 mm"]);
    let asked = oak_design::field::VOLUME.read(raw.enclosure.volume.as_ref()).expect("a volume");
    let report = report(&raw);
    let net = report.chambers[0].net;
    assert!(net < asked, "a smaller box than was typed");
    assert!((report.tuning.frequency.expect("tuned") - 38.0).abs() < 0.1, "cut for this box");
    // Cut to that length it is the same box.
    let length = report.ports[0].overall;
    let mut cut = raw.clone();
    cut.enclosure.tuning = None;
    cut.enclosure.ports[0].length = Some(Typed::from(format!("{length} m").as_str()));
    let again = self::report(&cut);
    assert_relative_eq!(again.chambers[0].net, net, max_relative = 1e-6);
    assert!((again.tuning.frequency.expect("tuned") - 38.0).abs() < 0.1);
}

#[test]
fn a_sealed_box_too_small_says_where_its_resonance_goes() {
    let mut raw = ported();
    raw.enclosure.family = oak_design::file::RawFamily::Sealed;
    sized(&mut raw, ["500 mm", "500 mm", "400 mm"]);
    let small = report(&raw);
    raw.body = None;
    let large = report(&raw);
    assert_eq!(small.tuning.symbol, Some("Fc"));
    assert!(small.tuning.frequency.expect("Fc") > large.tuning.frequency.expect("Fc") + 1.0);
}

#[test]
fn stiffer_or_thicker_boards_talk_less() {
    let panel_radiation = |change: &dyn Fn(&mut RawBody)| {
        let mut raw = ported();
        change(raw.body.get_or_insert_default());
        report(&raw).panel_radiation.expect("boards move").level
    };
    let usual = panel_radiation(&|_| {});
    assert!((-60.0..-10.0).contains(&usual), "{usual}");
    assert!(panel_radiation(&|body| body.thickness = Some(Typed::from("12 mm"))) > usual + 6.0);
    assert!(panel_radiation(&|body| body.material = Some(RawMaterial::BirchPly)) < usual - 3.0);
}

#[test]
fn what_is_wrong_with_a_box_is_said_at_its_place() {
    let mut raw = ported();
    let body = raw.body.get_or_insert_default();
    body.width = Some(Typed::from("9 m"));
    body.ratio = RawRatio::Golden;
    body.braces = vec![oak_design::file::RawBrace {
        along: oak_design::file::RawAxis::Height,
        at: Some(Typed::from("-3 mm")),
        thickness: None,
        open: Some(Typed::from("120 %")),
    }];
    let problems = resolve_design(&raw).expect_err("refused");
    let fields: Vec<_> = problems.iter().map(|problem| problem.field.as_str()).collect();
    assert_eq!(fields, ["body.width", "body.braces[0].at", "body.braces[0].open"]);
    assert!(problems[0].to_string().contains("30 mm to 8000 mm"), "{}", problems[0]);
}

#[test]
fn a_shape_that_cannot_be_is_refused_in_words() {
    let mut raw = ported();
    let body = sized(&mut raw, ["500 mm", "500 mm", "400 mm"]);
    body.shape = oak_design::file::RawEnclosureShape::Step;
    body.step_height = Some(Typed::from("600 mm"));
    body.step_depth = Some(Typed::from("100 mm"));
    let resolved = resolve_design(&raw).expect("each value may be");
    let grid = FrequencyGrid::logarithmic(10.0, 500.0, 8).expect("a grid");
    let computed = compute_undelayed(&resolved, &grid).expect("computes");
    let problem = BodyReport::of(&resolved, &computed, None).expect_err("refused");
    assert_eq!(problem.field, "body.step_height");
}

/// A tall narrow box with its driver near the top and its port below: common practice's case of a box that rings.
fn tall(fill: Option<(&str, &str)>) -> RawDesign {
    let mut raw = ported();
    let driver = design("Busker's upright", "Hare, sealed").driver;
    raw.driver = driver;
    raw.enclosure.volume = Some(Typed::from("48 l"));
    raw.enclosure.tuning = Some(Typed::from("38 Hz"));
    raw.enclosure.ports[0].diameter = Some(Typed::from("80 mm"));
    raw.enclosure.ports[0].count = None;
    let body = sized(&mut raw, ["256 mm", "960 mm", "296 mm"]);
    let place = |up: &str| Some(Typed::from(up));
    body.driver = Some(oak_design::file::RawPlace {
        face: oak_design::file::RawFace::Front,
        across: None,
        up: place("820 mm"),
    });
    body.ports = vec![oak_design::file::RawPortBuild { up: place("100 mm"), ..Default::default() }];
    body.fills = fill
        .map(|(thickness, density)| oak_design::file::RawLayer {
            face: oak_design::file::RawFace::Top,
            thickness: Some(Typed::from(thickness)),
            density: Some(Typed::from(density)),
            resistivity: None,
            frame: Some(oak_design::file::RawFrame::Rigid),
        })
        .into_iter()
        .collect();
    raw
}

fn checked(raw: &RawDesign, model: CavityModel) -> CavityCheckReport {
    let resolved = resolve_design(raw).expect("resolves");
    cavity_check(&resolved, model, &Stop::default(), &|_, _| {}).expect("builds").expect("one room")
}

#[test]
fn a_tall_box_shows_its_half_wave_in_impedance_and_port_and_dense_fill_takes_it() {
    // Common practice: 0.924 m inside rings at 185.6 Hz by itself, seen near 180 Hz with a large driver. A light cone
    // and a port near its ends are masses that raise it: kL = pi + rho c/(S w m) for each.
    for model in [CavityModel::Quick, CavityModel::Full] {
        let empty = checked(&tall(None), model);
        assert!((175.0..205.0).contains(&empty.bump[0]), "{model:?}: {:?}", empty.bump);
        assert!((175.0..205.0).contains(&empty.ripple[0]), "{model:?}: {:?}", empty.ripple);
        assert!(empty.bump[1] > 10.0, "{model:?}: {:?}", empty.bump);
        let foam = checked(&tall(Some(("20 mm", "25 kg/m3"))), model);
        assert!(
            foam.bump[1] > empty.bump[1] - 4.0,
            "thin foam hardly helps: {:?} {:?}",
            foam.bump,
            empty.bump
        );
        let dense = checked(&tall(Some(("300 mm", "60 kg/m3"))), model);
        assert!(dense.bump[1] < empty.bump[1] - 8.0, "{model:?}: {:?} {:?}", dense.bump, empty.bump);
    }
}

#[test]
fn at_low_frequencies_a_room_with_waves_is_the_spring_it_was() {
    // In a box about as deep as high and wide; in a long one its air weighs on the port as a line's would.
    let mut raw = tall(None);
    let body = sized(&mut raw, ["410 mm", "410 mm", "410 mm"]);
    (body.driver, body.ports) = (None, Vec::new());
    raw.enclosure.family = oak_design::file::RawFamily::Sealed;
    for model in [CavityModel::Quick, CavityModel::Full] {
        let found = checked(&raw, model);
        for (index, frequency) in found.frequency.iter().enumerate().filter(|(_, f)| **f < 80.0) {
            let (with, without) = (found.cavity.level[index], found.lumped.level[index]);
            assert!((with - without).abs() < 0.3, "{model:?} at {frequency}: {with} {without}");
        }
    }
}

#[test]
fn what_has_no_place_or_no_air_is_not_checked_for_its_ring() {
    let ask = |raw: &RawDesign| {
        let resolved = resolve_design(raw).expect("resolves");
        cavity_check(&resolved, CavityModel::Quick, &Stop::default(), &|_, _| {})
            .expect_err("refused")
            .to_string()
    };
    let mut raw = tall(None);
    raw.body.as_mut().expect("written").ports[0].face = Some(oak_design::file::RawFace::Tread);
    assert!(ask(&raw).contains("no flat board there"), "{}", ask(&raw));
    let mut full = tall(None);
    full.body.as_mut().expect("written").items = vec![oak_design::file::RawItem {
        name: "Stones".to_owned(),
        volume: Some(Typed::from("60 l")),
        ..Default::default()
    }];
    assert!(ask(&full).contains("needs more room than there is"), "{}", ask(&full));
}

#[test]
fn both_models_agree_along_the_longest_side() {
    let [quick, full] = [CavityModel::Quick, CavityModel::Full].map(|model| checked(&tall(None), model));
    assert!((quick.ripple[0] / full.ripple[0] - 1.0).abs() < 0.04, "{:?} {:?}", quick.ripple, full.ripple);
    assert!(full.error.expect("compared") < 0.01);
}

proptest! {
    #![proptest_config(ProptestConfig::with_cases(48))]
    #[test]
    fn ports_cut_for_any_box_tune_it_where_it_was_wanted(
        width in 0.4..0.8, height in 0.4..0.9, depth in 0.35..0.6, tuning in 28.0..55.0_f64,
    ) {
        let mut raw = ported();
        let sizes = [width, height, depth].map(|size: f64| format!("{size:.3} m"));
        sized(&mut raw, sizes.each_ref().map(String::as_str));
        raw.enclosure.tuning = Some(Typed::from(format!("{tuning:.2} Hz").as_str()));
        let Ok(resolved) = resolve_design(&raw) else { return Ok(()) };
        let Ok(built) = resolved.built() else { return Ok(()) };
        let Some(boxed) = &built.boxed else { return Ok(()) };
        let found = built.compiled.port_tuning.as_ref().expect("tuned").reactance;
        prop_assert!((found - tuning).abs() < 0.1, "{found} {tuning}");
        let net = resolved.body.net(&boxed.contents).expect("builds")[0].expect("a chamber");
        prop_assert!((net - built.design.volumes[0].expect("a chamber")).abs() < 1e-6, "{net}");
    }
}

#[test]
fn a_folded_line_is_as_long_as_asked_and_tuned_where_it_was_wanted() {
    let raw = design("Pit organ", "Pedal line");
    let report = report(&raw);
    let fold = report.fold.as_ref().expect("a fold");
    assert_relative_eq!(fold.length[1], fold.length[0], max_relative = 1e-4);
    let [asked, built] = fold.tuning.expect("a line brakes its cone");
    assert!((asked - built).abs() < 0.5, "{asked} Hz became {built} Hz");
    assert!(fold.worst[0].abs() < 0.15, "{:?}", fold.worst);
    let [place, found] = fold.drivers[0];
    assert!((place - found).abs() < 0.06, "the driver belongs at {place} m and sits at {found} m");
    assert!(report.findings.iter().all(|finding| !finding.forbids), "{:?}", report.findings);
    // Corners cut short make the same boards a shorter way.
    let [square, mitred, curved] = fold.corners;
    assert!(mitred < curved && curved < square, "{:?}", fold.corners);
}

#[test]
fn a_way_that_does_not_fit_its_box_says_what_that_does() {
    let mut raw = design("Pit organ", "Pedal line");
    let fitting = report(&raw).outside;
    let [width, height, depth] = fitting.map(|size| format!("{:.0} mm", size * 1e3));
    let sizes = [width.as_str(), height.as_str(), depth.as_str()];
    sized(&mut raw, sizes).fold =
        Some(oak_design::file::RawFold { folds: Some(Typed::Number(1.0)), ..Default::default() });
    let short = report(&raw);
    let fold = short.fold.as_ref().expect("a fold");
    assert!(fold.length[1] < 0.8 * fold.length[0], "one fold less is a channel less");
    assert!(fold.words.contains("too short") && fold.words.contains("once more"), "{}", fold.words);
    let [asked, built] = fold.tuning.expect("tuned");
    assert!(built > 1.15 * asked, "a shorter line tunes higher: {asked} Hz became {built} Hz");
}

#[test]
fn every_line_and_horn_of_the_demo_that_is_one_box_is_folded() {
    let mut folded = 0;
    for build in demo_builds() {
        for raw in build.variants.iter().filter(|raw| raw.body.is_some() || raw.name == "Tapped") {
            let report = report(raw);
            let Some(fold) = &report.fold else { continue };
            folded += 1;
            assert!(
                report.findings.iter().all(|finding| !finding.forbids),
                "{}: {:?}",
                raw.name,
                report.findings
            );
            let change = fold.change.expect("it plays");
            assert!(change[0].abs() < 1.5, "{}: {change:?}", raw.name);
            let mouth = report.parts.iter().find(|part| part.kind == "mouth").expect("a mouth");
            assert!(mouth.path.len() > 2);
        }
    }
    assert!(folded >= 2, "{folded} folded ways");
}

#[test]
fn ports_say_what_to_cut_and_how_fast_their_air_goes() {
    let mut raw = ported();
    let plain = &report(&raw).ports[0];
    for straight in plain.straight {
        assert_relative_eq!(straight, plain.overall, max_relative = 1e-12);
    }
    assert!(plain.passes && plain.seen >= plain.hole[1] - 1e-9);
    // The area for 17 m/s is that much larger as the air is faster.
    assert_relative_eq!(plain.least[0] / plain.area, plain.fastest[0] / 17.0, max_relative = 1e-9);
    assert_relative_eq!(plain.least[0] / plain.least[1], 2.0, max_relative = 1e-9);
    // Small 1973: 0.8 Fb Vd of one 380 mm driver.
    let resolved = resolve_design(&raw).expect("resolves");
    let (sd, xmax) = (resolved.driver.driver.sd, resolved.driver.driver.xmax.expect("stated"));
    assert_relative_eq!(plain.small.expect("a rule"), 0.8 * 38.0 * sd * xmax, max_relative = 5e-3);

    let flared = oak_design::file::RawPortBuild {
        inner_flare: Some(Typed::from("30 mm")),
        outer_flare: Some(Typed::from("20 mm")),
        ..Default::default()
    };
    raw.body.get_or_insert_default().ports = vec![flared];
    let cut = &report(&raw).ports[0];
    assert!(cut.straight[0] < plain.overall && cut.overall > plain.overall);
    assert!(!cut.passes, "the bell does not go through the hole");
}

#[test]
fn a_bent_tube_is_a_list_of_straight_pieces_and_elbows() {
    let mut raw = ported();
    raw.enclosure.tuning = Some("24 Hz".into());
    let cut = |raw: &RawDesign| report(raw).ports.remove(0);
    assert!(cut(&raw).fittings.expect("a tube").pieces.is_empty(), "it runs straight");
    raw.body.get_or_insert_default().ports =
        vec![serde_json::from_value(serde_json::json!({ "turns": 1, "wall": "4 mm" })).expect("a build")];
    let bent = cut(&raw);
    let fittings = bent.fittings.expect("an elbow");
    assert_eq!(fittings.pieces.len(), 2);
    let outside = bent.hole[1];
    assert_relative_eq!(fittings.elbow, 0.55 * outside, max_relative = 1e-9);
    // Pieces and elbows together are as long as the port.
    let whole = fittings.pieces.iter().sum::<f64>() + 2.0 * fittings.elbow;
    assert_relative_eq!(whole, bent.overall, max_relative = 1e-6);

    // Fittings of which the sizes are known are those that are counted.
    raw.body.get_or_insert_default().ports = vec![
        serde_json::from_value(
            serde_json::json!({ "turns": 1, "wall": "4 mm", "elbow": "40 mm", "cap": "31 mm" }),
        )
        .expect("a build"),
    ];
    let known = cut(&raw).fittings.expect("an elbow");
    assert_relative_eq!(known.elbow, 0.04);
    assert_relative_eq!(known.cap, 0.031);
    assert_relative_eq!(known.socket, 0.5 * outside, max_relative = 1e-9);
    let shorter = 2.0 * (0.55 * outside - 0.04);
    let long = |pieces: &[f64]| pieces.iter().sum::<f64>();
    assert_relative_eq!(long(&known.pieces) - long(&fittings.pieces), shorter, max_relative = 1e-6);
}

#[test]
fn radiators_are_weighted_in_whole_washers() {
    let mut raw = design("Narrowboat nook", "Twin radiators");
    raw.enclosure.radiator.as_mut().expect("radiators").added_mass = Some(Typed::from("118 g"));
    let plain = report(&raw).radiators.expect("radiators");
    assert_eq!(plain.washers, 9);
    assert_relative_eq!(plain.built, plain.bolt + f64::from(plain.washers) * plain.each, max_relative = 1e-9);
    assert!((plain.built - plain.added).abs() <= plain.each / 2.0 + 1e-9);
    assert!((plain.tuning[1] / plain.tuning[0] - 1.0).abs() < 0.03, "{:?}", plain.tuning);
    assert!(plain.force[0].abs() < 1e-9, "two opposite each other cancel");
    // One alone shakes the box by its mass times what it accelerates.
    raw.enclosure.radiator.as_mut().expect("radiators").count = Some(Typed::Number(1.0));
    let alone = report(&raw).radiators.expect("a radiator");
    assert!(alone.force[0] > 1.0);
    assert!(alone.words.contains("shakes"), "{}", alone.words);
    // Heavy washers come less near.
    raw.body.get_or_insert_default().washers = Some(oak_design::file::RawWashers {
        each: Some(Typed::from("150 g")),
        bolt: Some(Typed::from("60 g")),
    });
    let heavy = report(&raw).radiators.expect("a radiator");
    assert_relative_eq!(heavy.built, 0.06 + 0.15 * f64::from(heavy.washers), max_relative = 1e-9);
    assert!(
        (heavy.tuning[1] / heavy.tuning[0] - 1.0).abs() > (plain.tuning[1] / plain.tuning[0] - 1.0).abs()
    );
}

#[test]
fn both_chambers_of_a_bandpass_ring() {
    let front = serde_json::json!({
        "volume": "16 l",
        "tuning": "62 Hz",
        "ports": [{ "shape": "round", "diameter": "70 mm" }],
    });
    let rear = serde_json::json!([{ "shape": "round", "diameter": "60 mm" }]);
    for family in ["bandpass4", "bandpass6_parallel", "bandpass6_series"] {
        let mut enclosure = serde_json::json!({ "family": family, "volume": "24 l", "front": front });
        if family != "bandpass4" {
            enclosure["tuning"] = serde_json::json!("34 Hz");
            enclosure["ports"] = rear.clone();
        }
        let mut raw = RawDesign { body: None, ..design("Busker's upright", "Hare, sealed") };
        raw.enclosure = serde_json::from_value(enclosure).expect("an enclosure");
        let fill = report(&raw).damping.expect("tuned").quick;
        assert!(
            fill.windows(2).all(|pair| pair[1].tuning < pair[0].tuning),
            "{family}: its filled chamber tunes lower"
        );
        for model in [CavityModel::Quick, CavityModel::Full] {
            let found = checked(&raw, model);
            // Low down the chambers are the springs they were; where two openings nearly cancel, a little air that weighs on one is
            // heard.
            let near = if family == "bandpass4" { 1.0 } else { 2.0 };
            for (index, frequency) in found.frequency.iter().enumerate().filter(|(_, f)| **f < 50.0) {
                let (with, without) = (found.cavity.level[index], found.lumped.level[index]);
                assert!(
                    (with - without).abs() < near,
                    "{family}, {model:?} at {frequency}: {with} {without}"
                );
            }
            // A chamber of 0.3 to 0.4 m has its first wave between 430 and 570 Hz, which a spring has not.
            assert!(found.bump[1] > 3.0, "{family}, {model:?}: {:?}", found.bump);
            assert!(found.bump[0] > 300.0, "{family}, {model:?}: {:?}", found.bump);
        }
    }
}

/// The spring of a closed volume, worked out from `p V^gamma`: what a small stroke either way changes of its stiffness.
#[test]
fn the_air_inside_pushes_on_the_largest_board_and_is_stiffer_inward() {
    let raw = design("Narrowboat nook", "Sealed, bench berth");
    let found = report(&raw).pressure.expect("a chamber");
    let resolved = resolve_design(&raw).expect("whole");
    let grid = FrequencyGrid::logarithmic(10.0, 500.0, 60).expect("a grid");
    let computed = compute_undelayed(&resolved, &grid).expect("computes");
    let largest = report(&raw).panels.iter().map(|panel| panel.area).fold(0.0, f64::max);
    assert!((found.force - found.peak[0] * largest).abs() < 1e-9);
    let net = computed.built.design.volumes[0].expect("a chamber");
    // Below resonance the pressure is that of the air pressed together: gamma P Sd x/V, absorption aside.
    let at = computed.response.frequency.iter().position(|f| *f >= 15.0).expect("within");
    let travel = computed.response.excursion().nth(at).expect("there");
    let gain = resolved.gains[0];
    let expected = 1.4 * 101_325.0 * resolved.driver.driver.sd * travel / (net * gain);
    let shown = computed.response.chamber_pressure[0][at].norm() * 2.0_f64.sqrt();
    assert!((shown / expected - 1.0).abs() < 0.03, "{shown} {expected}");
    let stiffness = |share: f64| (1.0 - share).powf(-2.4);
    let (inward, outward) = (stiffness(found.moved), stiffness(-found.moved));
    assert!(((inward - outward) / 2.0 - found.stiffer).abs() < 0.1 * found.stiffer, "{found:?}");
}

#[test]
fn boards_inside_are_told_of_with_what_helps_them() {
    let shown = report(&design("Narrowboat nook", "Slot, all-round"));
    let slot = shown.panels.iter().find(|panel| panel.inside).expect("the slot's boards");
    assert_eq!(slot.name, "port's boards");
    let (resonance, moves) = (slot.resonance.expect("a plate"), slot.deflection.expect("it moves"));
    // Half of the chamber's pressure presses on it, and nothing moves by as much as a millimetre.
    assert!((1e-8..1e-4).contains(&moves), "{moves}");
    assert!(slot.radiation.expect("a sound").level < -20.0);
    assert_eq!(slot.remedy.is_some(), resonance < 2.0 * 90.0, "{resonance} {:?}", slot.remedy);
    // A board twice as wide between its edges is told what a strip along its middle does.
    let line = report(&design("Pit organ", "Pedal line"));
    let folds: Vec<_> = line.panels.iter().filter(|panel| panel.name.starts_with("fold board")).collect();
    assert_eq!(folds.len(), line.fold.as_ref().expect("folded").panels.len());
    let weak = folds.iter().find(|panel| panel.remedy.is_some()).expect("a wide one");
    assert!(weak.resonance.expect("a plate") < 240.0, "{weak:?}");
}

#[test]
fn the_figures_of_a_box_say_how_they_are_worked_out_and_what_they_come_to_elsewhere() {
    let raw = design("Narrowboat nook", "Sealed, bench berth");
    let resolved = resolve_design(&raw).expect("whole");
    let found = oak_design::working::workings(&resolved).expect("works");
    let of = |id: &str| found.iter().find(|working| working.id == id).unwrap_or_else(|| panic!("{id}"));
    let shown = report(&raw);
    assert_eq!(of("net_volume").result, format!("{:.2} l", shown.chambers[0].net * 1e3));
    let weakest = shown.panels.iter().filter_map(|panel| panel.resonance).fold(f64::INFINITY, f64::min);
    assert!(of("board").result.starts_with(&format!("{weakest:.0} Hz")), "{}", of("board").result);
    assert!(of("board").inputs.iter().any(|input| input.symbol == "E"));
    assert_eq!(of("mass").result, format!("{:.1} kg", shown.weight.total()));
    let lowest = shown.waves.iter().map(|wave| wave.frequency).fold(f64::INFINITY, f64::min);
    assert_eq!(of("standing_wave").result, format!("{lowest:.0} Hz"));
    // The front weighs what is left around the hole, and the rows of the table add up to the whole.
    let board = |name: &str| shown.panels.iter().find(|panel| panel.name == name).expect("there");
    let (front, back) = (board("front"), board("back"));
    let cutout = resolved.driver_size().cutout;
    let hole = std::f64::consts::PI / 4.0 * cutout * cutout * front.thickness * 740.0;
    assert!((back.mass - front.mass - hole).abs() < 0.02, "{} {} {hole}", back.mass, front.mass);
    let all: f64 = shown.panels.iter().map(|panel| panel.mass).sum();
    assert!((all - shown.weight.panels).abs() < 1e-9, "{all} {}", shown.weight.panels);
}
