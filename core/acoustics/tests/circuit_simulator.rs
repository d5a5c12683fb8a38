//! The solver against ngspice: the same circuits, solved by `reference/ngspice/run.py`.

use oak_acoustics::driver::{Driver, Inductance, Isobaric, Motor};
use oak_acoustics::element::End;
use oak_acoustics::enclosure::{
    Aperiodic, Bandpass4, Bandpass6, Enclosure, Fidelity, FrontPath, Losses, PassiveRadiator, Port, Ported,
    Radiator, Sealed, Setting,
};
use oak_acoustics::medium::{Air, CrossSection};
use oak_acoustics::response::{FrequencyGrid, Response};
use serde_json::Value;

const FOLDER: &str = concat!(env!("CARGO_MANIFEST_DIR"), "/../../reference/ngspice");

fn number(value: &Value, key: &str) -> f64 {
    value[key].as_f64().unwrap_or_else(|| panic!("{key} in {value}"))
}

fn driver(case: &Value) -> Driver {
    let d = &case["driver"];
    let of = |key| number(d, key);
    Driver {
        re: of("re"),
        inductance: Inductance::Plain { le: of("le") },
        bl: of("bl"),
        mms: of("mms"),
        cms: of("cms"),
        rms: of("rms"),
        sd: of("sd"),
        xmax: None,
        pe: None,
        nominal: 4.0,
        brake: None,
    }
}

fn motor(case: &Value) -> Motor {
    let pair = &case["isobaric"];
    let isobaric = pair
        .is_object()
        .then(|| Isobaric { in_series: pair["coils"] == "series", trapped: Some(number(pair, "volume")) });
    let series_resistance = case["series_resistance"].as_f64().unwrap_or(0.0);
    Motor { isobaric, series_resistance, ..Motor::from(driver(case)) }
}

fn losses(chamber: &Value) -> Losses {
    Losses { ql: chamber["ql"].as_f64(), qa: chamber["qa"].as_f64() }
}

fn closed(chamber: &Value) -> Sealed {
    Sealed { volume: number(chamber, "volume"), losses: losses(chamber) }
}

fn vented(chamber: &Value) -> Ported {
    let port = |port: &Value| {
        let end = |key: &str| if port[key] == "free" { End::Free } else { End::Flanged };
        Port {
            section: CrossSection::Round { radius: number(port, "diameter") / 2.0 },
            length: Some(number(port, "length")),
            count: number(port, "count") as u32,
            inner: end("inner"),
            outer: end("outer"),
            path: 0.0,
        }
    };
    let ports = chamber["ports"].as_array().expect("ports").iter().map(port).collect();
    Ported { volume: number(chamber, "volume"), losses: losses(chamber), ports, tuning: None }
}

fn radiator(case: &Value) -> Radiator {
    let of = |key| number(&case["radiator"], key);
    Radiator {
        mass: of("mass"),
        compliance: of("compliance"),
        resistance: of("resistance"),
        area: of("area"),
        count: of("count") as u32,
        xmax: None,
    }
}

fn enclosure(case: &Value) -> Enclosure {
    let (rear, front) = (&case["rear"], &case["front"]);
    let sixth = |path| Enclosure::Bandpass6(Bandpass6 { rear: vented(rear), front: vented(front), path });
    match case["family"].as_str().expect("family") {
        "sealed" => Enclosure::Sealed(closed(rear)),
        "ported" => Enclosure::Ported(vented(rear)),
        "aperiodic" => Enclosure::Aperiodic(Aperiodic {
            chamber: closed(rear),
            resistance: number(case, "vent_resistance"),
        }),
        "passive_radiator" => Enclosure::PassiveRadiator(PassiveRadiator {
            volume: number(rear, "volume"),
            losses: losses(rear),
            radiator: radiator(case),
        }),
        "bandpass4" => Enclosure::Bandpass4(Bandpass4 { rear: closed(rear), front: vented(front) }),
        "bandpass6-parallel" => sixth(FrontPath::Parallel),
        "bandpass6-series" => sixth(FrontPath::Series),
        other => panic!("{other}"),
    }
}

#[test]
fn every_lumped_circuit_agrees_to_a_hundredth_of_a_db_and_a_thousandth_of_impedance() {
    let plan = std::fs::read_to_string(format!("{FOLDER}/cases.json")).expect("cases.json");
    let plan: Value = serde_json::from_str(&plan).expect("JSON");
    let air = Air {
        density: number(&plan["air"], "density"),
        speed: number(&plan["air"], "speed"),
        ..Air::reference()
    };
    let cases = plan["cases"].as_array().expect("cases");
    assert!(cases.len() >= 13);
    for case in cases {
        compare(case, &air);
    }
}

fn compare(case: &Value, air: &Air) {
    let name = case["name"].as_str().expect("name");
    let compiled =
        enclosure(case).compile(&Setting::new(motor(case), *air).with(Fidelity::TEXTBOOK)).expect("compiles");
    let mut rows = csv::Reader::from_path(format!("{FOLDER}/{name}.csv")).expect("results");
    let rows: Vec<[f64; 4]> = rows.deserialize().map(|row| row.expect("four numbers")).collect();
    assert_eq!(rows.len(), 201, "{name}: 100 points a decade from 10 to 1000 Hz");
    let grid = FrequencyGrid::logarithmic(10.0, 1000.0, rows.len()).expect("grid");
    let response = Response::of(&compiled.network, &grid, number(case, "volts"));
    for (index, ((row, level), impedance)) in
        rows.iter().zip(response.level()).zip(&response.impedance).enumerate()
    {
        let [frequency, their_level, their_impedance, their_phase] = *row;
        assert!((response.frequency[index] / frequency - 1.0).abs() < 1e-6);
        assert!((level - their_level).abs() < 0.01, "{name} at {frequency} Hz: {level} dB, {their_level} dB");
        let theirs = oak_acoustics::Complex::from_polar(their_impedance, their_phase.to_radians());
        assert!(
            (impedance - theirs).norm() < 1e-3 * their_impedance,
            "{name} at {frequency} Hz: {impedance} ohm, {theirs} ohm"
        );
    }
}
