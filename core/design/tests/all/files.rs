//! Files in and out: round trips, and what is said of bad ones.

use oak_acoustics::response::{FrequencyGrid, Response};
use oak_design::exchange::{read_driver_table, response_columns, write_response_table};
use oak_design::file::{
    RawDesign, RawDriver, RawFamily, RawPortSection, Typed, open_build, open_design, open_driver,
};
use oak_design::report::{DriverReport, Report, compute};
use oak_design::resolve::{resolve_design, resolve_driver};
use oak_design::trace::TraceOrigin;
use oak_design::{Problem, ProblemKind};
use proptest::prelude::*;
use serde_json::{Value, json};

use crate::support::{DEMO, any_text, any_typed, demo_builds};

/// A good design as a JSON value, to be spoilt.
fn good() -> Value {
    json!({
        "format": "oak-drum/design", "version": 2, "name": "Test",
        "driver": {
            "name": "Heron 250/4", "re": "3.4 ohm", "fs": "24 Hz", "qms": 5.4, "qes": 0.38,
            "vas": "63.3 l", "sd": "346 cm2", "xmax": "11.5 mm"
        },
        "enclosure": {
            "family": "ported", "volume": "44 l", "ql": 7, "tuning": "29 Hz",
            "ports": [{ "shape": "round", "diameter": "9 cm" }]
        },
        "signal": { "drive": { "power": "80 W" } }
    })
}

/// The good design with one value replaced, or removed where the new one is null.
fn spoilt(pointer: &str, value: Value) -> Vec<Problem> {
    let mut document = good();
    let (parent, key) = pointer.rsplit_once('/').expect("a pointer");
    let object = document.pointer_mut(parent).expect("a place").as_object_mut().expect("an object");
    if value.is_null() {
        object.remove(key);
    } else {
        object.insert(key.to_owned(), value);
    }
    problems_of(&document.to_string())
}

fn problems_of(text: &str) -> Vec<Problem> {
    let raw = match open_design(text.as_bytes()) {
        Ok(raw) => raw,
        Err(problem) => return vec![problem],
    };
    match resolve_design(&raw) {
        Ok(resolved) => resolved.built().err().into_iter().collect(),
        Err(problems) => problems,
    }
}

#[test]
fn the_good_design_is_good() {
    assert_eq!(problems_of(&good().to_string()), []);
}

#[test]
fn every_bad_value_is_named_with_what_is_allowed() {
    let cases = [
        ("/enclosure/volume", json!("0 l"), "enclosure.volume", "0 l is outside 0.1 l to 10000 l"),
        ("/enclosure/volume", json!("-3 l"), "enclosure.volume", "-3 l is outside 0.1 l to 10000 l"),
        (
            "/enclosure/volume",
            json!("NaN l"),
            "enclosure.volume",
            "\"NaN l\" is not a number; 0.1 l to 10000 l is allowed",
        ),
        ("/enclosure/volume", json!("44 kg"), "enclosure.volume", "\"kg\" is a unit of mass"),
        ("/enclosure/volume", json!(44), "enclosure.volume", "a unit is missing"),
        ("/enclosure/volume", Value::Null, "enclosure.volume", "is missing; 0.1 l to 10000 l is allowed"),
        ("/enclosure/ql", json!(0), "enclosure.ql", "0 is outside 1 to 1000"),
        ("/enclosure/ports", json!([]), "enclosure.ports", "0 is outside 1 to 8"),
        (
            "/enclosure/ports/0/diameter",
            Value::Null,
            "enclosure.ports[0].diameter",
            "is missing; 5 mm to 1000 mm is allowed",
        ),
        (
            "/enclosure/ports/0/count",
            json!(1.5),
            "enclosure.ports[0].count",
            "1.5 is not a whole number; 1 to 16 is allowed",
        ),
        (
            "/enclosure/ports/0/outer_end",
            json!("one_wall"),
            "enclosure.ports[0].outer_end",
            "\"free\" and \"flanged\"",
        ),
        ("/enclosure/ports/0/length", json!("30 cm"), "enclosure.tuning", "cannot be given together with"),
        (
            "/enclosure/tuning",
            Value::Null,
            "enclosure.ports[0].length",
            "one of enclosure.tuning, enclosure.ports.length is needed",
        ),
        ("/enclosure/tuning", json!("300 Hz"), "enclosure.tuning", "300 Hz is higher than these ports reach"),
        ("/driver/fs", json!("1e9 Hz"), "driver.fs", "1e9 Hz is outside 5 Hz to 2000 Hz"),
        ("/driver/re", json!("3.4 mm"), "driver.re", "\"mm\" is a unit of length, not of resistance"),
        ("/driver/qes", Value::Null, "driver.qes", "2 of qms, qes, qts are needed"),
        ("/driver/vas", Value::Null, "driver.vas", "one of vas, cms, mms, bl is needed"),
        ("/driver/name", json!(" "), "driver.name", "1 to 120 are allowed"),
        ("/driver/sd", json!("1 cm2"), "driver", "which no driver has"),
        (
            "/signal/drive",
            json!({ "power": "1 W", "voltage": "2 V" }),
            "signal.drive.power",
            "cannot be given together with signal.drive.voltage",
        ),
        ("/air", json!({ "humidity": "130 %" }), "air.humidity", "130 % is outside 0 % to 100 %"),
        ("/version", json!(9), "version", "written by a newer program"),
        ("/format", json!("oak-drum/driver"), "format", "\"oak-drum/design\" is wanted"),
        ("/enclosure/vloume", json!("44 l"), "enclosure.vloume", "unknown field `vloume`"),
        ("/enclosure/family", json!("sphere"), "enclosure.family", "unknown variant `sphere`"),
    ];
    for (pointer, value, field, words) in cases {
        let problems = spoilt(pointer, value.clone());
        let found = problems.iter().find(|problem| problem.field == field);
        let found = found.unwrap_or_else(|| panic!("{pointer} = {value}: {problems:?}"));
        assert!(found.to_string().contains(words), "{pointer} = {value}: {found}");
    }
}

#[test]
fn all_problems_come_at_once() {
    let mut document = good();
    document["driver"]["fs"] = json!("0 Hz");
    document["driver"]["re"] = json!("much");
    document["enclosure"]["volume"] = json!("");
    let fields: Vec<_> =
        problems_of(&document.to_string()).into_iter().map(|problem| problem.field).collect();
    assert_eq!(fields, ["driver.re", "driver.fs", "enclosure.volume"]);
}

#[test]
fn malformed_text_is_answered() {
    for text in [
        "",
        "{",
        "[]",
        "null",
        "42",
        "{\"format\": 7}",
        "\u{0}",
        "{\"format\":\"oak-drum/design\",\"version\":1,\"name\":1e999}",
    ] {
        let problems = problems_of(text);
        assert_eq!(problems.len(), 1, "{text}");
        assert!(!problems[0].to_string().is_empty());
    }
    let deep = "[".repeat(100_000);
    assert!(matches!(problems_of(&deep)[0].kind, ProblemKind::Malformed { .. }));
}

#[test]
fn the_demo_is_whole_and_physically_consistent() {
    let builds = demo_builds();
    assert_eq!(builds.len(), 4);
    for build in &builds {
        assert_eq!(build.check(), Ok(()), "{}", build.name);
    }
    let table = std::fs::read(format!("{DEMO}/drivers.csv")).expect("drivers.csv");
    let (drivers, report) = read_driver_table(&table).expect("a table");
    assert_eq!(report.problems, []);
    assert!(drivers.len() >= 24);
    let mut sizes = Vec::new();
    for driver in &drivers {
        let resolved = resolve_driver(driver).expect("complete");
        // Vas, Mms and Bl are all stated and must agree; doubts start at 5 %.
        assert_eq!(resolved.doubts, [], "{}", driver.name);
        sizes.push(driver.size.as_ref().expect("size").to_string());
    }
    assert!(sizes.contains(&"130 mm".to_owned()) && sizes.contains(&"460 mm".to_owned()));
}

#[test]
fn a_value_the_others_contradict_is_named() {
    let mut driver: RawDriver = serde_json::from_value(good()["driver"].clone()).expect("a driver");
    driver.bl = Some(Typed::from("9 Tm"));
    let report = DriverReport::of(&resolve_driver(&driver).expect("still complete"));
    assert_eq!(report.doubts.len(), 1);
    assert_eq!(report.doubts[0].field, "bl");
    assert!(report.doubts[0].message.starts_with("Bl is stated as 9 T m; the other values give 12."));
}

#[test]
fn what_was_typed_survives_the_round_trip() {
    for build in demo_builds() {
        for design in build.variants {
            let text = serde_json::to_string(&design).expect("serialises");
            assert_eq!(open_design(text.as_bytes()).expect("opens"), design);
            let driver = serde_json::to_string(&design.driver).expect("serialises");
            assert_eq!(open_driver(driver.as_bytes()).expect("opens"), design.driver);
        }
    }
}

#[test]
fn the_published_schemas_accept_the_demo_and_refuse_what_the_program_refuses() {
    let schema = |name: &str| {
        let path = format!("{DEMO}/../docs/schema/{name}.schema.json");
        serde_json::from_str(&std::fs::read_to_string(path).expect("schema")).expect("JSON")
    };
    let design = jsonschema::validator_for(&schema("design")).expect("a schema");
    let build = jsonschema::validator_for(&schema("build")).expect("a schema");
    let driver = jsonschema::validator_for(&schema("driver")).expect("a schema");
    for demo in demo_builds() {
        assert!(build.is_valid(&serde_json::to_value(&demo).expect("value")));
        for variant in &demo.variants {
            assert!(design.is_valid(&serde_json::to_value(variant).expect("value")));
            assert!(driver.is_valid(&serde_json::to_value(&variant.driver).expect("value")));
        }
    }
    for (pointer, bad) in
        [("/enclosure/family", json!("sphere")), ("/version", json!(9)), ("/enclosure/ports", json!(3))]
    {
        let mut document = good();
        *document.pointer_mut(pointer).expect("a place") = bad;
        assert!(!design.is_valid(&document), "{pointer}");
        assert!(open_design(document.to_string().as_bytes()).is_err(), "{pointer}");
    }
}

#[test]
fn a_response_table_reads_back_as_the_response() {
    let design: RawDesign = serde_json::from_value(good()).expect("a design");
    let grid = FrequencyGrid::logarithmic(10.0, 500.0, 50).expect("grid");
    let resolved = resolve_design(&design).expect("resolves");
    let computed = compute(&resolved, &grid).expect("computes");
    let response: &Response = &computed.response;
    let text = write_response_table(&computed);
    assert!(text.starts_with(&format!("# {}\n", resolved.conditions())));
    let mut reader = csv::ReaderBuilder::new().comment(Some(b'#')).from_reader(text.as_bytes());
    assert_eq!(reader.headers().expect("header").iter().collect::<Vec<_>>(), response_columns(&computed));
    let rows: Vec<Vec<f64>> = reader.deserialize().map(|row| row.expect("numbers")).collect();
    assert_eq!(rows.len(), 50);
    for (k, (row, level)) in rows.iter().zip(response.level()).enumerate() {
        let same = |a: f64, b: f64| (a - b).abs() <= 1e-6 * b.abs().max(1e-6);
        assert!(same(row[0], response.frequency[k]) && same(row[1], level));
        assert!(same(row[5], response.impedance[k].norm()));
        assert!(same(row[11], response.air_speed(0).nth(k).expect("a speed")));
    }
}

#[test]
fn the_report_tells_the_tuning_it_was_asked_for() {
    let design: RawDesign = serde_json::from_value(good()).expect("a design");
    let grid = FrequencyGrid::logarithmic(10.0, 500.0, 20).expect("grid");
    let report = Report::of(&resolve_design(&design).expect("resolves"), &grid).expect("computes");
    approx::assert_relative_eq!(report.figures.fb.expect("ported"), 29.0, max_relative = 1e-6);
    // 80 W into the usual nominal impedance of a 3.4 ohm coil, 4 ohm.
    approx::assert_relative_eq!(report.volts, 320f64.sqrt(), max_relative = 1e-12);
    assert_eq!((report.figures.qtc, report.figures.ports.len()), (None, 1));
}

proptest! {
    /// Whatever was typed, sense or nonsense, a design file gives back, to the byte.
    #[test]
    fn a_design_survives_the_round_trip(
        values in proptest::collection::vec(proptest::option::of(any_typed()), 22),
        name in any_text(), notes in any_text(), ported in any::<bool>(), slot in any::<bool>(),
    ) {
        let mut values = values.into_iter();
        let mut next = || values.next().flatten();
        let mut design: RawDesign = serde_json::from_value(good()).expect("a design");
        for field in ["re", "le", "fs", "qms", "qes", "qts", "vas", "cms", "mms", "bl", "sd", "xmax", "pe"] {
            *design.driver.value_mut(field).expect("a field") = next();
        }
        design.name = name;
        design.notes = notes;
        design.enclosure.family = if ported { RawFamily::Ported } else { RawFamily::Sealed };
        (design.enclosure.volume, design.enclosure.ql, design.enclosure.tuning) = (next(), next(), next());
        let port = &mut design.enclosure.ports[0];
        port.shape = if slot { RawPortSection::Slot } else { RawPortSection::Round };
        (port.diameter, port.width, port.height) = (next(), next(), next());
        (port.length, port.count) = (next(), next());
        let text = serde_json::to_string(&design).expect("serialises");
        let back = open_design(text.as_bytes()).expect("opens");
        prop_assert_eq!(&back, &design);
        prop_assert_eq!(serde_json::to_string(&back).expect("serialises"), text);
    }
}

proptest! {
    /// Whatever is typed into a field, the answer is a result or a problem, and results are numbers.
    #[test]
    fn no_value_in_range_makes_a_result_that_is_not_a_number(
        fs in 5.0f64..2000.0, qes in 0.05f64..20.0, qms in 0.1f64..100.0, vas in -5.0f64..0.69, sd in -4.0f64..-0.31,
        re in 0.1f64..100.0, volume in -4.0f64..1.0, tuning in 5.0f64..500.0, diameter in 5.0f64..1000.0,
    ) {
        let mut document = good();
        document["driver"] = json!({
            "name": "x", "fs": format!("{fs} Hz"), "qes": qes, "qms": qms, "re": format!("{re} ohm"),
            "vas": format!("{} m3", 10f64.powf(vas)), "sd": format!("{} m2", 10f64.powf(sd)),
        });
        document["enclosure"]["volume"] = json!(format!("{} m3", 10f64.powf(volume)));
        document["enclosure"]["tuning"] = json!(format!("{tuning} Hz"));
        document["enclosure"]["ports"][0]["diameter"] = json!(format!("{diameter} mm"));
        let raw = open_design(document.to_string().as_bytes()).expect("well formed");
        if let Ok(resolved) = resolve_design(&raw) {
            let grid = FrequencyGrid::logarithmic(5.0, 2000.0, 20).expect("grid");
            if let Ok(report) = Report::of(&resolved, &grid) {
                let simulated = report.traces.iter().filter(|trace| trace.origin == TraceOrigin::Simulated);
                for trace in simulated {
                    prop_assert!(trace.values.iter().all(Option::is_some), "{trace:?}");
                }
                prop_assert!(report.figures.solved.reference_level.is_finite());
            }
        }
    }
}

/// The good design with another cabinet around the driver.
fn in_cabinet(enclosure: Value, more: &Value) -> Vec<Problem> {
    let mut document = good();
    document["enclosure"] = enclosure;
    for (name, value) in more.as_object().into_iter().flatten() {
        document[name] = value.clone();
    }
    problems_of(&document.to_string())
}

#[test]
fn what_is_wrong_with_any_family_is_named_at_its_place() {
    let way = |segment: Value, more: Value| {
        let mut passage = json!({ "segments": [segment] });
        for (name, value) in more.as_object().into_iter().flatten() {
            passage[name] = value.clone();
        }
        passage
    };
    let metre = json!({ "length": "1 m", "start": "200 cm2" });
    let tapped = |driver_at: &str, front_at: &str| {
        let passage = way(metre.clone(), json!({ "driver_at": driver_at, "front_at": front_at }));
        json!({ "family": "tapped_horn", "passage": passage })
    };
    let tractrix = json!({ "flare": "tractrix", "length": "5 cm", "start": "50 cm2", "end": "5000 cm2" });
    let port = json!([{ "shape": "round", "diameter": "9 cm", "length": "20 cm" }]);
    let cases = [
        (json!({ "family": "line" }), "enclosure.passage.segments", "1 to 8 stretches are needed"),
        (
            json!({ "family": "line", "passage": way(json!({ "length": "1 m" }), json!({})) }),
            "enclosure.passage.segments[0].start",
            "is missing",
        ),
        (
            json!({ "family": "line", "passage": way(metre.clone(), json!({ "driver_at": "1.2 m" })) }),
            "enclosure.passage.driver_at",
            "must lie before the end of the path, which is 1 m long",
        ),
        (
            tapped("0.8 m", "0.5 m"),
            "enclosure.passage.front_at",
            "beyond the other side of the drivers at 0.8 m",
        ),
        (tapped("0.2 m", "3 m"), "enclosure.passage.front_at", "must lie before the end of the path"),
        (
            json!({ "family": "front_horn", "volume": "40 l", "passage": way(tractrix, json!({})) }),
            "enclosure.passage.segments[0].flare",
            "a tractrix between these areas is at least",
        ),
        (json!({ "family": "passive_radiator", "volume": "30 l" }), "enclosure.radiator.area", "is missing"),
        (json!({ "family": "aperiodic", "volume": "30 l" }), "enclosure.vent_resistance", "is missing"),
        (
            json!({ "family": "open_baffle" }),
            "enclosure.baffle_path",
            "is missing; 0.02 m to 20 m is allowed",
        ),
        (
            json!({ "family": "bandpass4", "volume": "20 l", "front": { "volume": "15 l", "tuning": "400 Hz",
                "ports": [{ "shape": "round", "diameter": "3 cm" }] } }),
            "enclosure.front.tuning",
            "400 Hz is higher than these ports reach",
        ),
        (
            json!({ "family": "bandpass6_series", "volume": "20 l", "ports": port, "front": { "volume": "15 l" } }),
            "enclosure.front.ports",
            "0 is outside 1 to 8",
        ),
    ];
    for (enclosure, field, words) in cases {
        let problems = in_cabinet(enclosure.clone(), &json!({}));
        let found = problems.iter().find(|problem| problem.field == field);
        let found = found.unwrap_or_else(|| panic!("{enclosure}: {problems:?}"));
        assert!(found.to_string().contains(words), "{enclosure}: {found}");
    }
}

#[test]
fn what_is_wrong_with_a_driver_array_or_a_limit_is_named_at_its_place() {
    let cases = [
        (
            json!({ "driver_array": { "coils": "parallel" } }),
            "driver_array.coils",
            "this driver has one coil",
        ),
        (
            json!({ "driver_array": { "series": 1.5 } }),
            "driver_array.series",
            "is not a whole number; 1 to 16 is allowed",
        ),
        (
            json!({ "driver_array": { "break_in": "130 %" } }),
            "driver_array.break_in",
            "130 % is outside 0 % to 100 %",
        ),
        (
            json!({ "signal": { "amplifier": { "power": "100 W", "voltage": "20 V" } } }),
            "signal.amplifier.power",
            "cannot be given together with signal.amplifier.voltage",
        ),
        (
            json!({ "signal": { "amplifier": { "current": "17 Hz" } } }),
            "signal.amplifier.current",
            "\"Hz\" is a unit of frequency",
        ),
    ];
    for (more, field, words) in cases {
        let problems = in_cabinet(good()["enclosure"].clone(), &more);
        let found = problems.iter().find(|problem| problem.field == field);
        let found = found.unwrap_or_else(|| panic!("{more}: {problems:?}"));
        assert!(found.to_string().contains(words), "{more}: {found}");
    }
    let half = spoilt("/driver/l2", json!("1 mH"));
    assert_eq!(half.iter().map(|problem| problem.field.as_str()).collect::<Vec<_>>(), ["driver.r2"]);
}

/// Version 1 had amplifier, programme and quiet air together in `limits`; a build file holds such designs inside.
#[test]
fn a_file_of_version_one_opens_with_its_amplifier_in_the_signal_and_the_rest_noted() {
    let old = std::fs::read(concat!(env!("CARGO_MANIFEST_DIR"), "/../../demo/old/build-version-1.json"));
    let build = open_build(&old.expect("the old file")).expect("opens");
    let design = &build.variants[0];
    assert_eq!((build.version, design.version), (2, 2));
    let signal = serde_json::to_value(&design.signal).expect("a value");
    let wanted =
        json!({ "amplifier": { "power": "150 W", "current": "12 A" }, "drive": { "voltage": "12 V" } });
    assert_eq!(signal, wanted);
    assert!(design.notes.ends_with("programme: music; limit of air speed: 20 m/s."), "{}", design.notes);
    resolve_design(design).expect("resolves");
    let again = serde_json::to_string(&build).expect("text");
    assert_eq!(open_build(again.as_bytes()).expect("opens again"), build);
}

/// Names that changed since a file was written are read, and written as they are called now.
#[test]
fn a_file_with_the_first_names_opens_as_one_with_todays() {
    let old = std::fs::read_to_string(concat!(
        env!("CARGO_MANIFEST_DIR"),
        "/../../demo/old/design-first-names.json"
    ))
    .expect("the old file");
    let opened = open_design(old.as_bytes()).expect("opens");
    let written = serde_json::to_string(&opened).expect("text");
    for (first, today) in [
        ("\"motor\"", "\"driver_array\""),
        ("\"brake_resistance\"", "\"idle_coil_resistance\""),
        ("\"one_braked\"", "\"one_loaded\""),
        ("\"boards\"", "\"panels\""),
    ] {
        assert!(
            old.contains(first) && !written.contains(first) && written.contains(today),
            "{first}: {written}"
        );
    }
    assert_eq!(open_design(written.as_bytes()).expect("opens again"), opened);
    resolve_design(&opened).expect("resolves");
}
