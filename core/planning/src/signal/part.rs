//! Passive parts: what heats them, and what is sold.

use oak_acoustics::response::mean_share;
use oak_design::field;
use oak_design::file::{RawPart, RawPartWiring};
use oak_signal::passive::Series;
use serde::Serialize;
use utoipa::ToSchema;

use super::name::part_name;
use super::survey::Survey;

/// One passive part and what it does here.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct PassiveReport {
    /// What it is.
    pub name: String,
    /// Power that heats it with a sine of this drive at the worst frequency, W.
    pub heat: f64,
    /// Where that is, Hz.
    pub heat_at: f64,
    /// The same for the programme's mean power, W.
    pub programme_heat: f64,
    /// Largest current through it, A peak.
    pub current: f64,
    /// Nearest values that are sold, E12, E24 and E96, as they are typed.
    pub sold: Vec<SoldValue>,
    /// What the wire of its coil may have and has; nothing without a coil in series.
    pub wire: Option<String>,
}

/// A value of a part and the nearest that are sold.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct SoldValue {
    /// `resistance`, `inductance` or `capacitance`.
    pub field: &'static str,
    /// Nearest of E12 (IEC 60063).
    pub e12: String,
    /// Nearest of E24.
    pub e24: String,
    /// Nearest of E96.
    pub e96: String,
}

pub(super) fn reports(raw: &[RawPart], survey: &Survey) -> Vec<PassiveReport> {
    // Parts that are left out are in no network.
    let mut which = 0;
    raw.iter()
        .map(|part| {
            let at = (!part.bypassed).then(|| {
                which += 1;
                which - 1
            });
            report(part, at, survey)
        })
        .collect()
}

fn report(raw: &RawPart, which: Option<usize>, survey: &Survey) -> PassiveReport {
    let branches: Vec<_> = survey
        .built
        .compiled
        .network
        .passive_parts
        .iter()
        .zip(&survey.response.part_current)
        .filter(|(branch, _)| Some(branch.which) == which)
        .collect();
    let (mut heat, mut heat_at, mut current) = (0.0, survey.frequencies()[0], 0.0f64);
    for (k, frequency) in survey.frequencies().iter().enumerate() {
        let here: f64 = branches.iter().map(|(branch, flows)| branch.resistance * flows[k].norm_sqr()).sum();
        if here > heat {
            (heat, heat_at) = (here, *frequency);
        }
        let through = branches.iter().map(|(_, flows)| flows[k].norm()).fold(0.0, f64::max);
        current = current.max(std::f64::consts::SQRT_2 * through);
    }
    let mean = mean_share(survey.design.allowance.crest);
    PassiveReport {
        name: part_name(raw),
        heat,
        heat_at,
        programme_heat: heat * mean,
        current,
        sold: sold(raw),
        wire: wire(raw, survey),
    }
}

/// Share of Re that a coil's wire may have, common practice: 0.4 dB.
const WIRE: f64 = 0.05;

/// What the wire of a coil in series to the drivers costs, against its budget.
fn wire(raw: &RawPart, survey: &Survey) -> Option<String> {
    if raw.wiring == RawPartWiring::Across || raw.inductance.is_none() {
        return None;
    }
    let re = survey.design.driver_array.equivalent().re;
    let budget = WIRE * re;
    let has = field::PART_COIL_RESISTANCE.read(raw.coil_resistance.as_ref()).unwrap_or(0.0);
    let loss = 20.0 * (1.0 + has / re).log10();
    let ohm = |value: f64| oak_units::significant(value, 2);
    let allowed = format!("{} Ω, 5 % of the drivers' Re", ohm(budget));
    Some(if has == 0.0 {
        format!(
            "The wire of its coil counts as nothing. It may have {allowed} (common practice); coils for bass have tenths of an ohm to ohms, so ask for its DCR."
        )
    } else if has <= budget {
        format!("The wire of its coil has {} Ω of at most {allowed}: −{loss:.1} dB.", ohm(has))
    } else {
        format!(
            "The wire of its coil has {} Ω, more than {allowed}: −{loss:.1} dB, and Qes grows by {:.0} %. Take thicker wire, or a coil with a core that does not saturate at {:.1} A.",
            ohm(has),
            100.0 * has / re,
            survey.response.current.iter().map(|current| current.norm()).fold(0.0, f64::max)
                * std::f64::consts::SQRT_2,
        )
    })
}

fn sold(raw: &RawPart) -> Vec<SoldValue> {
    let values = [
        ("resistance", &field::PART_RESISTANCE, &raw.resistance),
        ("inductance", &field::PART_INDUCTANCE, &raw.inductance),
        ("capacitance", &field::PART_CAPACITANCE, &raw.capacitance),
    ];
    let near = |(name, field, typed): (&'static str, &'static field::Field, &Option<_>)| {
        let value = field.read(typed.as_ref()).filter(|value| *value > 0.0)?;
        let [e12, e24, e96] = [Series::E12, Series::E24, Series::E96]
            .map(|series| field.typed(series.nearest(value), 4).to_string());
        Some(SoldValue { field: name, e12, e24, e96 })
    };
    values.into_iter().filter_map(near).collect()
}
