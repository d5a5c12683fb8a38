//! A build plan for people.

use chrono::{NaiveDate, NaiveDateTime, NaiveTime};
use oak_design::Problem;
use oak_design::conditions::RawQuestion;
use oak_design::file::{RawProgress, RawSaid};
use oak_design::resolve::{ResolvedDesign, check_progress};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use super::calendar::{Done, lay};
use super::catalogue::{Shop, finish_name};
use super::holes::HolePlan;
use super::kit::KitReport;
use super::making::Making;
use super::pages::{OutdatedReport, outdated, says};
use super::parts::{Item, PartsList};
use super::rounding::RoundedBox;
use super::sheets::SheetGroup;
use super::step::Step;
use super::veneer::VeneerPiece;
use super::with_making;

/// A design whose plan is wanted, and what has been done of it.
#[derive(Debug, Clone, PartialEq, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct RawPlanQuestion {
    /// The design, what it is for and how it is made.
    pub question: RawQuestion,
    /// What has been done.
    #[serde(default)]
    pub progress: RawProgress,
    /// This day, as year-month-day: the calendar begins no earlier.
    #[schema(max_length = 10)]
    pub today: String,
}

/// Everything that it takes to build a design.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct BuildPlan {
    /// How many equal cabinets.
    pub cabinets: u32,
    /// What is bought.
    pub items: Vec<ItemReport>,
    /// What each shop gets: its name and the sum.
    pub shops: Vec<ShopReport>,
    /// What everything costs; unknown where a part has no price.
    pub cost: Option<f64>,
    /// What it may cost.
    pub budget: Option<f64>,
    /// What a kit of ready-cut boards would make of it, where the workshop knows its price.
    pub kit: Option<KitReport>,
    /// Mass of one cabinet, kg.
    pub mass: f64,
    /// Work on all cabinets, h.
    pub hours: f64,
    /// The box with its boards cut to whole millimetres and to fractions of an inch.
    pub rounded: Vec<RoundedBox>,
    /// Boards on sheets.
    pub sheets: Vec<SheetGroupReport>,
    /// Veneer, where it is veneered.
    pub veneers: Vec<VeneerPiece>,
    /// Holes.
    pub holes: Vec<HolePlan>,
    /// Whether the lead comes in by something that no hole is drawn for.
    pub terminal_lacks_hole: bool,
    /// What is done, in order.
    pub steps: Vec<Step>,
    /// When; steps that are done are left out.
    pub calendar: Vec<SlotReport>,
    /// When the last step is done and dry.
    pub ends: Option<NaiveDateTime>,
    /// Surface in words.
    pub finish: &'static str,
    /// What pages say that are printed now.
    pub says: Vec<RawSaid>,
    /// Pages that were printed before and say something else now.
    pub outdated: Vec<OutdatedReport>,
    /// What keeps it from being built as planned, in words.
    pub faults: Vec<String>,
}

/// What a shop gets.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct ShopReport {
    /// Its name in files.
    pub id: Shop,
    /// What to call it.
    pub name: &'static str,
    /// What it gets; unknown where a part has no price.
    pub cost: Option<f64>,
}

/// One line of the parts list.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct ItemReport {
    /// What it is.
    #[serde(flatten)]
    pub item: Item,
    /// How many packs are bought.
    pub packs: f64,
    /// What all packs cost.
    pub cost: Option<f64>,
    /// Steps that use it.
    pub steps: Vec<String>,
}

/// Boards of one material and thickness on their sheets.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct SheetGroupReport {
    /// What they are of, in files.
    pub material: &'static str,
    /// What they are of.
    pub material_name: &'static str,
    /// m.
    pub thickness: f64,
    /// The sheets.
    pub sheets: Vec<SheetReport>,
    /// What is bought costs.
    pub cost: f64,
    /// Share of the sheets that is no board.
    pub waste: f64,
    /// The largest piece left, m2.
    pub offcut: f64,
    /// Boards that no sheet holds, by their numbers.
    pub too_large: Vec<u32>,
    /// Whether a long search found this layout.
    pub searched: bool,
}

/// One sheet.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct SheetReport {
    /// Width and length along the grain, m.
    pub size: [f64; 2],
    /// What it costs; nothing of what is at hand.
    pub price: f64,
    /// Whether it is an offcut at hand.
    pub at_hand: bool,
    /// The boards on it.
    pub boards: Vec<LaidReport>,
    /// What is left: lowest corner and size, m.
    pub offcuts: Vec<[[f64; 2]; 2]>,
    /// How it is cut.
    pub cuts: Vec<CutStepReport>,
}

/// A board on a sheet.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct LaidReport {
    /// Its number.
    pub number: u32,
    /// What it is.
    pub name: String,
    /// Its lowest corner, m.
    pub at: [f64; 2],
    /// Width and height as it lies, m.
    pub size: [f64; 2],
    /// Whether it lies turned by a right angle.
    pub turned: bool,
    /// Whether it is the mirror image of the drawn one, for the other half of a pair.
    pub mirrored: bool,
}

/// One cut.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct CutStepReport {
    /// What the fence is set to, m.
    pub fence: f64,
    /// Whether the fence moves for it.
    pub moves: bool,
    /// Whether it runs up the sheet.
    pub upright: bool,
    /// The piece that is cut: lowest corner and size, m.
    pub piece: [[f64; 2]; 2],
    /// m.
    pub length: f64,
    /// Boards that fall out of it ready, by their numbers.
    pub ready: Vec<u32>,
}

/// When something is done.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, ToSchema)]
pub struct SlotReport {
    /// Which step.
    pub step: String,
    /// What it is.
    pub title: String,
    /// Begins, in the workshop's own time.
    pub from: NaiveDateTime,
    /// Ends.
    pub to: NaiveDateTime,
    /// Whether it goes on after this.
    pub goes_on: bool,
    /// What dries or sets after it, and until when.
    pub waits: Option<(String, NaiveDateTime)>,
}

/// The plan of a design; `None` where it has no box.
///
/// # Errors
/// Every problem with design, brief, workshop, progress or day; why its box cannot be built.
pub fn build_plan(raw: &RawPlanQuestion) -> Result<Option<BuildPlan>, Vec<Problem>> {
    with_plan(raw, |_, _, plan| plan)
}

/// Does something with the plan of a design, with what it is made of and the design in its conditions; `None` where it has no box.
///
/// # Errors
/// As [`build_plan`].
pub fn with_plan<Made>(
    raw: &RawPlanQuestion,
    work: impl FnOnce(&Making<'_>, &ResolvedDesign, BuildPlan) -> Made,
) -> Result<Option<Made>, Vec<Problem>> {
    check_progress(&raw.progress).map_err(|problems| {
        problems.into_iter().map(|problem| problem.within("progress")).collect::<Vec<_>>()
    })?;
    let not_date = || {
        let kind = oak_design::ProblemKind::NotDate { given: raw.today.clone() };
        vec![Problem::new("today", kind)]
    };
    let today: NaiveDate = raw.today.parse().map_err(|_| not_date())?;
    with_making(&raw.question, |making, design| {
        let plan = plan(&making, &raw.progress, today);
        work(&making, design, plan)
    })
}

fn plan(making: &Making<'_>, progress: &RawProgress, today: NaiveDate) -> BuildPlan {
    let parts = making.parts();
    let steps = making.steps(&parts);
    let holes = making.holes();
    let says = says(making, &parts);
    let calendar = calendar(making, &steps, progress, today);
    let too_large = making.sheets.iter().flat_map(SheetGroup::too_large);
    let mut faults: Vec<String> =
        too_large.map(|number| format!("board {number} is larger than any sheet")).collect();
    faults.extend(
        holes
            .iter()
            .flat_map(|hole| hole.faults.iter().map(move |fault| format!("board {}: {fault}", hole.panel))),
    );
    faults.sort();
    faults.dedup();
    BuildPlan {
        cabinets: making.cabinets,
        shops: shops(&parts),
        cost: parts.total(),
        budget: making.brief.and_then(|brief| brief.budget),
        kit: KitReport::of(making, &parts, &steps),
        mass: making.weight.total(),
        hours: steps.iter().map(|step| step.minutes).sum::<f64>() / 60.0,
        rounded: making.rounded(),
        sheets: sheet_groups(making),
        veneers: making.veneers(),
        holes,
        terminal_lacks_hole: making.lacks_terminal_hole(),
        items: parts.items.iter().map(|item| self::item(item, &steps)).collect(),
        ends: calendar
            .last()
            .map(|_| {
                calendar.iter().map(|slot| slot.waits.as_ref().map_or(slot.to, |(_, until)| *until)).max()
            })
            .unwrap_or_default(),
        calendar,
        finish: finish_name(making.workshop.finish),
        outdated: outdated(progress, &says),
        says,
        steps,
        faults,
    }
}

fn shops(parts: &PartsList) -> Vec<ShopReport> {
    let used = Shop::ALL.into_iter().filter(|shop| parts.items.iter().any(|item| item.shop == *shop));
    used.map(|shop| ShopReport { id: shop, name: shop.name(), cost: parts.of_shop(shop) }).collect()
}

fn item(item: &Item, steps: &[Step]) -> ItemReport {
    let uses = steps.iter().filter(|step| step.parts.contains(&item.id)).map(|step| step.id.clone());
    ItemReport { item: item.clone(), packs: item.packs(), cost: item.cost(), steps: uses.collect() }
}

/// All groups; sheets are counted through them.
fn sheet_groups(making: &Making<'_>) -> Vec<SheetGroupReport> {
    let mirrored = making.mirrored();
    let mut left = mirrored.as_slice();
    let each = making.sheets.iter().map(|group| {
        let (own, rest) = left.split_at(group.layout.sheets.len());
        left = rest;
        sheet_group(making, group, own)
    });
    each.collect()
}

fn sheet_group(making: &Making<'_>, group: &SheetGroup, mirrored: &[Vec<bool>]) -> SheetGroupReport {
    let all_cuts = group.steps();
    let sheets = group.layout.sheets.iter().zip(all_cuts).zip(mirrored).map(|((one, cuts), mirrored)| {
        let sheet = group.sheets[one.sheet];
        SheetReport {
            size: sheet.size,
            price: sheet.price,
            at_hand: sheet.at_hand.is_some(),
            boards: one
                .root
                .laid()
                .zip(mirrored)
                .map(|(laid, mirrored)| {
                    let number = group.blanks[laid.blank].number;
                    let panel = making.cut.panels.iter().find(|panel| panel.number == number);
                    LaidReport {
                        number,
                        name: panel.map(|panel| panel.name.clone()).unwrap_or_default(),
                        at: laid.rect.at,
                        size: laid.rect.size,
                        turned: laid.turned != group.turned[laid.blank],
                        mirrored: *mirrored,
                    }
                })
                .collect(),
            offcuts: one.root.offcuts().map(|rect| [rect.at, rect.size]).collect(),
            cuts: cuts
                .into_iter()
                .map(|cut| CutStepReport {
                    fence: cut.fence,
                    moves: cut.moves,
                    upright: cut.upright,
                    piece: [cut.piece.at, cut.piece.size],
                    length: cut.length,
                    ready: cut.ready.iter().map(|at| group.blanks[*at].number).collect(),
                })
                .collect(),
        }
    });
    SheetGroupReport {
        material: group.material.id,
        material_name: group.material.name,
        thickness: group.thickness,
        sheets: sheets.collect(),
        cost: group.cost(),
        waste: group.waste(),
        offcut: group.layout.largest_offcut(),
        too_large: group.too_large(),
        searched: group.searched,
    }
}

fn calendar(
    making: &Making<'_>,
    steps: &[Step],
    progress: &RawProgress,
    today: NaiveDate,
) -> Vec<SlotReport> {
    let start = making.workshop.start.and_then(|[year, month, day]| {
        NaiveDate::from_ymd_opt(year, u32::try_from(month).ok()?, u32::try_from(day).ok()?)
    });
    let begin = start.map_or(today, |start| start.max(today)).and_time(NaiveTime::MIN);
    let done: Vec<Done> = progress
        .ticks
        .iter()
        .filter(|tick| !tick.failed)
        .filter_map(|tick| {
            let at = tick.at.get(..19)?.parse::<NaiveDateTime>().ok()?;
            Some(Done { step: tick.step.clone(), at })
        })
        .collect();
    let slots = lay(steps, &making.workshop.hours, begin, &done);
    slots
        .into_iter()
        .map(|slot| {
            let step = &steps[slot.step];
            SlotReport {
                step: step.id.clone(),
                title: step.title.clone(),
                from: slot.from,
                to: slot.to,
                goes_on: slot.goes_on,
                waits: step.wait.as_ref().filter(|_| !slot.goes_on).map(|(of, _)| (of.clone(), slot.ready)),
            }
        })
        .collect()
}
