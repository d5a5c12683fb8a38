//! One quantity in the same conditions is one number, wherever it is shown.

use crate::support::{demo_build, demo_builds};
use approx::assert_relative_eq;
use oak_acoustics::Stop;
use oak_acoustics::network::{Network, OpeningKind};
use oak_design::conditions::{DriveOrigin, RawConditions, RawQuestion};
use oak_design::exchange::write_response_table;
use oak_design::file::{RawAmplifier, RawBrief, RawDesign, RawDrive, RawSignal, RawSpace, Typed};
use oak_design::motion::motion;
use oak_design::report::{Report, compute};
use oak_design::resolve::resolve_brief;
use oak_design::response::FrequencyGrid;
use oak_design::trace::{Quantity, TraceOrigin};
use oak_planning::build_plan::Cost;
use oak_planning::check::{Check, judge};
use oak_planning::sweep::{RawSweep, sweep};
use oak_planning::tolerance::{RawSpreads, RawTolerance, tolerance};
use oak_planning::{Case, starts, workings};

fn question(design: &RawDesign, brief: &RawBrief, conditions: RawConditions) -> RawQuestion {
    RawQuestion { design: design.clone(), brief: Some(brief.clone()), conditions }
}

/// The number that words begin with.
fn number(words: &str) -> f64 {
    words.trim_start_matches('±').split(' ').next().and_then(|text| text.parse().ok()).expect("a number")
}

/// The lines of a quantity that the lanes draw.
fn lines(report: &Report, quantity: Quantity) -> Vec<Vec<f64>> {
    let number = |value: &Option<f32>| f64::from(value.expect("a number"));
    report
        .lines(quantity, TraceOrigin::Simulated)
        .map(|trace| trace.values.iter().map(number).collect())
        .collect()
}

/// What the chips say, worked out of the curves that the lanes draw at the brief's own frequencies.
fn chips_are_of_the_lanes(asked: &RawQuestion, report: &Report, network: &Network, checks: &[Check]) {
    let brief = resolve_brief(asked.brief.as_ref().expect("given")).expect("a brief");
    let chip = |id: &str| checks.iter().find(|check| check.id == id);
    if let (Some(chip), Some(f3)) = (chip("lowest"), report.figures.solved.f3) {
        assert_eq!(chip.reached, format!("{f3:.1} Hz"), "{}", asked.design.name);
    }
    let loud = brief.loudness.expect("the demo asks for one") + 20.0 * brief.distance.log10();
    let level = &lines(report, Quantity::Level)[0];
    let at_level = |values: &[f64]| {
        let scaled = values.iter().zip(level);
        scaled.map(|(value, level)| value * 10f64.powf((loud - level) / 20.0)).fold(0.0, f64::max)
    };
    let says = |id: &str, value: f64| {
        if let Some(chip) = chip(id) {
            let near = (number(&chip.reached) - value).abs() < 0.051;
            assert!(near, "{}, {id}: {} {value}", asked.design.name, chip.reached);
        }
    };
    says("cone", at_level(&lines(report, Quantity::Excursion)[0]));
    let openings = network.openings.iter().filter(|opening| opening.kind != OpeningKind::Diaphragm);
    let speeds = lines(report, Quantity::AirSpeed);
    let ports = speeds.iter().zip(openings).filter(|(_, opening)| opening.kind == OpeningKind::Port);
    says("air", ports.map(|(speed, _)| at_level(speed)).fold(0.0, f64::max));
    let limit = report.lines(Quantity::Level, TraceOrigin::Limit).next().expect("a limit");
    let weakest = limit.values.iter().flatten().copied().fold(f32::INFINITY, f32::min);
    says("loudness", f64::from(weakest) - 20.0 * brief.distance.log10());
}

fn every_screen_says_the_same(asked: &RawQuestion) {
    let name = &asked.design.name;
    let brief = resolve_brief(asked.brief.as_ref().expect("given")).expect("a brief");
    let lowest = brief.lowest.expect("the demo asks for one");
    let upper = brief.crossover.unwrap_or(4.0 * lowest);
    let grid = FrequencyGrid::logarithmic(lowest, upper, Case::POINTS).expect("a grid");
    let question = asked.resolve().expect("whole");
    let computed = compute(&question.design, &grid).expect("builds");
    let report = Report::of(&question.design, &grid).expect("builds");

    // The table: its line of comment, and its levels.
    let table = write_response_table(&computed);
    let (comment, rows) = table.split_once('\n').expect("lines");
    assert_eq!(comment, format!("# {}", report.conditions), "{name}");
    let mut reader = csv::Reader::from_reader(rows.as_bytes());
    let level = &lines(&report, Quantity::Level)[0];
    for (row, level) in reader.records().zip(level) {
        let written: f64 = row.expect("a row")[1].parse().expect("a number");
        assert!((written - level).abs() < 1e-4, "{name}");
    }

    // Slow motion: the cone, and what is heard, at one of the frequencies.
    let at = Case::POINTS / 3;
    let moves = motion(&question.design, f64::from(report.traces[0].frequency[at])).expect("moves");
    assert!((moves.level - level[at]).abs() < 1e-3, "{name}");
    let farthest = moves.movers.iter().filter(|mover| mover.kind == "cone").map(|mover| mover.travel * 1e3);
    assert_relative_eq!(
        farthest.fold(0.0, f64::max),
        lines(&report, Quantity::Excursion)[0][at],
        max_relative = 1e-3
    );

    // The value that stands, among those of a sweep.
    let RawQuestion { design, brief, conditions } = asked.clone();
    let parameter = Some("temperature".to_owned());
    let ask = RawSweep { design, brief, conditions, parameter, from: None, to: None };
    let turned = sweep(&ask, &Stop::default()).expect("turns");
    let standing =
        turned.parameters.iter().find(|one| one.id == turned.parameter).expect("it was asked").value;
    let step =
        turned.steps.iter().find(|step| (step.value - standing).abs() < 1e-9).expect("it stands among them");
    let outcome = step.outcome.as_ref().unwrap_or_else(|| panic!("{name}: {:?}", step.problem));
    let figures = &report.figures;
    assert_eq!(outcome.f3, figures.solved.f3, "{name}");
    assert_relative_eq!(outcome.reference_level, figures.solved.reference_level, max_relative = 1e-12);
    assert_eq!(outcome.excursion_in_band, figures.solved.excursion_in_band.map(|peak| peak.value), "{name}");
    assert_eq!(outcome.air_speed, figures.solved.air_speed.map(|peak| peak.value), "{name}");
    assert_eq!(
        outcome.port_length,
        figures.rear_ports.first().or(figures.ports.first()).map(|port| port.length),
        "{name}"
    );

    // The workings, and in use the chips.
    let worked = workings(asked).expect("works out");
    let result = |id: &str| worked.iter().find(|one| one.id == id).map(|one| one.result.clone());
    assert_eq!(result("f3"), figures.solved.f3.map(|f3| format!("{f3:.1} Hz")), "{name}");
    assert_eq!(result("level"), Some(format!("{:.1} dB", figures.solved.reference_level)), "{name}");
    if asked.conditions == RawConditions::default() {
        let brief = resolve_brief(asked.brief.as_ref().expect("given")).expect("a brief");
        let case = Case::of(&brief, &asked.design).expect("whole");
        chips_are_of_the_lanes(asked, &report, &computed.built.compiled.network, &judge(&case));
    } else {
        assert!(report.conditions.starts_with("2.83 V, half space"), "{}", report.conditions);
    }
}

#[test]
fn a_pair_of_cabinets_is_twice_as_loud_and_twice_as_dear_and_each_is_as_one_alone() {
    let build = demo_build("Pit organ");
    let one = build.brief.expect("the demo has briefs");
    let pair = RawBrief { cabinets: Some(Typed::Number(2.0)), ..one.clone() };
    for raw in &build.variants {
        every_screen_says_the_same(&question(raw, &pair, RawConditions::default()));
        every_screen_says_the_same(&question(raw, &pair, RawConditions::bench()));
        let [alone, both] = [&one, &pair].map(|brief| {
            let brief = resolve_brief(brief).expect("a brief");
            let case = Case::of(&brief, raw).expect("whole");
            let figures = &case.computed.figures;
            let cost = Cost::of(&case).map(|cost| cost.total);
            let travel = figures.excursion_in_band.map(|peak| peak.value);
            let loud = case.computed.max_output.level[case.band.clone()].to_vec();
            (figures.reference_level, figures.f3, travel, cost, loud, case.design.conditions())
        });
        // Together they push twice the air against the same space.
        assert_relative_eq!(both.0 - alone.0, 20.0 * 2_f64.log10(), epsilon = 1e-9);
        for (both, alone) in both.4.iter().zip(&alone.4) {
            assert_relative_eq!(both - alone, 20.0 * 2_f64.log10(), epsilon = 1e-9);
        }
        assert_eq!((both.1, both.2), (alone.1, alone.2), "{}", raw.name);
        // Whole sheets and packs go further for two.
        let [two, one] = [both.3, alone.3].map(|cost| cost.expect("the demo has prices"));
        assert!(two > 1.5 * one && two <= 2.0 * one + 1e-9, "{}: {two} {one}", raw.name);
        assert_eq!(both.5, format!("2 cabinets, each with {}", alone.5));
    }
    let half = resolve_brief(&RawBrief { cabinets: Some(Typed::Number(1.5)), ..one });
    assert_eq!(half.expect_err("no half ones")[0].field, "cabinets");
}

#[test]
fn chips_lanes_tables_sweeps_and_slow_motion_of_the_demo_agree_in_use_and_on_the_bench() {
    for build in demo_builds() {
        let brief = build.brief.expect("the demo has briefs");
        for design in &build.variants {
            for conditions in [RawConditions::default(), RawConditions::bench()] {
                every_screen_says_the_same(&question(design, &brief, conditions));
            }
        }
    }
}

#[test]
fn they_agree_for_what_every_starting_point_makes_of_the_demo_s_drivers() {
    let builds = demo_builds();
    for (build, other) in builds.iter().zip(builds.iter().cycle().skip(1)) {
        let brief = build.brief.clone().expect("the demo has briefs");
        for family in ["sealed", "ported", "bandpass4", "passive_radiator", "aperiodic"] {
            let ask = serde_json::from_value(serde_json::json!({
                "family": family, "driver": other.variants[0].driver, "brief": brief
            }));
            for start in starts(&ask.expect("an ask"), &Stop::default()).expect("answers") {
                let Some(design) = start.design else { continue };
                every_screen_says_the_same(&question(&design, &brief, RawConditions::default()));
            }
        }
    }
}

#[test]
fn how_sure_begins_with_the_figures_of_the_lanes() {
    for build in demo_builds() {
        let (brief, design) = (build.brief.expect("a brief"), &build.variants[0]);
        for conditions in [RawConditions::default(), RawConditions::bench()] {
            let asked = question(design, &brief, conditions);
            let grid = FrequencyGrid::logarithmic(10.0, 500.0, 120).expect("a grid");
            let report = Report::of(&asked.resolve().expect("whole").design, &grid).expect("builds");
            let RawQuestion { design, brief, conditions } = asked;
            let ask = RawTolerance { design, brief, conditions, spreads: RawSpreads::default() };
            let shaken = tolerance(&ask, &Stop::default()).expect("builds");
            assert_eq!(shaken.f3.map(|f3| f3.designed), report.figures.solved.f3);
            let drawn = &lines(&report, Quantity::Level)[0];
            assert_eq!(shaken.level.len(), drawn.len());
            for (level, lane) in shaken.level.iter().zip(drawn) {
                assert!((f64::from(*level) - lane).abs() < 1e-4, "{}", build.name);
            }
        }
    }
}

#[test]
fn the_brief_gives_amplifier_and_space_where_the_design_does_not_and_the_bench_is_the_same_for_all() {
    let build = demo_build("Narrowboat nook");
    let (brief, design) = (build.brief.expect("a brief"), build.variants[0].clone());
    let told = |design: &RawDesign, brief: Option<&RawBrief>, conditions| {
        let asked = RawQuestion { design: design.clone(), brief: brief.cloned(), conditions };
        let design = asked.resolve().expect("whole").design;
        (design.conditions(), design.drive.origin, design.allowance.volts)
    };
    let (use_, bench) = (RawConditions::default(), RawConditions::bench());
    assert_eq!(
        told(&design, Some(&brief), use_.clone()),
        ("160 W into 4 Ω (25.3 V), against a wall".into(), DriveOrigin::Amplifier, Some(640f64.sqrt()))
    );
    assert_eq!(told(&design, None, use_.clone()), ("2.83 V, half space".into(), DriveOrigin::Usual, None));
    assert_eq!(
        told(&design, Some(&brief), bench.clone()),
        ("2.83 V, half space".into(), DriveOrigin::Bench, None)
    );

    // Its own amplifier and drive are the design's; where it plays is the brief's.
    let own = RawDesign {
        signal: Some(RawSignal {
            amplifier: Some(RawAmplifier { voltage: Some("30 V".into()), ..RawAmplifier::default() }),
            ..RawSignal::default()
        }),
        space: Some(RawSpace::Eighth),
        ..design
    };
    assert_eq!(
        told(&own, Some(&brief), use_.clone()),
        ("30 V, against a wall".into(), DriveOrigin::Amplifier, Some(30.0))
    );
    let mut turned_down = own;
    let drive = RawDrive { voltage: Some("5 V".into()), power: None };
    turned_down.signal.as_mut().expect("a signal").drive = Some(drive);
    assert_eq!(
        told(&turned_down, Some(&brief), use_.clone()),
        ("5 V, against a wall".into(), DriveOrigin::Typed, Some(30.0))
    );
    assert_eq!(
        told(&turned_down, None, use_.clone()),
        ("5 V, in a corner".into(), DriveOrigin::Typed, Some(30.0))
    );
    assert_eq!(
        told(&turned_down, Some(&brief), bench.clone()),
        ("2.83 V, half space".into(), DriveOrigin::Bench, Some(30.0))
    );
}
