//! The program as a user runs it.

use std::fs;
use std::os::unix::fs::symlink;
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

/// A table behind its line of comment.
fn table(text: &str) -> csv::Reader<&[u8]> {
    csv::ReaderBuilder::new().comment(Some(b'#')).from_reader(text.as_bytes())
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
    let mut reader = table(&text);
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
            "real_power_w",
            "apparent_power_va",
            "efficiency_percent",
            "port_air_speed_m_per_s_peak",
            "box_pressure_pa_rms",
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
fn a_brief_s_amplifier_and_space_are_taken_and_the_bench_is_the_bench() {
    let file = design("conditions", |_| {});
    let first = |more: &[&str]| {
        let text = printed(&[&["limits", &file, "--points", "2"], more].concat());
        text.lines().next().expect("a line of comment").to_owned()
    };
    assert_eq!(first(&[]), "# 2.83 V, half space");
    assert_eq!(first(&["--build", DEMO]), "# 160 W into 4 Ω (25.3 V), against a wall");
    assert_eq!(first(&["--build", DEMO, "--conditions", "bench"]), "# 2.83 V, half space");
    let told = refused(&["limits", &file, "--build", &file]);
    assert!(told.contains("oak-drum/build"), "{told}");
}

#[test]
fn table_and_document_hold_the_same_numbers() {
    let file = design("both", |_| {});
    let span = ["--from", "10", "--to", "500", "--points", "60", "--format"];
    let table = printed(&[&["simulate", &file], &span[..], &["csv"]].concat());
    let document: Value =
        serde_json::from_str(&printed(&[&["simulate", &file], &span[..], &["json"]].concat())).expect("JSON");
    let mut reader = self::table(&table);
    let level = &document["traces"][0];
    assert_eq!((&level["quantity"], &level["origin"]), (&json!("level"), &json!("simulated")));
    for (row, level) in reader.records().zip(level["values"].as_array().expect("levels")) {
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
        // Without Bl nothing else determines Re.
        for name in ["re", "bl"] {
            design["driver"].as_object_mut().expect("object").remove(name);
        }
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

fn driver_file(name: &str) -> String {
    let build: Value = serde_json::from_str(&fs::read_to_string(DEMO).expect("demo")).expect("JSON");
    written(name, build["variants"][0]["driver"].to_string().as_bytes())
}

#[test]
fn a_starting_point_writes_a_design_that_simulates() {
    let driver = driver_file("start-driver");
    let text =
        printed(&["start", "design", "--driver", &driver, "--family", "ported", "--starting-point", "flat"]);
    let design: Value = serde_json::from_str(&text).expect("JSON");
    assert_eq!(design["enclosure"]["family"], "ported");
    assert!(design["notes"].as_str().expect("a reason").contains("QB3"));
    let file = written("started", text.as_bytes());
    let report: Value =
        serde_json::from_str(&printed(&["simulate", &file, "--format", "json"])).expect("JSON");
    // QB3 for Qts 0.356 and Fs 24 Hz.
    assert!((report["figures"]["fb"].as_f64().expect("a tuning") - 26.9).abs() < 0.2);
    let low = ["start", "design", "--driver", &driver, "--family", "line", "--lowest", "32.7 Hz"];
    assert!(printed(&low).contains("33 Hz"));
}

#[test]
fn a_start_that_cannot_be_says_why_and_what_is_allowed() {
    let driver = driver_file("no-start-driver");
    let start = |family: &str, more: &[&str]| {
        let fixed = ["start", "design", "--driver", &driver, "--family", family];
        refused(&[&fixed, more].concat())
    };
    assert!(start("open_baffle", &[]).contains("A Qts of 0.36 leaves no bass on an open baffle"));
    assert!(start("sphere", &[]).contains("allowed are sealed, ported, passive_radiator"));
    assert!(start("ported", &["--starting-point", "loud"]).contains("allowed are flat, boom_box"));
    assert!(start("ported", &["--volume", "0 l"]).contains("volume: 0 l is outside 0.1 l to 10000 l"));
}

#[test]
fn the_ribbon_names_what_binds_at_each_frequency() {
    let file = design("limits", |design| design["signal"] = json!({ "amplifier": { "power": "2 kW" } }));
    let text = printed(&["limits", &file, "--from", "12", "--to", "300", "--points", "60"]);
    let mut reader = table(&text);
    assert_eq!(
        reader.headers().expect("header").iter().collect::<Vec<_>>(),
        ["frequency_hz", "largest_clean_level_db", "drive_v_rms", "limit"]
    );
    let rows: Vec<(f64, f64, f64, String)> = reader.deserialize().map(|row| row.expect("a row")).collect();
    assert_eq!(rows.len(), 60);
    let limits: std::collections::BTreeSet<_> = rows.iter().map(|row| row.3.as_str()).collect();
    assert_eq!(limits, ["air", "cone", "heat"].into());
    // Driven as hard as the row says, the cone of the first row reaches Xmax, 11.5 mm.
    let (frequency, _, volts, _) = rows.first().expect("a row").clone();
    let driven =
        design("driven", |design| design["signal"] = json!({ "drive": { "voltage": format!("{volts} V") } }));
    let span = [format!("{frequency}"), format!("{}", frequency * 1.01)];
    let table = printed(&["simulate", &driven, "--from", &span[0], "--to", &span[1], "--points", "2"]);
    let mut reader = self::table(&table);
    let first: Vec<f64> = reader.deserialize().next().expect("a row").expect("numbers");
    assert!((first[4] - 11.5).abs() < 0.01, "{}", first[4]);
}

#[test]
fn a_board_is_written_at_full_size_and_one_that_is_not_there_is_named() {
    let design = design("board", |design| design["body"] = serde_json::json!({ "width": "400 mm" }));
    let written = printed(&["panel", &design, "--number", "1"]);
    assert!(written.contains("SECTION") && written.contains("1 front, 400 x "), "{written}");
    assert!(refused(&["panel", &design, "--number", "99"]).contains("no board 99"));
}

#[test]
fn a_sweep_is_written_as_a_sound_file_and_an_impossible_one_is_refused() {
    let file = PathBuf::from(env!("CARGO_TARGET_TMPDIR")).join("sweep.wav");
    let path = file.to_str().expect("path");
    assert_eq!(printed(&["sweep", path, "--seconds", "1"]), "");
    let written = fs::read(&file).expect("written");
    // 44 bytes or a little more of header, one second of 3 bytes a sample.
    assert!(
        written.starts_with(b"RIFF") && (44..100).contains(&(written.len() - 144_000)),
        "{}",
        written.len()
    );
    assert!(refused(&["sweep", path, "--rate", "8000"]).contains("8000 samples a second"));
}

#[test]
fn a_folder_that_is_no_session_says_what_is_missing() {
    let folder = PathBuf::from(env!("CARGO_TARGET_TMPDIR")).join("session");
    fs::create_dir_all(&folder).expect("a folder");
    let path = folder.to_str().expect("path");
    assert!(refused(&["measure", path]).contains("design.json"));
    assert!(refused(&["measure", "no/such/folder"]).contains("no/such/folder"));
}

#[test]
fn steps_and_bursts_are_written_over_time() {
    let file = design("transient", |_| {});
    let step = printed(&["transient", &file]);
    assert!(step.starts_with("time_s,drive_v,pressure_pa\n0,"));
    assert_eq!(step.lines().count(), 2049);
    let burst = printed(&["transient", &file, "--play", "burst", "--frequency", "40", "--cycles", "4"]);
    assert_ne!(step, burst);
    let refusal = refused(&["transient", &file, "--play", "burst", "--frequency", "900"]);
    assert!(refusal.contains("900 Hz is outside 5 to 500 Hz"), "{refusal}");
    let refusal = refused(&["transient", &file, "--play", "burst", "--frequency", "20", "--cycles", "9"]);
    assert!(refusal.contains("9 cycles are outside 1 to 8"), "{refusal}");
}

#[test]
fn a_worker_is_the_servers_program_beside_this_one() {
    let folder = PathBuf::from(env!("CARGO_TARGET_TMPDIR")).join("worker");
    fs::create_dir_all(&folder).expect("a folder");
    let (program, server) = (folder.join("oak-drum"), folder.join("oak-drum-server"));
    // Linked, never written: a program that another test's fork still holds open for writing cannot be run.
    let _ = (fs::remove_file(&program), fs::remove_file(&server));
    fs::hard_link(env!("CARGO_BIN_EXE_oak-drum"), &program).expect("linked");
    let run = || Command::new(&program).args(["worker", "--threads", "3"]).output().expect("runs");
    let output = run();
    assert!(!output.status.success());
    let told = String::from_utf8_lossy(&output.stderr).into_owned();
    assert!(told.contains("oak-drum-server") && told.contains("cargo build"), "{told}");
    symlink("/bin/echo", &server).expect("linked");
    let output = run();
    assert_eq!(String::from_utf8_lossy(&output.stdout), "worker --threads 3\n");
}
