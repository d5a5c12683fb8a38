//! Boards laid flat, alone and on their sheets, as drawings: cut, recess, drill, mark and label each on a layer of their own.

use oak_cabinetry::cut::HoleKind;
use oak_cabinetry::drawing::{Drawing, Line, millimetres};
use oak_design::report::CutPanel;

use super::holes::HolePlan;
use super::making::Making;

/// Smaller than this on its longer side a part is held by tabs on a router, m; how long they are, m (common practice).
const SMALL: f64 = 0.3;
const TAB: f64 = 0.01;

/// How a board lies: its lowest corner on the sheet, whether it is turned by a right angle, and whether it is turned over.
#[derive(Clone, Copy)]
struct Lie {
    at: [f64; 2],
    turned: bool,
    mirrored: bool,
    /// Width of the sheet, which is laid level, m; of a board alone none.
    level: Option<f64>,
    width: f64,
}

impl Lie {
    /// A place of the board on the sheet: turned to the left where it is turned.
    fn of(self, [x, y]: [f64; 2]) -> [f64; 2] {
        let x = if self.mirrored { self.width - x } else { x };
        // Turned to the left by a right angle about its lowest corner and moved back into its place.
        let [x, y] = if self.turned { [y, self.width - x] } else { [x, y] };
        let [x, y] = [self.at[0] + x, self.at[1] + y];
        // Turned to the right by a right angle.
        self.level.map_or([x, y], |width| [y, width - x])
    }
}

impl Making<'_> {
    /// One board by itself.
    pub fn panel_drawing(&self, number: u32) -> Option<Drawing> {
        let panel = self.cut.panels.iter().find(|panel| panel.number == number)?;
        let mut drawing = Drawing::plain();
        let lie = Lie { at: [0.0; 2], turned: false, mirrored: false, level: None, width: panel.size[0] };
        self.board(&mut drawing, panel, lie, &self.holes());
        Some(drawing.bounded())
    }

    /// One sheet with its boards; which sheet counts through all materials.
    pub fn sheet_drawing(&self, sheet: usize) -> Option<Drawing> {
        let all =
            self.sheets.iter().flat_map(|group| group.layout.sheets.iter().map(move |one| (group, one)));
        let (group, one) = all.into_iter().nth(sheet)?;
        let [width, height] = group.sheets[one.sheet].size;
        let mut drawing = Drawing::plain();
        // The length of a sheet lies level, as one stands before it.
        drawing.polygon("sheet", Line::Mark, vec![[0.0, 0.0], [height, 0.0], [height, width], [0.0, width]]);
        let holes = self.holes();
        let over = self.workshop.oversize;
        let mirrored = self.mirrored();
        for (laid, mirrored) in one.root.laid().zip(&mirrored[sheet]) {
            let number = group.blanks[laid.blank].number;
            let Some(panel) = self.cut.panels.iter().find(|panel| panel.number == number) else { continue };
            let at = laid.rect.at.map(|side| side + over);
            let turned = laid.turned != group.turned[laid.blank];
            self.board(
                &mut drawing,
                panel,
                Lie { at, turned, mirrored: *mirrored, level: Some(width), width: panel.size[0] },
                &holes,
            );
        }
        Some(drawing.bounded())
    }

    fn board(&self, drawing: &mut Drawing, panel: &CutPanel, lie: Lie, holes: &[HolePlan]) {
        let part = format!("{} {}", panel.number, panel.name);
        let outline = |points: &[[f64; 2]]| points.iter().map(|point| lie.of(*point)).collect::<Vec<_>>();
        drawing.polygon(&part, Line::Cut, outline(&panel.outer));
        let bevelled = panel.edges.iter().any(|edge| edge.bevel.abs() > 0.05);
        if bevelled {
            drawing.polygon(&part, Line::Mark, outline(&panel.inner));
        }
        if let Some(window) = &panel.window {
            drawing.polygon(&part, Line::Cut, outline(window));
        }
        for stand in &panel.stands {
            drawing.polygon(&part, Line::Mark, outline(&stand.outline));
        }
        for groove in &panel.grooves {
            drawing.polygon(&part, Line::Recess, outline(&groove.outline));
        }
        for (index, hole) in panel.holes.iter().enumerate() {
            let plan = holes.iter().find(|plan| plan.panel == panel.number && plan.index == index);
            let drill = plan.and_then(|plan| plan.drill.as_ref());
            let line = match (hole.kind, hole.depth) {
                (HoleKind::Bolt | HoleKind::Dowel, _) => Line::Drill,
                (_, Some(_)) => Line::Recess,
                _ => Line::Cut,
            };
            let middle = lie.of(hole.at);
            if hole.round {
                let radius = drill.map_or(hole.size[0], |(diameter, _)| *diameter) / 2.0;
                drawing.ring(&part, line, middle, radius);
            } else {
                let [w, h] = hole.size.map(|side| side / 2.0);
                let [x, y] = hole.at;
                let corners = [[x - w, y - h], [x + w, y - h], [x + w, y + h], [x - w, y + h]];
                drawing.polygon(&part, line, outline(&corners));
            }
        }
        if panel.size[0].max(panel.size[1]) < SMALL {
            tabs(drawing, &part, panel, lie);
        }
        let [width, height] = panel.size;
        let words = if lie.level.is_some() {
            format!("{} {}{}", panel.number, panel.name, if lie.mirrored { ", mirrored" } else { "" })
        } else {
            format!("{} {}, {} x {}", panel.number, panel.name, millimetres(width), millimetres(height))
        };
        // In the middle, or where no hole is.
        let free = |part: f64| {
            panel.holes.iter().all(|hole| (hole.at[1] - part * height).abs() > hole.size[1] / 2.0 + 0.01)
        };
        let part = [0.5, 0.06, 0.94, 0.3, 0.7].into_iter().find(|part| free(*part)).unwrap_or(0.02);
        drawing.labels.push((lie.of([width / 2.0, height * part]), words));
    }
}

/// Where a router leaves a bridge, in the middle of every edge.
fn tabs(drawing: &mut Drawing, part: &str, panel: &CutPanel, lie: Lie) {
    let count = panel.outer.len();
    for k in 0..count {
        let [a, b] = [panel.outer[k], panel.outer[(k + 1) % count]];
        let long = (b[0] - a[0]).hypot(b[1] - a[1]);
        if long < 4.0 * TAB {
            continue;
        }
        let at = |far: f64| lie.of([0, 1].map(|k| a[k] + (b[k] - a[k]) * far / long));
        drawing.line(part, Line::Mark, vec![at((long - TAB) / 2.0), at((long + TAB) / 2.0)]);
    }
}
