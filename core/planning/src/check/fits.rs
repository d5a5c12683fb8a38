//! The box can be built as it is drawn.

use oak_cabinetry::Finding;

use super::{Check, Verdict};
use crate::Case;

/// How far what does not go in at all is from going in, for want of a measure.
const NOT_AT_ALL: f64 = 0.5;

/// Judged once there is something written of the box.
pub(super) fn judge(case: &Case<'_>) -> Option<Check> {
    case.raw.body.as_ref()?;
    let (reached, words, ratio) = match case.design.build(&case.computed.compiled) {
        Ok(None) => return None,
        Ok(Some((_, cabinet))) => {
            let worst = cabinet
                .findings
                .iter()
                .filter(|finding| finding.forbids())
                .map(|finding| (ratio(finding), finding))
                .min_by(|a, b| a.0.total_cmp(&b.0));
            match worst {
                None => ("it fits".to_owned(), "everything has its place".to_owned(), 1.0),
                Some((ratio, finding)) => {
                    let part = finding.part().map_or("too full".to_owned(), |part| format!("not the {part}"));
                    (part, finding.to_string(), ratio)
                }
            }
        }
        Err(problem) => ("not so".to_owned(), problem.kind.to_string(), NOT_AT_ALL),
    };
    let met = ratio >= 1.0;
    Some(Check {
        id: "fits",
        name: "Box, as drawn",
        reached,
        words: if met { words.clone() } else { "does not fit".to_owned() },
        verdict: Verdict::of(met),
        ratio,
        why: if met {
            "Driver, ports and braces each have their place, with air around them.".to_owned()
        } else {
            format!(
                "{words} Ways out: {}.",
                if case.design.enclosure.path().is_some() {
                    "another number of folds, channels laid the other way, a larger box, thinner boards between the channels, or a \
                     smaller driver"
                } else {
                    "a turn in the port, a slot along a wall, a smaller port with faster air, a higher tuning, a larger box, a \
                     radiator in its place, or two drivers in one longer box"
                }
            )
        },
    })
}

/// 1 is just there.
fn ratio(finding: &Finding) -> f64 {
    match finding {
        Finding::PortTooLong { needs, has, .. } => (has / needs).min(0.999),
        Finding::FaceTooSmall { needs, has, .. } => {
            (has[0] / needs[0]).min(has[1] / needs[1]).clamp(0.01, 0.999)
        }
        _ => NOT_AT_ALL,
    }
}
