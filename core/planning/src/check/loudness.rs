//! The asked level is reached cleanly at every frequency of the band.

use oak_acoustics::response::Limit;

use super::{Check, Verdict};
use crate::Case;

pub(super) fn judge(case: &Case<'_>) -> Option<Check> {
    let asked = case.brief.loudness?;
    let max_output = &case.computed.max_output;
    let clean = |k: usize| max_output.level[k] - case.away(k);
    let weakest = case.band.clone().min_by(|a, b| clean(*a).total_cmp(&clean(*b)))?;
    let reached = clean(weakest);
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
            let place = case.brief.playing.place.as_ref().filter(|_| case.brief.at_seats);
            let at = place.map_or(format!("{} m", case.brief.distance), |_| "at the seats".to_owned());
            format!("asked: {asked:.0} dB, {at}")
        } else {
            format!("{:.1} dB short at {frequency:.0} Hz", asked - reached)
        },
        verdict: Verdict::of(met),
        ratio: 10f64.powf((reached - asked) / 20.0),
        why: format!(
            "{}. The quietest spot of the band is {frequency:.0} Hz, where {holds}. The level falls by 6 dB for each doubling of the \
             distance in the open; in a room it falls less.",
            case.listeners()
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
