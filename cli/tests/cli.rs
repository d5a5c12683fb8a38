//! The program as a user runs it.

use std::fs;
use std::path::PathBuf;
use std::process::{Command, Output};

use serde_json::{Value, json};

const DEMO: &str = concat!(env!("CARGO_MANIFEST_DIR"), "/../demo/builds/narrowboat-nook.json");

fn run(arguments: &[&str]) -> Output {
    Command::new(env!("CARGO_BIN_EXE_oak-drum")).args(arguments).output().expect("runs")
}

fn printed(arguments: &[&str]) -> String {
    let output = run(arguments);
    assert!(output.status.success(), "{}", String::from_utf8_lossy(&output.stderr));
    String::from_utf8(output.stdout).expect("text")
}

fn refused(arguments: &[&str]) -> String {
    let output = run(arguments);
    assert!(!output.status.success(), "was accepted");
    assert!(output.stdout.is_empty(), "nothing half done");
    String::from_utf8(output.stderr).expect("text")
}

/// The first variant of the demo, changed, as a file of its own.
fn design(name: &str, change: impl FnOnce(&mut Value)) -> String {
    let build: Value = serde_json::from_str(&fs::read_to_string(DEMO).expect("demo")).expect("JSON");
    let mut design = build["variants"][0].clone();
    change(&mut design);
    written(name, design.to_string().as_bytes())
}

fn written(name: &str, bytes: &[u8]) -> String {
    let path = PathBuf::from(env!("CARGO_TARGET_TMPDIR")).join(format!("{name}.json"));
    fs::write(&path, bytes).expect("written");
    path.to_str().expect("path").to_owned()
}

#[test]
fn the_table_names_its_columns_with_units_and_keeps_to_the_range() {
    let file = design("table", |_| {});
    let text =
        printed(&["simulate", &file, "--from", "20", "--to", "200", "--points", "31", "--format", "csv"]);
    let mut reader = csv::Reader::from_reader(text.as_bytes());
    let columns: Vec<String> = reader.headers().expect("header").iter().map(str::to_owned).collect();
    assert_eq!(
        columns,
        [
            "frequency_hz",
            "level_db",
            "phase_deg",
            "group_delay_ms",
            "cone_excursion_mm_peak",
            "impedance_ohm",
            "impedance_phase_deg",
            "current_a_rms",
            "port_1_air_speed_m_per_s_peak",
        ]
    );
    let rows: Vec<Vec<f64>> = reader
        .records()
        .map(|row| row.expect("row").iter().map(|cell| cell.parse().expect("number")).collect())
        .collect();
    assert_eq!(rows.len(), 31);
    assert!((rows[0][0] - 20.0).abs() < 1e-9 && (rows[30][0] - 200.0).abs() < 1e-6);
}

#[test]
fn table_and_document_hold_the_same_numbers() {
    let file = design("both", |_| {});
    let span = ["--from", "10", "--to", "500", "--points", "60", "--format"];
    let table = printed(&[&["simulate", &file], &span[..], &["csv"]].concat());
    let document: Value =
        serde_json::from_str(&printed(&[&["simulate", &file], &span[..], &["json"]].concat())).expect("JSON");
    let mut reader = csv::Reader::from_reader(table.as_bytes());
    for (row, level) in reader.records().zip(document["curves"]["level"].as_array().expect("levels")) {
        let in_table: f64 = row.expect("row")[1].parse().expect("number");
        assert!((in_table - level.as_f64().expect("number")).abs() < 1e-3);
    }
    assert!(document["figures"]["fb"].as_f64().expect("Fb") > 20.0);
}

#[test]
fn bad_values_are_named_all_at_once() {
    let file = design("bad", |design| {
        design["driver"]["fs"] = json!("1e9 Hz");
        design["driver"]["sd"] = json!("-346 cm2");
        design["enclosure"]["volume"] = json!("44");
        design["driver"]["qms"] = json!("NaN");
    });
    let told = refused(&["simulate", &file]);
    for part in
        ["driver.fs", "1e9 Hz", "5 Hz to 2000 Hz", "driver.sd", "enclosure.volume", "unit", "driver.qms"]
    {
        assert!(told.contains(part), "{part} in {told}");
    }
}

#[test]
fn missing_values_wrong_units_and_unknown_fields_are_named() {
    let missing = design("missing", |design| {
        design["driver"].as_object_mut().expect("object").remove("re");
        design["enclosure"]["tuning"] = json!("29 mm");
    });
    let told = refused(&["simulate", &missing]);
    assert!(told.contains("driver.re: is missing") && told.contains("enclosure.tuning"), "{told}");
    assert!(told.contains("\"mm\" is a unit of length, not of frequency"), "{told}");

    let unknown = design("unknown", |design| design["enclosure"]["colour"] = json!("green"));
    assert!(refused(&["simulate", &unknown]).contains("colour"));
}

#[test]
fn files_that_are_no_design_are_refused_with_their_name() {
    let cases: [(&str, &[u8]); 4] = [
        ("empty", b""),
        ("cut", b"{\"format\": \"oak-drum/design\", "),
        ("binary", b"\x00\xff\xfe\x00"),
        ("driver", b"{\"format\": \"oak-drum/driver\", \"version\": 1}"),
    ];
    for (name, bytes) in cases {
        let told = refused(&["simulate", &written(name, bytes)]);
        assert!(told.contains(&format!("{name}.json")), "{told}");
    }
    let newer = design("newer", |design| design["version"] = json!(99));
    assert!(refused(&["simulate", &newer]).contains("written by a newer program"));
    let long = written("long", &vec![b' '; 10 << 20]);
    assert!(refused(&["simulate", &long]).contains("at most"));
    assert!(refused(&["simulate", "/nowhere/x.json"]).contains("/nowhere/x.json"));
}

#[test]
fn senseless_ranges_are_refused() {
    let file = design("range", |_| {});
    for arguments in [
        ["--from", "0", "--to", "500"],
        ["--from", "500", "--to", "10"],
        ["--from", "10", "--to", "nan"],
        ["--from", "10", "--points", "1"],
        ["--from", "10", "--points", "999999999"],
    ] {
        let told = refused(&[&["simulate", &file], &arguments[..]].concat());
        assert!(told.contains("--from, --to, --points"), "{told}");
    }
}

#[test]
fn schemas_and_quantities_are_printed_as_json() {
    for kind in ["design", "driver", "build"] {
        let schema: Value = serde_json::from_str(&printed(&["schema", kind])).expect("JSON");
        assert!(schema["$schema"].as_str().expect("text").contains("2020-12"));
    }
    assert!(refused(&["schema", "boat"]).contains("design, driver, build"));
    let table: Value = serde_json::from_str(&printed(&["quantities"])).expect("JSON");
    let fields = table["fields"].as_array().expect("fields");
    let volume = fields.iter().find(|field| field["path"] == "enclosure.volume").expect("volume");
    assert_eq!(volume["unit"], "l");
}
