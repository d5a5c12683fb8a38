//! The tables that everything else is made from, and the words that problems are told in.

use oak_design::field::{FIELDS, Field, driver_fields};
use oak_design::file::{RawDriver, Typed};
use oak_design::quantities::{meanings, quantities};
use oak_design::schema::{SCHEMAS, schema};
use oak_design::{Problem, ProblemKind, Range};
use oak_units::{Dimension, NumberError, QuantityError, parse_quantity, unit_named};

fn field(path: &str) -> &'static Field {
    FIELDS.iter().find(|field| field.path == path).expect(path)
}

fn range(path: &str) -> Range {
    let field = field(path);
    Range { min: field.min, max: field.max, field }
}

#[test]
fn every_field_has_a_place_a_range_a_unit_of_its_kind_and_a_sentence() {
    for (at, field) in FIELDS.iter().enumerate() {
        assert!(FIELDS[..at].iter().all(|other| other.path != field.path), "{} twice", field.path);
        assert!(field.min < field.max && field.max.is_finite(), "{}", field.path);
        assert!(field.meaning.ends_with('.') && field.meaning.len() > 15, "{}", field.path);
        assert_eq!(field.usual_unit().is_none(), field.dimension == Dimension::Number, "{}", field.path);
        assert!(field.path.ends_with(field.name()));
    }
}

#[test]
fn the_ends_of_every_range_are_written_so_that_they_read_back() {
    for field in FIELDS {
        for end in [field.min, field.max] {
            let written = field.write(end);
            let read = parse_quantity(&written, field.dimension).unwrap_or_else(|e| panic!("{written}: {e}"));
            assert!((read.si - end).abs() <= 1e-3 * end.abs().max(1e-12), "{}: {written}", field.path);
        }
    }
}

#[test]
fn a_driver_file_has_a_value_for_every_driver_field_and_no_other() {
    let mut driver = RawDriver::default();
    let named: Vec<_> = driver.values().iter().map(|(name, _)| *name).collect();
    assert_eq!(named, driver_fields().map(Field::name).collect::<Vec<_>>());
    for field in driver_fields() {
        *driver.value_mut(field.name()).expect("a place") = Some(Typed::from(1.0));
    }
    assert!(driver.values().iter().all(|(_, value)| value.is_some()));
    assert!(driver.value_mut("colour").is_none());
}

#[test]
fn the_document_of_quantities_holds_both_tables_whole() {
    let document = quantities();
    let fields = document["fields"].as_array().expect("fields");
    assert_eq!(fields.len(), FIELDS.len());
    for (written, field) in fields.iter().zip(FIELDS) {
        assert_eq!(written["path"], field.path);
        assert_eq!(meanings()["fields"][field.path], field.meaning);
        let unit = written["unit"].as_str().expect("text");
        assert_eq!(
            unit_named(unit).map(|unit| unit.dimension),
            field.usual_unit().map(|unit| unit.dimension)
        );
    }
    for unit in document["units"].as_array().expect("units") {
        assert!(unit["factor"].as_f64().expect("number") > 0.0);
    }
}

#[test]
fn there_is_a_schema_for_each_kind_of_file_and_none_for_another() {
    for (kind, root) in SCHEMAS {
        let schema = schema(kind).expect(kind);
        assert!(schema["$defs"][root]["properties"]["version"].is_object(), "{kind}");
        assert!(!schema.to_string().contains("#/components"), "{kind} points outside of itself");
    }
    assert!(schema("boat").is_none());
}

#[test]
fn whole_numbers_are_written_as_they_were_typed() {
    let written = |typed: &Typed| serde_json::to_string(typed).expect("writes");
    assert_eq!(written(&Typed::from(7.0)), "7");
    assert_eq!(written(&Typed::from(0.38)), "0.38");
    assert_eq!(written(&Typed::from(-0.5)), "-0.5");
    assert_eq!(written(&Typed::from("44 l")), "\"44 l\"");
    let large = written(&Typed::from(1e300));
    assert!((large.parse::<f64>().expect("a number") / 1e300 - 1.0).abs() < 1e-12);
}

/// Each kind of problem with the words it is told in: value, what is wrong, what is allowed.
#[test]
fn every_problem_says_what_is_wrong_and_what_would_do() {
    let volume = range("enclosure.volume");
    let given = || "0 l".to_owned();
    let told = [
        (ProblemKind::Missing { range: volume }, "is missing; 0.1 l to 10000 l is allowed"),
        (ProblemKind::MissingOneOf { names: &["vas", "cms"], needed: 1 }, "one of vas, cms is needed"),
        (
            ProblemKind::MissingOneOf { names: &["qms", "qes", "qts"], needed: 2 },
            "2 of qms, qes, qts are needed",
        ),
        (ProblemKind::OutOfRange { given: given(), range: volume }, "0 l is outside 0.1 l to 10000 l"),
        (
            ProblemKind::Unreadable {
                given: "wide".into(),
                reason: QuantityError::Number(NumberError::NotANumber("wide".into())),
                range: volume,
            },
            "\"wide\" is not a number; 0.1 l to 10000 l is allowed",
        ),
        (
            ProblemKind::NotWhole { given: "1.5".into(), range: range("enclosure.ports.count") },
            "1.5 is not a whole number; 1 to 16 is allowed",
        ),
        (ProblemKind::Length { found: 0, min: 1, max: 120 }, "is 0 characters long; 1 to 120 are allowed"),
        (
            ProblemKind::Excludes { other: "drive.voltage" },
            "cannot be given together with drive.voltage; leave one out",
        ),
        (
            ProblemKind::QtsNotBelow { qts: 0.5, other: 0.4 },
            "Qts 0.5 must be below the Qms or Qes of 0.4 that it is part of",
        ),
        (
            ProblemKind::OtherVersion { found: 9, known: 1 },
            "version 9 was written by a newer program; this one knows up to 1",
        ),
        (ProblemKind::OtherVersion { found: 0, known: 1 }, "version 0 is not known; allowed is 1 to 1"),
        (
            ProblemKind::OtherFormat { found: "x/y".into(), wanted: "oak-drum/design" },
            "\"x/y\" was found and \"oak-drum/design\" is wanted",
        ),
        (
            ProblemKind::NotHere { given: "a wall", allowed: "\"free\"" },
            "\"a wall\" is not possible here; allowed are \"free\"",
        ),
    ];
    for (kind, words) in told {
        assert_eq!(kind.to_string(), words);
        assert_eq!(Problem::new("enclosure.volume", kind).to_string(), format!("enclosure.volume: {words}"));
    }
}

#[test]
fn a_problem_inside_a_larger_document_keeps_its_place() {
    let problem = |place: &str| Problem::new(place, ProblemKind::Excludes { other: "x" });
    assert_eq!(problem("fs").within("driver").within("variants[2]").field, "variants[2].driver.fs");
    assert_eq!(problem("").within("driver").field, "driver");
    assert_eq!(problem("fs").within("").field, "fs");
}
