//! From a drawn box to what is bought, cut and done.
//!
//! `making` is a design with the workshop it is made in; `amounts` are its areas and joints, `sheets` its boards on sheets, `holes` every hole with
//! template and pilot, `veneer` its pieces, `parts` what is bought, `steps` what is done in which order, `hands` whether a hand gets there, `calendar` when. `terminal` finds a place for its hole, `rounding` is a box cut to a rule's divisions, `kit` compares ready-cut boards with own wood.
//! `catalogue`, `hardware` and `finish` are facts of the trade. `mirrored` are the boards of a pair's other half, `pages` is what printed pages say; `phone` is what a phone in the workshop shows and says; `report` is all of it for people.

mod amounts;
pub mod calendar;
pub mod catalogue;
mod drawings;
mod exchange;
pub mod finish;
mod hands;
pub mod hardware;
mod holes;
mod kit;
mod making;
mod mirrored;
mod pages;
mod parts;
mod phone;
mod report;
mod rounding;
mod sheets;
mod step;
mod steps;
mod terminal;
mod veneer;

pub use amounts::Amounts;
pub(crate) use exchange::table;
pub use exchange::{calendar_file, parts_table, price_table, prices_of};
pub use holes::HolePlan;
pub use kit::KitReport;
pub use making::Making;
pub(crate) use parts::unboxed_cost;
pub use parts::{Item, PartsList};
pub use phone::{StepsOnPhone, ToldStep, take_over};
pub use report::{
    BuildPlan, ItemReport, RawPlanQuestion, SheetGroupReport, SheetReport, SlotReport, build_plan, with_plan,
};
pub use rounding::RoundedBox;
pub use sheets::SheetGroup;
pub use step::{Measures, Phase, Remedy, Step};
pub use terminal::{TerminalReport, with_terminal};
pub use veneer::VeneerPiece;

use oak_cabinetry::drawing::Drawing;
use oak_cabinetry::sheet::Search;
use oak_design::Problem;
use oak_design::conditions::{Question, RawQuestion};
use oak_design::file::RawLayout;
use oak_design::resolve::ResolvedDesign;

use crate::Case;
use catalogue::Shop;

impl Making<'_> {
    /// What is done, in order.
    pub fn steps(&self, parts: &PartsList) -> Vec<Step> {
        steps::steps(self, parts)
    }
}

/// What everything costs that a design is made of.
#[derive(Debug, Clone, PartialEq)]
pub struct Cost {
    /// Of all cabinets.
    pub total: f64,
    /// How many cabinets.
    pub cabinets: u32,
    /// What each shop gets; empty where the box was not looked at.
    pub shops: Vec<(Shop, f64)>,
}

impl Cost {
    /// Of a design; `None` where its driver has no price. Of a box that nobody has looked at it is estimated.
    pub fn of(case: &Case<'_>) -> Option<Self> {
        let cabinets = case.brief.cabinets;
        let Some(making) = Making::of(case.raw, case.built(), Some(case.brief)) else {
            let price = case.design.driver.record.price?;
            let total = unboxed_cost(case.raw, case.drivers(), case.air(), cabinets, price);
            return Some(Self { total, cabinets, shops: Vec::new() });
        };
        let parts = making.parts();
        let shops = Shop::ALL.iter().filter_map(|shop| {
            let cost = parts.of_shop(*shop)?;
            (cost > 0.0).then_some((*shop, cost))
        });
        Some(Self { total: parts.total()?, cabinets, shops: shops.collect() })
    }
}

/// A longer look for a better layout on the sheets of a design, one for every material and thickness; those that none was found for are left out.
///
/// # Errors
/// Every problem with design or brief; why its box cannot be built.
pub fn search_layouts(
    question: &RawQuestion,
    rounds: u32,
    told: &mut dyn FnMut(u32, u32),
    stop: &oak_acoustics::Stop,
) -> Result<Vec<RawLayout>, Vec<Problem>> {
    let found = with_making(question, |mut making, _| {
        let saw = making.workshop.saw;
        let count = making.sheets.len() as u32;
        for (at, group) in (0..).zip(&mut making.sheets) {
            let mut hear = |done: u32, of: u32| told(at * of + done, count * of);
            sheets::search(group, &saw, rounds, Search { told: &mut hear, stop });
        }
        let found = making.sheets.into_iter().filter(|group| group.searched).map(|group| RawLayout {
            boards: group.fingerprint,
            order: group.recipe.order.iter().map(|at| *at as u32).collect(),
            rule: group.recipe.rule as u32,
        });
        found.collect()
    })?;
    Ok(found.unwrap_or_default())
}

/// A board or a sheet that is to be drawn.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Flat {
    /// A board, by its number.
    Panel(u32),
    /// A sheet, counted through all materials from 0.
    Sheet(usize),
}

/// A board or a sheet of a design at full size; `None` where there is none of that number.
///
/// # Errors
/// Every problem with design or brief; why its box cannot be built.
pub fn flat_drawing(question: &RawQuestion, flat: Flat) -> Result<Option<Drawing>, Vec<Problem>> {
    let drawn = with_making(question, |making, _| match flat {
        Flat::Panel(number) => making.panel_drawing(number),
        Flat::Sheet(at) => making.sheet_drawing(at),
    })?;
    Ok(drawn.flatten())
}

/// Does something with the making of a question, and its design in its conditions; `None` where it has no box.
///
/// # Errors
/// Every problem with design or brief; why its box cannot be built.
pub fn with_making<Made>(
    question: &RawQuestion,
    work: impl FnOnce(Making<'_>, &ResolvedDesign) -> Made,
) -> Result<Option<Made>, Vec<Problem>> {
    let Question { design, brief } = question.resolve()?;
    let workshop = question.conditions.made()?;
    let one = |problem| vec![problem];
    let built = design.built().map_err(one)?;
    built.drawn().map_err(one)?;
    let making = Making::with(&question.design, &built, brief.as_ref(), workshop.as_ref());
    Ok(making.map(|making| work(making, &design)))
}
