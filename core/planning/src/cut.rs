//! The boards of a design as they are cut, as a report and as a list for the saw.

use oak_design::Problem;
use oak_design::conditions::{Question, RawQuestion};
use oak_design::report::{CutPanel, CutReport};

use crate::build_plan::table;

/// The boards of a design, of as many cabinets as its brief counts; `None` where it has no box.
///
/// # Errors
/// Every problem with design or brief; why its box cannot be built.
pub fn cut(question: &RawQuestion) -> Result<Option<CutReport>, Vec<Problem>> {
    let Question { design, .. } = question.resolve()?;
    let one = |problem| vec![problem];
    let built = design.built().map_err(one)?;
    built.drawn().map_err(one)?;
    Ok(CutReport::of(&built))
}

/// A cut list: a line a board, lengths in mm with a point as decimal sign.
pub fn cut_list(report: &CutReport) -> String {
    let head =
        ["number", "name", "count", "width_mm", "height_mm", "thickness_mm", "material", "bevels", "holes"];
    let mm = |length: f64| format!("{:.1}", length * 1e3);
    let rows = report.panels.iter().map(|panel| {
        [
            panel.number.to_string(),
            panel.name.clone(),
            panel.count.to_string(),
            mm(panel.size[0]),
            mm(panel.size[1]),
            mm(panel.thickness),
            panel.material_name.to_owned(),
            bevels(panel),
            holes(panel),
        ]
    });
    table(head, rows)
}

fn bevels(panel: &CutPanel) -> String {
    let tilted = panel.edges.iter().filter(|edge| edge.bevel.abs() > 0.05);
    let words = tilted.map(|edge| {
        let meets = edge.meets.as_deref().unwrap_or("free end");
        format!("{:.1} deg at {meets}", edge.bevel)
    });
    words.collect::<Vec<_>>().join("; ")
}

fn holes(panel: &CutPanel) -> String {
    let words = panel.holes.iter().map(|hole| {
        let [width, height] = hole.size.map(|side| side * 1e3);
        let [left, below] = hole.at.map(|place| place * 1e3);
        let size = if hole.round { format!("dia {width:.1}") } else { format!("{width:.1} x {height:.1}") };
        let deep = hole.depth.map_or(String::new(), |depth| format!(", {:.1} deep", depth * 1e3));
        format!("{} {size}{deep} at {left:.1}, {below:.1}", hole.what)
    });
    words.collect::<Vec<_>>().join("; ")
}
