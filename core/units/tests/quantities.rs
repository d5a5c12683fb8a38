//! Reading and writing quantities. `vectors.json` is also run against the front end's reader.

use oak_units::{Dimension, QuantityError, UNITS, format_in, parse_quantity, significant, units_of};
use proptest::prelude::*;

fn dimension_called(noun: &str) -> Dimension {
    UNITS
        .iter()
        .map(|unit| unit.dimension)
        .chain([Dimension::Number])
        .find(|d| d.noun() == noun)
        .unwrap_or_else(|| panic!("no dimension is called {noun}"))
}

#[test]
fn the_shared_vectors_read_as_stated() {
    let vectors: Vec<serde_json::Value> =
        serde_json::from_str(include_str!("vectors.json")).expect("vectors are JSON");
    assert!(vectors.len() > 30);
    for vector in vectors {
        let text = vector["text"].as_str().expect("text");
        let read = parse_quantity(text, dimension_called(vector["dimension"].as_str().expect("noun")));
        match vector["si"].as_f64() {
            Some(si) => {
                let got = read.unwrap_or_else(|e| panic!("{text}: {e}")).si;
                assert!((got - si).abs() <= 1e-12 * si.abs(), "{text}: {got} is not {si}");
            }
            None => assert!(read.is_err(), "{text} must be refused, read as {read:?}"),
        }
    }
}

#[test]
fn a_message_names_what_was_written_and_what_would_do() {
    let message = |text, dimension| {
        parse_quantity(text, dimension).map_err(|e| e.to_string()).expect_err("must be refused")
    };
    assert_eq!(
        message("44 kg", Dimension::Volume),
        "\"kg\" is a unit of mass, not of volume; write it with l, cuft, cuin, cm3 or m3"
    );
    assert_eq!(message("30", Dimension::Frequency), "a unit is missing; write it with Hz or kHz");
    assert!(message("1,000 l", Dimension::Volume).contains("may mark thousands or decimals"));
    assert!(message("NaN l", Dimension::Volume).contains("not a number"));
    assert!(matches!(
        parse_quantity("4 furlongs", Dimension::Length),
        Err(QuantityError::UnknownUnit { .. })
    ));
}

#[test]
fn no_spelling_belongs_to_two_units() {
    let mut seen = std::collections::HashMap::new();
    for unit in UNITS {
        for spelling in std::iter::once(&unit.symbol).chain(unit.aliases) {
            let earlier = seen.insert(*spelling, unit.symbol);
            assert_eq!(earlier, None, "{spelling} is both {earlier:?} and {}", unit.symbol);
        }
    }
}

#[test]
fn significant_digits_never_drop_whole_ones() {
    let cases = [(12345.0, 3, "12345"), (0.012_345, 3, "0.0123"), (44.0, 3, "44"), (0.0, 3, "0")];
    for (value, digits, text) in cases {
        assert_eq!(significant(value, digits), text);
    }
}

proptest! {
    /// What is written is read back as the same value, in every unit.
    #[test]
    fn written_and_read_back(unit_index in 0..UNITS.len(), mantissa in 0.001f64..9999.0) {
        let unit = &UNITS[unit_index];
        let si = mantissa * unit.factor;
        let read = parse_quantity(&format_in(si, unit, 12), unit.dimension).expect("own writing");
        prop_assert!((read.si - si).abs() <= 1e-9 * si);
        prop_assert_eq!(read.unit.map(|u| u.factor), Some(unit.factor));
    }

    /// No text makes the reader panic.
    #[test]
    fn any_text_is_answered(text in "\\PC{0,24}") {
        for unit in units_of(Dimension::Length).chain(units_of(Dimension::Volume)) {
            let _ = parse_quantity(&text, unit.dimension);
        }
    }
}
