//! What a build plan is made of.

use std::sync::LazyLock;

use oak_cabinetry::{Cabinet, Contents};
use oak_design::built::{Boxed, Built};
use oak_design::file::{RawDesign, RawTerminal};
use oak_design::report::{CutReport, WeightReport};
use oak_design::resolve::{Brief, Workshop};

use super::amounts::Amounts;
use super::sheets::{SheetGroup, groups};

/// A design that is to be built, and how.
pub struct Making<'a> {
    /// As typed.
    pub raw: &'a RawDesign,
    /// As it is built.
    pub built: &'a Built,
    /// What goes into its box.
    pub contents: &'a Contents,
    /// Its box.
    pub cabinet: &'a Cabinet,
    /// How it is made.
    pub workshop: &'a Workshop,
    /// What it is for.
    pub brief: Option<&'a Brief>,
    /// How many equal ones.
    pub cabinets: u32,
    /// Its boards, of all cabinets.
    pub cut: CutReport,
    /// What one cabinet weighs.
    pub weight: WeightReport,
    /// Areas and lengths of one cabinet.
    pub amounts: Amounts,
    /// Its boards on their sheets.
    pub sheets: Vec<SheetGroup>,
}

/// What is usual where nobody said how it is made.
static USUAL: LazyLock<Workshop> = LazyLock::new(Workshop::default);

impl<'a> Making<'a> {
    /// Of a built design; `None` where it has no box that can be drawn.
    pub fn of(raw: &'a RawDesign, built: &'a Built, brief: Option<&'a Brief>) -> Option<Self> {
        Self::with(raw, built, brief, brief.and_then(|brief| brief.workshop.as_ref()))
    }

    /// The same in a workshop of its own.
    pub fn with(
        raw: &'a RawDesign,
        built: &'a Built,
        brief: Option<&'a Brief>,
        workshop: Option<&'a Workshop>,
    ) -> Option<Self> {
        let Boxed { contents, cabinet } = built.boxed.as_ref()?;
        let workshop = workshop.unwrap_or(&USUAL);
        let cut = CutReport::of(built)?;
        let weight = WeightReport::of(&built.design, contents, cabinet);
        let cabinets = built.design.cabinets.max(1);
        let amounts = Amounts::of(&cut.panels, cabinets);
        let sheets = groups(&cut.panels, workshop);
        Some(Self { raw, built, contents, cabinet, workshop, brief, cabinets, cut, weight, amounts, sheets })
    }

    /// What is multiplied by the number of cabinets.
    pub(super) fn each(&self, amount: f64) -> f64 {
        amount * f64::from(self.cabinets)
    }

    /// What a driver is called.
    pub(super) fn driver_name(&self) -> String {
        let name = self.raw.driver.name.trim();
        if name.is_empty() { "Driver".to_owned() } else { name.to_owned() }
    }

    /// Whether its amplifier is in the box.
    pub(super) fn has_amplifier_inside(&self) -> bool {
        self.built.design.body.items.iter().any(|item| item.name.starts_with("amplifier"))
    }

    /// Whether the lead comes in by something that no hole is drawn for.
    pub(super) fn lacks_terminal_hole(&self) -> bool {
        let let_in = |item: &oak_cabinetry::Item| {
            item.block.is_some_and(|block| block.opening.is_some()) && !item.name.starts_with("handle")
        };
        self.workshop.terminal != RawTerminal::None
            && !self.has_amplifier_inside()
            && !self.built.design.body.items.iter().any(let_in)
    }

    /// Bolts of one driver, and the hole of its frame for one, m.
    pub(super) fn bolts(&self) -> (u32, f64) {
        let drivers = &self.contents.drivers;
        drivers.bolts.map_or_else(
            || (super::hardware::usual_bolts(drivers.frame), 0.0055),
            |bolts| (bolts.count, bolts.hole),
        )
    }
}
