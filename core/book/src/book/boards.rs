//! Boards: what is cut, from which sheet, and with which holes.

use oak_cabinetry::cut::{EdgeJoint, HoleKind};
use oak_cabinetry::drawing::millimetres;

use super::Book;
use crate::flow::{figures, words};
use crate::paper::MM;
use crate::picture;

impl Book<'_, '_> {
    pub(super) fn panels(&mut self) {
        self.flow.chapter("Panels");
        let cut = &self.making.cut;
        self.flow.paragraph("Numbers are those of the labels. Sizes are of the blank, outer side towards you; a positive bevel makes the outer side the longer one.");
        let columns = [
            figures("No.", 6.0),
            words("Panel", 24.0),
            figures("Pieces", 9.0),
            figures("Width", 13.0),
            figures("Height", 13.0),
            figures("Thick", 10.0),
            words("Of", 25.0),
        ];
        let rows: Vec<Vec<String>> = cut
            .panels
            .iter()
            .map(|panel| {
                vec![
                    panel.number.to_string(),
                    panel.name.clone(),
                    panel.count.to_string(),
                    millimetres(panel.size[0]),
                    millimetres(panel.size[1]),
                    millimetres(panel.thickness),
                    panel.material_name.to_owned(),
                ]
            })
            .collect();
        self.flow.table(&columns, &rows);
        if !self.plan.veneers.is_empty() {
            self.flow.paragraph("Veneer, 25 mm over on every side; it is trimmed once it is glued.");
            let rows: Vec<Vec<String>> = self
                .plan
                .veneers
                .iter()
                .map(|piece| {
                    let [width, height] = piece.size.map(millimetres);
                    vec![piece.panel.to_string(), piece.name.clone(), piece.count.to_string(), width, height]
                })
                .collect();
            self.flow.table(
                &[
                    figures("No.", 8.0),
                    words("For", 38.0),
                    figures("Pieces", 14.0),
                    figures("Width", 20.0),
                    figures("Height", 20.0),
                ],
                &rows,
            );
        }
        for note in &cut.notes {
            self.flow.paragraph(note);
        }
        let shown: Vec<u32> = cut
            .panels
            .iter()
            .filter(|panel| {
                !panel.holes.is_empty()
                    || !panel.grooves.is_empty()
                    || panel.window.is_some()
                    || !panel.stands.is_empty()
                    || panel.outer.len() != 4
                    || panel.edges.iter().any(|edge| edge.bevel.abs() > 0.05)
            })
            .map(|panel| panel.number)
            .collect();
        for number in shown {
            self.panel(number);
        }
    }

    fn panel(&mut self, number: u32) {
        let Some(panel) = self.making.cut.panels.iter().find(|panel| panel.number == number) else { return };
        let Some(drawing) = self.making.panel_drawing(number) else { return };
        let height = 78.0 * MM;
        self.flow.keep(height + 60.0);
        self.flow.heading(&format!(
            "{number} {}, {} x {} x {} mm",
            panel.name,
            millimetres(panel.size[0]),
            millimetres(panel.size[1]),
            millimetres(panel.thickness)
        ));
        let width = self.flow.width();
        let corner = self.flow.frame(height);
        for mark in picture::draw(&drawing, corner, [width, height - 4.0]) {
            self.flow.mark(mark);
        }
        let holes: Vec<Vec<String>> = panel
            .holes
            .iter()
            .filter(|hole| hole.kind != HoleKind::Dowel)
            .map(|hole| {
                let size = if hole.round {
                    format!("dia {}", millimetres(hole.size[0]))
                } else {
                    hole.size.map(millimetres).join(" x ")
                };
                let deep = hole.depth.map_or_else(|| "through".to_owned(), millimetres);
                vec![hole.what.clone(), size, deep, millimetres(hole.at[0]), millimetres(hole.at[1])]
            })
            .collect();
        if !holes.is_empty() {
            self.flow.table(
                &[
                    words("Hole", 36.0),
                    figures("Size", 20.0),
                    figures("Deep", 14.0),
                    figures("From the left", 15.0),
                    figures("From below", 15.0),
                ],
                &holes,
            );
        }
        let edges: Vec<Vec<String>> = panel
            .edges
            .iter()
            .filter_map(|edge| {
                let tilted = edge.bevel.abs() > 0.05;
                let meets = edge.meets.clone().or(tilted.then(|| "free end".to_owned()))?;
                let joint = match edge.joint {
                    EdgeJoint::Over => "reaches over it",
                    EdgeJoint::Under => "ends at its inner side",
                    EdgeJoint::Mitre => "mitred with it",
                    EdgeJoint::Round => "meets the round edge",
                    EdgeJoint::Free => "",
                };
                let saw = if edge.bevel.abs() > 0.05 {
                    format!("{:.1} deg", edge.bevel)
                } else {
                    "square".to_owned()
                };
                let dowels: Vec<String> = edge.dowels.iter().map(|at| millimetres(*at)).collect();
                let held = if dowels.is_empty() {
                    edge.joinery.name().to_owned()
                } else {
                    format!("dowels at {}", dowels.join(", "))
                };
                Some(vec![meets, joint.to_owned(), held, saw])
            })
            .collect();
        if !edges.is_empty() {
            self.flow.table(
                &[
                    words("Edge at the", 22.0),
                    words("Joint", 28.0),
                    words("Held by", 34.0),
                    figures("Saw", 16.0),
                ],
                &edges,
            );
        }
    }

    pub(super) fn sheets(&mut self) {
        self.flow.chapter("Sheets");
        let mut number = 0;
        for group in &self.plan.sheets {
            for sheet in &group.sheets {
                let at = number;
                number += 1;
                self.flow.keep(105.0 * MM);
                let kind = if sheet.at_hand { "offcut" } else { "sheet" };
                self.flow.heading(&format!(
                    "{} {} mm, {kind} {number}: {} x {} mm",
                    group.material_name,
                    millimetres(group.thickness),
                    millimetres(sheet.size[1]),
                    millimetres(sheet.size[0])
                ));
                if let Some(drawing) = self.making.sheet_drawing(at) {
                    let width = self.flow.width();
                    let height = 74.0 * MM;
                    let corner = self.flow.frame(height);
                    for mark in picture::draw(&drawing, corner, [width, height - 4.0]) {
                        self.flow.mark(mark);
                    }
                }
                let rows: Vec<Vec<String>> = sheet
                    .cuts
                    .iter()
                    .zip(1..)
                    .map(|(cut, step)| {
                        let [_, size] = cut.piece;
                        let ready: Vec<String> =
                            cut.ready.iter().map(|number| format!("no. {number}")).collect();
                        vec![
                            step.to_string(),
                            format!("{}{}", millimetres(cut.fence), if cut.moves { " (set)" } else { "" }),
                            if cut.upright { "rip, along" } else { "cross-cut" }.to_owned(),
                            format!("{} x {}", millimetres(size[1]), millimetres(size[0])),
                            ready.join(", "),
                        ]
                    })
                    .collect();
                self.flow.table(
                    &[
                        figures("Cut", 8.0),
                        figures("Fence", 20.0),
                        words("", 18.0),
                        figures("Piece", 26.0),
                        words("Ready", 28.0),
                    ],
                    &rows,
                );
            }
        }
        self.flow.small("Fence settings are to the board's side of the blade; the kerf is counted. Guards and push sticks; small parts held by clamps.");
    }

    pub(super) fn holes(&mut self) {
        self.flow.chapter("Holes and templates");
        self.flow.paragraph("Each is cut in scrap first and tried with the real part. The templates are a file of their own, at full size. In inches each is rounded up to the next 32nd.");
        let rows: Vec<Vec<String>> = self
            .plan
            .holes
            .iter()
            .filter(|plan| !matches!(plan.hole.kind, HoleKind::Bolt | HoleKind::Dowel))
            .map(|plan| {
                let hole = &plan.hole;
                let size = |[w, h]: [f64; 2]| {
                    if hole.round {
                        format!("dia {}", millimetres(w))
                    } else {
                        format!("{} x {}", millimetres(w), millimetres(h))
                    }
                };
                let pair = plan.pair.map(|pair| format!(", with no. {pair}")).unwrap_or_default();
                vec![
                    format!("no. {}{pair}", plan.panel),
                    hole.what.clone(),
                    size(hole.size),
                    format!("{}", inches(plan.inch32)),
                    hole.depth.map_or_else(|| "through".to_owned(), millimetres),
                    plan.template.map(size).unwrap_or_default(),
                ]
            })
            .collect();
        self.flow.table(
            &[
                words("Board", 22.0),
                words("For", 26.0),
                figures("Size, mm", 17.0),
                figures("Inches", 13.0),
                figures("Deep", 10.0),
                figures("Router template", 18.0),
            ],
            &rows,
        );
        for fault in &self.plan.faults {
            self.flow.said("Mind", fault);
        }
    }
}

/// A length in 32nds of an inch as a carpenter writes it.
fn inches(thirty_seconds: u32) -> String {
    let (whole, mut over, mut under) = (thirty_seconds / 32, thirty_seconds % 32, 32);
    while over > 0 && over.is_multiple_of(2) {
        (over, under) = (over / 2, under / 2);
    }
    match (whole, over) {
        (whole, 0) => format!("{whole} in"),
        (0, over) => format!("{over}/{under} in"),
        (whole, over) => format!("{whole} {over}/{under} in"),
    }
}
