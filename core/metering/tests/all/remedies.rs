//! Remedies, against hidden cabinets: a remedy's design is what the box becomes.

use oak_design::conditions::{RawConditions, RawQuestion};
use oak_design::field;
use oak_design::file::{
    RawDesign, RawMeasurement, RawSheetCoils, RawSourceKind, RawTraceKind, Typed, open_design,
};
use oak_design::report::compute;
use oak_design::resolve::resolve_design;
use oak_design::response::FrequencyGrid;
use oak_metering::plan::measuring_plan;
use oak_metering::reading::read_trace;
use oak_metering::report::{FindingVerdict, MeasuringReport, RawMeasuredQuestion, measure_report};
use oak_rig::{Hidden, Kind, Setup, draw, folder, truth};
use serde_json::Value;

/// What a hidden cabinet's folder holds, as the documents of a build.
fn measured(hidden: &Hidden, seed: u64, kinds: &[&str]) -> RawMeasuredQuestion {
    let folder = folder(hidden, seed, kinds);
    let session: Value = serde_json::from_slice(&folder["session.json"]).expect("session");
    let design = open_design(&folder["design.json"]).expect("design");
    let temperature = session["room_temperature"].as_str().map(Typed::from);
    let measurement = |trace: &Value| {
        let of: RawTraceKind = serde_json::from_value(trace["kind"].clone()).expect("kind");
        let file = trace["file"].as_str().expect("file");
        let read = read_trace(of, file, &folder[file]).expect("trace");
        RawMeasurement {
            variant: Some(design.name.clone()),
            driver: trace["driver"].as_u64().map(|number| Typed::Number(number as f64)),
            added_mass: trace["added_mass_g"].as_f64().map(|grams| Typed::Text(format!("{grams} g"))),
            room_temperature: temperature.clone(),
            file: file.to_owned(),
            phased: read.phased,
            remarks: read.remarks,
            ..crate::support::trace(of, read.points)
        }
    };
    let measurements = session["traces"].as_array().expect("traces").iter().map(measurement).collect();
    let question = RawQuestion { conditions: RawConditions::bench(), ..RawQuestion::of(design) };
    RawMeasuredQuestion { question, measurements, on: "2026-05-01".to_owned() }
}

fn tuning(design: &RawDesign) -> f64 {
    let built = resolve_design(design).expect("resolved").built().expect("built");
    built
        .compiled
        .port_tuning
        .map_or_else(|| built.compiled.closed_box.expect("closed").fc, |tuning| tuning.reactance)
}

/// Cabinets whose sort is asked for, of the first hundred.
fn some(wanted: impl Fn(&Hidden) -> bool) -> impl Iterator<Item = (u64, Hidden)> {
    (0..100)
        .map(move |seed| (seed, draw(&Setup { kind: Kind::Rough, noise: 40.0, seed })))
        .filter(move |(_, hidden)| wanted(hidden))
}

fn report(hidden: &Hidden, seed: u64) -> (RawMeasuredQuestion, MeasuringReport) {
    let raw = measured(hidden, seed, &[]);
    let report = measure_report(&raw).expect("a report");
    (raw, report)
}

#[test]
fn a_design_as_it_was_measured_has_the_tuning_that_was_found() {
    let ported = some(|hidden| hidden.sheet.port.is_some() && hidden.cabinet.reversed == 0);
    for (seed, hidden) in ported.take(6) {
        let (raw, report) = report(&hidden, seed);
        let found = report.answer.tuning_hz.expect("a tuning").value;
        let as_found = report.as_found.expect("a design");
        let air = resolve_design(&raw.question.design).expect("resolved").air;
        let there = hidden.cabinet.air.speed / air.speed;
        let own = tuning(&as_found) * there;
        assert!((own - found).abs() < 0.15, "{seed}: the design {own:.2} Hz, found {found:.2} Hz");
        // And the impedance that was measured, coil and all.
        let grid = FrequencyGrid::logarithmic(10.0, 400.0, 60).expect("a grid");
        let design = resolve_design(&as_found).expect("resolved").on_the_bench();
        let computed = compute(&design, &grid).expect("computed");
        let [mut off, mut count] = [0.0, 0.0];
        for (frequency, ours) in grid.frequencies().iter().zip(&computed.response.impedance) {
            let there = hidden.cabinet.flows(*frequency, false, 0.0).impedance.norm();
            off += (ours.norm() / there).ln().abs();
            count += 1.0;
        }
        assert!(off / count < 0.08, "{seed}: off by {:.3} in the mean", off / count);
        let fs = as_found.driver.sources.get("fs").expect("where it is from");
        assert_eq!((fs.kind, fs.on.as_str()), (RawSourceKind::Measured, "2026-05-01"));
        assert_eq!(fs.was, raw.question.design.driver.fs);
        // What the workshop learns from is what was found, with its error.
        let found = as_found.measured.and_then(|measured| measured.found).expect("what was found");
        let read = |typed: &Typed| field::FOUND_QL.read(Some(typed)).expect("a number");
        let (ql, told) = (found.ql.expect("a QL"), report.answer.ql.expect("a QL"));
        assert!((read(&ql.value) / told.value - 1.0).abs() < 1e-3);
        assert!((read(&ql.error) / told.se - 1.0).abs() < 0.06);
        assert!(found.port_ends.is_some());
    }
}

#[test]
fn the_remedy_at_the_port_brings_the_box_to_the_tuning_of_the_design() {
    let off =
        some(|hidden| hidden.cabinet.reversed == 0 && truth(hidden).cut.is_some_and(|cut| cut.abs() > 0.012));
    let mut seen = 0;
    for (seed, hidden) in off.take(6) {
        let (raw, report) = report(&hidden, seed);
        let Some(port) = report.remedies.iter().find(|remedy| remedy.id == "port") else { continue };
        seen += 1;
        let aim = tuning(&raw.question.design);
        let another = port.design.as_ref().expect("another length");
        assert_eq!(another.measured.as_ref().and_then(|measured| measured.found.as_ref()), None);
        let own = tuning(another);
        assert!((own - aim).abs() < 0.2, "{seed}: {own:.2} Hz for {aim:.2} Hz");
        assert_eq!(port.outcome.tuning.map(|tuning| tuning.value), Some(own));
        // A block or fill comes to the same.
        for other in report.remedies.iter().filter(|remedy| ["block", "fill"].contains(&remedy.id)) {
            let own = tuning(other.design.as_ref().expect("another volume"));
            assert!((own - aim).abs() < 0.02 * aim, "{seed}, {}: {own:.2} Hz for {aim:.2} Hz", other.id);
        }
        let look = report.findings.iter().find(|finding| finding.id == "tuning").expect("told");
        assert_eq!(look.verdict, FindingVerdict::Look);
    }
    assert!(seen >= 4, "only {seen} boxes were to be mended");
}

#[test]
fn a_leak_is_sealed_first_and_swapped_leads_hide_all_else() {
    let leaking = some(|hidden| hidden.cabinet.ql < 3.0 && hidden.cabinet.reversed == 0);
    for (seed, hidden) in leaking.take(3) {
        let (_, report) = report(&hidden, seed);
        assert_eq!(report.remedies.first().map(|remedy| remedy.id), Some("seal"), "{seed}");
        assert_eq!(report.remedies[0].design, None);
        let sealed = report.remedies[0].foretold.enclosure.ql.clone().expect("a QL");
        assert!(sealed.to_string().parse::<f64>().expect("a number") >= 7.0);
        assert_eq!(report.findings.first().map(|finding| finding.verdict), Some(FindingVerdict::Look));
    }
    let swapped = some(|hidden| hidden.cabinet.reversed > 0);
    for (seed, hidden) in swapped.take(2) {
        let (raw, report) = report(&hidden, seed);
        let ids: Vec<_> = report.remedies.iter().map(|remedy| remedy.id).collect();
        assert_eq!(ids, ["swap"], "{seed}");
        // The box was not seen: the design stays, but for the driver.
        let as_found = report.as_found.expect("the driver was measured");
        assert_eq!(as_found.enclosure, raw.question.design.enclosure);
    }
}

#[test]
fn a_clean_box_is_good_as_it_is() {
    for (seed, hidden) in some(|hidden| hidden.clean).take(4) {
        let (_, report) = report(&hidden, seed);
        assert_eq!(report.remedies, [], "{seed}");
        assert!(
            report.findings.iter().all(|finding| finding.verdict != FindingVerdict::Look),
            "{:?}",
            report.findings
        );
        assert!(report.findings.iter().any(|finding| finding.id == "good"), "{:?}", report.findings);
    }
}

#[test]
fn what_is_not_in_the_traces_is_said_to_be_open() {
    let (seed, hidden) =
        some(|hidden| hidden.sheet.port.is_some() && hidden.cabinet.reversed == 0 && hidden.cabinet.ql > 6.0)
            .next()
            .expect("one");
    // The impedance of the box alone.
    let report = measure_report(&measured(&hidden, seed, &["impedance_box"])).expect("a report");
    assert!(report.answer.tuning_hz.is_some());
    assert!(
        report
            .findings
            .iter()
            .any(|finding| finding.id == "apart" && finding.verdict == FindingVerdict::Open)
    );
    assert_eq!(report.by_hand, []);
    // A microphone alone: the null of the cone, and no more.
    let report = measure_report(&measured(&hidden, seed, &["nearfield_cone"])).expect("a report");
    assert_eq!(report.answer.tuning_hz, None);
    let null = report.tunings.iter().find(|way| way.id == "null").expect("a null").hz;
    let found = truth(&hidden).tuning;
    assert!((null / found - 1.0).abs() < 0.05, "{null:.1} Hz for {found:.1} Hz");
    assert!(report.findings.iter().any(|finding| finding.id == "null"));
    // Nothing.
    let report = measure_report(&measured(&hidden, seed, &["none"])).expect("a report");
    assert_eq!((report.used, report.as_found), (0, None));
}

#[test]
fn three_points_by_hand_stand_beside_the_fit_and_four_ways_tell_the_tuning() {
    let (seed, hidden) =
        some(|hidden| hidden.sheet.port.is_some() && hidden.cabinet.reversed == 0 && hidden.cabinet.ql > 6.0)
            .next()
            .expect("one");
    let (_, report) = report(&hidden, seed);
    for by in &report.by_hand {
        let [fs, qms, qes] = by.fitted;
        // Noise of 1 % and little else.
        assert!(by.left < 0.015 && by.curve.len() > 100, "{} left", by.left);
        assert!((by.fs / fs - 1.0).abs() < 0.02 && (by.qms / qms - 1.0).abs() < 0.15);
        assert!((by.qes / qes - 1.0).abs() < 0.1, "{} by hand, {qes} fitted", by.qes);
    }
    let ids: Vec<_> = report.tunings.iter().map(|way| way.id).collect();
    assert_eq!(ids, ["fit", "dip", "phase", "null"]);
    for way in &report.tunings {
        assert!((way.hz / report.tunings[0].hz - 1.0).abs() < 0.08, "{way:?}");
    }
    let labels: Vec<_> = report.traces.iter().filter_map(|trace| trace.label.as_deref()).collect();
    assert_eq!(labels, ["measured", "measured, port shut", "near fields, cone and port"]);
}

#[test]
fn a_plan_asks_for_each_driver_and_marks_the_smallest_set() {
    let (_, hidden) =
        some(|hidden| hidden.sheet.count == 2 && hidden.sheet.port.is_some()).next().expect("one");
    let design = open_design(&folder(&hidden, 0, &[])["design.json"]).expect("design");
    let built = resolve_design(&design).expect("resolved").built().expect("built");
    let plan = measuring_plan(&built);
    let of = |kind: RawTraceKind| plan.steps.iter().filter(|step| step.of == kind).count();
    assert_eq!(of(RawTraceKind::ImpedanceFree), 2);
    assert_eq!(of(RawTraceKind::NearfieldCone), 2);
    assert_eq!(of(RawTraceKind::ImpedanceBlocked), 1);
    let smallest: Vec<_> = plan.steps.iter().filter(|step| step.smallest).map(|step| step.of).collect();
    assert_eq!(smallest, [RawTraceKind::ImpedanceBox]);
    let cone = plan.steps.iter().find(|step| step.of == RawTraceKind::NearfieldCone).expect("a cone");
    let radius = (hidden.cabinet.driver.sd / std::f64::consts::PI).sqrt();
    let wave = cone.highest.expect("ka = 1") * std::f64::consts::TAU * radius / 343.2;
    assert!((wave - 1.0).abs() < 0.02, "ka is {wave}");
}

#[test]
fn the_air_is_that_of_the_newest_measurement_of_the_box() {
    let (seed, hidden) =
        some(|hidden| hidden.sheet.port.is_some() && hidden.cabinet.reversed == 0).next().expect("one");
    let mut raw = measured(&hidden, seed, &["impedance_box", "impedance_blocked"]);
    let cut = |raw: &RawMeasuredQuestion| {
        measure_report(raw).expect("a report").answer.port_cut_mm.expect("a length").value
    };
    let degrees = |text: &str| Some(Typed::from(text));
    raw.measurements.iter_mut().for_each(|one| one.room_temperature = degrees("12 degC"));
    let cold = cut(&raw);
    raw.measurements.iter_mut().skip(1).for_each(|one| one.room_temperature = degrees("28 degC"));
    assert!((cut(&raw) - cold).abs() < 1e-9);
    raw.measurements[0].room_temperature = degrees("28 degC");
    assert!((cut(&raw) - cold).abs() > 5.0);
}

#[test]
fn a_driver_with_two_coils_keeps_its_sheet() {
    let (seed, hidden) = some(|hidden| hidden.cabinet.reversed == 0).next().expect("one");
    let mut raw = measured(&hidden, seed, &["impedance_free", "impedance_mass"]);
    let adopted =
        |raw: &RawMeasuredQuestion| measure_report(raw).expect("a report").as_found.expect("a design").driver;
    assert_ne!(adopted(&raw), raw.question.design.driver);
    raw.question.design.driver.coils = Some(RawSheetCoils::DualSeries);
    assert_eq!(adopted(&raw), raw.question.design.driver);
}
