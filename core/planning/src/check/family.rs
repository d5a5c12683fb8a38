//! The kind of cabinet is one of those that are allowed.

use super::{Check, Verdict};
use crate::Case;

pub(super) fn judge(case: &Case<'_>) -> Option<Check> {
    let family = case.raw.enclosure.family;
    let allowed = &case.brief.families;
    if allowed.is_empty() || allowed.contains(&family) {
        return None;
    }
    let names: Vec<_> = allowed.iter().map(|family| family.name()).collect();
    Some(Check {
        id: "family",
        name: "Kind of cabinet",
        reached: family.name().to_owned(),
        words: "not among those allowed".to_owned(),
        verdict: Verdict::Short,
        ratio: 0.0,
        why: format!("The brief allows: {}.", names.join(", ")),
    })
}
