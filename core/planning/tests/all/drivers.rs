//! Wiring and changes of drivers.

use approx::assert_relative_eq;
use oak_acoustics::driver::cable_resistance;
use oak_design::file::{RawCoils, RawDesign, RawDriver, RawDriverArray, RawSheetCoils, Typed};
use oak_design::resolve::{resolve_design, resolve_driver_array};
use oak_planning::change::steps;
use oak_planning::wiring::{MOST, wiring_options};
use oak_units::gauge_named;
use serde_json::json;

fn driver(coils: Option<RawSheetCoils>) -> RawDriver {
    let document = json!({
        "name": "Perch", "nominal": "4 ohm", "re": "3.6 ohm", "le": "1 mH", "fs": "33 Hz", "qms": 5.2, "qes": 0.4,
        "vas": "16 l", "sd": "131 cm2", "xmax": "10 mm", "pe": "200 W"
    });
    RawDriver { coils, ..serde_json::from_value(document).expect("a driver") }
}

fn design(driver_array: &serde_json::Value) -> RawDesign {
    let document = json!({
        "format": "oak-drum/design", "version": 2, "name": "Box", "driver": driver(Some(RawSheetCoils::DualSeries)),
        "driver_array": driver_array, "enclosure": { "family": "sealed", "volume": "14 l" }
    });
    serde_json::from_value(document).expect("a design")
}

/// Joins resistors one by one: strings of `series`, `parallel` of them side by side.
fn load_of(coil: f64, coils_in_series: bool, series: u32, parallel: u32) -> f64 {
    let driver = if coils_in_series { coil + coil } else { 1.0 / (1.0 / coil + 1.0 / coil) };
    let string: f64 = (0..series).map(|_| driver).sum();
    1.0 / (0..parallel).map(|_| 1.0 / string).sum::<f64>()
}

#[test]
fn every_way_to_wire_one_to_eight_drivers_of_two_coils_is_found_with_its_load() {
    // Both coils in series are 4 ohm, so each is 2 ohm.
    for count in 1..=MOST {
        let mut expected = Vec::new();
        for series in 1..=count {
            for parallel in 1..=count {
                if series * parallel == count {
                    for in_series in [false, true] {
                        expected.push((
                            in_series,
                            series,
                            parallel,
                            load_of(2.0, in_series, series, parallel),
                        ));
                    }
                }
            }
        }
        let found = wiring_options(&driver(Some(RawSheetCoils::DualSeries)), count, 0.0, f64::INFINITY)
            .expect("ways");
        assert_eq!(found.len(), expected.len(), "{count}");
        for (in_series, series, parallel, load) in expected {
            let coils = Some(if in_series { RawCoils::Series } else { RawCoils::Parallel });
            let way =
                found.iter().find(|way| (way.coils, way.series, way.parallel) == (coils, series, parallel));
            assert_relative_eq!(way.expect("found").load, load, max_relative = 1e-12);
        }
        assert!(found.windows(2).all(|pair| pair[0].load <= pair[1].load + 1e-12));
        let within = wiring_options(&driver(Some(RawSheetCoils::DualSeries)), count, 2.0, 4.0).expect("ways");
        assert!(within.iter().all(|way| (1.99..=4.01).contains(&way.load)));
        assert_eq!(within.len(), found.iter().filter(|way| (1.99..=4.01).contains(&way.load)).count());
    }
    assert!(
        wiring_options(&driver(None), 1, 0.0, 100.0).expect("ways").iter().all(|way| way.coils.is_none())
    );
}

/// Common practice: twice the drivers in parallel are 6 dB louder at one voltage, in series as loud as one.
#[test]
fn the_gain_of_a_way_is_that_of_the_drivers_together() {
    let found = wiring_options(&driver(None), 2, 0.0, 100.0).expect("ways");
    let gain = |series: u32| found.iter().find(|way| way.series == series).expect("a way").gain;
    assert_relative_eq!(gain(1), 20.0 * 2f64.log10(), max_relative = 1e-9);
    assert_relative_eq!(gain(2), 0.0, epsilon = 1e-9);
}

/// Common practice (added mass: lower Fs, higher Qts, less level, Vas stays; break-in: lower Fs, more Vas; resistance in the way:
/// higher Qts, less level; one coil against both in series: half of Bl).
#[test]
fn each_change_shows_what_builders_know_it_does() {
    let all = json!({
        "break_in": "15 %", "added_mass": "10 g", "coils": "one", "parallel": 2,
        "isobaric": { "arrangement": "face_to_face" }, "cable_length": "10 m", "cable_area": "AWG 16"
    });
    let found = steps(&design(&all)).expect("steps");
    let ids: Vec<_> = found.iter().map(|step| step.id).collect();
    assert_eq!(ids, ["sheet", "break_in", "added_mass", "coils", "wiring", "isobaric", "cable"]);
    let [sheet, soft, heavy, coils, two, pairs, cable] = &found[..] else { panic!("seven steps") };
    assert!(soft.fs < sheet.fs && soft.vas > sheet.vas);
    assert!(heavy.fs < soft.fs && heavy.qts > soft.qts && heavy.level < soft.level);
    assert_relative_eq!(heavy.vas, soft.vas, max_relative = 1e-9);
    assert_relative_eq!(coils.load, sheet.load / 2.0, max_relative = 1e-9);
    assert!(coils.qts > heavy.qts);
    assert_relative_eq!(two.vas, 2.0 * coils.vas, max_relative = 1e-9);
    assert_relative_eq!(two.fs, coils.fs, max_relative = 1e-9);
    assert_relative_eq!(pairs.vas, two.vas / 2.0, max_relative = 1e-9);
    assert!(cable.qts > pairs.qts && cable.level < pairs.level);
    assert!(found.iter().all(|step| step.f3.is_some()));
    assert_eq!(steps(&design(&json!({}))).expect("steps").len(), 1);
}

/// ASTM B258, diameters and resistances of the solid gauges at 20 degC (values from memory of the table).
#[test]
fn wire_gauges_have_the_resistance_of_the_table() {
    for (gauge, millimetres, milliohm_per_metre) in [
        (10, 2.588, 3.277),
        (12, 2.053, 5.211),
        (14, 1.628, 8.286),
        (16, 1.291, 13.17),
        (18, 1.024, 20.95),
        (24, 0.5106, 84.22),
    ] {
        let area = gauge_named(&format!("AWG {gauge}")).expect("a gauge");
        let diameter = (4.0 * area / std::f64::consts::PI).sqrt();
        assert_relative_eq!(diameter * 1e3, millimetres, max_relative = 1e-3);
        assert_relative_eq!(cable_resistance(0.5, area) * 1e3, milliohm_per_metre, max_relative = 2e-3);
    }
    let driver_array = RawDriverArray {
        cable_length: Some(Typed::from("10 m")),
        cable_area: Some(Typed::from("AWG 16")),
        series_resistance: Some(Typed::from("0.1 ohm")),
        ..RawDriverArray::default()
    };
    let resolved = resolve_driver_array(&driver(None), Some(&driver_array)).expect("a motor");
    assert_relative_eq!(resolved.series_resistance, 0.1 + 20.0 * 13.17e-3, max_relative = 2e-3);
    // Common practice: 2.5 mm2 where nothing is said.
    let usual = resolve_design(&design(&json!({ "cable_length": "10 m" }))).expect("a design").driver_array;
    assert_relative_eq!(usual.series_resistance, 20.0 * 1.7241e-8 / 2.5e-6, max_relative = 1e-9);
}
