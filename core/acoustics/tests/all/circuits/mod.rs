//! The circuits of `reference/ngspice/cases.json` as cabinets.
#![allow(dead_code)]

use oak_acoustics::driver::{Driver, DriverArray, Inductance, Isobaric};
use oak_acoustics::element::End;
use oak_acoustics::enclosure::{
    Aperiodic, Bandpass4, Bandpass6, Enclosure, FrontPath, Line, Losses, Mouth, PassiveRadiator, Port,
    Ported, Radiator, Sealed,
};
use oak_acoustics::medium::{Air, CrossSection};
use oak_acoustics::profile::{Flare, Profile, Segment};
use oak_acoustics::source::{Branch, Part, PartForm, Source};
use serde_json::Value;

/// Where circuits and results are.
pub const FOLDER: &str = concat!(env!("CARGO_MANIFEST_DIR"), "/../../reference/ngspice");

pub fn number(value: &Value, key: &str) -> f64 {
    value[key].as_f64().unwrap_or_else(|| panic!("{key} in {value}"))
}

fn driver(case: &Value) -> Driver {
    let d = &case["driver"];
    let of = |key| number(d, key);
    Driver {
        re: of("re"),
        inductance: Inductance::Plain { le: of("le") },
        bl: of("bl"),
        mms: of("mms"),
        cms: of("cms"),
        rms: of("rms"),
        sd: of("sd"),
        xmax: None,
        pe: None,
        nominal: 4.0,
        shorted_coil: None,
    }
}

/// The drivers of a case.
pub fn driver_array(case: &Value) -> DriverArray {
    let pair = &case["isobaric"];
    let isobaric = pair
        .is_object()
        .then(|| Isobaric { in_series: pair["coils"] == "series", trapped: Some(number(pair, "volume")) });
    let series_resistance = case["series_resistance"].as_f64().unwrap_or(0.0);
    DriverArray { isobaric, series_resistance, ..DriverArray::from(driver(case)) }
}

/// What stands between the amplifier and the drivers of a case.
pub fn source(case: &Value) -> Source {
    let parts = case["parts"].as_array().map_or(&[][..], Vec::as_slice);
    let optional = |branch: &Value, key: &str| branch[key].as_f64();
    let part = |part: &Value| {
        let branches = part["branches"].as_array().expect("branches");
        let form = match branches.as_slice() {
            [only] => PartForm::Chain(Branch {
                resistance: optional(only, "r").unwrap_or(0.0),
                inductance: optional(only, "l").unwrap_or(0.0),
                capacitance: optional(only, "c"),
            }),
            [coil, capacitor, rest @ ..] => PartForm::Trap {
                inductance: number(coil, "l"),
                coil_resistance: number(coil, "r"),
                capacitance: number(capacitor, "c"),
                capacitor_resistance: number(capacitor, "r"),
                resistance: rest.first().map(|resistor| number(resistor, "r")),
            },
            [] => panic!("{part} has no branch"),
        };
        Part { in_series: part["in_series"] == true, form }
    };
    Source {
        output_resistance: case["output_resistance"].as_f64().unwrap_or(0.0),
        parts: parts.iter().map(part).collect(),
        ..Source::default()
    }
}

fn losses(chamber: &Value) -> Losses {
    Losses { ql: chamber["ql"].as_f64(), qa: chamber["qa"].as_f64() }
}

fn closed(chamber: &Value) -> Sealed {
    Sealed { volume: number(chamber, "volume"), losses: losses(chamber) }
}

fn vented(chamber: &Value) -> Ported {
    let port = |port: &Value| {
        let end = |key: &str| if port[key] == "free" { End::Free } else { End::Flanged };
        Port {
            section: CrossSection::Round { radius: number(port, "diameter") / 2.0 },
            length: Some(number(port, "length")),
            count: number(port, "count") as u32,
            inner: end("inner"),
            outer: end("outer"),
            path: 0.0,
            waist: 1.0,
            extra: 0.0,
        }
    };
    let ports = chamber["ports"].as_array().expect("ports").iter().map(port).collect();
    Ported { volume: number(chamber, "volume"), losses: losses(chamber), ports, tuning: None }
}

fn radiator(case: &Value) -> Radiator {
    let of = |key| number(&case["radiator"], key);
    Radiator {
        mass: of("mass"),
        compliance: of("compliance"),
        resistance: of("resistance"),
        area: of("area"),
        count: of("count") as u32,
        xmax: None,
    }
}

/// The cabinet of a case.
pub fn enclosure(case: &Value) -> Enclosure {
    let (rear, front) = (&case["rear"], &case["front"]);
    let sixth = |path| Enclosure::Bandpass6(Bandpass6 { rear: vented(rear), front: vented(front), path });
    match case["family"].as_str().expect("family") {
        "sealed" => Enclosure::Sealed(closed(rear)),
        "ported" => Enclosure::Ported(vented(rear)),
        "aperiodic" => Enclosure::Aperiodic(Aperiodic {
            chamber: closed(rear),
            resistance: number(case, "vent_resistance"),
        }),
        "passive_radiator" => Enclosure::PassiveRadiator(PassiveRadiator {
            volume: number(rear, "volume"),
            losses: losses(rear),
            radiator: radiator(case),
        }),
        "bandpass4" => Enclosure::Bandpass4(Bandpass4 { rear: closed(rear), front: vented(front) }),
        "bandpass6-parallel" => sixth(FrontPath::Parallel),
        "bandpass6-series" => sixth(FrontPath::Series),
        other => panic!("{other}"),
    }
}

/// Every case, with the air they share.
pub fn plan() -> Value {
    let text = std::fs::read_to_string(format!("{FOLDER}/cases.json")).expect("cases.json");
    serde_json::from_str(&text).expect("JSON")
}

/// The air of a plan.
pub fn air(plan: &Value) -> Air {
    Air { density: number(&plan["air"], "density"), speed: number(&plan["air"], "speed"), ..Air::reference() }
}

/// An empty line of 2.5 m that tapers from 0.05 to 0.025 m2, in as many straight-sided stretches; 64 is what any way
/// is cut into.
pub fn tapered_line(slices: usize) -> Enclosure {
    let profile = Profile {
        segments: vec![Segment {
            flare: Flare::Conical,
            length: 2.5,
            start: 0.05,
            end: 0.025,
            width: None,
            fill: None,
        }],
    };
    assert_eq!(profile.slices(0.0, 2.5).len(), slices);
    let mouth = Mouth::Open { end: End::Flanged, path: 0.0 };
    Enclosure::Line(Line { profile, driver_at: 0.0, chamber: None, stub: None, inner: None, mouth })
}
