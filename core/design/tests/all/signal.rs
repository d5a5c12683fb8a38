//! What comes before the drivers, from its file to what is computed.

use approx::assert_relative_eq;
use oak_acoustics::Complex;
use oak_acoustics::response::FrequencyGrid;
use oak_design::Problem;
use oak_design::file::open_design;
use oak_design::report::{Computed, Report, compute};
use oak_design::resolve::{ResolvedDesign, resolve_design};
use oak_design::trace::{Quantity, TraceOrigin};
use serde_json::{Value, json};

fn design(signal: &Value) -> Result<ResolvedDesign, Vec<Problem>> {
    let document = json!({
        "format": "oak-drum/design", "version": 2, "name": "Test",
        "driver": {
            "name": "Heron 250/4", "re": "3.4 ohm", "fs": "24 Hz", "qms": 5.4, "qes": 0.38, "nominal": "4 ohm",
            "vas": "63.3 l", "sd": "346 cm2", "xmax": "11.5 mm"
        },
        "enclosure": {
            "family": "ported", "volume": "44 l", "ql": 7, "tuning": "29 Hz",
            "ports": [{ "shape": "round", "diameter": "9 cm" }]
        },
        "signal": signal
    });
    resolve_design(&open_design(document.to_string().as_bytes()).expect("a file"))
}

fn good(signal: &Value) -> ResolvedDesign {
    design(signal).expect("a design")
}

fn grid() -> FrequencyGrid {
    FrequencyGrid::logarithmic(10.0, 400.0, 200).expect("a grid")
}

fn computed(signal: &Value) -> Computed {
    compute(&good(signal), &grid()).expect("computes")
}

#[test]
fn a_filter_moves_every_lane_and_the_drive_times_the_free_response_is_the_level() {
    let signal = json!({ "drive": { "voltage": "10 V" }, "filters": [
        { "kind": "high_pass", "order": 4, "frequency": "20 Hz" },
        { "kind": "parametric", "frequency": "45 Hz", "q": 1.4, "gain": "-4 dB" },
        { "kind": "low_pass", "alignment": "linkwitz_riley", "order": 4, "frequency": "80 Hz" },
        { "kind": "gain", "gain": "6 dB", "bypassed": true },
    ]});
    let (with, free) = (computed(&signal), computed(&json!({ "drive": { "voltage": "10 V" } })));
    for k in 0..200 {
        let h = with.response.drive[k] / Complex::from(10.0);
        assert!(
            (with.response.pressure[k] - free.response.pressure[k] * h).norm()
                < 1e-9 * with.response.pressure[k].norm()
        );
    }
    // The lanes say so too, to what they show.
    let [with, free] = [signal, json!({ "drive": { "voltage": "10 V" } })]
        .map(|signal| Report::of(&good(&signal), &grid()).expect("a report"));
    let line = |report: &Report, quantity| {
        report.lines(quantity, TraceOrigin::Simulated).next().expect("a line").values.clone()
    };
    let drive = line(&with, Quantity::Drive);
    for quantity in [Quantity::Excursion, Quantity::AirSpeed, Quantity::Current] {
        let (with, free) = (line(&with, quantity), line(&free, quantity));
        for k in 0..200 {
            let expected = free[k].expect("a number") * drive[k].expect("a number") / 10.0;
            assert_relative_eq!(with[k].expect("a number"), expected, max_relative = 2e-3, epsilon = 1e-6);
        }
    }
    assert_eq!(line(&with, Quantity::Impedance), line(&free, Quantity::Impedance));
}

#[test]
fn a_part_changes_the_load_and_what_the_amplifier_gives_in_stays_in_balance() {
    let coil =
        json!({ "parts": [{ "wiring": "series", "inductance": "8 mH", "coil_resistance": "0.4 ohm" }] });
    let (with, free) = (computed(&coil), computed(&json!({})));
    let top = with.response.frequency.partition_point(|frequency| *frequency < 150.0);
    let omega = std::f64::consts::TAU * with.response.frequency[top];
    let added = with.response.impedance[top] - free.response.impedance[top];
    assert_relative_eq!(added.im, omega * 8e-3, max_relative = 1e-9);
    assert_relative_eq!(added.re, 0.4, max_relative = 1e-9);
    let power: Vec<f64> = with.response.power().collect();
    let heat = 0.4 * with.response.part_current[0][top].norm_sqr();
    assert!(heat > 0.0 && heat < power[top]);
}

#[test]
fn an_amplifier_gives_what_its_ratings_say_into_this_load() {
    // 100 W into 8 ohm are 28.3 V; 160 W into 4 ohm are 6.3 A, which into 4 ohm leave 25.3 V.
    let rated =
        good(&json!({ "amplifier": { "power_8": "100 W", "power_4": "160 W", "minimum_load": "3 ohm" } }));
    let full = rated.amplifier.expect("an amplifier");
    assert_relative_eq!(full.volts, 25.298, max_relative = 1e-4);
    assert_relative_eq!(rated.allowance.amperes.expect("a current"), 6.3246, max_relative = 1e-4);
    assert_eq!(rated.minimum_load, Some(3.0));
    // One rating alone is a voltage.
    let one = good(&json!({ "amplifier": { "power_8": "100 W" } }));
    assert_relative_eq!(one.amplifier.expect("an amplifier").volts, 28.284, max_relative = 1e-4);
    assert_eq!(one.allowance.amperes, None);
}

#[test]
fn what_is_wrong_is_named_at_its_place() {
    let filter = |filter: Value| json!({ "filters": [{ "kind": "gain", "gain": "1 dB" }, filter] });
    let part = |part: Value| json!({ "parts": [part] });
    let many = vec![json!({ "kind": "invert" }); 21];
    for (signal, field, words) in [
        (
            filter(json!({ "kind": "high_pass", "order": 9, "frequency": "20 Hz" })),
            "signal.filters[1].order",
            "1 to 8",
        ),
        (
            filter(json!({ "kind": "low_pass", "order": 2.5, "frequency": "20 Hz" })),
            "signal.filters[1].order",
            "whole",
        ),
        (
            filter(
                json!({ "kind": "low_pass", "alignment": "linkwitz_riley", "order": 3, "frequency": "80 Hz" }),
            ),
            "signal.filters[1].order",
            "even order",
        ),
        (filter(json!({ "kind": "high_pass" })), "signal.filters[1].frequency", ""),
        (filter(json!({ "kind": "parametric", "frequency": "40 Hz" })), "signal.filters[1].gain", ""),
        (filter(json!({ "kind": "delay", "delay": "-3 ms" })), "signal.filters[1].delay", "0 ms to 200 ms"),
        (
            filter(json!({ "kind": "linkwitz_transform", "frequency": "40 Hz", "q": 0.8, "wanted_q": 0.7 })),
            "signal.filters[1].wanted_frequency",
            "",
        ),
        (
            filter(json!({ "kind": "measured", "trace": [[20, 0, 0]] })),
            "signal.filters[1].trace",
            "two points",
        ),
        (json!({ "filters": many }), "signal.filters", "20"),
        (part(json!({ "wiring": "across" })), "signal.parts[0]", ""),
        (part(json!({ "wiring": "series", "inductance": "-2 mH" })), "signal.parts[0].inductance", ""),
        (part(json!({ "wiring": "trap", "inductance": "2 mH" })), "signal.parts[0].capacitance", ""),
        (
            json!({ "amplifier": { "output_resistance": "90 ohm" } }),
            "signal.amplifier.output_resistance",
            "50 ohm",
        ),
    ] {
        let problems = design(&signal).expect_err("refused");
        let found = problems.iter().find(|problem| problem.field == field);
        let found = found.unwrap_or_else(|| panic!("{signal}: {problems:?}"));
        assert!(found.to_string().contains(words), "{signal}: {found}");
    }
}

/// Twenty steep filters leave nothing that a double can hold: what is told is still made of numbers.
#[test]
fn a_signal_that_filters_take_whole_still_has_a_load() {
    let steep = json!({ "kind": "high_pass", "order": 8, "frequency": "20 kHz" });
    let silent = computed(&json!({ "filters": vec![steep; 20] }));
    let free = computed(&json!({}));
    for k in 0..200 {
        let [found, expected] = [&silent, &free].map(|computed| computed.response.impedance[k]);
        assert!((found - expected).norm() < 1e-9 * expected.norm(), "{found}");
    }
    let report = Report::of(
        &good(
            &json!({ "filters": vec![json!({ "kind": "high_pass", "order": 8, "frequency": "20 kHz" }); 20] }),
        ),
        &grid(),
    );
    let report = report.expect("a report");
    let numbers = report.traces.iter().filter(|trace| trace.origin == TraceOrigin::Simulated);
    assert!(numbers.flat_map(|trace| &trace.values).all(Option::is_some));
}
