//! How long ears stand it.

use oak_signal::exposure::{a_weighting, allowed_time, dose};
use serde::Serialize;
use utoipa::ToSchema;

use super::scene::Scene;

/// How long ears stand the level (NIOSH publication 98-126, 1998).
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct ExposureReport {
    /// Level at the seats, dB.
    pub level: f64,
    /// Whether that is what the brief asks; otherwise it is what this drive gives.
    pub asked: bool,
    /// The bass alone, through the A-curve and with the spectrum at the seats, dB(A).
    pub weighted: f64,
    /// How long the bass alone may last, s.
    pub bass: f64,
    /// How long it may last where everything else is so loud that this level is dB(A), s.
    pub whole: f64,
    /// Dose of the playing time in that case, % of a day's; nothing where no time is named.
    pub dose: Option<f64>,
    /// All that in words.
    pub words: String,
}

/// Longer than a day is as good as without limit, s.
const DAY: f64 = 86_400.0;

pub(super) fn report(scene: &Scene<'_>) -> ExposureReport {
    let (level, asked) = scene.loudness();
    let spectrum = scene.spectrum();
    let sum = |weigh: fn(f64) -> f64| -> f64 {
        spectrum.iter().map(|(frequency, level)| 10f64.powf((level + weigh(*frequency)) / 10.0)).sum()
    };
    let curve = 10.0 * (sum(a_weighting) / sum(|_| 0.0)).log10();
    let weighted = level + curve;
    let [bass, whole] = [allowed_time(weighted), allowed_time(level)];
    let dose = scene.place.hours.map(|time| dose(&[[level, time]]));
    let time = |time: f64| {
        if time >= DAY {
            "as long as one likes".to_owned()
        } else {
            format!("{} a day", oak_signal::energy::hours_in_words(time / 3600.0))
        }
    };
    let here = match (scene.brief, asked) {
        (Some(brief), true) if !brief.at_seats => format!(
            "As loud as the brief asks in the open, {:.0} dB at {} m, it is {level:.0} dB at the seats. ",
            brief.loudness.unwrap_or(level),
            brief.distance
        ),
        (_, true) => format!("As the brief asks, it is {level:.0} dB at the seats. "),
        (_, false) => format!("At this drive it is {level:.0} dB at the seats. "),
    };
    let mut words = format!(
        "{here}Bass alone counts {weighted:.0} dB(A), because A-weighting takes {:.0} dB off it, and may last {}. Music of {level:.0} dB(A) may last {}.",
        -curve,
        time(bass),
        time(whole)
    );
    match dose {
        Some(dose) if dose > 200.0 => {
            words.push_str(&format!(" The playing time would be {:.0} days' dose.", dose / 100.0));
        }
        Some(dose) => words.push_str(&format!(" The playing time would be {dose:.0} % of a day's dose.")),
        None => {}
    }
    ExposureReport { level, asked, weighted, bass, whole, dose, words }
}
