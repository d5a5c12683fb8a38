//! The cone stays within its travel at the asked level.

use super::{Check, Verdict};
use crate::Case;

pub(super) fn judge(case: &Case<'_>) -> Option<Check> {
    let drive = case.drive();
    let response = &case.computed.response;
    let travel: Vec<f64> = response.excursion().collect();
    let (at, farthest) = case
        .band
        .clone()
        .zip(&drive)
        .map(|(k, drive)| (k, travel[k] * drive))
        .max_by(|a, b| a.1.total_cmp(&b.1))?;
    let frequency = response.frequency[at];
    let (id, name, reached) = ("cone", "Travel at asked SPL", format!("±{:.1} mm", farthest * 1e3));
    let Some(xmax) = case.design.allowance.xmax else {
        let why = "Enter Xmax in the driver's sheet to have its travel checked.";
        return Some(Check { reached, ..Check::unknown(id, name, "no Xmax in the sheet", why) });
    };
    let met = farthest <= xmax * 1.001;
    Some(Check {
        id,
        name,
        reached,
        words: if met {
            format!("within ±{:.1} mm", xmax * 1e3)
        } else {
            format!("{:.1} mm too far at {frequency:.0} Hz", (farthest - xmax) * 1e3)
        },
        verdict: Verdict::of(met),
        ratio: xmax / farthest,
        why: format!(
            "At the asked level the cone moves farthest at {frequency:.0} Hz within the band. Beyond Xmax it distorts; far below the \
             tuning of a port it is not held at all, so a high-pass there protects it. More cone area needs less travel."
        ),
    })
}
