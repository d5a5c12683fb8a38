//! Filters and parts as people call them.

use oak_design::file::{RawAlignment, RawFilter, RawFilterKind, RawPart, RawPartWiring, Typed};

fn typed(value: &Option<Typed>) -> String {
    value.as_ref().map_or_else(|| "?".to_owned(), ToString::to_string)
}

/// `High-pass 20 Hz, Butterworth, 24 dB/octave`.
pub fn filter_name(raw: &RawFilter) -> String {
    let frequency = typed(&raw.frequency);
    let gain = || typed(&raw.gain);
    let pass = |side: &str| {
        let alignment = match raw.alignment.unwrap_or_default() {
            RawAlignment::Butterworth => "Butterworth",
            RawAlignment::LinkwitzRiley => "Linkwitz-Riley",
            RawAlignment::Bessel => "Bessel",
            RawAlignment::BesselPhase => "Bessel (phase)",
        };
        let order = raw.order.as_ref().map_or_else(|| "2".to_owned(), ToString::to_string);
        match order.parse::<f64>() {
            Ok(order) => format!("{side} {frequency}, {alignment}, {:.0} dB/octave", 6.0 * order),
            Err(_) => format!("{side} {frequency}, {alignment}"),
        }
    };
    match raw.kind {
        RawFilterKind::HighPass => pass("High-pass"),
        RawFilterKind::LowPass => pass("Low-pass"),
        RawFilterKind::Parametric => match &raw.octaves {
            Some(octaves) => format!("Band {frequency}, {}, {octaves} octaves", gain()),
            None => format!(
                "Band {frequency}, {}, Q {}",
                gain(),
                raw.q.as_ref().map_or("1".to_owned(), ToString::to_string)
            ),
        },
        RawFilterKind::LowShelf => format!("Low shelf {frequency}, {}", gain()),
        RawFilterKind::HighShelf => format!("High shelf {frequency}, {}", gain()),
        RawFilterKind::LinkwitzTransform => format!(
            "Linkwitz transform {frequency}, Q {} → {}, Q {}",
            typed(&raw.q),
            typed(&raw.wanted_frequency),
            typed(&raw.wanted_q)
        ),
        RawFilterKind::AllPass => format!("All-pass {frequency}"),
        RawFilterKind::Delay => format!("Delay {}", typed(&raw.delay)),
        RawFilterKind::Gain => format!("Gain {}", gain()),
        RawFilterKind::Invert => "Polarity inverted".to_owned(),
        RawFilterKind::Measured => "As measured".to_owned(),
    }
}

/// `L 8 mH in series`, `L-C-R across`.
pub fn part_name(raw: &RawPart) -> String {
    let inside = [("R", &raw.resistance), ("L", &raw.inductance), ("C", &raw.capacitance)];
    let present: Vec<String> = inside
        .into_iter()
        .filter_map(|(symbol, value)| Some(format!("{symbol} {}", value.as_ref()?)))
        .collect();
    let present = present.join(" + ");
    match raw.wiring {
        RawPartWiring::Series => format!("{present} in series"),
        RawPartWiring::Across => format!("{present} across"),
        RawPartWiring::Trap => format!("Trap: {present}"),
    }
}
