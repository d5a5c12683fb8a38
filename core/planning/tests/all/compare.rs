//! Drivers beside each other.

use oak_acoustics::Stop;
use oak_design::file::{RawDriver, RawEnclosure, RawFamily, Typed};
use oak_planning::compare::{Comparison, RawComparison, compare};

use crate::support::demo_drivers;

fn named(names: &[&str]) -> Vec<RawDriver> {
    let all = demo_drivers();
    let find = |name: &&str| all.iter().find(|driver| driver.name == *name).expect("in the demo").clone();
    names.iter().map(find).collect()
}

fn ask(names: &[&str], family: RawFamily) -> RawComparison {
    RawComparison { drivers: named(names), family, enclosure: None }
}

fn compared(ask: &RawComparison) -> Comparison {
    compare(ask, &Stop::default()).unwrap_or_else(|problems| panic!("{problems:?}"))
}

const SOME: [&str; 4] = ["Heron 250/4", "Heron 250/8", "Mole 250/4", "Hound 300/4"];

#[test]
fn in_the_same_box_only_the_driver_differs() {
    for family in [RawFamily::Sealed, RawFamily::Ported, RawFamily::PassiveRadiator, RawFamily::Line] {
        let comparison = compared(&ask(&SOME, family));
        let enclosure = comparison.enclosure.expect("one of them suggests a box");
        for (row, name) in comparison.rows.iter().zip(SOME) {
            let design = row.same.design.as_ref().unwrap_or_else(|| panic!("{name}: {}", row.same.reason));
            assert_eq!((design.name.as_str(), &design.enclosure), (name, &enclosure));
            assert_eq!((&design.signal, &design.space, &design.driver_array), (&None, &None, &None));
        }
    }
}

/// The box of one of them stands in the middle, so that one figures alike in both.
#[test]
fn the_box_that_is_suggested_is_one_drivers_own() {
    let comparison = compared(&ask(&SOME, RawFamily::Ported));
    let alike = comparison
        .rows
        .iter()
        .filter(|row| row.own.design.as_ref().map(|own| &own.enclosure) == comparison.enclosure.as_ref());
    let alike: Vec<_> = alike.collect();
    assert!(!alike.is_empty());
    for row in alike {
        assert_eq!((row.own.f3, row.own.level), (row.same.f3, row.same.level));
    }
    let mut volumes: Vec<f64> = comparison.rows.iter().filter_map(|row| row.own.volume).collect();
    volumes.sort_by(f64::total_cmp);
    let same = comparison.rows[0].same.volume.expect("a volume");
    assert!((same - volumes[1]).abs() < 1e-9, "{same} of {volumes:?}");
}

/// Two coils of one motor at twice the impedance take half the power at one voltage: 3 dB less.
#[test]
fn at_one_voltage_the_driver_of_twice_the_impedance_is_nearly_3_db_quieter() {
    let comparison = compared(&ask(&["Heron 250/4", "Heron 250/8"], RawFamily::Sealed));
    let [four, eight] = [0, 1].map(|at| comparison.rows[at].same.level.expect("a level"));
    assert!((four - eight - 3.0).abs() < 0.5, "{four} dB, {eight} dB");
}

#[test]
fn a_box_of_ones_own_is_used_for_all() {
    let enclosure =
        RawEnclosure { volume: Some(Typed::from("33 l")), ..RawEnclosure::empty(RawFamily::Sealed) };
    let comparison = compared(&RawComparison { enclosure: Some(enclosure), ..ask(&SOME, RawFamily::Sealed) });
    for row in comparison.rows {
        assert!((row.same.volume.expect("a volume") - 0.033).abs() < 1e-12);
    }
}

#[test]
fn a_driver_without_a_box_says_why_and_the_others_are_compared() {
    let weak = serde_json::json!({
        "name": "Weak", "nominal": "8 ohm", "re": "6 ohm", "fs": "40 Hz", "qms": 5, "qes": 1.1, "vas": "150 l", "sd": "500 cm2"
    });
    let mut ask = ask(&["Heron 250/4", "Heron 250/8"], RawFamily::OpenBaffle);
    ask.drivers[1] = serde_json::from_value(weak).expect("a driver");
    let comparison = compared(&ask);
    assert!(comparison.rows[0].own.design.is_none() && !comparison.rows[0].own.reason.is_empty());
    for boxed in [&comparison.rows[1].own, &comparison.rows[1].same] {
        assert!(boxed.f3.is_some(), "{}", boxed.reason);
    }
}

#[test]
fn too_few_too_many_and_broken_drivers_are_named_at_their_place() {
    for names in [vec!["Heron 250/4"], vec!["Heron 250/4"; 7]] {
        let problems = compare(&ask(&names, RawFamily::Sealed), &Stop::default())
            .expect_err("a number that is not compared");
        assert_eq!(problems[0].field, "drivers");
        assert!(problems[0].to_string().contains(&names.len().to_string()), "{}", problems[0]);
    }
    let mut broken = ask(&SOME, RawFamily::Sealed);
    broken.drivers[2].fs = Some(Typed::from("3 MHz"));
    let problems = compare(&broken, &Stop::default()).expect_err("no driver");
    assert!(problems.iter().any(|problem| problem.field == "drivers[2].fs"), "{problems:?}");
}
