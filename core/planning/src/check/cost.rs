//! The drivers stay within the budget.

use super::{Check, Verdict};
use crate::Case;

pub(super) fn judge(case: &Case<'_>) -> Option<Check> {
    let budget = case.brief.budget?;
    let drivers = case.drivers();
    let (id, name) = ("cost", "Cost of the drivers");
    let Some(price) = case.design.driver.record.price else {
        return Some(Check::unknown(
            id,
            name,
            "no price in the sheet",
            "Type what one costs into the driver's sheet.",
        ));
    };
    let cost = price * f64::from(drivers);
    let met = cost <= budget;
    Some(Check {
        id,
        name,
        reached: format!("{cost:.0}"),
        words: if met { format!("{:.0} left", budget - cost) } else { format!("{:.0} over", cost - budget) },
        verdict: Verdict::of(met),
        ratio: if cost > 0.0 { budget / cost } else { 2.0 },
        why: format!("{drivers} at {price:.0} each. Wood, amplifier and the rest come on top."),
    })
}
