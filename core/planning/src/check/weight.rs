//! It can be carried.

use oak_design::built::Boxed;
use oak_design::report::WeightReport;

use super::{Check, Verdict};
use crate::Case;

pub(super) fn judge(case: &Case<'_>) -> Option<Check> {
    let most = case.brief.weight?;
    let built = case.built();
    let Boxed { contents, cabinet } = built.boxed.as_ref()?;
    let weight = WeightReport::of(&built.design, contents, cabinet);
    let total = weight.total();
    let met = total <= most;
    Some(Check {
        id: "weight",
        name: if case.brief.cabinets > 1 { "Weight of one" } else { "Weight" },
        reached: format!("{total:.1} kg"),
        words: if met {
            format!("{:.1} kg to spare", most - total)
        } else {
            format!("{:.1} kg too heavy", total - most)
        },
        verdict: Verdict::of(met),
        ratio: most / total,
        why: format!(
            "Panels {:.1} kg, boards inside {:.1} kg, fill {:.1} kg, radiators and tubes {:.1} kg, drivers {:.1} kg estimated from their frames. Lighter plywood, thinner panels with \
             a brace, or a neodymium driver weigh less. Lift anything over 25 kg with two people (common practice).",
            weight.panels,
            weight.braces,
            weight.fill,
            weight.radiators + weight.tubes,
            weight.drivers
        ),
    })
}
