//! Folders of traces.

use std::fmt::Write;

use oak_design::file::{Typed, open_design};
use oak_design::report::compute;
use oak_design::resolve::resolve_design;
use oak_design::response::FrequencyGrid;
use oak_metering::Complex;
use oak_metering::folder::{Folder, work_out};
use oak_metering::trace::Impedance;
use oak_rig::{Driver, normal};
use rand::SeedableRng;
use rand_chacha::ChaCha8Rng;
use serde_json::{Value, json};

use crate::support::{any, measured};

const DESIGN: &str = include_str!("../../../../demo/builds/pit-organ.json");

fn written(trace: &Impedance) -> Vec<u8> {
    let mut text = "Freq [Hz]\tZ [ohm]\tPhase [deg]\n".to_owned();
    for (frequency, value) in trace.frequency.iter().zip(&trace.value) {
        writeln!(text, "{frequency:.4}\t{:.6}\t{:.4}", value.norm(), value.arg().to_degrees())
            .expect("a text");
    }
    text.into_bytes()
}

fn folder() -> (Folder, Driver) {
    let mut random = ChaCha8Rng::seed_from_u64(7);
    let truth = any(&mut random, 0.0);
    let build: Value = serde_json::from_str(DESIGN).expect("demo");
    let session = json!({
        "room_temperature": "24.5 degC",
        "traces": [
            { "file": "free.txt", "kind": "impedance_free", "driver": 1, "jig_resistor_ohm": 22.0 },
            { "file": "mass.txt", "kind": "impedance_mass", "driver": 1, "jig_resistor_ohm": 22.0, "added_mass_g": 20.0 },
        ],
    });
    let files = [
        ("design.json", build["variants"][0].to_string().into_bytes()),
        ("session.json", session.to_string().into_bytes()),
        ("free.txt", written(&measured(&truth, 0.0, 45.0, &mut random))),
        ("mass.txt", written(&measured(&truth, 0.02, 45.0, &mut random))),
    ];
    (files.into_iter().map(|(name, bytes)| (name.to_owned(), bytes)).collect(), truth)
}

fn refused(change: impl FnOnce(&mut Folder)) -> String {
    let (mut folder, _) = folder();
    change(&mut folder);
    let problems = work_out(&folder).expect_err("must be refused");
    problems.iter().map(ToString::to_string).collect::<Vec<_>>().join("\n")
}

fn replace(folder: &mut Folder, name: &str, bytes: &[u8]) {
    folder.insert(name.to_owned(), bytes.to_vec());
}

#[test]
fn a_session_answers_with_values_and_errors() {
    let (folder, truth) = folder();
    let answer = work_out(&folder).expect("it can be worked out");
    let document = serde_json::to_value(&answer).expect("JSON");
    for (name, truth) in [("fs_hz", truth.fs()), ("qes", truth.qes()), ("bl", truth.bl), ("re_ohm", truth.re)]
    {
        let found = &document["driver"][name];
        let (value, error) =
            (found["value"].as_f64().expect("a value"), found["se"].as_f64().expect("an error"));
        assert!(
            (value / truth - 1.0).abs() < 0.03 && error > 0.0 && error < 0.05 * value,
            "{name}: {value} ± {error}, truly {truth}"
        );
    }
    // rho c^2 Sd^2 Cms: gamma times the air's pressure, whatever its temperature.
    let design: Value = serde_json::from_slice(&folder["design.json"]).expect("JSON");
    let sd = design["driver"]["sd"].as_str().and_then(|sd| sd.strip_suffix(" cm2")).expect("an area");
    let sd = sd.parse::<f64>().expect("a number") * 1e-4;
    let truth = 1.4 * 101_325.0 * sd * sd * truth.cms * 1e3;
    let found = &document["driver"]["vas_l"];
    let (value, error) = (found["value"].as_f64().expect("a value"), found["se"].as_f64().expect("an error"));
    assert!((value / truth - 1.0).abs() < 0.03, "{value} l, truly {truth} l");
    // It carries what the cone's area may be off by.
    assert!(error > 0.029 * value && error < 0.06 * value, "{error} of {value}");
}

#[test]
fn what_the_traces_do_not_hold_is_null_with_its_reason() {
    let (mut folder, _) = folder();
    let mut session: Value = serde_json::from_slice(&folder["session.json"]).expect("JSON");
    session["traces"].as_array_mut().expect("traces").truncate(1);
    folder.insert("session.json".to_owned(), session.to_string().into_bytes());
    let answer = work_out(&folder).expect("it can be worked out");
    assert_eq!((answer.driver.vas_l, answer.driver.bl), (None, None));
    assert!(answer.driver.fs_hz.is_some());
    assert!(answer.notes.iter().any(|note| note.starts_with("driver.vas_l")), "{:?}", answer.notes);
    assert_eq!(answer.cannot_tell_apart, [["mms".to_owned(), "bl".to_owned()]]);
}

#[test]
fn damaged_sessions_are_refused_by_file_and_field() {
    assert!(refused(|folder| drop(folder.remove("free.txt"))).contains("free.txt"));
    assert!(refused(|folder| drop(folder.remove("session.json"))).contains("session.json"));
    let broken = refused(|folder| replace(folder, "mass.txt", b"f Z[ohm]\n10 NaN 3\n20 x\n"));
    assert!(broken.contains("mass.txt"), "{broken}");
    let negative = refused(|folder| replace(folder, "free.txt", b"f Hz, Z ohm\n10 8 0\n20 -3 0\n30 8 0\n"));
    assert!(negative.contains("free.txt") && negative.contains("-3 ohm at 20 Hz"), "{negative}");
    let heavy = refused(|folder| {
        let text = String::from_utf8(folder["session.json"].clone()).expect("text").replace("20.0", "20000");
        folder.insert("session.json".to_owned(), text.into_bytes());
    });
    assert!(heavy.contains("added_mass_g") && heavy.contains("0.1 to 1000 g"), "{heavy}");
    let hot = refused(|folder| {
        let text =
            String::from_utf8(folder["session.json"].clone()).expect("text").replace("24.5 degC", "245 degC");
        folder.insert("session.json".to_owned(), text.into_bytes());
    });
    assert!(hot.contains("room_temperature"), "{hot}");
    let unknown = refused(|folder| {
        let text = String::from_utf8(folder["session.json"].clone())
            .expect("text")
            .replace("impedance_free", "guess");
        folder.insert("session.json".to_owned(), text.into_bytes());
    });
    assert!(unknown.contains("guess"), "{unknown}");
}

/// The impedance of a design as the program computes it, with a little noise, as a file.
fn computed(design: &Value, longer: f64) -> Vec<u8> {
    let mut design = open_design(design.to_string().as_bytes()).expect("a design");
    if longer != 0.0 {
        let built = resolve_design(&design).expect("whole").built().expect("builds");
        let length = built.compiled.port_tuning.as_ref().expect("a port").ports[0].length;
        design.enclosure.tuning = None;
        for port in &mut design.enclosure.ports {
            port.length = Some(Typed::from(format!("{} mm", (length + longer) * 1e3).as_str()));
        }
    }
    let design = resolve_design(&design).expect("whole");
    let grid = FrequencyGrid::logarithmic(8.0, 600.0, 400).expect("a grid");
    let response = compute(&design, &grid).expect("it can be computed").response;
    let mut random = ChaCha8Rng::seed_from_u64(3);
    let mut noise = || 1.0 + 0.003 * normal(&mut random);
    let value = response.impedance.iter().map(|value| Complex::new(value.re * noise(), value.im * noise()));
    written(&Impedance {
        value: value.collect(),
        frequency: response.frequency,
        phased: true,
        notes: Vec::new(),
    })
}

#[test]
fn a_box_as_it_was_drawn_has_nothing_to_mend_and_a_longer_port_is_cut_by_as_much() {
    let build: Value = serde_json::from_str(DESIGN).expect("demo");
    let design = &build["variants"][0];
    let session = json!({ "room_temperature": "20 degC", "traces": [{ "file": "box.txt", "kind": "impedance_box", "jig_resistor_ohm": 22.0 }] });
    let answer = |longer: f64| {
        let files = [
            ("design.json", design.to_string().into_bytes()),
            ("session.json", session.to_string().into_bytes()),
            ("box.txt", computed(design, longer)),
        ];
        work_out(&files.into_iter().map(|(name, bytes)| (name.to_owned(), bytes)).collect())
            .expect("a session")
    };
    let as_drawn = answer(0.0);
    let tuning = as_drawn.tuning_hz.expect("a tuning");
    assert!((tuning.value - 24.0).abs() < 0.1, "{tuning:?}");
    assert_eq!((as_drawn.leak, as_drawn.alarms.as_slice()), (Some(false), &[][..]), "{as_drawn:?}");
    let volume = as_drawn.effective_volume_l.expect("a volume");
    assert!((volume.value - 180.0).abs() < 2.0 * volume.se, "{volume:?}");
    // The sheet's Vas and the volume stand or fall together without a mass on the cone.
    assert_eq!(as_drawn.cannot_tell_apart, [["volume".to_owned(), "vas".to_owned()]]);

    let length = as_drawn.port_length_mm.expect("a length");
    assert!((length.value - 545.0).abs() < 2.0 * length.se, "{length:?}");

    let longer = answer(0.024);
    let cut = longer.port_cut_mm.expect("a cut");
    assert!((cut.value - 24.0).abs() < 2.0 * cut.se && cut.se < 3.0, "{cut:?}");
    assert_eq!(longer.alarms, ["tuning"]);
    let remedy = longer.remedies.first().expect("a remedy");
    assert!(
        remedy.what.starts_with("Cut") && (remedy.predicted.tuning_hz.expect("a tuning") - 24.0).abs() < 0.01,
        "{remedy:?}"
    );
}
