//! What a phone in the workshop shows of a plan, and what it says back.

use chrono::DateTime;
use oak_design::file::{RawProgress, RawTick};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use super::report::BuildPlan;
use super::step::Step;

/// The steps of a build on a phone.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct StepsOnPhone {
    /// Name of the build.
    pub build: String,
    /// Name of the variant.
    pub variant: String,
    /// What is done, in order.
    pub steps: Vec<Step>,
    /// Parts by their name in steps, with what to call them.
    pub parts: Vec<(String, String)>,
    /// Boards by their number, with what to call them.
    pub boards: Vec<(u32, String)>,
    /// Steps that are done or that failed.
    pub ticks: Vec<RawTick>,
}

impl StepsOnPhone {
    /// Of a plan and what has been done of it.
    pub fn of(build: String, variant: String, plan: BuildPlan, ticks: Vec<RawTick>) -> Self {
        let laid = plan.sheets.iter().flat_map(|group| &group.sheets).flat_map(|sheet| &sheet.boards);
        let mut boards: Vec<_> = laid.map(|board| (board.number, board.name.clone())).collect();
        boards.sort();
        boards.dedup();
        let parts = plan.items.into_iter().map(|line| (line.item.id, line.item.name)).collect();
        Self { build, variant, steps: plan.steps, parts, boards, ticks }
    }
}

/// What became of a step, as a phone says it.
#[derive(Debug, Clone, PartialEq, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct ToldStep {
    /// Which step, by its name in the plan.
    #[schema(max_length = 80)]
    pub step: String,
    /// When, in RFC 3339.
    #[schema(max_length = 40)]
    pub at: String,
    /// Whether it is done; else nothing is said of it any more.
    pub done: bool,
}

/// Takes over what became of a step elsewhere: what was said of it last stands, by the moments of both.
pub fn take_over(progress: &mut RawProgress, told: &ToldStep) {
    let moment = |text: &str| DateTime::parse_from_rfc3339(text).ok();
    let same = |known: &&RawTick| known.step == told.step;
    if progress.ticks.iter().filter(same).any(|known| moment(&known.at) > moment(&told.at)) {
        return;
    }
    progress.ticks.retain(|known| known.step != told.step);
    if told.done {
        progress.ticks.push(RawTick { step: told.step.clone(), at: told.at.clone(), failed: false });
    }
}
