//! Whatever a file holds: an answer or a problem that names its field, in time, and never a value that is no number.

use oak_acoustics::Stop;
use std::time::{Duration, Instant};

use oak_acoustics::response::FrequencyGrid;
use oak_design::cavity_check::{CavityModel, cavity_check};
use oak_design::file::{RawDesign, RawFamily, open_design};
use oak_design::report::{BodyReport, Report, compute_undelayed};
use oak_design::resolve::resolve_design;
use oak_design::trace::TraceOrigin;
use proptest::prelude::*;
use serde_json::{Value, json};

/// A quantity as somebody may type it: sensible, at the edge of what is allowed, and not at all.
fn any_quantity(unit: &'static str, low: f64, high: f64) -> impl Strategy<Value = Value> {
    let within = (low.ln()..high.ln()).prop_map(move |value| json!(format!("{} {unit}", value.exp())));
    let edges = prop_oneof![Just(low), Just(high)].prop_map(move |value| json!(format!("{value} {unit}")));
    let junk = prop_oneof![
        Just(json!("")),
        Just(json!("NaN")),
        Just(json!("1e400 l")),
        Just(json!(f64::MAX)),
        Just(json!(-1)),
        Just(json!("7 furlongs")),
        "\\PC{0,12}".prop_map(Value::from),
    ];
    prop_oneof![80 => within, 15 => edges, 1 => junk]
}

fn number(low: f64, high: f64) -> impl Strategy<Value = Value> {
    (low.ln()..high.ln()).prop_map(|value| json!(value.exp()))
}

/// Some of the members, each with its own values.
fn any_of(members: Vec<(&'static str, BoxedStrategy<Value>)>) -> BoxedStrategy<Value> {
    let strategies: Vec<_> = members
        .into_iter()
        .map(|(name, value)| (Just(name), proptest::option::weighted(0.85, value)))
        .collect();
    strategies
        .prop_map(|members| {
            let present = members.into_iter().filter_map(|(name, value)| Some((name.to_owned(), value?)));
            Value::Object(present.collect())
        })
        .boxed()
}

fn any_port() -> BoxedStrategy<Value> {
    any_of(vec![
        ("diameter", any_quantity("mm", 5.0, 1000.0).boxed()),
        ("width", any_quantity("mm", 5.0, 2000.0).boxed()),
        ("height", any_quantity("mm", 1.0, 1000.0).boxed()),
        ("side", any_quantity("mm", 5.0, 1000.0).boxed()),
        ("length", any_quantity("mm", 1.0, 10_000.0).boxed()),
        ("count", (1u32..17).prop_map(|count| json!(count)).boxed()),
        ("path", any_quantity("m", 0.001, 20.0).boxed()),
    ])
    .prop_flat_map(|port| {
        prop_oneof![Just("round"), Just("slot"), Just("corner")].prop_map(move |shape| {
            let mut port = port.clone();
            port["shape"] = json!(shape);
            port
        })
    })
    .boxed()
}

fn any_chamber(more: Vec<(&'static str, BoxedStrategy<Value>)>) -> BoxedStrategy<Value> {
    let fill = prop_oneof![Just("none"), Just("lined"), Just("half"), Just("full"), Just("packed")];
    let mut members = vec![
        ("volume", any_quantity("l", 0.1, 10_000.0).boxed()),
        ("gain", number(1.0, 1.4).boxed()),
        ("ql", number(1.0, 1000.0).boxed()),
        ("qa", number(1.0, 1000.0).boxed()),
        ("fill_density", any_quantity("kg/m3", 0.1, 60.0).boxed()),
        ("fill_material", prop_oneof![Just("polyester"), Just("glass")].prop_map(Value::from).boxed()),
        ("fill", fill.prop_map(Value::from).boxed()),
        ("tuning", any_quantity("Hz", 5.0, 500.0).boxed()),
        ("ports", proptest::collection::vec(any_port(), 0..4).prop_map(Value::from).boxed()),
    ];
    members.extend(more);
    any_of(members)
}

fn any_segment() -> BoxedStrategy<Value> {
    let flares = ["conical", "exponential", "hyperbolic", "tractrix", "parabolic"];
    any_of(vec![
        ("flare", (0..flares.len()).prop_map(move |at| json!(flares[at])).boxed()),
        ("t", number(0.01, 20.0).boxed()),
        ("length", any_quantity("m", 0.005, 20.0).boxed()),
        ("start", any_quantity("cm2", 1.0, 1e5).boxed()),
        ("end", any_quantity("cm2", 1.0, 1e5).boxed()),
        ("width", any_quantity("mm", 5.0, 5000.0).boxed()),
        ("fill_density", any_quantity("kg/m3", 0.5, 200.0).boxed()),
        ("fill_resistivity", any_quantity("Pa s/m2", 10.0, 2e5).boxed()),
    ])
}

fn any_passage() -> BoxedStrategy<Value> {
    any_of(vec![
        ("driver_at", any_quantity("m", 0.001, 20.0).boxed()),
        ("front_at", any_quantity("m", 0.01, 20.0).boxed()),
        ("stub", any_segment()),
        ("chamber", any_quantity("l", 0.1, 1000.0).boxed()),
        ("path", any_quantity("m", 0.001, 20.0).boxed()),
    ])
    .prop_flat_map(|passage| {
        proptest::collection::vec(any_segment(), 1..5).prop_map(move |segments| {
            let mut passage = passage.clone();
            passage["segments"] = Value::from(segments);
            passage
        })
    })
    .boxed()
}

fn any_driver() -> BoxedStrategy<Value> {
    any_of(vec![
        ("le", any_quantity("mH", 0.01, 100.0).boxed()),
        ("xmax", any_quantity("mm", 0.1, 100.0).boxed()),
        ("pe", any_quantity("W", 0.1, 20_000.0).boxed()),
        ("inductance_exponent", number(0.3, 1.0).boxed()),
    ])
    .prop_flat_map(|sheet| {
        (
            any_quantity("ohm", 0.5, 50.0),
            any_quantity("Hz", 8.0, 300.0),
            number(0.5, 30.0),
            number(0.08, 6.0),
            any_quantity("l", 0.5, 2000.0),
            any_quantity("cm2", 20.0, 3000.0),
        )
            .prop_map(move |(re, fs, qms, qes, vas, sd)| {
                let mut driver = sheet.clone();
                for (name, value) in
                    [("re", re), ("fs", fs), ("qms", qms), ("qes", qes), ("vas", vas), ("sd", sd)]
                {
                    driver[name] = value;
                }
                driver["name"] = json!("Any");
                driver["coils"] = json!("dual_series");
                driver
            })
    })
    .boxed()
}

fn any_driver_array() -> BoxedStrategy<Value> {
    let coils =
        prop_oneof![Just("series"), Just("parallel"), Just("one"), Just("one_shorted"), Just("one_loaded")];
    let pair = (prop_oneof![Just("face_to_face"), Just("in_line"), Just("back_to_back")], any::<bool>(), any::<bool>())
        .prop_map(|(arrangement, series, ideal)| {
            json!({ "arrangement": arrangement, "coils_in_series": series, "ideal": ideal })
        });
    any_of(vec![
        ("added_mass", any_quantity("g", 0.1, 2000.0).boxed()),
        ("break_in", any_quantity("%", 1.0, 100.0).boxed()),
        ("coil_temperature", (-20.0f64..300.0).prop_map(|t| json!(format!("{t} degC"))).boxed()),
        ("coils", coils.prop_map(Value::from).boxed()),
        ("idle_coil_resistance", any_quantity("ohm", 0.01, 1000.0).boxed()),
        ("series", (1u32..17).prop_map(|n| json!(n)).boxed()),
        ("parallel", (1u32..17).prop_map(|n| json!(n)).boxed()),
        ("series_resistance", any_quantity("ohm", 0.01, 100.0).boxed()),
        ("isobaric", pair.boxed()),
    ])
}

fn any_signal() -> BoxedStrategy<Value> {
    let one_of = |names: &'static [&'static str]| (0..names.len()).prop_map(move |at| json!(names[at]));
    let filter = any_of(vec![
        ("alignment", one_of(&["butterworth", "linkwitz_riley", "bessel", "bessel_phase"]).boxed()),
        ("order", (1u32..=9).prop_map(|n| json!(n)).boxed()),
        ("frequency", any_quantity("Hz", 1.0, 20_000.0).boxed()),
        ("q", number(0.1, 50.0).boxed()),
        ("gain", (-40.0f64..40.0).prop_map(|gain| json!(format!("{gain} dB"))).boxed()),
        ("octaves", number(0.05, 6.0).boxed()),
        ("slope", number(0.1, 1.0).boxed()),
        ("wanted_frequency", any_quantity("Hz", 5.0, 500.0).boxed()),
        ("wanted_q", number(0.3, 2.0).boxed()),
        ("delay", any_quantity("ms", 0.01, 200.0).boxed()),
        ("bypassed", any::<bool>().prop_map(Value::from).boxed()),
    ]);
    let kinds = &[
        "high_pass",
        "low_pass",
        "parametric",
        "low_shelf",
        "high_shelf",
        "linkwitz_transform",
        "all_pass",
        "delay",
        "gain",
        "invert",
        "measured",
    ];
    let with = |members: BoxedStrategy<Value>, name: &'static str, value: BoxedStrategy<Value>| {
        (members, value).prop_map(move |(mut members, value)| {
            members[name] = value;
            members
        })
    };
    let filter = with(filter, "kind", one_of(kinds).boxed());
    let part = any_of(vec![
        ("resistance", any_quantity("ohm", 0.01, 1000.0).boxed()),
        ("inductance", any_quantity("mH", 0.001, 200.0).boxed()),
        ("coil_resistance", any_quantity("ohm", 0.01, 20.0).boxed()),
        ("capacitance", any_quantity("uF", 0.01, 1e5).boxed()),
        ("capacitor_resistance", any_quantity("ohm", 0.01, 20.0).boxed()),
    ]);
    let part = with(part, "wiring", one_of(&["series", "across", "trap"]).boxed());
    let amplifier = any_of(vec![
        ("power_8", any_quantity("W", 0.1, 20_000.0).boxed()),
        ("power_4", any_quantity("W", 0.1, 20_000.0).boxed()),
        ("power_2", any_quantity("W", 0.1, 20_000.0).boxed()),
        ("minimum_load", any_quantity("ohm", 0.5, 64.0).boxed()),
        ("output_resistance", any_quantity("ohm", 0.01, 50.0).boxed()),
    ]);
    let list = |one: BoxedStrategy<Value>| proptest::collection::vec(one, 0..3).prop_map(Value::from).boxed();
    any_of(vec![
        ("filters", list(filter.boxed())),
        ("parts", list(part.boxed())),
        ("amplifier", amplifier),
        ("drive", Just(json!({ "power": "20 W" })).boxed()),
    ])
}

fn any_design() -> impl Strategy<Value = Value> {
    let radiator = any_of(vec![
        ("area", any_quantity("cm2", 1.0, 5000.0).boxed()),
        ("mass", any_quantity("g", 1.0, 20_000.0).boxed()),
        ("added_mass", any_quantity("g", 0.1, 20_000.0).boxed()),
        ("compliance", any_quantity("mm/N", 0.001, 100.0).boxed()),
        ("resistance", any_quantity("kg/s", 0.01, 100.0).boxed()),
        ("count", (1u32..5).prop_map(|n| json!(n)).boxed()),
    ]);
    let enclosure = any_chamber(vec![
        ("front", any_chamber(vec![])),
        ("baffle_path", any_quantity("m", 0.02, 20.0).boxed()),
        ("vent_resistance", any_quantity("Pa s/m3", 10.0, 1e7).boxed()),
        ("radiator", radiator),
        ("passage", any_passage()),
    ]);
    let space = prop_oneof![Just("full"), Just("half"), Just("quarter"), Just("eighth")];
    (
        any_driver(),
        proptest::option::of(any_driver_array()),
        enclosure,
        0..RawFamily::ALL.len(),
        space,
        any_signal(),
    )
        .prop_map(|(driver, driver_array, mut enclosure, family, space, signal)| {
            enclosure["family"] = json!(RawFamily::ALL[family].id());
            // A tuning and lengths exclude each other; half of the files keep to that.
            for chamber in ["", "/front"] {
                let Some(here) = enclosure.pointer_mut(chamber).and_then(Value::as_object_mut) else {
                    continue;
                };
                let tuned = here.contains_key("tuning")
                    && here.get("volume").is_some_and(|v| v.to_string().len() % 2 == 0);
                if let (true, Some(ports)) = (tuned, here.get_mut("ports").and_then(Value::as_array_mut)) {
                    for port in ports.iter_mut().filter_map(Value::as_object_mut) {
                        port.remove("length");
                    }
                } else {
                    here.remove("tuning");
                }
            }
            let mut design = json!({
                "format": "oak-drum/design", "version": 2, "name": "Any", "driver": driver,
                "enclosure": enclosure, "signal": signal, "space": space,
            });
            if let Some(driver_array) = driver_array {
                design["driver_array"] = driver_array;
            }
            design
        })
}

fn any_body() -> BoxedStrategy<Value> {
    let one_of = |names: &'static [&'static str]| (0..names.len()).prop_map(move |at| json!(names[at]));
    let face = || one_of(&["front", "back", "left", "right", "top", "bottom", "tread", "riser", "shell"]);
    let length = || any_quantity("mm", 30.0, 2000.0).boxed();
    let place = move || {
        (any_of(vec![("across", length()), ("up", length())]), face()).prop_map(|(mut place, face)| {
            place["face"] = face;
            place
        })
    };
    let list = |one: BoxedStrategy<Value>| proptest::collection::vec(one, 0..3).prop_map(Value::from).boxed();
    let with = |members: BoxedStrategy<Value>, name: &'static str, value: BoxedStrategy<Value>| {
        (members, value)
            .prop_map(move |(mut members, value)| {
                members[name] = value;
                members
            })
            .boxed()
    };
    let thin = || any_quantity("mm", 1.0, 60.0).boxed();
    let open = any_quantity("%", 1.0, 95.0).boxed();
    let brace = any_of(vec![("at", length()), ("thickness", thin()), ("open", open)]);
    let layers = (1u32..=4).prop_map(|n| json!(n)).boxed();
    let panel = any_of(vec![("thickness", thin()), ("layers", layers), ("inset", thin())]);
    let layer = any_of(vec![
        ("density", any_quantity("kg/m3", 0.5, 200.0).boxed()),
        ("resistivity", any_quantity("Pa s/m2", 10.0, 2e5).boxed()),
    ]);
    let layer = with(layer, "thickness", any_quantity("mm", 1.0, 1000.0).boxed());
    let turns = (0u32..=2).prop_map(|n| json!(n)).boxed();
    let port = any_of(vec![
        ("across", length()),
        ("up", length()),
        ("wall", thin()),
        ("turns", turns),
        ("face", face().boxed()),
    ]);
    let fold = any_of(vec![
        ("folds", (0u32..=12).prop_map(|n| json!(n)).boxed()),
        ("stack", one_of(&["level", "upright"]).boxed()),
        ("corner", one_of(&["square", "mitred", "curved"]).boxed()),
        ("mouth", face().boxed()),
        ("thickness", thin()),
        ("panels", list(any_of(vec![("at", length())]))),
    ]);
    let shape = one_of(&["box", "wedge", "prism", "pipe", "lying_pipe", "pyramid", "rounded", "step"]);
    any_of(vec![
        ("shape", shape.boxed()),
        ("measured", one_of(&["outside", "inside"]).boxed()),
        ("ratio", one_of(&["cube_root", "golden", "tower", "low", "cube"]).boxed()),
        ("width", length()),
        ("height", length()),
        ("depth", length()),
        ("top_depth", length()),
        ("back_height", length()),
        ("lean", length()),
        ("top_width", length()),
        ("sides", (3u32..=12).prop_map(|n| json!(n)).boxed()),
        ("radius", thin()),
        ("step_height", length()),
        ("step_depth", length()),
        ("thickness", thin()),
        ("partition", thin()),
        ("strips", thin()),
        ("panels", list(with(panel, "face", face().boxed()))),
        ("driver", place().boxed()),
        ("radiator", place().boxed()),
        ("ports", list(port.clone())),
        ("front_ports", list(port)),
        ("braces", list(with(brace, "along", one_of(&["width", "height", "depth"]).boxed()))),
        ("fold", fold),
        ("fills", list(with(layer, "face", face().boxed()))),
    ])
}

/// Where a list holds what is no number; `settled` may hold one chamber of two.
fn hollow(value: &Value, place: &str) -> Option<String> {
    match value {
        Value::Array(values) => values.iter().find_map(|one| {
            if one.is_null() && place != "settled" { Some(place.to_owned()) } else { hollow(one, place) }
        }),
        Value::Object(members) => members.iter().find_map(|(name, one)| hollow(one, name)),
        _ => None,
    }
}

/// A family of lumped parts has 50 ms, ducts have 500 ms; what is measured here runs beside other tests, so that only
/// a hang is taken for one.
const LONGEST: Duration = Duration::from_millis(500);

fn answered(raw: &RawDesign) -> Result<Report, TestCaseError> {
    let grid = FrequencyGrid::logarithmic(5.0, 1000.0, 120).expect("grid");
    let begun = Instant::now();
    let report = match resolve_design(raw) {
        Ok(resolved) => Report::of(&resolved, &grid).map_err(|problem| vec![problem]),
        Err(problems) => Err(problems),
    };
    let took = begun.elapsed();
    prop_assert!(took < 8 * LONGEST, "{took:?} {}", serde_json::to_string(raw).expect("JSON"));
    report.map_err(|problems| {
        for problem in &problems {
            if problem.field.is_empty() || problem.to_string().len() < 10 {
                return TestCaseError::fail(format!("{problem:?}"));
            }
        }
        TestCaseError::reject("refused, with a place")
    })
}

proptest! {
    #![proptest_config(ProptestConfig { cases: 700, max_global_rejects: 20_000, ..ProptestConfig::default() })]

    #[test]
    fn no_design_panics_hangs_or_gives_what_is_no_number(document in any_design()) {
        let Ok(raw) = open_design(document.to_string().as_bytes()) else { return Ok(()) };
        let report = answered(&raw)?;
        for trace in &report.traces {
            prop_assert_eq!(trace.frequency.len(), 120);
            prop_assert_eq!(trace.values.len(), 120);
            let whole = trace.origin == TraceOrigin::Limit || trace.values.iter().all(Option::is_some);
            let phase = trace.phase.iter().flatten().all(|degrees| degrees.is_finite());
            prop_assert!(whole && phase, "{document}");
        }
        prop_assert!(report.figures.solved.reference_level.is_finite());
        // What is answered can be written and read again.
        let text = serde_json::to_string(&raw).expect("JSON");
        prop_assert_eq!(open_design(text.as_bytes()).expect("a design"), raw);
    }
}

proptest! {
    #![proptest_config(ProptestConfig { cases: 250, max_global_rejects: 20_000, ..ProptestConfig::default() })]

    #[test]
    fn no_box_panics_hangs_or_gives_what_is_no_number(document in any_design(), body in any_body()) {
        let mut document = document;
        document["body"] = body;
        let Ok(raw) = open_design(document.to_string().as_bytes()) else { return Ok(()) };
        let Ok(resolved) = resolve_design(&raw) else { return Err(TestCaseError::reject("refused")) };
        let grid = FrequencyGrid::logarithmic(10.0, 500.0, 24).expect("grid");
        let Ok(computed) = compute_undelayed(&resolved, &grid) else { return Err(TestCaseError::reject("refused")) };
        let begun = Instant::now();
        match BodyReport::of(&resolved, &computed, None) {
            Ok(None) => {}
            Ok(Some(report)) => {
                let value = serde_json::to_value(&report).expect("JSON");
                prop_assert_eq!(hollow(&value, ""), None, "{}", document);
                prop_assert!(report.outside.iter().all(|size| size.is_finite() && *size > 0.0));
            }
            Err(problem) => prop_assert!(problem.field.starts_with("body"), "{problem:?}"),
        }
        if let Ok(Some(cavity_check)) = cavity_check(&resolved, CavityModel::Quick, &Stop::default(), &|_, _| {}) {
            let value = serde_json::to_value(&cavity_check).expect("JSON");
            prop_assert_eq!(hollow(&value, ""), None, "{}", document);
        }
        prop_assert!(begun.elapsed() < 8 * LONGEST, "{:?} {document}", begun.elapsed());
    }
}
