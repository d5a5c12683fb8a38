//! What changes with level and angle.

use oak_design::conditions::{RawConditions, RawQuestion};
use oak_design::file::{RawMeasurement, RawTraceKind, Typed, open_design};
use oak_metering::reading::{Take, read_recording};
use oak_metering::report::{MeasuringReport, RawMeasuredQuestion, measure_report};
use oak_metering::sweep::{Depth, Sweep, read_wav, write_wav};
use serde_json::Value;

use crate::support::trace;

const RATE: u32 = 48_000;

fn sweep() -> Sweep {
    Sweep::new(RATE, 4.0, 10.0, 1000.0).expect("a sweep")
}

/// A sweep at a level (dB of full scale) through `x + a x^2 + b x^3`, whose harmonics are known: `a A/2` and `b A^2/4` of the fundamental `1 + 3 b A^2/4`.
fn heard(level: f64, [a, b]: [f64; 2]) -> RawMeasurement {
    let gain = 10f64.powf(level / 20.0);
    let bent = sweep().samples().into_iter().map(|x| {
        let x = gain * x;
        x + a * x * x + b * x * x * x
    });
    let mut samples = vec![0.0; 20_000];
    samples.extend(bent);
    samples.extend(vec![0.0; 220_000]);
    let recording = read_wav("a", &write_wav(RATE, &samples, Depth::Float)).expect("a file");
    let take = Take { sweep: sweep(), resistor: None, gate: None };
    let read = read_recording(RawTraceKind::NearfieldCone, "a", &recording, &take).expect("a trace");
    RawMeasurement {
        harmonics: read.harmonics,
        sweep_level: Some(level),
        ..trace(RawTraceKind::NearfieldCone, read.points)
    }
}

fn report(measurements: Vec<RawMeasurement>) -> MeasuringReport {
    let build: Value =
        serde_json::from_str(include_str!("../../../../demo/builds/pit-organ.json")).expect("demo");
    let design = open_design(build["variants"][0].to_string().as_bytes()).expect("a design");
    let question = RawQuestion { conditions: RawConditions::bench(), ..RawQuestion::of(design) };
    measure_report(&RawMeasuredQuestion { question, measurements, on: "2026-05-01".to_owned() })
        .expect("a report")
}

#[test]
fn harmonics_of_a_bent_line_are_those_of_its_polynomial() {
    let [a, b] = [0.02, -0.04];
    let level = -6.0;
    let size = 10f64.powf(level / 20.0);
    let fundamental = 1.0 + 0.75 * b * size * size;
    let wanted = [a * size / 2.0 / fundamental, (b * size * size / 4.0 / fundamental).abs()];
    let found = heard(level, [a, b]);
    let inside = found.harmonics.iter().filter(|point| (30.0..200.0).contains(&point[0]));
    let mut count = 0;
    for [frequency, second, third] in inside {
        count += 1;
        for (told, wanted) in [(second, wanted[0]), (third, wanted[1])] {
            let off = told - 20.0 * wanted.log10();
            assert!(off.abs() < 0.6, "{frequency:.0} Hz: off by {off:.2} dB");
        }
    }
    assert!(count > 10);
}

#[test]
fn the_level_is_told_from_which_it_is_no_longer_clean() {
    // 3 % of the third harmonic at -6 dB, more at 0 dB, where it also compresses by more than a decibel.
    let bent = [0.0, -0.3];
    let [soft, mid, loud] = [-26.0, -10.0, 0.0].map(|level| heard(level, bent));
    let report = report(vec![loud, soft, mid]);
    let [one] = report.linearity.as_slice() else { panic!("one opening") };
    let levels: Vec<f64> = one.steps.iter().map(|step| step.level).collect();
    assert_eq!(levels, [-26.0, -10.0, 0.0]);
    assert_eq!((one.music, one.maximum), (Some(-10.0), Some(0.0)));
    let [_, lost] = one.steps[2].compression.expect("louder than the softest");
    // 1 - 0.75 * 0.3 of the fundamental is left.
    let wanted = -20.0 * (1.0f64 - 0.225).log10();
    assert!((lost - wanted).abs() < 0.2, "{lost:.2} dB instead of {wanted:.2}");
    assert_eq!(one.steps[0].compression, None);
}

#[test]
fn a_woofer_is_said_to_beam_from_where_the_side_stays_down() {
    let at = |degrees: f64| {
        let points = (0..200).map(|k| {
            let frequency = 20.0 * 50f64.powf(f64::from(k) / 199.0);
            // 3 dB down at 500 Hz at 45 degrees.
            let lost = 3.0 * (frequency / 500.0).powi(2) * (degrees / 45.0f64).powi(2);
            [frequency, 80.0 - lost, 0.0]
        });
        let angle = Some(Typed::Text(format!("{degrees} deg")));
        RawMeasurement { angle, ..trace(RawTraceKind::Seat, points.collect()) }
    };
    let report = report(vec![at(45.0), at(0.0), at(15.0)]);
    let angles: Vec<_> = report.angles.iter().map(|one| one.angle.round()).collect();
    assert_eq!(angles, [15.0, 45.0]);
    assert_eq!(report.angles[0].beams, None);
    let beams = report.angles[1].beams.expect("it beams");
    assert!((beams / 500.0 - 1.0).abs() < 0.04, "{beams} Hz");
}
