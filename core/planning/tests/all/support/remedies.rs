//! What is claimed of suggestions, computed again another way.

use oak_acoustics::Stop;
use oak_design::conditions::RawConditions;
use oak_design::file::{RawBrief, RawDesign, RawFamily, Typed};
use oak_design::resolve::resolve_brief;
use oak_design::start::RawAsk;
use oak_planning::Case;
use oak_planning::check::{Check, Verdict, judge};
use oak_planning::parameter::{Held, PARAMETERS};
use oak_planning::suggestion::{RawSuggestionRequest, Suggestion, Suggestions, suggest};

pub fn checks(brief: &RawBrief, design: &RawDesign) -> Vec<Check> {
    judge(&Case::of(&resolve_brief(brief).expect("a brief"), design).expect("whole"))
}

pub fn suggested(brief: &RawBrief, design: &RawDesign, check: &str) -> Suggestions {
    suggest(
        &RawSuggestionRequest {
            brief: brief.clone(),
            design: design.clone(),
            check: check.to_owned(),
            conditions: RawConditions::default(),
        },
        &Stop::default(),
    )
    .expect("suggestions")
}

/// Sensitivity, and most that is clean at the lowest note asked, dB.
fn loud(brief: &RawBrief, design: &RawDesign) -> [Option<f64>; 2] {
    let brief = resolve_brief(brief).expect("a brief");
    let case = Case::of(&brief, design).expect("whole");
    let sensitivity = case.computed.figures.reference_level - 20.0 * (case.design.drive.volts / 2.83).log10();
    let most = brief.lowest.map(|_| case.computed.max_output.level[0]).filter(|level| level.is_finite());
    [Some(sensitivity), most]
}

/// What a suggestion claims, computed again from the design or brief that it hands out. A rule that speaks only of what is wrong is silent
/// once it is right.
pub fn keeps_its_word(
    brief: &RawBrief,
    design: &RawDesign,
    id: &str,
    suggestion: &Suggestion,
    verdict: Verdict,
) {
    let (asked, made) =
        (suggestion.brief.as_ref().unwrap_or(brief), suggestion.design.as_ref().unwrap_or(design));
    let again = checks(asked, made);
    match again.iter().find(|check| check.id == id) {
        Some(check) => {
            assert_eq!(check.verdict, verdict, "{suggestion:?}");
            assert_eq!(check.reached, suggestion.reached);
        }
        None => assert_eq!(verdict, Verdict::Met, "{suggestion:?}"),
    }
    for effect in &suggestion.effects {
        let other = again.iter().find(|check| check.id == effect.id).expect("still asked");
        assert_eq!((&other.reached, other.verdict), (&effect.after, effect.verdict));
    }
    let before = checks(brief, design);
    let was_short = |id: &str| before.iter().any(|check| check.id == id && check.verdict == Verdict::Short);
    let harms = again.iter().filter(|check| check.verdict == Verdict::Short && !was_short(check.id)).count();
    assert_eq!(harms, suggestion.harms);
    let unfit = again.iter().any(|check| check.id == "fits" && check.verdict == Verdict::Short);
    assert!(
        !unfit
            || was_short("fits")
            || suggestion.caveat.contains("cannot")
            || suggestion.caveat.contains("not be built")
    );
    // All that it costs is told, and as it is.
    let (was, is) = (loud(brief, design), loud(asked, made));
    for (k, id) in ["sensitivity", "max_output"].into_iter().enumerate() {
        let told = suggestion.costs.iter().find(|cost| cost.id == id);
        match was[k].zip(is[k]) {
            Some((was, is)) if (is - was).abs() >= 0.1 => {
                let told = told.unwrap_or_else(|| panic!("{id}: {was} {is} {suggestion:?}"));
                assert!((told.before - was).abs() < 1e-9 && (told.after - is).abs() < 1e-9);
            }
            _ => assert!(told.is_none(), "{id}: {told:?}"),
        }
    }
}

/// Whether turning one value alone, in steps of 6 % up to a factor of three either way, fixes a check.
pub fn one_value_fixes(brief: &RawBrief, design: &RawDesign, id: &str) -> Option<(&'static str, f64)> {
    let held = Held::of(design).expect("whole");
    PARAMETERS.iter().filter(|parameter| parameter.suggestions).find_map(|parameter| {
        parameter.value(&held)?;
        (-18..=18).filter(|step| *step != 0).map(|step| 1.06_f64.powi(step)).find_map(|factor| {
            let turned = parameter.set(&held, parameter.times(&held, factor)?)?;
            let resolved = resolve_brief(brief).expect("a brief");
            let case = Case::of(&resolved, &turned).ok()?;
            let fixed = judge(&case).iter().all(|check| check.id != id || check.verdict == Verdict::Met);
            fixed.then_some((parameter.id, factor))
        })
    })
}

/// So many designs that are short of something, each with its brief: woofers of the demo in cabinets of any kind, asked for more than they
/// do.
pub fn short_designs(count: usize) -> Vec<(RawBrief, RawDesign)> {
    let builds = super::demo_builds();
    let drivers: Vec<_> =
        builds.iter().flat_map(|build| &build.variants).map(|design| design.driver.clone()).collect();
    let families = [
        RawFamily::Sealed,
        RawFamily::Ported,
        RawFamily::PassiveRadiator,
        RawFamily::Bandpass4,
        RawFamily::Ported,
        RawFamily::Line,
    ];
    let mut seed = 7_u64;
    let mut any = |most: usize| {
        seed = seed.wrapping_mul(6_364_136_223_846_793_005).wrapping_add(1_442_695_040_888_963_407);
        (seed >> 33) as usize % most
    };
    let mut found = Vec::with_capacity(count);
    while found.len() < count {
        let (driver, family) = (&drivers[any(drivers.len())], families[any(families.len())]);
        let text = |value: usize, unit: &str| Some(Typed::from(format!("{value} {unit}").as_str()));
        let brief = RawBrief {
            lowest: text(25 + any(30), "Hz"),
            loudness: text(96 + any(16), "dB"),
            amplifier_power: text(50 + any(300), "W"),
            amplifier_load: text(4, "ohm"),
            width: text(300 + any(400), "mm"),
            height: text(300 + any(500), "mm"),
            depth: text(250 + any(300), "mm"),
            air_noise: Some(oak_design::file::RawAirNoise::Straight),
            ..RawBrief::default()
        };
        let ask = RawAsk { lowest: brief.lowest.clone(), ..RawAsk::of(driver.clone(), family) };
        let Ok(starts) = ask.answer(&Stop::default()) else { continue };
        let designs: Vec<RawDesign> = starts.into_iter().filter_map(|start| start.design).collect();
        if designs.is_empty() {
            continue;
        }
        let design = designs[any(designs.len())].clone();
        let resolved = resolve_brief(&brief).expect("a brief");
        let Ok(case) = Case::of(&resolved, &design) else { continue };
        if judge(&case).iter().any(|check| check.verdict == Verdict::Short) {
            drop(case);
            found.push((brief, design));
        }
    }
    found
}

/// Presses every suggestion of every check that is short, and looks for what was overlooked; how many suggestions there were.
pub fn press_all(designs: &[(RawBrief, RawDesign)]) -> usize {
    let mut pressed = 0;
    for (brief, design) in designs {
        for check in checks(brief, design).iter().filter(|check| check.verdict == Verdict::Short) {
            let found = suggested(brief, design, check.id);
            for suggestion in &found.suggestions {
                keeps_its_word(brief, design, check.id, suggestion, Verdict::Met);
                pressed += 1;
            }
            if found.suggestions.is_empty() {
                let overlooked = one_value_fixes(brief, design, check.id);
                assert!(overlooked.is_none(), "{}: {overlooked:?} fixes {:?}", check.id, design.enclosure);
            }
        }
    }
    pressed
}
