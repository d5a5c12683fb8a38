//! The amplifier stands the load.

use super::{Check, Verdict};
use crate::Case;

/// A minimum of the impedance may lie this far below the amplifier's minimum load: IEC 60268-5, 16.1, allows a fifth below the
/// nominal value, and the coil alone of many drivers is a quarter to a third below it (common practice).
const BELOW: f64 = 0.7;

/// Over one where an amplifier that stands a load (ohm) stands a nominal load whose impedance is lowest at a value (ohm).
fn ratio(nominal: f64, lowest: f64, stands: f64) -> f64 {
    // A rounding of nominal values must not refuse a load.
    (nominal / (0.99 * stands)).min(lowest / (BELOW * stands))
}

/// Whether an amplifier that stands a load (ohm) stands a nominal load whose impedance is lowest at a value (ohm).
pub(crate) fn load_stands(nominal: f64, lowest: f64, stands: f64) -> bool {
    ratio(nominal, lowest, stands) >= 1.0
}

pub(super) fn judge(case: &Case<'_>) -> Option<Check> {
    let asked = case.design.minimum_load.or(case.brief.load)?;
    let nominal = case.design.as_driven().nominal;
    let lowest = case.computed.figures.impedance_minimum;
    let ratio = ratio(nominal, lowest.value, asked);
    let met = ratio >= 1.0;
    Some(Check {
        id: "load",
        name: "Load",
        reached: format!("{nominal:.1} Ω"),
        words: if met {
            format!("asked: {asked:.0} Ω")
        } else if nominal < 0.99 * asked {
            format!("below the amplifier's {asked:.0} Ω")
        } else {
            format!("but {:.1} Ω at {:.0} Hz", lowest.value, lowest.frequency)
        },
        verdict: Verdict::of(met),
        ratio,
        why: format!(
            "The drivers are {nominal:.1} Ω together; the impedance is lowest at {:.0} Hz, {:.1} Ω. It may dip somewhat below \
             the amplifier's minimum load (a fifth by IEC 60268-5, a third in practice). An amplifier loaded too low overheats or shuts \
             off: wire coils or drivers in series, or take one with a higher impedance.",
            lowest.frequency, lowest.value
        ),
    })
}
