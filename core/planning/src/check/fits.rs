//! The box can be built as it is drawn.

use oak_cabinetry::Finding;
use oak_design::ProblemKind;
use oak_design::built::Built;

use super::{Check, Verdict};
use crate::Case;

/// How far what does not go in at all is from going in, for want of a measure.
const NOT_AT_ALL: f64 = 0.5;

pub(super) fn judge(case: &Case<'_>) -> Option<Check> {
    let Built { boxed, unbuildable, .. } = case.built();
    let refused = "cannot be built".to_owned();
    let (reached, short, words, ratio) = match (boxed, unbuildable) {
        (None, None) => return None,
        (_, Some(problem)) => {
            let reason = match &problem.kind {
                ProblemKind::Unbuildable { reason } => reason.clone(),
                other => other.to_string(),
            };
            (refused, reason, problem.kind.to_string(), NOT_AT_ALL)
        }
        (Some(boxed), None) => {
            let worst = boxed
                .cabinet
                .findings
                .iter()
                .filter(|finding| finding.forbids())
                .map(|finding| (ratio(finding), finding))
                .min_by(|a, b| a.0.total_cmp(&b.0));
            match worst {
                None => ("can be built".to_owned(), "everything fits".to_owned(), String::new(), 1.0),
                Some((ratio, finding)) => {
                    let part = finding.part().map(|part| format!("the {part} does not fit"));
                    (refused, part.unwrap_or("too full".to_owned()), finding.to_string(), ratio)
                }
            }
        }
    };
    let met = ratio >= 1.0;
    Some(Check {
        id: "fits",
        name: "Box, as drawn",
        reached,
        words: short,
        verdict: Verdict::of(met),
        ratio,
        why: if met {
            "Driver, ports and braces each have their place, with air around them.".to_owned()
        } else {
            format!(
                "{words} Ways to fix it: {}.",
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
