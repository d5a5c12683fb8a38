//! Which sheets are bought, and how the boards lie on them.

use std::fmt::Write as _;

use oak_cabinetry::panel::Material;
use oak_cabinetry::sheet::{
    Blank, CutStep, Effort, Layout, Recipe, Saw, Search, Sheet, is_no_worse, lay_out, lay_out_as, steps,
};
use oak_design::report::CutPanel;
use oak_design::resolve::Workshop;

use super::catalogue::board_price;

/// Sheets as they are usually sold, width and length along the grain, m, and how much dearer their area is than that of the first (common
/// practice: whole, halves and quarters).
const USUAL: [([f64; 2], f64); 3] = [([1.22, 2.44], 1.0), ([1.22, 1.22], 1.1), ([0.61, 1.22], 1.2)];
/// Boards of a thickness are within this of it, m.
const SAME: f64 = 5e-5;

/// The sheets of one material and thickness with the boards on them.
#[derive(Debug, Clone, PartialEq)]
pub struct SheetGroup {
    /// What they are of.
    pub material: &'static Material,
    /// m.
    pub thickness: f64,
    /// What could be bought or is at hand.
    pub sheets: Vec<Sheet>,
    /// The boards, each by itself.
    pub blanks: Vec<Blank>,
    /// Of which of them the sides stand exchanged, because their grain runs across.
    pub turned: Vec<bool>,
    /// How they lie.
    pub layout: Layout,
    /// How that was found.
    pub recipe: Recipe,
    /// Which boards on which sheets this is for.
    pub fingerprint: String,
    /// Whether a long search found it.
    pub searched: bool,
}

impl SheetGroup {
    /// What its sheets cost.
    pub fn cost(&self) -> f64 {
        self.layout.cost(&self.sheets)
    }

    /// How many of each kind of sheet are bought, with its size and price.
    pub fn bought(&self) -> Vec<(Sheet, u32)> {
        let count = |kind: usize| self.layout.sheets.iter().filter(|one| one.sheet == kind).count() as u32;
        let all = self.sheets.iter().enumerate().filter(|(_, sheet)| sheet.at_hand.is_none());
        all.map(|(kind, sheet)| (*sheet, count(kind))).filter(|(_, count)| *count > 0).collect()
    }

    /// Share of the sheets that is no board.
    pub fn waste(&self) -> f64 {
        let sheets: f64 =
            self.layout.sheets.iter().map(|one| self.sheets[one.sheet].size.iter().product::<f64>()).sum();
        let boards: f64 = self.layout.laid().map(|(_, laid)| laid.rect.area()).sum();
        if sheets > 0.0 { 1.0 - boards / sheets } else { 0.0 }
    }

    /// How each sheet is cut.
    pub fn steps(&self) -> Vec<Vec<CutStep>> {
        self.layout.sheets.iter().map(|one| steps(&one.root)).collect()
    }

    /// Boards that no sheet holds, by their numbers.
    pub fn too_large(&self) -> Vec<u32> {
        self.layout.left.iter().map(|at| self.blanks[*at].number).collect()
    }
}

/// What is cut from sheets: no strips, which are bought as strips.
pub(super) fn is_of_sheets(panel: &CutPanel) -> bool {
    !panel.name.starts_with("corner strip")
}

/// The boards on their sheets, material by material.
pub(super) fn groups(panels: &[CutPanel], workshop: &Workshop) -> Vec<SheetGroup> {
    let mut found: Vec<SheetGroup> = Vec::new();
    for panel in panels.iter().filter(|panel| is_of_sheets(panel)) {
        let Some(material) = Material::named(panel.material) else { continue };
        let same = |group: &SheetGroup| {
            group.material == material && (group.thickness - panel.thickness).abs() < SAME
        };
        let at = found.iter().position(same).unwrap_or_else(|| {
            found.push(empty(material, panel.thickness, workshop));
            found.len() - 1
        });
        add(&mut found[at], panel, workshop);
    }
    for group in &mut found {
        lay(group, workshop);
    }
    found
}

fn empty(material: &'static Material, thickness: f64, workshop: &Workshop) -> SheetGroup {
    let by_volume = |size: [f64; 2], dearer: f64| {
        (board_price(material.id) * thickness * size[0] * size[1] * dearer * 100.0).round() / 100.0
    };
    let named: Vec<Sheet> = workshop
        .sheets
        .iter()
        .filter(|one| one.material == material && (one.thickness - thickness).abs() < NOMINAL)
        .map(|one| {
            let price = if one.priced { one.sheet.price } else { by_volume(one.sheet.size, 1.0) };
            Sheet { price, ..one.sheet }
        })
        .collect();
    // Offcuts alone may not do.
    let sold = named.iter().any(|sheet| sheet.at_hand.is_none());
    let usual = USUAL.iter().filter(|_| !sold).map(|(size, dearer)| Sheet {
        size: *size,
        at_hand: None,
        price: by_volume(*size, *dearer),
    });
    SheetGroup {
        material,
        thickness,
        sheets: named.iter().copied().chain(usual).collect(),
        blanks: Vec::new(),
        turned: Vec::new(),
        layout: Layout { sheets: Vec::new(), left: Vec::new() },
        recipe: Recipe { order: Vec::new(), rule: 0 },
        fingerprint: String::new(),
        searched: false,
    }
}

/// A sheet is for boards that were measured a little thinner than it is sold, m.
const NOMINAL: f64 = 1.1e-3;

fn add(group: &mut SheetGroup, panel: &CutPanel, workshop: &Workshop) {
    let along = panel.grain.filter(|_| panel.outside && !workshop.any_grain);
    let [width, height] = panel.size.map(|side| side + 2.0 * workshop.oversize);
    // Grain runs along the length of a sheet.
    let turned = along == Some(0);
    let size = if turned { [height, width] } else { [width, height] };
    for _ in 0..panel.count {
        group.blanks.push(Blank { number: panel.number, size, turns: along.is_none() });
        group.turned.push(turned);
    }
}

fn lay(group: &mut SheetGroup, workshop: &Workshop) {
    let saw = &workshop.saw;
    group.fingerprint = fingerprint(group, saw);
    let (layout, recipe) = lay_out(&group.blanks, &group.sheets, saw, Effort::Quick, None);
    (group.layout, group.recipe) = (layout, recipe);
    let kept = workshop.layouts.iter().find(|(boards, _)| *boards == group.fingerprint);
    let kept = kept.and_then(|(_, recipe)| {
        let layout = lay_out_as(&group.blanks, &group.sheets, saw, recipe)?;
        is_no_worse(&layout, &group.layout, &group.sheets).then(|| (layout, recipe.clone()))
    });
    if let Some((layout, recipe)) = kept {
        (group.layout, group.recipe, group.searched) = (layout, recipe, true);
    }
}

/// Looks longer for a better layout of one group; keeps the one it has where none is.
pub(super) fn search(group: &mut SheetGroup, saw: &Saw, rounds: u32, search: Search<'_>) {
    let (layout, recipe) = lay_out(&group.blanks, &group.sheets, saw, Effort::Rounds(rounds), Some(search));
    if is_no_worse(&layout, &group.layout, &group.sheets) {
        (group.layout, group.recipe, group.searched) = (layout, recipe, true);
    }
}

/// What tells the boards and sheets of a layout from others: to the tenth of a millimetre, by FNV-1a of 64 bits.
fn fingerprint(group: &SheetGroup, saw: &Saw) -> String {
    let mut text = String::new();
    let tenth = |length: f64| (length * 1e4).round() as i64;
    for blank in &group.blanks {
        let [width, height] = blank.size.map(tenth);
        let _ = write!(text, "{width},{height},{};", u8::from(blank.turns));
    }
    for sheet in &group.sheets {
        let [width, height] = sheet.size.map(tenth);
        let _ = write!(text, "|{width},{height},{:?},{:.2}", sheet.at_hand, sheet.price);
    }
    let carried = saw.transport.map(|most| most.map(|side| tenth(side.min(100.0))));
    let _ = write!(text, "/{},{},{carried:?}", tenth(saw.kerf), tenth(saw.trim));
    let hash = text.bytes().fold(0xcbf2_9ce4_8422_2325_u64, |hash, byte| {
        (hash ^ u64::from(byte)).wrapping_mul(0x0100_0000_01b3)
    });
    format!("{} {:.1} mm {hash:016x}", group.material.id, group.thickness * 1e3)
}
