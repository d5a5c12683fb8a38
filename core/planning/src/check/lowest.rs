//! The lowest note is heard in full.

use super::{Check, Verdict};
use crate::Case;

pub(super) fn judge(case: &Case<'_>) -> Option<Check> {
    let asked = case.brief.lowest?;
    let figures = &case.computed.figures;
    let reached = figures.f3;
    // A grid point is not a promise: a tenth of a percent is within what any box is built to.
    let met = reached.is_some_and(|f3| f3 <= asked * 1.001);
    let words = match reached {
        _ if met => format!("asked: {asked:.1} Hz"),
        Some(f3) => format!("{:.1} Hz too high", f3 - asked),
        None => "nowhere".to_owned(),
    };
    let six = figures.f6.map_or(String::new(), |f6| format!(" At {f6:.1} Hz it is 6 dB down."));
    Some(Check {
        id: "lowest",
        name: "Lowest note, −3 dB",
        reached: reached.map_or("–".to_owned(), |f3| format!("{f3:.1} Hz")),
        words,
        verdict: Verdict::of(met),
        ratio: reached.map_or(0.0, |f3| asked / f3),
        why: if met {
            format!("The level is within 3 dB of its plain from there up.{six}")
        } else {
            format!(
                "Below it the note fades.{six} More volume with a lower tuning, a driver with more Vas or a lower Fs, or \
                 mass on the cone go lower; a room or car adds level below its lowest mode that is not counted here."
            )
        },
    })
}
