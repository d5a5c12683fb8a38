//! Recommendations beside everything that could have been recommended instead.

use oak_acoustics::Stop;
use oak_design::file::{RawAirNoise, RawBrief, RawDesign, RawFamily, Typed};
use oak_design::resolve::resolve_brief;
use oak_design::start::RawAsk;
use oak_planning::check::{Verdict, judge};
use oak_planning::recommend::{RawRecommend, Recommendation, recommend};
use oak_planning::{Case, starts};

/// Drivers of the demo with briefs that ask for anything between little and too much.
pub fn asks(count: usize) -> Vec<RawRecommend> {
    let drivers = super::demo_drivers();
    let mut seed = 11_u64;
    let mut any = |most: usize| {
        seed = seed.wrapping_mul(6_364_136_223_846_793_005).wrapping_add(1_442_695_040_888_963_407);
        (seed >> 33) as usize % most
    };
    let text = |value: usize, unit: &str| Some(Typed::from(format!("{value} {unit}").as_str()));
    (0..count)
        .map(|_| {
            let driver = drivers[any(drivers.len())].clone();
            let brief = RawBrief {
                lowest: text(24 + any(35), "Hz"),
                loudness: text(88 + any(24), "dB"),
                distance: text(1 + any(3), "m"),
                amplifier_power: text(50 + any(400), "W"),
                amplifier_load: text(2 + any(3), "ohm"),
                width: text(280 + any(400), "mm"),
                height: text(300 + any(600), "mm"),
                depth: text(280 + any(350), "mm"),
                air_noise: Some(RawAirNoise::Straight),
                ..RawBrief::default()
            };
            RawRecommend { driver, drivers: None, brief: Some(brief) }
        })
        .collect()
}

/// What is reached where least of what a brief asks, and what it takes outside, m3.
pub fn stands(brief: &RawBrief, design: &RawDesign) -> Option<[f64; 2]> {
    let resolved = resolve_brief(brief).expect("a brief");
    let case = Case::of(&resolved, design).ok()?;
    let short =
        judge(&case).into_iter().filter(|check| check.verdict == Verdict::Short && check.id != "family");
    let worst = short.map(|check| check.ratio).fold(1.0, f64::min).max(0.0);
    let outside = case.built().boxed.as_ref()?.cabinet.outer.volume();
    case.built().forbids().is_empty().then_some([worst, outside])
}

/// Whether what is recommended is, as built, within 5 % of the best that any kind's starting points and searched cabinets come to, or the
/// words name what comes closer.
pub fn is_the_best(ask: &RawRecommend, found: &Recommendation) -> bool {
    let brief = ask.brief.as_ref().expect("given");
    let best = found.kinds.first().expect("kinds");
    let named = |family: RawFamily| {
        let name = family.name().to_lowercase();
        found.sentences.iter().any(|words| words.to_lowercase().contains(&name))
    };
    let Some([worst, outside]) = best.design.as_ref().and_then(|design| stands(brief, design)) else {
        // Of what is asked for nothing can be built: what can be is named.
        let mut others = found.kinds.iter().filter(|kind| kind.buildable).peekable();
        return others.peek().is_none() || others.any(|kind| named(kind.family));
    };
    assert!((worst - best.worst).abs() < 1e-9, "{} {worst}", best.worst);
    let better = |[other, size]: [f64; 2]| {
        other > worst * 1.05 + 1e-3 || (other >= worst - 1e-3 && size < outside * 0.95 && other > 0.999)
    };
    let of_kinds = found.kinds[1..].iter().all(|kind| {
        let Some(standing) = kind.design.as_ref().and_then(|design| stands(brief, design)) else {
            return true;
        };
        !better(standing) || named(kind.family)
    });
    let plain = [RawFamily::Sealed, RawFamily::Ported, RawFamily::PassiveRadiator];
    of_kinds
        && plain.into_iter().all(|family| {
            let question = RawAsk { brief: Some(brief.clone()), ..RawAsk::of(ask.driver.clone(), family) };
            let designs = starts(&question, &Stop::default()).expect("answers");
            designs
                .into_iter()
                .filter_map(|start| stands(brief, &start.design?))
                .all(|standing| !better(standing) || family != best.family && named(family))
        })
}

/// How many of some recommendations are the best.
pub fn best_of(asks: &[RawRecommend]) -> usize {
    let is = |ask: &&RawRecommend| {
        let found = recommend(ask, &Stop::default()).expect("answers");
        let best = is_the_best(ask, &found);
        if !best {
            let told: Vec<_> =
                found.kinds.iter().map(|kind| (kind.family, kind.worst, kind.outside)).collect();
            eprintln!("{}: {:?}\n{told:?}", ask.driver.name, found.sentences);
        }
        best
    };
    asks.iter().filter(is).count()
}
