//! How long a battery lasts.

use oak_signal::energy::{Budget, hours_in_words};
use serde::Serialize;
use utoipa::ToSchema;

use super::scene::Scene;

/// How long a battery lasts.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct EnergyReport {
    /// Power of a sine at which each amplifier clips, W.
    pub rated: f64,
    /// Peak over RMS of the programme, dB.
    pub crest: f64,
    /// What the battery gives until it must be charged, Wh.
    pub usable: f64,
    /// Drawn with peaks at clipping, W, and hours of it.
    pub full: [f64; 2],
    /// How far under that the level of the brief is, dB; drawn then, W, and hours of it. Nothing where no level is asked, or where it is not reached.
    pub asked: Option<[f64; 3]>,
    /// Hours a day that the sun pays for, at the level of the brief or at full power.
    pub solar: Option<f64>,
    /// All that in words.
    pub words: String,
}

pub(super) fn report(scene: &Scene<'_>) -> Option<EnergyReport> {
    let battery = scene.place.battery?;
    let design = &scene.built().design;
    let volts = design.allowance.volts?;
    let rated = volts * volts / design.as_driven().nominal;
    let count = scene.stands.len().max(1) as f64;
    let budget = |backoff: f64| Budget {
        usable: battery.usable / 3600.0,
        idle: battery.idle,
        efficiency: battery.efficiency,
        rated: rated * count,
        crest: design.allowance.crest,
        backoff,
    };
    let full = budget(0.0);
    // Down from clipping, which may be more than this drive.
    let louder = 20.0 * (volts / design.drive.volts).log10();
    let backoff = scene.turned_down().map(|down| down + louder);
    let at_level = backoff.filter(|backoff| *backoff >= 0.0).map(budget);
    let solar = battery.solar.map(|solar| at_level.unwrap_or(full).solar_hours(solar / 3600.0));
    let mut words = format!(
        "Peaks at clipping, {rated:.0} W each and a crest factor of {:.0} dB: {:.0} W drawn, {}.",
        full.crest,
        full.drawn(),
        hours_in_words(full.hours())
    );
    match (at_level, backoff) {
        (Some(budget), Some(backoff)) => words.push_str(&format!(
            " As loud as the brief asks, {backoff:.0} dB under that: {:.0} W drawn, {}.",
            budget.drawn(),
            hours_in_words(budget.hours())
        )),
        (None, Some(backoff)) => words.push_str(&format!(
            " On average it never gets as loud as the brief asks: it is {:.0} dB short.",
            -backoff
        )),
        _ => {}
    }
    if let Some(solar) = solar {
        words.push_str(&format!(" The sun pays for {} a day.", hours_in_words(solar)));
    }
    words.push_str(" Fuse it at the battery, and take a cable that carries the current.");
    Some(EnergyReport {
        rated,
        crest: full.crest,
        usable: full.usable,
        full: [full.drawn(), full.hours()],
        asked: at_level.map(|budget| [budget.backoff, budget.drawn(), budget.hours()]),
        solar,
        words,
    })
}
