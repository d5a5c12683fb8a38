//! Designs against briefs.

use crate::support::demo_builds;
use oak_acoustics::Stop;
use oak_design::conditions::RawQuestion;
use oak_design::file::{RawAirNoise, RawBrief, RawDesign, RawEnclosure, RawFamily, Typed};
use oak_design::resolve::{Brief, resolve_brief};
use oak_design::start::RawAsk;
use oak_planning::Case;
use oak_planning::build_plan::Cost;
use oak_planning::check::{Above, Check, Verdict, above, judge};
use oak_planning::template::templates;

fn demo() -> Vec<RawDesign> {
    demo_builds().into_iter().flat_map(|build| build.variants).collect()
}

fn brief(raw: &RawBrief) -> Brief {
    resolve_brief(raw).unwrap_or_else(|problems| panic!("{problems:?}"))
}

fn text(value: &str) -> Option<Typed> {
    Some(Typed::from(value))
}

fn find<'a>(checks: &'a [Check], id: &str) -> &'a Check {
    checks.iter().find(|check| check.id == id).unwrap_or_else(|| panic!("{id} in {checks:?}"))
}

#[test]
fn every_template_is_a_whole_brief_that_judges_every_demo_design() {
    for template in templates() {
        let brief = brief(&template.brief);
        assert!(
            brief.lowest.is_some()
                && brief.loudness.is_some()
                && (brief.outside.iter().any(Option::is_some) || brief.free.is_some())
        );
        for design in demo() {
            let case = Case::of(&brief, &design).expect("the demo is whole");
            let checks = judge(&case);
            assert!(checks.len() >= 3, "{}: {checks:?}", template.id);
            for check in &checks {
                assert!(
                    check.ratio.is_finite() && check.ratio >= 0.0,
                    "{} {}: {check:?}",
                    template.id,
                    design.name
                );
                // A level within the rounding of what is shown is reached.
                match check.verdict {
                    Verdict::Met => assert!(check.ratio > 0.994, "{check:?}"),
                    Verdict::Short => assert!(check.ratio < 1.0, "{check:?}"),
                    Verdict::Unknown => assert!((check.ratio - 1.0).abs() < 1e-9, "{check:?}"),
                }
                assert!(!check.words.is_empty() && !check.why.is_empty());
            }
        }
    }
}

#[test]
fn what_is_left_open_is_not_judged() {
    let brief = brief(&RawBrief::default());
    let design = RawDesign { body: None, ..demo().remove(0) };
    // But for its box, which must be buildable whatever is asked.
    let ids: Vec<_> =
        judge(&Case::of(&brief, &design).expect("whole")).iter().map(|check| check.id).collect();
    assert_eq!(ids, ["fits"]);
}

/// The largest clean level is where the first of travel, air speed and voltage runs out: asked exactly that, all are met and one
/// just so; asked a decibel more, loudness and that one are short.
#[test]
fn loudness_travel_air_and_amplifier_agree_about_what_runs_out() {
    let mut told = 0;
    for design in demo() {
        let mut raw = RawBrief {
            lowest: text("40 Hz"),
            crossover: text("90 Hz"),
            loudness: text("60 dB"),
            amplifier_power: text("5 kW"),
            air_noise: Some(RawAirNoise::Straight),
            ..RawBrief::default()
        };
        let checks = |raw: &RawBrief| judge(&Case::of(&brief(raw), &design).expect("whole"));
        let quiet = checks(&raw);
        let loudness = find(&quiet, "loudness");
        let reached: f64 =
            loudness.reached.split(' ').next().and_then(|number| number.parse().ok()).expect("a level");
        assert_eq!(loudness.verdict, Verdict::Met);
        for (more, met) in [(-0.2, true), (1.0, false)] {
            raw.loudness = Some(Typed::Text(format!("{:.2} dB", reached + more)));
            let all = checks(&raw);
            assert_eq!(find(&all, "loudness").verdict == Verdict::Met, met, "{}: {all:?}", design.name);
            let runs_out = ["cone", "air"]
                .into_iter()
                .filter(|id| all.iter().any(|check| check.id == *id && check.verdict == Verdict::Short));
            let count = runs_out.count();
            assert!(!met || count == 0, "{}: {all:?}", design.name);
            told += usize::from(!met && count > 0);
        }
    }
    // Heat runs out first in some; travel or air in most.
    assert!(told >= demo().len() / 2, "{told}");
}

#[test]
fn size_load_and_cost_say_by_how_much() {
    let design = RawDesign { body: None, ..demo().remove(0) };
    let raw = RawBrief {
        width: text("20 cm"),
        height: text("20 cm"),
        depth: text("20 cm"),
        amplifier_load: text("16 ohm"),
        budget: Some(Typed::Number(1.0)),
        ..RawBrief::default()
    };
    let brief = brief(&raw);
    let case = Case::of(&brief, &design).expect("whole");
    let checks = judge(&case);
    let size = find(&checks, "size");
    assert_eq!(size.verdict, Verdict::Short);
    let [width, height, depth] = case.built().outside().expect("a box");
    let largest = width.max(height).max(depth);
    assert!((size.ratio - 0.2 / largest).abs() < 1e-9, "{size:?}");
    let over = format!("{:.0} mm too", (largest - 0.2) * 1e3);
    assert!(size.words.starts_with(&over) && size.why.contains("200 mm wide"), "{size:?}");
    let light = RawBrief { weight: text("5 kg"), ..RawBrief::default() };
    let found = judge(&Case::of(&self::brief(&light), &design).expect("whole"));
    let weight = find(&found, "weight");
    assert!(weight.verdict == Verdict::Short && weight.words.ends_with("kg too heavy"), "{weight:?}");
    // One limit alone is enough, and the whole outside may be one.
    let whole = RawBrief { volume: text("60 l"), depth: text("200 cm"), ..RawBrief::default() };
    let found = judge(&Case::of(&self::brief(&whole), &design).expect("whole"));
    let size = find(&found, "size");
    let litres = case.built().boxed.as_ref().expect("a box").cabinet.outer.volume();
    assert!((size.ratio - 0.06 / litres).abs() < 1e-9, "{size:?}");
    assert!(size.reached.ends_with(" l") && size.words.ends_with("l too large"), "{size:?}");
    assert_eq!(find(&checks, "load").verdict, Verdict::Short);
    let mut unpriced = design.clone();
    unpriced.driver.price = None;
    let unknown = judge(&Case::of(&brief, &unpriced).expect("whole"));
    assert_eq!(find(&unknown, "cost").verdict, Verdict::Unknown);
    let mut priced = design;
    priced.driver.price = Some(Typed::Number(80.0));
    let case = Case::of(&brief, &priced).expect("whole");
    // Sealed, so that there are a driver, boards, and what every box takes.
    let plain = RawEnclosure {
        ports: Vec::new(),
        tuning: None,
        family: RawFamily::Sealed,
        ..priced.enclosure.clone()
    };
    let sealed = RawDesign { enclosure: plain, ..priced.clone() };
    let bare = Case::of(&brief, &sealed).expect("whole");
    let checks = judge(&bare);
    let cost = Cost::of(&bare).expect("priced");
    assert_eq!(find(&checks, "cost").reached, format!("{:.0}", cost.total));
    assert_eq!(find(&checks, "cost").verdict, Verdict::Short);
    let why = &find(&checks, "cost").why;
    assert!(why.contains("drivers and amplifier 80, timber "), "{why}");
    assert!((cost.total - cost.shops.iter().map(|(_, sum)| sum).sum::<f64>()).abs() < 1e-9);
    // Its port costs more than none.
    assert!(Cost::of(&case).expect("priced").total > cost.total);
}

/// A bandpass that ends an octave below where the others begin leaves a hole, however low it reaches.
#[test]
fn a_lowest_note_is_not_met_by_a_cabinet_that_ends_too_early() {
    let driver =
        demo().into_iter().find(|design| design.enclosure.family == RawFamily::Sealed).expect("one").driver;
    let starts = RawAsk::of(driver, RawFamily::Bandpass4).answer(&Stop::default()).expect("a whole driver");
    let bandpass = starts.into_iter().find_map(|start| start.design).expect("a bandpass");
    let judged = |crossover: f64| {
        let raw = RawBrief {
            lowest: text("60 Hz"),
            crossover: text(&format!("{crossover} Hz")),
            ..RawBrief::default()
        };
        let asked = brief(&raw);
        let case = Case::of(&asked, &bandpass).expect("whole");
        (find(&judge(&case), "lowest").clone(), case.computed.figures.f3.expect("a passband"))
    };
    let (far, f3) = judged(400.0);
    let (_, ends) = far.words.split_once("only up to ").unwrap_or_else(|| panic!("{far:?} {f3}"));
    let ends: f64 = ends.trim_end_matches(" Hz").parse().expect("Hz");
    assert_eq!(far.verdict, Verdict::Short);
    assert!((far.ratio - ends / 400.0).abs() < 0.01, "{far:?}");
    let (near, _) = judged(1.08 * ends);
    assert_eq!(near.verdict, Verdict::Met, "{near:?}");
}

/// A port in the back has what the place is deeper than the box: the nearer the wall, the lower it tunes.
#[test]
fn a_port_that_faces_a_wall_of_its_place_is_told_of_with_its_tuning_there() {
    let mut design =
        demo().into_iter().find(|design| design.enclosure.family == RawFamily::Ported).expect("one");
    let mut facing = |face: &str, size: usize, spare: f64| {
        let place = serde_json::from_value(serde_json::json!({ "face": face })).expect("a port's place");
        design.body.get_or_insert_default().ports = vec![place];
        let asked = brief(&RawBrief::default());
        let own = Case::of(&asked, &design).expect("whole").built().standing().expect("a box")[size];
        let most = text(&format!("{} mm", (own + spare) * 1e3));
        let asked = if size == 2 {
            RawBrief { depth: most, ..RawBrief::default() }
        } else {
            RawBrief { height: most, ..RawBrief::default() }
        };
        let asked = brief(&asked);
        let case = Case::of(&asked, &design).expect("whole");
        let found = find(&judge(&case), "place").clone();
        let (_, rest) = found.words.split_once("tunes to ").expect("a tuning");
        let (there, rest) = rest.split_once(" Hz there instead of ").expect("two tunings");
        (found.verdict, there.parse::<f64>().expect("Hz"), rest.parse::<f64>().expect("Hz"))
    };
    // Below the lid of its place as before its wall.
    for (face, size) in [("top", 1), ("back", 2)] {
        let [near, mid, far] = [0.02, 0.06, 0.4].map(|spare| facing(face, size, spare));
        assert_eq!((near.0, far.0), (Verdict::Short, Verdict::Met), "{face}");
        assert!(near.1 < mid.1 && mid.1 < far.1 && far.1 > 0.985 * far.2, "{near:?} {mid:?} {far:?}");
        assert!((near.2 - far.2).abs() < 1e-9, "{face}");
    }
    // With no gap to speak of it is lower than the formula can say.
    let own =
        Case::of(&brief(&RawBrief::default()), &design).expect("whole").built().standing().expect("a box")[2];
    let asked = brief(&RawBrief { depth: text(&format!("{} mm", own * 1e3)), ..RawBrief::default() });
    assert!(find(&judge(&Case::of(&asked, &design).expect("whole")), "place").words.contains("tunes below"));
    // In front the wall behind is nothing to it.
    design.body.as_mut().expect("a body").ports.clear();
    let asked = brief(&RawBrief { depth: text("500 mm"), ..RawBrief::default() });
    assert!(judge(&Case::of(&asked, &design).expect("whole")).iter().all(|check| check.id != "place"));
}

#[test]
fn a_brief_that_contradicts_itself_is_refused_at_its_place() {
    let raw = RawBrief {
        lowest: text("E2"),
        crossover: text("80 Hz"),
        top_depth: text("30 cm"),
        loudness: text("300 dB"),
        ..RawBrief::default()
    };
    let problems = resolve_brief(&raw).expect_err("contradicts itself");
    let places: Vec<_> = problems.iter().map(|problem| problem.field.as_str()).collect();
    assert_eq!(places, ["height", "depth", "loudness", "crossover"]);
}

#[test]
fn every_judgement_of_the_demo_says_how_it_is_worked_out() {
    // Figures of the design stand behind these; the rest has workings of its own.
    let behind = [
        ("lowest", "f3"),
        ("loudness", "clean"),
        ("air", "air_speed"),
        ("cone", "excursion"),
        ("load", "load"),
    ];
    for build in demo_builds() {
        let mut raw = build.brief.expect("a brief");
        // Everything that can be asked is asked.
        raw.budget = Some(Typed::Number(1.0));
        raw.families = vec![RawFamily::InfiniteBaffle];
        raw.head_width = Some(Typed::from("500 mm"));
        raw.weight = Some(Typed::from("30 kg"));
        let brief = resolve_brief(&raw).expect("resolves");
        for design in &build.variants {
            let found = judge(&Case::of(&brief, design).expect("whole"));
            let workings = oak_planning::workings(&RawQuestion {
                brief: Some(raw.clone()),
                ..RawQuestion::of(design.clone())
            })
            .expect("works");
            for check in found {
                let id = behind.iter().find(|(id, _)| *id == check.id).map_or(check.id, |(_, figure)| figure);
                let working = workings.iter().find(|working| working.id == id);
                let working =
                    working.unwrap_or_else(|| panic!("{}: nothing behind {}", design.name, check.id));
                assert!(!working.formula.is_empty() && !working.source.is_empty(), "{}", check.id);
            }
        }
    }
}

#[test]
fn what_is_said_of_the_level_above_is_so() {
    let frequency: Vec<f64> = (0..60).map(|k| 20.0 * 1.05f64.powi(k)).collect();
    let of = |level: &dyn Fn(f64) -> f64| frequency.iter().map(|f| level(*f)).collect::<Vec<_>>();
    let flat = of(&|f| if f < 30.0 { 80.0 } else { 100.0 });
    assert_eq!(above(&frequency, &flat, 100.0, 30.0), Above::Held);
    let sagging = of(&|f| if (38.0..44.0).contains(&f) { 94.1 } else { 99.0 });
    let Above::Sags(by, at) = above(&frequency, &sagging, 100.0, 25.0) else { panic!("it sags") };
    assert!((by - 5.9).abs() < 1e-9 && (38.0..44.0).contains(&at));
    let Above::Ends(at) = above(&frequency, &of(&|f| if f > 100.0 { 90.0 } else { 99.0 }), 100.0, 25.0)
    else {
        panic!("it ends")
    };
    assert!((95.0..=100.0).contains(&at), "{at}");
    // What lies below the note is none of its business.
    assert_eq!(above(&frequency, &of(&|f| if f < 50.0 { 90.0 } else { 99.0 }), 100.0, 50.0), Above::Held);
}

#[test]
fn a_box_that_may_never_be_loud_is_judged_at_its_loudest() {
    let build = demo_builds().remove(0);
    let (brief, design) = (build.brief.expect("a brief"), &build.variants[0]);
    let of = |loudest: &str| {
        let brief = RawBrief { loudest: Some(loudest.into()), ..brief.clone() };
        let resolved = resolve_brief(&brief).expect("a brief");
        let case = Case::of(&resolved, design).expect("computes");
        let levels =
            case.computed.response.level().fold(f64::MIN, f64::max) - 20.0 * resolved.distance.log10();
        let check = judge(&case).into_iter().find(|check| check.id == "loudest").expect("asked");
        (check, levels)
    };
    let (quiet, level) = of("80 dB");
    assert_eq!(quiet.verdict, Verdict::Short);
    assert!(quiet.words.contains(&format!("{:.1} dB too loud", level - 80.0)), "{}", quiet.words);
    // A limiter at that share of the power is enough.
    let share = 100.0 * 10f64.powf((80.0 - level) / 10.0);
    assert!(quiet.why.contains(&format!("{share:.0} %")), "{}", quiet.why);
    let (allowed, _) = of("150 dB");
    assert_eq!(allowed.verdict, Verdict::Met);
    let without = resolve_brief(&brief).expect("a brief");
    let case = Case::of(&without, design).expect("computes");
    assert!(judge(&case).iter().all(|check| check.id != "loudest"));
}
