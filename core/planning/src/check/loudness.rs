//! The asked level is reached cleanly at every frequency of the band.

use oak_acoustics::response::Limit;

use super::{Check, Verdict};
use crate::Case;

pub(super) fn judge(case: &Case<'_>) -> Option<Check> {
    let asked = case.brief.loudness?;
    let distance = case.brief.distance;
    let max_output = &case.computed.max_output;
    let weakest = case.band.clone().min_by(|a, b| max_output.level[*a].total_cmp(&max_output.level[*b]))?;
    let reached = max_output.level[weakest] - 20.0 * distance.log10();
    let frequency = case.computed.response.frequency[weakest];
    let met = reached >= asked - 0.05;
    let holds = holds_back(max_output.limit[weakest]);
    let (name, id) = ("Loudness, clean", "loudness");
    if !reached.is_finite() {
        return Some(Check::unknown(
            id,
            name,
            "nothing limits it: give the amplifier's power",
            "Without an amplifier's power, a cone's travel or an air speed nothing limits the level.",
        ));
    }
    Some(Check {
        id,
        name,
        reached: format!("{reached:.1} dB"),
        words: if met {
            format!("asked: {asked:.0} dB, {distance} m")
        } else {
            format!("{:.1} dB short at {frequency:.0} Hz", asked - reached)
        },
        verdict: Verdict::of(met),
        ratio: 10f64.powf((reached - asked) / 20.0),
        why: format!(
            "In the space that the brief names, {distance} m away. The quietest spot of the band is {frequency:.0} Hz, where {holds}. The level falls by 6 dB for each doubling of the \
             distance in the open; in a room it falls less."
        ),
    })
}

fn holds_back(limit: Option<Limit>) -> &'static str {
    match limit {
        Some(Limit::Voltage | Limit::Current) => {
            "the amplifier runs out; more power, or a lower impedance it can stand, helps"
        }
        Some(Limit::Heat) => "the coil gets too hot; a second driver or one with more Pe helps",
        Some(Limit::Cone) => {
            "the cone runs out of travel; a tuning near that frequency, more cone area or a protective high-pass helps"
        }
        Some(Limit::Radiator) => "the radiator runs out of travel; a larger one or two of them help",
        Some(Limit::Air) => "the air in the port gets loud; a larger port or flares help",
        None => "nothing limits it",
    }
}
