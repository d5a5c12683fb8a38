//! Hidden cabinets of both rigs: what a fit must reach. Eighteen of each; 200 by `cargo bench --workspace --profile dev --bench rigs`.

use std::sync::LazyLock;

use oak_rig::{Kind, Setup, draw};

use crate::scoreboard::{Line, Score, Tried, score, tried};

const COUNT: u64 = 18;
const ALONE: [&str; 1] = ["impedance_box"];

static IDEAL: LazyLock<Vec<Tried>> = LazyLock::new(|| tried(Kind::Ideal, 40.0, 0..COUNT, &[]));
static ROUGH: LazyLock<Vec<Tried>> = LazyLock::new(|| tried(Kind::Rough, 40.0, 0..COUNT, &[]));
static ROUGH_ALONE: LazyLock<Vec<Tried>> = LazyLock::new(|| tried(Kind::Rough, 40.0, 0..COUNT, &ALONE));

fn line(score: &Score, name: &str) -> Line {
    score.lines.iter().find(|line| line.name == name).cloned().unwrap_or_else(|| panic!("{name}"))
}

fn reached(score: &Score, wanted: &[(&str, f64)]) {
    for (name, most) in wanted {
        let line = line(score, name);
        assert!(
            !line.off.is_empty() && line.silent == 0,
            "{name}: of {} cabinets, {} silent",
            line.off.len(),
            line.silent
        );
        assert!(line.most() < *most, "{name}: {} and {most} allowed\n{score}", line.most());
    }
}

#[test]
fn cabinets_that_are_what_the_circuit_says_are_found_out() {
    let score = score(&IDEAL);
    let wanted = [
        ("tuning, Hz", 0.1),
        ("QL", 0.12),
        ("QL, leaking", 0.1),
        ("cut, mm", 2.0),
        ("cut, leaking, mm", 3.0),
    ];
    reached(&score, &wanted);
    reached(&score, &[("Fs", 0.01), ("Qes", 0.015), ("Vas", 0.02)]);
    assert!(score.alarmed < 0.02, "{score}");
}

#[test]
fn cabinets_that_are_what_no_circuit_holds_are_found_out_too() {
    let score = score(&ROUGH);
    let wanted = [
        ("tuning, Hz", 0.2),
        ("QL", 0.12),
        ("QL, leaking", 0.12),
        ("cut, mm", 3.0),
        ("cut, leaking, mm", 10.0),
    ];
    reached(&score, &wanted);
    reached(&score, &[("Fs", 0.005), ("Qes", 0.02), ("Vas", 0.06)]);
    assert!(score.alarmed < 0.05, "{score}");
}

#[test]
fn the_impedance_of_the_box_alone_tells_tuning_leaks_and_the_remedy() {
    let score = score(&ROUGH_ALONE);
    let wanted = [
        ("tuning, Hz", 0.3),
        ("QL", 0.15),
        ("QL, leaking", 0.15),
        ("cut, mm", 3.0),
        ("cut, leaking, mm", 15.0),
    ];
    reached(&score, &wanted);
    // What was not measured is not told.
    assert!(line(&score, "Fs").off.is_empty() && line(&score, "Vas").off.is_empty());
    assert!(ROUGH_ALONE.iter().all(|one| one.answer.lowpass.is_none()));
}

#[test]
fn leaks_swapped_leads_and_hidden_filters_are_told_and_none_where_there_is_none() {
    for score in [score(&IDEAL), score(&ROUGH)] {
        for (name, told) in &score.told[..3] {
            let none = told.found + told.missed == 0;
            assert!((none || told.found() > 0.94) && told.falsely() < 0.02, "{name}\n{score}");
        }
        let (_, wave) = score.told[3];
        assert!(wave.found() > 0.8 && wave.falsely() < 0.02, "box mode\n{score}");
    }
}

#[test]
fn a_driver_wired_backwards_is_found_and_nothing_is_said_of_the_box_then() {
    let two = |seed: &u64| draw(&Setup { seed: *seed, kind: Kind::Rough, noise: 40.0 }).sheet.count > 1;
    let swapped =
        |seed: &u64| draw(&Setup { seed: *seed, kind: Kind::Rough, noise: 40.0 }).cabinet.reversed > 0;
    let (wrong, right): (Vec<u64>, Vec<u64>) = (0..100).filter(two).partition(swapped);
    for seed in wrong.iter().take(4) {
        for kinds in [&[][..], &ALONE] {
            let Tried { answer, .. } = &tried(Kind::Rough, 40.0, *seed..*seed + 1, kinds)[0];
            assert_eq!(
                (answer.reversed, answer.tuning_hz, answer.ql, answer.port_cut_mm),
                (Some(true), None, None, None),
                "{seed}"
            );
            assert!(
                answer.alarms.contains(&"reversed".to_owned()) && answer.remedies.len() == 1,
                "{answer:?}"
            );
        }
    }
    for seed in right.iter().take(4) {
        let Tried { answer, .. } = &tried(Kind::Rough, 40.0, *seed..*seed + 1, &ALONE)[0];
        assert_eq!(answer.reversed, Some(false), "{seed}");
    }
    assert!(wrong.len() >= 4 && right.len() >= 4);
}

#[test]
fn more_traces_never_make_an_answer_worse() {
    let [alone, all] = [score(&ROUGH_ALONE), score(&ROUGH)];
    for name in ["tuning, Hz", "cut, mm", "volume"] {
        let [alone, all] = [&alone, &all].map(|score| line(score, name).median());
        assert!(all < 1.1 * alone + f64::EPSILON, "{name}: {all} with all traces, {alone} with one");
    }
}

#[test]
fn errors_are_as_large_as_they_are_said_to_be() {
    for (kind, tried, [one, two]) in [("ideal", &*IDEAL, [0.6, 0.9]), ("rough", &*ROUGH, [0.5, 0.85])] {
        let score = score(tried);
        let told = ["tuning, Hz", "QL", "cut, mm", "Fs", "Qes", "Qms", "volume", "Vas"]
            .map(|name| line(&score, name));
        let count = told.iter().map(|line| line.off.len()).sum::<usize>() as f64;
        let within = |times: f64| {
            told.iter().map(|line| line.within(times) * line.off.len() as f64).sum::<f64>() / count
        };
        assert!(within(1.0) > one && within(2.0) > two, "{kind}: {} {}\n{score}", within(1.0), within(2.0));
    }
}
