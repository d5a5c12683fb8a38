//! The boards of a mirrored pair that are mirror images of the drawn ones.

use std::collections::HashMap;

use oak_design::report::CutPanel;

use super::making::Making;

/// Boards that agree within this are alike, m.
const ALIKE: f64 = 1e-4;

impl Making<'_> {
    /// Of every board on every sheet, in their order, whether it is the mirror image of the drawn one: those of every second cabinet of a
    /// mirrored pair, where left and right of a board differ.
    pub(super) fn mirrored(&self) -> Vec<Vec<bool>> {
        let every_second = self.workshop.mirrored && self.cabinets > 1;
        let mut laid: HashMap<u32, u32> = HashMap::new();
        let sheets =
            self.sheets.iter().flat_map(|group| group.layout.sheets.iter().map(move |one| (group, one)));
        sheets
            .map(|(group, one)| {
                one.root
                    .laid()
                    .map(|board| {
                        let number = group.blanks[board.blank].number;
                        let panel = self.cut.panels.iter().find(|panel| panel.number == number);
                        let Some(panel) = panel.filter(|panel| every_second && handed(panel)) else {
                            return false;
                        };
                        let before = laid.entry(number).or_default();
                        let cabinet = *before / (panel.count / self.cabinets).max(1);
                        *before += 1;
                        cabinet % 2 == 1
                    })
                    .collect()
            })
            .collect()
    }
}

/// Whether a board is another when it is turned over.
fn handed(panel: &CutPanel) -> bool {
    let width = panel.size[0];
    let other = |[x, y]: [f64; 2]| [width - x, y];
    let near = |a: [f64; 2], b: [f64; 2]| (a[0] - b[0]).abs() < ALIKE && (a[1] - b[1]).abs() < ALIKE;
    let holes = panel.holes.iter().any(|hole| {
        let alike = |one: &&oak_cabinetry::cut::FlatHole| {
            one.kind == hole.kind && near(one.at, other(hole.at)) && near(one.size, hole.size)
        };
        panel.holes.iter().find(alike).is_none()
    });
    let outline = |points: &[[f64; 2]]| points.iter().any(|a| !points.iter().any(|b| near(*b, other(*a))));
    let strips: Vec<[f64; 2]> =
        panel.grooves.iter().flat_map(|groove| groove.outline.iter().copied()).collect();
    let stands: Vec<[f64; 2]> = panel.stands.iter().flat_map(|stand| stand.outline.iter().copied()).collect();
    let window = panel.window.as_deref().is_some_and(outline);
    holes || outline(&panel.outer) || outline(&panel.inner) || outline(&strips) || outline(&stands) || window
}
