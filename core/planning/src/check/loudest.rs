//! It never plays louder than the brief allows.

use super::{Check, Verdict};
use crate::Case;

/// What a rounding of shown figures may hide, dB.
const HIDDEN: f64 = 0.05;

pub(super) fn judge(case: &Case<'_>) -> Option<Check> {
    let most = case.brief.loudest?;
    // As loud as its amplifier makes it, whatever else runs out before.
    let levels: Vec<f64> =
        case.computed.response.level().enumerate().map(|(k, level)| level - case.away(k)).collect();
    let loudest = case.band.clone().max_by(|a, b| levels[*a].total_cmp(&levels[*b]))?;
    let reached = levels[loudest];
    let frequency = case.computed.response.frequency[loudest];
    let over = reached - most;
    let met = over <= HIDDEN;
    let share = 100.0 * 10f64.powf(-over / 10.0);
    Some(Check {
        id: "loudest",
        name: "Loudest",
        reached: format!("{reached:.1} dB"),
        words: if met {
            format!("never above {most:.0} dB")
        } else {
            format!("{over:.1} dB too loud at {frequency:.0} Hz")
        },
        verdict: Verdict::of(met),
        ratio: 10f64.powf(-over / 20.0),
        why: format!(
            "{}, at this drive and at its loudest frequency. {}",
            case.listeners(),
            if met {
                "The amplifier cannot make it louder.".to_owned()
            } else {
                format!("A limiter at {share:.0} % of the amplifier's power keeps to it.")
            }
        ),
    })
}
