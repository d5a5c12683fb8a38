//! The chain before the drivers: what it says, and what it proposes put in again.

use approx::assert_relative_eq;
use oak_design::conditions::{RawConditions, RawQuestion};
use oak_design::file::{
    RawAmplifier, RawBrief, RawDesign, RawDrive, RawFilter, RawFilterKind, RawMounting, RawSignal, Typed,
};
use oak_design::report::compute_undelayed;
use oak_design::response::FrequencyGrid;
use oak_planning::Case;
use oak_planning::check::{Verdict, judge};
use oak_planning::signal::{BiquadFailure, Proposal, SignalReport, biquads, crossover, signal};

use crate::support::{demo_build, demo_builds};

fn question(design: &RawDesign, brief: Option<&RawBrief>) -> RawQuestion {
    RawQuestion { brief: brief.cloned(), ..RawQuestion::of(design.clone()) }
}

fn report(design: &RawDesign, brief: Option<&RawBrief>) -> SignalReport {
    signal(&question(design, brief)).expect("a report")
}

fn with(design: &RawDesign, filter: &RawFilter) -> RawDesign {
    let mut design = design.clone();
    design.signal.get_or_insert_with(RawSignal::default).filters.push(filter.clone());
    design
}

fn proposal<'a>(report: &'a SignalReport, id: &str) -> Option<&'a Proposal> {
    report.proposals.iter().find(|proposal| proposal.id == id)
}

/// Largest travel from 5 Hz up, m.
fn travel(design: &RawDesign, brief: Option<&RawBrief>) -> f64 {
    let resolved = question(design, brief).resolve().expect("a design").design;
    let grid = FrequencyGrid::logarithmic(5.0, 1000.0, 1500).expect("a grid");
    compute_undelayed(&resolved, &grid).expect("computes").response.excursion().fold(0.0, f64::max)
}

fn every_demo() -> Vec<(RawDesign, Option<RawBrief>)> {
    let builds = demo_builds();
    builds
        .into_iter()
        .flat_map(|build| build.variants.into_iter().map(move |variant| (variant, build.brief.clone())))
        .collect()
}

#[test]
fn what_protects_the_cone_does_once_it_is_put_in() {
    let mut protected = 0;
    for (design, brief) in every_demo() {
        let said = report(&design, brief.as_ref());
        let Some(proposal) = proposal(&said, "protect") else { continue };
        let xmax = question(&design, brief.as_ref()).resolve().expect("a design").design.allowance.xmax;
        let xmax = xmax.expect("named only with an Xmax");
        let name = &design.name;
        match &proposal.filter {
            Some(filter) => {
                assert!(travel(&design, brief.as_ref()) > xmax, "{name}");
                let with = with(&design, filter);
                assert!(travel(&with, brief.as_ref()) <= xmax * 1.002, "{name}: {}", proposal.words);
                // Then nothing more is needed.
                let after = report(&with, brief.as_ref());
                assert!(
                    after.proposals.iter().all(|one| one.id != "protect" || one.filter.is_none()),
                    "{name}"
                );
                protected += 1;
            }
            None if proposal.words.starts_with("No high-pass is needed") => {
                assert!(travel(&design, brief.as_ref()) <= xmax * 1.002, "{name}");
            }
            None => assert!(proposal.words.contains(" W keep it within"), "{name}: {}", proposal.words),
        }
    }
    assert!(protected >= 3, "{protected}");
}

#[test]
fn what_is_turned_down_needs_no_protection() {
    let (mut design, _) = every_demo().swap_remove(0);
    let drive = RawDrive { voltage: Some("1 V".into()), power: None };
    design.signal.get_or_insert_with(RawSignal::default).drive = Some(drive);
    let said = report(&design, None);
    let proposal = proposal(&said, "protect").expect("said");
    assert!(
        proposal.filter.is_none() && proposal.words.starts_with("No high-pass is needed"),
        "{}",
        proposal.words
    );
}

#[test]
fn a_transform_that_is_offered_stays_clean_at_the_asked_level() {
    let mut offered = 0;
    for (design, brief) in every_demo() {
        let Some(brief) = brief else { continue };
        let said = report(&design, Some(&brief));
        let Some(filter) = proposal(&said, "transform").and_then(|proposal| proposal.filter.clone()) else {
            continue;
        };
        let with = with(&design, &filter);
        let after = report(&with, Some(&brief));
        assert!(proposal(&after, "transform").is_none(), "one is enough");
        // Played at the asked level, no limit is passed anywhere.
        let asked = question(&with, Some(&brief)).resolve().expect("a design");
        let wish = asked.brief.expect("a brief");
        let grid = FrequencyGrid::logarithmic(5.0, 1000.0, 400).expect("a grid");
        let computed = compute_undelayed(&asked.design, &grid).expect("computes");
        let reference = computed.figures.reference_level;
        let level = wish.loudness.map_or(reference, |loudness| loudness + 20.0 * wish.distance.log10());
        for (played, most) in computed.response.level().zip(&computed.max_output.level) {
            assert!(played - reference + level <= most + 0.3, "{}: {played} {most}", design.name);
        }
        assert_eq!(after.filters[0].name, oak_planning::signal::filter_name(&filter));
        offered += 1;
    }
    assert!(offered >= 1);
}

#[test]
fn the_amplifier_of_the_chain_is_that_of_strip_and_limits() {
    for (design, brief) in every_demo() {
        let Some(brief) = brief else { continue };
        let said = report(&design, Some(&brief));
        let asked = question(&design, Some(&brief)).resolve().expect("a design");
        assert_eq!(said.amplifier.volts, asked.design.allowance.volts, "{}", design.name);
        assert_relative_eq!(said.volts, asked.design.drive.volts, max_relative = 1e-12);
        let brief = asked.brief.expect("a brief");
        let case = Case::of(&brief, &design).expect("a case");
        let checks = judge(&case);
        let load = checks.iter().find(|check| check.id == "load");
        let here = said.amplifier.verdicts.iter().find(|verdict| verdict.name == "Load");
        assert_eq!(
            load.map(|load| load.verdict == Verdict::Met),
            here.map(|here| here.met == Some(true)),
            "{}",
            design.name
        );
    }
}

#[test]
fn a_boost_below_the_tuning_says_what_it_costs_and_a_cut_does_not() {
    let (design, brief) = every_demo().swap_remove(0);
    let band = |gain: &str| RawFilter {
        kind: RawFilterKind::Parametric,
        frequency: Some("20 Hz".into()),
        gain: Some(gain.into()),
        ..RawFilter::default()
    };
    let boosted = report(&with(&design, &band("6 dB")), brief.as_ref());
    let caution = boosted.filters[0].caution.clone().expect("a caution");
    assert!(caution.contains("below the tuning") && caution.contains("3.9 times the power"), "{caution}");
    assert_relative_eq!(boosted.chain.most[0], 6.0, epsilon = 0.02);
    assert!(boosted.chain.travel[1] > 1.02 * boosted.chain.travel[0]);
    let cut = report(&with(&design, &band("-6 dB")), brief.as_ref());
    assert_eq!(cut.filters[0].caution, None);
    assert!(cut.filters[0].effect.contains("cone travel"), "{}", cut.filters[0].effect);
    // What is louder everywhere boosts nothing below.
    let gain = RawFilter { kind: RawFilterKind::Gain, gain: Some("6 dB".into()), ..RawFilter::default() };
    assert_eq!(report(&with(&design, &gain), brief.as_ref()).filters[0].caution, None);
    // On the bench no filter is played, and nothing is asked.
    let asked = RawQuestion {
        conditions: RawConditions::bench(),
        ..question(&with(&design, &band("6 dB")), brief.as_ref())
    };
    let bench = signal(&asked).expect("a report");
    assert_eq!(bench.filters[0].effect, "not played on the bench");
    assert!(bench.amplifier.verdicts.iter().all(|verdict| verdict.name != "Headroom"));
    // What is left out does nothing and says nothing.
    let bypassed = RawFilter { bypassed: true, ..band("6 dB") };
    let still = report(&with(&design, &bypassed), brief.as_ref());
    assert_eq!((still.filters[0].effect.as_str(), still.chain.most[0]), ("", 0.0));
}

#[test]
fn textbook_circuits_can_be_put_in_and_heat_up() {
    let sealed =
        |(design, brief): &(RawDesign, Option<RawBrief>)| report(design, brief.as_ref()).sealed.is_some();
    let (design, brief) = every_demo().into_iter().find(sealed).expect("a sealed box");
    let said = report(&design, brief.as_ref());
    assert!(said.textbook.iter().any(|one| one.id == "resonance_equaliser"), "of a sealed box");
    for circuit in &said.textbook {
        let mut with = design.clone();
        with.signal.get_or_insert_with(RawSignal::default).parts = circuit.parts.clone();
        let after = report(&with, brief.as_ref());
        assert_eq!(after.parts.len(), circuit.parts.len());
        assert!(
            after.parts.iter().any(|part| part.heat > 0.0 && part.programme_heat < part.heat),
            "{}",
            circuit.id
        );
        assert!(after.parts.iter().all(|part| !part.sold.is_empty() && part.current > 0.0));
    }
    // Before a woofer a textbook value misses: that is said.
    let butterworth = said.textbook.iter().find(|one| one.id == "butterworth").expect("there");
    assert!(butterworth.words.contains("With this driver really"), "{}", butterworth.words);
}

#[test]
fn filters_leave_as_biquads_or_say_why_not() {
    let filter =
        |kind, frequency: &str| RawFilter { kind, frequency: Some(frequency.into()), ..RawFilter::default() };
    let high = RawFilter { order: Some(4.0.into()), ..filter(RawFilterKind::HighPass, "20 Hz") };
    let delay = RawFilter { kind: RawFilterKind::Delay, delay: Some("2 ms".into()), ..RawFilter::default() };
    let sheet = biquads(&[high.clone(), delay], 48_000.0).expect("biquads");
    assert_eq!(sheet.sections.len(), 2);
    assert_relative_eq!(sheet.delay_samples, 96.0, max_relative = 1e-9);
    assert!(sheet.deviation < 0.02 && sheet.single_precision > sheet.deviation);
    let text = sheet.csv();
    let rows: Vec<&str> = text.lines().collect();
    assert_eq!(rows.len(), 5);
    let first: Vec<f64> =
        rows[1].rsplit(',').take(5).map(|number| number.parse().expect("a number")).collect();
    // Last column first: a2; every digit survives.
    assert_eq!(first[0].to_bits(), sheet.sections[0].biquad.a[1].to_bits());
    let above = filter(RawFilterKind::AllPass, "19 kHz");
    assert!(matches!(biquads(&[above], 32_000.0), Err(BiquadFailure::Sampling(_))));
    let wrong = RawFilter { order: Some(9.0.into()), ..high };
    assert!(
        matches!(biquads(&[wrong], 48_000.0), Err(BiquadFailure::Problems(problems)) if problems[0].field == "signal.filters[0].order")
    );
}

fn with_mains(filters: &serde_json::Value, mains: &serde_json::Value) -> (RawDesign, Option<RawBrief>) {
    let (mut design, brief) = every_demo().swap_remove(0);
    design.signal = Some(
        serde_json::from_value(serde_json::json!({ "filters": filters, "mains": mains })).expect("a signal"),
    );
    (design, brief.map(|brief| RawBrief { crossover: Some("80 Hz".into()), ..brief }))
}

#[test]
fn sub_and_mains_are_aligned_and_what_is_found_is_what_is_set() {
    let low = serde_json::json!({ "kind": "low_pass", "alignment": "linkwitz_riley", "order": 4, "frequency": "80 Hz" });
    let high = serde_json::json!({ "kind": "high_pass", "alignment": "linkwitz_riley", "order": 4, "frequency": "80 Hz" });
    let mains = serde_json::json!({ "frequency": "30 Hz", "order": 2, "high_pass": high, "distance": "3 m", "sub_distance": "1.5 m" });
    let (mut design, brief) = with_mains(&serde_json::json!([low]), &mains);
    let asked = |design: &RawDesign| crossover(&question(design, brief.as_ref())).expect("a report");
    let before = asked(&design);
    assert_eq!((before.frequency.len(), before.crossover), (49, 80.0));
    // The sub is nearer: it has to wait, and is flatter for it.
    assert!(before.settable.delay > 1e-3 || before.settable.inverted, "{:?}", before.settable);
    assert!(before.settable.flatness < before.now.flatness - 0.05);
    assert!(before.best.flatness <= before.settable.flatness + 1e-3);
    let filters = &mut design.signal.as_mut().expect("a signal").filters;
    filters.extend(before.filters.clone());
    let after = asked(&design);
    assert_relative_eq!(after.now.flatness, before.settable.flatness, epsilon = 0.02);
    assert!(after.filters.is_empty(), "{:?}", after.filters);
    // A link that comes late is made good on the mains.
    design.signal.as_mut().expect("a signal").mains.as_mut().expect("mains").link_delay = Some("9 ms".into());
    let late = asked(&design);
    assert!(late.now.span > after.now.span);
}

#[test]
fn mains_that_were_measured_are_those_that_the_measurement_shows() {
    let stated = serde_json::json!({ "frequency": "55 Hz", "order": 4, "sub_distance": "2 m" });
    let (mut design, brief) = with_mains(&serde_json::json!([]), &stated);
    let level = |design: &RawDesign| crossover(&question(design, brief.as_ref())).expect("a report");
    let before = level(&design);
    // The same roll-off as a microphone would have it: at another level, on a grid of its own.
    let resolved = question(&design, None).resolve().expect("a design").design;
    let chain = resolved.mains.expect("mains").chain;
    let trace = (0..1500).map(|k| {
        let frequency = 8.0 * 1.003f64.powi(k);
        let value = chain.transfer(std::f64::consts::TAU * frequency);
        [frequency, 87.5 + 20.0 * value.norm().log10(), value.arg().to_degrees()]
    });
    let mains = design.signal.as_mut().expect("a signal").mains.as_mut().expect("mains");
    (mains.trace, mains.frequency, mains.order) = (trace.collect(), Some("200 Hz".into()), None);
    let after = level(&design);
    assert_relative_eq!(after.now.flatness, before.now.flatness, epsilon = 0.05);
    assert_relative_eq!(after.best.flatness, before.best.flatness, epsilon = 0.05);
    let mains = design.signal.as_mut().expect("a signal").mains.as_mut().expect("mains");
    mains.trace.reverse();
    assert_eq!(
        crossover(&question(&design, brief.as_ref())).expect_err("falling")[0].field,
        "signal.mains.trace"
    );
}

#[test]
fn mains_that_nothing_is_said_of_are_asked_for() {
    let (mut design, brief) = with_mains(&serde_json::json!([]), &serde_json::json!({}));
    assert!(crossover(&question(&design, brief.as_ref())).is_ok());
    design.signal = None;
    let problems = crossover(&question(&design, brief.as_ref())).expect_err("asked for");
    assert_eq!(problems[0].field, "signal.mains");
}

/// A design with an amplifier of its own.
fn amplified(design: &RawDesign, amplifier: RawAmplifier) -> RawDesign {
    let mut design = design.clone();
    design.signal.get_or_insert_with(RawSignal::default).amplifier = Some(amplifier);
    design
}

#[test]
fn what_an_amplifier_has_built_in_plays_as_the_same_filter_before_it_does() {
    let subsonic = RawFilter {
        kind: RawFilterKind::HighPass,
        order: Some(Typed::Number(4.0)),
        frequency: Some("25 Hz".into()),
        ..RawFilter::default()
    };
    let grid = FrequencyGrid::logarithmic(10.0, 500.0, 200).expect("a grid");
    let level = |design: &RawDesign| -> Vec<f64> {
        let resolved = question(design, None).resolve().expect("a design").design;
        compute_undelayed(&resolved, &grid).expect("computes").response.level().collect()
    };
    let plain = RawAmplifier { power_4: Some("100 W".into()), ..RawAmplifier::default() };
    for build in demo_builds() {
        let design = &build.variants[0];
        let before = with(&amplified(design, plain.clone()), &subsonic);
        let inside = amplified(design, RawAmplifier { filters: vec![subsonic.clone()], ..plain.clone() });
        assert_eq!(level(&before), level(&inside), "{}", design.name);
        let said = report(&inside, build.brief.as_ref());
        assert_eq!((said.filters.len(), said.built_in.len()), (0, 1));
        assert_eq!(said.built_in[0].effect, report(&before, build.brief.as_ref()).filters[0].effect);
    }
    let wrong = amplified(&sealed(), RawAmplifier { filters: vec![subsonic; 5], ..plain });
    assert_eq!(question(&wrong, None).resolve().expect_err("five")[0].field, "signal.amplifier.filters");
}

fn sealed() -> RawDesign {
    demo_build("Narrowboat nook").variants[1].clone()
}

#[test]
fn an_amplifier_in_the_box_eats_its_volume_and_must_have_room() {
    let mount = |depth: &str, open_back| {
        let mounting = RawMounting {
            width: Some("150 mm".into()),
            height: Some("100 mm".into()),
            depth: Some(depth.into()),
            open_back,
            ..RawMounting::default()
        };
        amplified(
            &sealed(),
            RawAmplifier {
                power_4: Some("160 W".into()),
                mounting: Some(mounting),
                ..RawAmplifier::default()
            },
        )
    };
    let air = |design: &RawDesign| {
        let built = question(design, None).resolve().expect("a design").design.built().expect("builds");
        let cabinet = built.boxed.expect("a box").cabinet;
        cabinet
            .chambers
            .iter()
            .flat_map(|chamber| &chamber.ledger.entries)
            .filter(|entry| entry.what.starts_with("amplifier"))
            .map(|entry| entry.volume)
            .sum::<f64>()
    };
    assert_relative_eq!(air(&sealed()), 0.0);
    assert_relative_eq!(air(&mount("60 mm", false)).abs(), 0.9e-3, max_relative = 1e-6);
    // With boards of its own around it and behind it.
    let board = question(&sealed(), None).resolve().expect("a design").design.body.panel.thickness;
    let own = (0.15 + 2.0 * board) * (0.1 + 2.0 * board) * (0.06 + board);
    assert_relative_eq!(air(&mount("60 mm", true)).abs(), own, max_relative = 1e-6);
    let verdict = |design: &RawDesign| {
        report(design, None)
            .amplifier
            .verdicts
            .into_iter()
            .find(|verdict| verdict.name == "In the box")
            .expect("mounted")
    };
    assert_eq!(verdict(&mount("60 mm", false)).met, Some(true));
    let deep = verdict(&mount("300 mm", false));
    assert_eq!(deep.met, Some(false), "{}", deep.words);
}

#[test]
fn a_later_amplifier_is_judged_as_if_it_were_there_and_changes_nothing() {
    let build = demo_build("Narrowboat nook");
    let small = RawAmplifier {
        power_4: Some("100 W".into()),
        minimum_load: Some("4 ohm".into()),
        ..RawAmplifier::default()
    };
    let large = RawAmplifier {
        power_4: Some("400 W".into()),
        minimum_load: Some("8 ohm".into()),
        ..RawAmplifier::default()
    };
    let now = amplified(&build.variants[0], small);
    let mut both = now.clone();
    both.signal.as_mut().expect("a signal").later_amplifier = Some(large.clone());
    let brief = build.brief.as_ref();
    let (alone, said) = (report(&now, brief), report(&both, brief));
    assert_eq!(alone.amplifier, said.amplifier);
    let later = said.later.expect("named");
    assert_eq!(later.amplifier, report(&amplified(&build.variants[0], large), brief).amplifier);
    assert_relative_eq!(later.louder.expect("both known"), 6.0206, epsilon = 1e-3);
    let load = later.amplifier.verdicts.iter().find(|verdict| verdict.name == "Load").expect("a load");
    assert_eq!(load.met, Some(false));
    both.signal.as_mut().expect("a signal").later_amplifier =
        Some(RawAmplifier { power_4: Some("-1 W".into()), ..RawAmplifier::default() });
    let refused = question(&both, brief).resolve().expect_err("negative");
    assert_eq!(refused[0].field, "signal.later_amplifier.power_4");
}
