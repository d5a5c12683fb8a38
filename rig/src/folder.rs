//! A session folder of a hidden cabinet, and what is true of it.

use std::collections::BTreeMap;
use std::fmt::Write;

use rand::SeedableRng;
use rand_chacha::ChaCha8Rng;
use serde_json::{Value, json};

use crate::draw::DESIGNED;
use crate::{Air, Cabinet, Complex, Hidden, Port};

/// Files by their names.
pub type Folder = BTreeMap<String, Vec<u8>>;

/// Grams put on a cone, over what moves.
const ADDED: f64 = 0.25;
/// Points of a trace.
const POINTS: u32 = 400;

fn frequencies() -> impl Iterator<Item = f64> {
    (0..POINTS).map(|k| 8.0 * 100f64.powf(f64::from(k) / f64::from(POINTS - 1)))
}

/// The design as believed, as a design file.
pub fn design(hidden: &Hidden) -> Value {
    let (sheet, driver) = (&hidden.sheet, &hidden.sheet.driver);
    let air = Air::at(DESIGNED);
    let inductance = driver.coil.impedance(1000.0).norm() / (std::f64::consts::TAU * 1000.0);
    let mut enclosure = json!({
        "family": if sheet.port.is_some() { "ported" } else { "sealed" },
        "volume": format!("{:.3} l", sheet.volume * 1e3),
        "ql": 7, "qa": 100,
    });
    if let Some((tuning, port)) = &sheet.port {
        enclosure["tuning"] = json!(format!("{tuning:.3} Hz"));
        enclosure["ports"] = json!([{
            "shape": "round", "diameter": format!("{:.1} mm", port.radius * 2e3), "count": port.count as u32,
            "inner_end": "free", "outer_end": "flanged",
        }]);
    }
    json!({
        "format": "oak-drum/design", "version": 2, "name": "Hidden",
        "driver": {
            "format": "oak-drum/driver", "version": 2, "name": "Sheet", "maker": "Rig",
            "re": format!("{:.4} ohm", driver.re), "le": format!("{:.4} mH", inductance * 1e3), "fs": format!("{:.3} Hz", driver.fs()),
            "qms": driver.qms(), "qes": driver.qes(), "vas": format!("{:.3} l", driver.vas(&air) * 1e3),
            "sd": format!("{:.2} cm2", driver.sd * 1e4), "xmax": "8 mm", "pe": "300 W",
        },
        "driver_array": if sheet.series { json!({ "series": sheet.count }) } else { json!({ "parallel": sheet.count }) },
        "enclosure": enclosure,
    })
}

/// The folder with the traces of some kinds (all where none are named).
pub fn folder(hidden: &Hidden, seed: u64, kinds: &[&str]) -> Folder {
    let mut random = ChaCha8Rng::seed_from_u64(seed ^ 0x5eed);
    let Hidden { cabinet, chain, bench, warmth, .. } = hidden;
    let mut files = Folder::new();
    let mut traces = Vec::new();
    let wanted = |kind: &str| kinds.is_empty() || kinds.contains(&kind);
    let mut add =
        |name: String, what: Value, of: &mut dyn FnMut(f64, &mut ChaCha8Rng) -> Complex, level: bool| {
            let mut text =
                if level { "Freq(Hz) SPL(dB) Phase(deg)\n" } else { "Freq[Hz]\tZ[ohm]\tPhase[deg]\n" }
                    .to_owned();
            for frequency in frequencies() {
                let value = of(frequency, &mut random);
                let size = if level { 20.0 * value.norm().log10() } else { value.norm() };
                writeln!(text, "{frequency:.4}\t{size:.6}\t{:.4}", value.arg().to_degrees()).expect("a text");
            }
            let mut of = json!({ "file": name });
            of.as_object_mut().expect("an object").extend(what.as_object().expect("an object").clone());
            traces.push(of);
            files.insert(name, text.into_bytes());
        };
    for (number, shut) in [(0, false), (1, true)] {
        let kind = if shut { "impedance_blocked" } else { "impedance_box" };
        if wanted(kind) && (!shut || cabinet.port.is_some()) {
            let mut of = |f: f64, random: &mut ChaCha8Rng| {
                chain.noisy(cabinet.flows(f, shut, warmth[number]).impedance * chain.jig, random)
            };
            add(format!("{kind}.txt"), json!({ "kind": kind, "jig_resistor_ohm": 22.0 }), &mut of, false);
        }
    }
    for (at, driver) in bench.iter().enumerate() {
        let grams = (driver.mms * ADDED * 1e3).round().max(1.0);
        for (number, kind, added) in [(2, "impedance_free", 0.0), (3, "impedance_mass", grams * 1e-3)] {
            if wanted(kind) {
                let warm = crate::Driver { re: driver.re * (1.0 + warmth[number]), ..*driver };
                let mut of =
                    |f: f64, random: &mut ChaCha8Rng| chain.noisy(warm.free(f, added) * chain.jig, random);
                let mut what = json!({ "kind": kind, "driver": at + 1, "jig_resistor_ohm": 22.0 });
                if added > 0.0 {
                    what["added_mass_g"] = json!(grams);
                }
                add(format!("{kind}_{}.txt", at + 1), what, &mut of, false);
            }
        }
    }
    let levels = |cone: bool| {
        move |f: f64| {
            let flows = cabinet.flows(f, false, warmth[4]);
            match (cone, &cabinet.port) {
                (false, Some(port)) => {
                    let area = std::f64::consts::PI * port.radius * port.radius;
                    chain.near(cabinet, f, flows.ports / port.count, area, flows.cones)
                }
                _ => chain.near(cabinet, f, flows.cone, cabinet.driver.sd, flows.ports),
            }
        }
    };
    for (kind, cone) in [("nearfield_cone", true), ("nearfield_port", false)] {
        if !wanted(kind) || (!cone && cabinet.port.is_none()) {
            continue;
        }
        let of = levels(cone);
        let usual = frequencies().map(|f| of(f).norm()).fold(0.0, f64::max);
        let mut noisy =
            |f: f64, random: &mut ChaCha8Rng| chain.noisy(of(f), random) + chain.hum(f, 0.1 * usual);
        let mut what = json!({ "kind": kind, "stated_distance_mm": 5.0 });
        if cone {
            what["driver"] = json!(1);
        }
        add(format!("{kind}{}.txt", if cone { "_1" } else { "" }), what, &mut noisy, true);
    }
    if wanted("loopback") {
        let mut of = |f: f64, random: &mut ChaCha8Rng| chain.noisy(0.7 * chain.electrical(f), random);
        add("loopback.txt".to_owned(), json!({ "kind": "loopback" }), &mut of, true);
    }
    let session = json!({ "room_temperature": format!("{:.1} degC", hidden.thermometer), "traces": traces });
    files.insert("design.json".to_owned(), design(hidden).to_string().into_bytes());
    files.insert("session.json".to_owned(), session.to_string().into_bytes());
    files
}

/// What is true of a cabinet.
#[derive(Debug, Clone)]
pub struct Truth {
    /// Hz, in the air of the day.
    pub tuning: f64,
    /// Leaks.
    pub ql: f64,
    /// Absorption.
    pub qa: f64,
    /// m3.
    pub volume: f64,
    /// m, off each port once a leak is sealed, in the design's air.
    pub cut: Option<f64>,
    /// Mean of Fs, Qes, Qms, Vas (m3) of the drivers on the bench.
    pub driver: [f64; 4],
    /// Standing wave that moves the impedance by 1.5 % or more, Hz, and by how much the most.
    pub mode: Option<(f64, f64)>,
}

/// Tells it.
pub fn truth(hidden: &Hidden) -> Truth {
    let Hidden { cabinet, sheet, bench, .. } = hidden;
    let designed = Air::at(DESIGNED);
    let cut = sheet.port.zip(cabinet.port).map(|((wanted, _), port)| {
        let with = |length: f64| {
            let modes = cabinet.modes.iter().map(|mode| crate::Mode {
                frequency: mode.frequency * designed.speed / cabinet.air.speed,
                ..*mode
            });
            Cabinet { port: Some(Port { length, ..port }), modes: modes.collect(), ..cabinet.clone() }
                .tuning(&designed)
        };
        let (mut low, mut high) = (0.0, 3.0 * port.length + 0.5);
        for _ in 0..60 {
            let middle = f64::midpoint(low, high);
            if with(middle) > wanted { low = middle } else { high = middle }
        }
        port.length - low
    });
    let mean = |of: &dyn Fn(&crate::Driver) -> f64| bench.iter().map(of).sum::<f64>() / bench.len() as f64;
    let mode = cabinet
        .modes
        .iter()
        .map(|mode| (mode.frequency, cabinet.rippled(mode)))
        .max_by(|a, b| a.1.total_cmp(&b.1));
    Truth {
        tuning: cabinet.tuning(&cabinet.air),
        ql: cabinet.ql,
        qa: cabinet.qa,
        volume: cabinet.volume,
        cut,
        driver: [
            mean(&crate::Driver::fs),
            mean(&crate::Driver::qes),
            mean(&crate::Driver::qms),
            mean(&|one| one.vas(&designed)),
        ],
        mode: mode.filter(|mode| cabinet.reversed == 0 && mode.1 >= 0.015),
    }
}
