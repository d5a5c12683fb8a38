//! The parts stay within the budget.

use super::{Check, Verdict};
use crate::Case;
use crate::price::{Priced, USUAL};

pub(super) fn judge(case: &Case<'_>) -> Option<Check> {
    let budget = case.brief.budget?;
    let (id, name) = ("cost", "Cost of the parts");
    let Some(priced) = Priced::of(case, &USUAL) else {
        return Some(Check::unknown(
            id,
            name,
            "no price in the sheet",
            "Enter the price in the driver's sheet.",
        ));
    };
    let cost = priced.total();
    let met = cost <= budget;
    let said = |what: &str, cost: f64| (cost >= 0.5).then(|| format!("{what} {cost:.0}"));
    let parts = [
        Some(format!("{} at {:.0}", plural(case.drivers()), priced.driver)),
        said("radiators", priced.radiators),
        said("ports", priced.ports),
        said("boards", priced.boards),
    ];
    Some(Check {
        id,
        name,
        reached: format!("{cost:.0}"),
        words: if met { format!("{:.0} left", budget - cost) } else { format!("{:.0} over", cost - budget) },
        verdict: Verdict::of(met),
        ratio: if cost > 0.0 { budget / cost } else { 2.0 },
        why: format!(
            "{}{}. Radiators, ports and boards at usual prices, with {:.0} % left of the sheets; amplifier, glue and finish come on top.",
            parts.into_iter().flatten().collect::<Vec<_>>().join(", "),
            if priced.cabinets > 1 {
                format!(": {:.0} for one of {} cabinets", cost / f64::from(priced.cabinets), priced.cabinets)
            } else {
                String::new()
            },
            USUAL.waste * 100.0
        ),
    })
}

fn plural(drivers: u32) -> String {
    if drivers == 1 { "one driver".to_owned() } else { format!("{drivers} drivers") }
}
