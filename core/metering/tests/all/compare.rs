//! Levels beside each other.

use approx::assert_relative_eq;
use oak_design::file::{RawMeasurement, RawTraceKind};
use oak_metering::compare::{RawComparedTraces, RawNamedTrace, compare_traces};

use crate::support::trace;

fn measurement(of: RawTraceKind, level: impl Fn(f64) -> f64) -> RawMeasurement {
    let points = (0..300).map(|k| {
        let frequency = 10.0 * 80f64.powf(f64::from(k) / 299.0);
        [frequency, level(frequency), 0.0]
    });
    RawMeasurement { phased: false, ..trace(of, points.collect()) }
}

fn named(name: &str, level: impl Fn(f64) -> f64) -> RawNamedTrace {
    RawNamedTrace { name: name.to_owned(), measurement: measurement(RawTraceKind::Seat, level) }
}

/// A closed box of the second order with its corner at a frequency, dB.
fn closed(corner: f64) -> impl Fn(f64) -> f64 {
    move |f: f64| -10.0 * (1.0 + (corner / f).powi(4)).log10()
}

#[test]
fn boxes_are_laid_on_each_other_and_the_one_that_goes_lower_is_told() {
    let raw = RawComparedTraces {
        traces: vec![named("large", |f| 90.0 + closed(20.0)(f)), named("small", |f| 83.0 + closed(35.0)(f))],
        part: None,
        banded: false,
        equal: Some([100.0, 200.0]),
    };
    let found = compare_traces(&raw).expect("two levels");
    let [large, small] = found.traces.as_slice() else { panic!("two") };
    assert_relative_eq!(small.shift, 7.0, epsilon = 0.03);
    // Butterworth's corner is where it is 3 dB down, but for what the band itself has lost.
    assert_relative_eq!(large.f3.expect("it falls"), 20.0, epsilon = 0.3);
    assert_relative_eq!(small.f3.expect("it falls"), 35.0, epsilon = 2.5);
    assert!(small.evenness > large.evenness && large.f10.expect("it falls") < small.f10.expect("it falls"));
    let [_, off] = small.difference.iter().find(|[f, _]| *f > 20.0).expect("a point");
    assert_relative_eq!(*off, closed(35.0)(20.0) - closed(20.0)(20.0), epsilon = 0.3);
    assert!(large.difference.is_empty());
    // The mean lies between.
    let at = |points: &[[f64; 2]]| points.iter().find(|[f, _]| *f > 30.0).expect("a point")[1];
    assert!(at(&found.average) < at(&large.points) && at(&found.average) > at(&small.points));
}

#[test]
fn bands_stand_in_place_of_lines_where_they_are_asked_for() {
    let raw =
        RawComparedTraces { traces: vec![named("flat", |_| 80.0)], part: Some(3), banded: true, equal: None };
    let found = compare_traces(&raw).expect("a level");
    let [flat] = found.traces.as_slice() else { panic!("one") };
    assert!(flat.points.iter().any(|[f, level]| (f - 100.0).abs() < 1e-6 && (level - 80.0).abs() < 1e-9));
    assert_eq!((flat.f3, found.average.len()), (None, 0));
    assert_relative_eq!(flat.evenness, 0.0, epsilon = 1e-9);
}

#[test]
fn what_cannot_be_compared_is_said_with_its_place() {
    let good =
        RawComparedTraces { traces: vec![named("a", |_| 80.0)], part: None, banded: false, equal: None };
    let told = |raw: RawComparedTraces| compare_traces(&raw).expect_err("wrong")[0].to_string();
    assert!(told(RawComparedTraces { traces: vec![], ..good.clone() }).contains("0 traces"));
    assert!(told(RawComparedTraces { part: Some(5), ..good.clone() }).contains("1/5"));
    assert!(told(RawComparedTraces { equal: Some([200.0, 100.0]), ..good.clone() }).contains("no band"));
    let impedance =
        RawNamedTrace { name: "z".to_owned(), measurement: measurement(RawTraceKind::ImpedanceBox, |_| 8.0) };
    let told = told(RawComparedTraces { traces: vec![good.traces[0].clone(), impedance], ..good });
    assert!(told.contains("traces[1]") && told.contains("impedance"), "{told}");
}
