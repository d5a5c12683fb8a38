//! The solver against ngspice: the same circuits, solved by `reference/ngspice/run.py`.

use crate::circuits;
use oak_acoustics::enclosure::{Fidelity, Setting};
use oak_acoustics::medium::Air;
use oak_acoustics::response::{FrequencyGrid, Response};
use serde_json::Value;

#[test]
fn every_lumped_circuit_agrees_to_a_hundredth_of_a_db_and_a_thousandth_of_impedance() {
    let plan = circuits::plan();
    let air = circuits::air(&plan);
    let cases = plan["cases"].as_array().expect("cases");
    assert!(cases.len() >= 16);
    for case in cases {
        compare(case, &air);
    }
}

fn compare(case: &Value, air: &Air) {
    let name = case["name"].as_str().expect("name");
    let compiled = circuits::enclosure(case)
        .compile(&Setting {
            source: circuits::source(case),
            ..Setting::new(circuits::driver_array(case), *air).with(Fidelity::TEXTBOOK)
        })
        .expect("compiles");
    // What stands between amplifier and driver hides nothing that the air may leave out.
    let (decibels, share) = if case["parts"].is_array() { (0.001, 1e-4) } else { (0.01, 1e-3) };
    let mut rows = csv::Reader::from_path(format!("{}/{name}.csv", circuits::FOLDER)).expect("results");
    let rows: Vec<[f64; 4]> = rows.deserialize().map(|row| row.expect("four numbers")).collect();
    assert_eq!(rows.len(), 201, "{name}: 100 points a decade from 10 to 1000 Hz");
    let grid = FrequencyGrid::logarithmic(10.0, 1000.0, rows.len()).expect("grid");
    let response = Response::of(&compiled.network, &grid, circuits::number(case, "volts"));
    for (index, ((row, level), impedance)) in
        rows.iter().zip(response.level()).zip(&response.impedance).enumerate()
    {
        let [frequency, their_level, their_impedance, their_phase] = *row;
        assert!((response.frequency[index] / frequency - 1.0).abs() < 1e-6);
        assert!(
            (level - their_level).abs() < decibels,
            "{name} at {frequency} Hz: {level} dB, {their_level} dB"
        );
        let theirs = oak_acoustics::Complex::from_polar(their_impedance, their_phase.to_radians());
        assert!(
            (impedance - theirs).norm() < share * their_impedance,
            "{name} at {frequency} Hz: {impedance} ohm, {theirs} ohm"
        );
    }
}
