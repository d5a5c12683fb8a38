//! Passive circuits by their textbook values, and what they really do before this driver.

use std::f64::consts::TAU;

use oak_acoustics::response::Response;
use oak_acoustics::source::Part;
use oak_design::field::{self, Field};
use oak_design::file::{RawPart, RawPartWiring, Typed};
use oak_design::resolve::resolve_parts;
use oak_signal::passive::{
    butterworth, first_order, impedance_equaliser, l_pad, linkwitz_riley, resonance_equaliser,
};
use serde::Serialize;
use utoipa::ToSchema;

use super::survey::{Survey, signed};

/// A circuit to begin with.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Textbook {
    /// As the interface names it.
    pub id: &'static str,
    /// What it is called.
    pub name: &'static str,
    /// Textbook values and what they really do here.
    pub words: String,
    /// To be added between the amplifier and the drivers.
    pub parts: Vec<RawPart>,
}

/// Resistance of the wire of a coil of this inductance that is still sold at a fair price, common practice: 0.05 ohm a millihenry, at least 0.1.
fn wire(inductance: f64) -> f64 {
    (50.0 * inductance).max(0.1)
}

/// Where a low-pass is asked for when no crossover is, Hz.
const USUAL_CROSSOVER: f64 = 100.0;

fn typed(field: &'static Field, value: f64) -> Option<Typed> {
    Some(field.typed(value.clamp(field.min, field.max), 3))
}

fn coil(inductance: f64) -> RawPart {
    RawPart {
        wiring: RawPartWiring::Series,
        inductance: typed(&field::PART_INDUCTANCE, inductance),
        coil_resistance: typed(&field::PART_COIL_RESISTANCE, wire(inductance)),
        ..RawPart::default()
    }
}

fn capacitor(capacitance: f64) -> RawPart {
    RawPart {
        wiring: RawPartWiring::Across,
        capacitance: typed(&field::PART_CAPACITANCE, capacitance),
        ..RawPart::default()
    }
}

fn resistor(wiring: RawPartWiring, resistance: f64) -> RawPart {
    RawPart { wiring, resistance: typed(&field::PART_RESISTANCE, resistance), ..RawPart::default() }
}

pub(super) fn textbook(survey: &Survey) -> Vec<Textbook> {
    let (design, built) = (&survey.design, &survey.built);
    let driver = design.driver_array.equivalent();
    let load = driver.nominal;
    let corner = survey.brief.as_ref().and_then(|brief| brief.crossover).unwrap_or(USUAL_CROSSOVER);
    let omega = TAU * corner;
    let mut found = Vec::new();
    let mut low_pass = |id, name, value: f64, parts: Vec<RawPart>, falls: f64| {
        let words = format!(
            "For a plain {load:.0} Ω: {:.1} mH{}, −{falls:.0} dB at {corner:.0} Hz. {}",
            value * 1e3,
            match parts.get(1).and_then(|part| part.capacitance.as_ref()) {
                Some(capacitance) => format!(" and {capacitance}"),
                None => String::new(),
            },
            really(survey, &parts, corner)
        );
        found.push(Textbook { id, name, words, parts });
    };
    let one = first_order(load, omega);
    low_pass(
        "low_pass_1",
        "Coil in series: low-pass, 6 dB/octave",
        one.inductance,
        vec![coil(one.inductance)],
        3.0,
    );
    for (id, name, two, falls) in [
        (
            "butterworth",
            "Coil and capacitor: Butterworth low-pass, 12 dB/octave",
            butterworth(load, omega),
            3.0,
        ),
        (
            "linkwitz_riley",
            "Coil and capacitor: Linkwitz-Riley low-pass, 12 dB/octave",
            linkwitz_riley(load, omega),
            6.0,
        ),
    ] {
        low_pass(id, name, two.inductance, vec![coil(two.inductance), capacitor(two.capacitance)], falls);
    }
    let kilohertz = TAU * 1000.0;
    let le = driver.inductance.impedance(kilohertz).im / kilohertz;
    if le > 0.0 {
        let (resistance, capacitance) = impedance_equaliser(driver.re, le);
        let part = RawPart {
            capacitance: typed(&field::PART_CAPACITANCE, capacitance),
            ..resistor(RawPartWiring::Across, resistance)
        };
        found.push(Textbook {
            id: "impedance_equaliser",
            name: "R and C across: takes away the rise of the coil's inductance",
            words: format!("1.25 Re and Le/Re², {:.1} Ω and {:.0} µF: put it behind a low-pass, which then sees nearly Re.", resistance, capacitance * 1e6),
            parts: vec![part],
        });
    }
    if let Some(closed) = built.compiled.closed_box {
        let omega = TAU * closed.fc;
        let mass = driver.mms;
        let qec = omega * mass * driver.re / (driver.bl * driver.bl);
        let qmc = omega * mass / driver.rms;
        let notch = resonance_equaliser(driver.re, qec, qmc, omega);
        let part = RawPart {
            inductance: typed(&field::PART_INDUCTANCE, notch.inductance),
            capacitance: typed(&field::PART_CAPACITANCE, notch.capacitance),
            ..resistor(RawPartWiring::Across, notch.resistance)
        };
        found.push(Textbook {
            id: "resonance_equaliser",
            name: "L-C-R across: takes away the resonance of the sealed box",
            words: format!("For {:.1} Hz: {:.1} Ω with the coil's own, {:.1} mH, {:.0} µF. Exact but for the coil's inductance.", closed.fc, notch.resistance, notch.inductance * 1e3, notch.capacitance * 1e6),
            parts: vec![part],
        });
    }
    let [series, shunt] = l_pad(load, 3.0);
    found.push(Textbook {
        id: "l_pad",
        name: "Two resistors: an L-pad, 3 dB softer",
        words: format!("{series:.1} Ω in series and {shunt:.1} Ω across leave a plain {load:.0} Ω as it was. They turn power into heat and raise Qes; a gain before the amplifier costs nothing."),
        parts: vec![resistor(RawPartWiring::Series, series), resistor(RawPartWiring::Across, shunt)],
    });
    found
}

/// What parts do before this driver and not before a resistor: the fall at a frequency (Hz), and the highest rise.
fn really(survey: &Survey, parts: &[RawPart], corner: f64) -> String {
    let Ok(more) = resolve_parts(parts) else { return String::new() };
    let mut with = survey.built.design.clone();
    // Nearest to the drivers.
    with.source.parts.extend::<Vec<Part>>(more);
    let Ok(built) = with.unboxed() else { return String::new() };
    let grid = oak_acoustics::response::FrequencyGrid::logarithmic(5.0, 400.0, 240)
        .expect("within the allowed range");
    let volts = survey.design.drive.volts;
    let [before, after] = [&survey.built.compiled.network, &built.compiled.network]
        .map(|network| Response::levels(network, &grid, volts));
    let change: Vec<f64> = after.iter().zip(&before).map(|(after, before)| after - before).collect();
    let at = grid.frequencies().partition_point(|frequency| *frequency < corner).min(change.len() - 1);
    let top = (0..change.len()).max_by(|a, b| change[*a].total_cmp(&change[*b])).unwrap_or(0);
    let rise = if change[top] > 0.5 {
        format!(
            ", and {} dB at {:.0} Hz, where they resonate with the driver",
            signed(change[top]),
            grid.frequencies()[top]
        )
    } else {
        String::new()
    };
    format!("With this driver really {} dB at {corner:.0} Hz{rise}.", signed(change[at]))
}
