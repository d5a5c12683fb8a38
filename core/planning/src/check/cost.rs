//! The parts stay within the budget.

use super::{Check, Verdict};
use crate::Case;
use crate::build_plan::Cost;

pub(super) fn judge(case: &Case<'_>) -> Option<Check> {
    let budget = case.brief.budget?;
    let (id, name) = ("cost", "Cost of the parts");
    let Some(cost) = Cost::of(case) else {
        return Some(Check::unknown(
            id,
            name,
            "no price in the sheet",
            "Enter the price in the driver's sheet.",
        ));
    };
    let (total, met) = (cost.total, cost.total <= budget);
    let shops: Vec<String> =
        cost.shops.iter().map(|(shop, sum)| format!("{} {sum:.0}", shop.name().to_lowercase())).collect();
    let parts = if shops.is_empty() {
        "Estimated: the box was not looked at".to_owned()
    } else {
        let many =
            if cost.cabinets > 1 { format!(", for {} cabinets", cost.cabinets) } else { String::new() };
        format!("The parts list: {}{many}", shops.join(", "))
    };
    Some(Check {
        id,
        name,
        reached: format!("{total:.0}"),
        words: if met {
            format!("{:.0} left", budget - total)
        } else {
            format!("{:.0} over", total - budget)
        },
        verdict: Verdict::of(met),
        ratio: if total > 0.0 { budget / total } else { 2.0 },
        why: format!(
            "{parts}. Whole sheets and packs at usual prices, where the workshop's price list names no other; what is in stock costs nothing."
        ),
    })
}
