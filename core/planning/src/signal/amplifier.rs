//! How the amplifier suits the drivers.

use oak_acoustics::response::mean_share;
use oak_signal::amplifier::headroom as to_spare;
use serde::Serialize;
use utoipa::ToSchema;

use super::survey::Survey;
use crate::check::load_stands;

/// The amplifier here.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct AmplifierReport {
    /// Power into this load at clipping, W; absent where no amplifier is known.
    pub power: Option<f64>,
    /// Nominal load, ohm.
    pub load: f64,
    /// Its voltage, V RMS.
    pub volts: Option<f64>,
    /// Its current, A RMS.
    pub current: Option<f64>,
    /// One after another: power, load, headroom, the room that it takes in the box.
    pub verdicts: Vec<AmplifierVerdict>,
}

/// One thing about the amplifier.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct AmplifierVerdict {
    /// What it is about.
    pub name: &'static str,
    /// Whether it suits; absent where it is neither.
    pub met: Option<bool>,
    /// How much, why and what to do.
    pub words: String,
}

pub(super) fn report(survey: &Survey) -> AmplifierReport {
    let design = &survey.design;
    let load = design.as_driven().nominal;
    let volts = design.allowance.volts;
    let power = volts.map(|volts| volts * volts / load);
    let verdicts = [
        power_against_heat(survey, power),
        minimum_load(survey),
        headroom(survey, volts),
        filters(survey),
        mounting(survey),
    ];
    AmplifierReport {
        power,
        load,
        volts,
        current: design.allowance.amperes,
        verdicts: verdicts.into_iter().flatten().collect(),
    }
}

fn power_against_heat(survey: &Survey, power: Option<f64>) -> Option<AmplifierVerdict> {
    let power = power?;
    let allowance = &survey.design.allowance;
    let heat = allowance.heat?;
    let mean = power * mean_share(allowance.crest);
    let share = mean / heat;
    let (met, words) = if share > 1.0 {
        (
            Some(false),
            format!(
                "{power:.0} W at clipping are {mean:.0} W of mean power for this programme, above the {heat:.0} W that the coils stand for hours. Turn down by {:.1} dB, or take drivers with more Pe.",
                10.0 * share.log10()
            ),
        )
    } else if power > 2.0 * heat {
        (
            None,
            format!(
                "{power:.0} W at clipping, {mean:.0} W of mean power; the coils stand {heat:.0} W. Builders differ: no more than the driver's rating, or several times it for headroom. With this much keep a high-pass and a limit."
            ),
        )
    } else {
        (
            Some(true),
            format!(
                "{power:.0} W at clipping are {mean:.0} W of mean power for this programme; the coils stand {heat:.0} W."
            ),
        )
    };
    Some(AmplifierVerdict { name: "Power", met, words })
}

fn minimum_load(survey: &Survey) -> Option<AmplifierVerdict> {
    let brief = survey.brief.as_ref().and_then(|brief| brief.load);
    let stands = survey.design.minimum_load.or(brief)?;
    let nominal = survey.design.as_driven().nominal;
    let lowest = survey.figures.impedance_minimum;
    let met = load_stands(nominal, lowest.value, stands);
    let words = format!(
        "Nominal {nominal:.1} Ω, lowest {:.1} Ω at {:.0} Hz; the amplifier stands {stands:.0} Ω.{}",
        lowest.value,
        lowest.frequency,
        if met { "" } else { " Wire coils or drivers in series, or take one that stands less." }
    );
    Some(AmplifierVerdict { name: "Load", met: Some(met), words })
}

/// Voltage against what the asked level takes at the hardest frequency of the band.
fn headroom(survey: &Survey, volts: Option<f64>) -> Option<AmplifierVerdict> {
    let (asked, volts) = (survey.asked()?, volts?);
    let brief = survey.brief.as_ref()?;
    let lowest = brief.lowest?;
    let band = survey.nearest(lowest)..=survey.nearest(crate::case::upper_end(brief, lowest));
    let needed = band
        .map(|k| (survey.response.drive[k].norm() * 10f64.powf((asked - survey.level[k]) / 20.0), k))
        .max_by(|a, b| a.0.total_cmp(&b.0))?;
    let (needs, at) = (needed.0, survey.frequencies()[needed.1]);
    let spare = to_spare(volts, needs);
    let met = spare >= -0.05;
    let words = if met {
        format!(
            "The asked level takes {needs:.1} V at {at:.0} Hz; the amplifier has {volts:.1} V, {spare:.1} dB to spare."
        )
    } else {
        format!(
            "The asked level takes {needs:.1} V at {at:.0} Hz, {:.1} dB more than the amplifier's {volts:.1} V: {:.1} times the power, or twice as many woofers in parallel \
             (+6 dB at the same voltage, half the load).",
            -spare,
            10f64.powf(-spare / 10.0)
        )
    };
    Some(AmplifierVerdict { name: "Headroom", met: Some(met), words })
}

fn filters(survey: &Survey) -> Option<AmplifierVerdict> {
    let [most, at] = survey.chain().most;
    (most > 0.5).then(|| AmplifierVerdict {
        name: "Boost",
        met: None,
        words: format!("The filters boost by {most:.1} dB at {at:.0} Hz: a signal there clips the amplifier {most:.1} dB earlier."),
    })
}

/// Whether there is room for it in its board, with air behind.
fn mounting(survey: &Survey) -> Option<AmplifierVerdict> {
    let built = &survey.built;
    let item = built.design.body.items.iter().rev().find(|item| item.name.starts_with("amplifier"))?;
    let taken = format!("It takes {:.1} l of the box", item.volume * 1e3);
    let Some(boxed) = &built.boxed else {
        return Some(AmplifierVerdict {
            name: "In the box",
            met: None,
            words: format!("{taken}, which is not drawn."),
        });
    };
    let about = |words: &String| words.to_lowercase().contains("amplifier");
    let wrong: Vec<String> = boxed
        .cabinet
        .findings
        .iter()
        .filter(|finding| finding.forbids())
        .map(ToString::to_string)
        .filter(about)
        .collect();
    let part = boxed.cabinet.parts.iter().find(|part| part.label.as_deref() == Some(item.name.as_str()));
    let (met, words) = match (part, wrong.is_empty()) {
        (Some(_), true) => (
            true,
            format!(
                "{taken} and has room there. Leave some air behind it, and look whether its back is sealed before building a divider."
            ),
        ),
        (Some(_), false) => (false, format!("{taken} and has no room there: {}", wrong.join(" "))),
        (None, _) => (false, format!("{taken}, and its board is not there.")),
    };
    Some(AmplifierVerdict { name: "In the box", met: Some(met), words })
}
