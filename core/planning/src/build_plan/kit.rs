//! A kit of ready-cut boards against one's own wood.

use serde::Serialize;
use utoipa::ToSchema;

use super::making::Making;
use super::parts::PartsList;
use super::step::{Phase, Step};

/// What building from a kit comes to.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct KitReport {
    /// What the boards of all cabinets cost from the kit.
    pub boards: f64,
    /// What they cost cut from sheets; unknown where a sheet has no price.
    pub own_boards: Option<f64>,
    /// What everything costs with the kit; unknown where another part has no price.
    pub cost: Option<f64>,
    /// Work that is left, h.
    pub hours: f64,
    /// Steps that it saves, by their titles.
    pub saves: Vec<String>,
    /// Tools that only those steps need.
    pub tools: Vec<&'static str>,
}

impl KitReport {
    /// Of a plan, where the workshop knows what a kit costs. A kit comes cut and drilled: what is left begins with putting it together dry.
    pub(super) fn of(making: &Making<'_>, parts: &PartsList, steps: &[Step]) -> Option<Self> {
        let boards = making.each(making.workshop.kit?);
        let spared = |step: &&Step| matches!(step.phase, Phase::Cut | Phase::Holes);
        let (saved, left): (Vec<&Step>, Vec<&Step>) = steps.iter().partition(spared);
        let own = parts.items.iter().filter(|item| item.id.starts_with("board "));
        let own_boards: Option<f64> = own.map(|item| item.cost()).sum();
        let others = parts.items.iter().filter(|item| !item.id.starts_with("board "));
        let mut tools: Vec<&'static str> = saved.iter().flat_map(|step| step.tools.iter().copied()).collect();
        tools.retain(|tool| !left.iter().any(|step| step.tools.contains(tool)));
        tools.sort_unstable();
        tools.dedup();
        Some(Self {
            boards,
            own_boards,
            cost: others.map(|item| item.cost()).sum::<Option<f64>>().map(|cost| cost + boards),
            hours: left.iter().map(|step| step.minutes).sum::<f64>() / 60.0,
            saves: saved.iter().map(|step| step.title.clone()).collect(),
            tools,
        })
    }
}
