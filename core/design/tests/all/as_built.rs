//! Designs as they are built, against the same worked out from the export alone by a model of its own: `reference/as-built/run.py`.

use std::collections::BTreeMap;

use oak_design::conditions::{RawConditions, RawQuestion};
use oak_design::file::{RawDesign, RawFamily};
use oak_design::report::{Report, compute};
use oak_design::response::FrequencyGrid;
use oak_design::trace::{Quantity, TraceOrigin};

const REFERENCE: &str = concat!(env!("CARGO_MANIFEST_DIR"), "/../../reference/as-built");

/// Rows of a table by the number of their design, from 1.
fn table(name: &str) -> BTreeMap<usize, Vec<Vec<f64>>> {
    let text = std::fs::read_to_string(format!("{REFERENCE}/{name}")).expect("kept beside its script");
    let mut found: BTreeMap<usize, Vec<Vec<f64>>> = BTreeMap::new();
    for line in text.lines().skip(1) {
        let mut cells = line.split(',');
        let design = cells.next().and_then(|cell| cell.parse().ok()).expect("a number");
        let row = cells.filter(|cell| !cell.is_empty()).map(|cell| cell.parse().expect("a number")).collect();
        found.entry(design).or_default().push(row);
    }
    found
}

fn designs() -> Vec<RawDesign> {
    let text = std::fs::read_to_string(format!("{REFERENCE}/designs.json")).expect("kept beside its script");
    serde_json::from_str(&text).expect("designs")
}

#[test]
fn a_hundred_boxes_as_drawn_sound_as_a_model_from_outside_has_them() {
    let (curves, tunings) = (table("curves.csv"), table("tunings.csv"));
    let (mut level, mut impedance, mut tuning) = (0.0_f64, 0.0_f64, 0.0_f64);
    let all = designs();
    assert_eq!(all.len(), 100);
    for (index, raw) in all.into_iter().enumerate() {
        let name = raw.name.clone();
        let rows = &curves[&(index + 1)];
        let grid =
            FrequencyGrid::logarithmic(rows[0][0], rows[rows.len() - 1][0], rows.len()).expect("a grid");
        let family = raw.enclosure.family;
        let question = RawQuestion { conditions: RawConditions::bench(), ..RawQuestion::of(raw) };
        let design = question.resolve().expect("whole").design;
        let computed = compute(&design, &grid).expect("computes");
        assert!(computed.built.forbids().is_empty(), "{name}: {:?}", computed.built.forbids());
        let report = Report::of(&design, &grid).expect("computes");
        let line = |quantity| &report.lines(quantity, TraceOrigin::Simulated).next().expect("drawn").values;
        let (levels, loads) = (line(Quantity::Level), line(Quantity::Impedance));
        for (k, row) in rows.iter().enumerate() {
            let [heard, load] = [levels[k], loads[k]].map(|value| f64::from(value.expect("a number")));
            level = level.max((heard - row[1]).abs());
            impedance = impedance.max((load / row[2] - 1.0).abs());
            assert!(level < 0.01 && impedance < 1e-3, "{name} at {:.1} Hz: {level} dB, {impedance}", row[0]);
        }
        let found = tunings[&(index + 1)][0].clone();
        let figures = &report.figures;
        let own: Vec<f64> = match family {
            RawFamily::Ported | RawFamily::Bandpass4 => vec![figures.fb.expect("tuned")],
            RawFamily::Bandpass6Parallel | RawFamily::Bandpass6Series => {
                vec![figures.fb_rear.expect("tuned"), figures.fb.expect("tuned")]
            }
            _ => Vec::new(),
        };
        assert_eq!(own.len(), found.len(), "{name}");
        for (own, found) in own.iter().zip(&found) {
            tuning = tuning.max((own - found).abs());
            assert!(tuning < 0.01, "{name}: tuned to {own} Hz, {found} Hz from outside");
        }
    }
    println!("level {level:.4} dB, impedance {impedance:.6}, tuning {tuning:.5} Hz");
}
