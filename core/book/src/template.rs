//! Holes at full size, over as many pages as they need.

use oak_cabinetry::cut::HoleKind;
use oak_cabinetry::drawing::{Drawing, Line, millimetres};
use oak_design::Problem;
use oak_design::file::RawPaper;
use oak_design::report::CutPanel;
use oak_planning::build_plan::{HolePlan, RawPlanQuestion, with_making};

use crate::face::{Face, printable};
use crate::paper::{MM, Mark, Page, Paper, Pen, Tone};
use crate::picture::at_scale;
use crate::write::write;

/// What a printer does not reach, and what two pages share where they are glued, m.
const MARGIN: f64 = 0.012;
const SHARED: f64 = 0.010;
/// Around what is drawn, m.
const AROUND: f64 = 0.003;
/// Points in a metre.
const METRE: f64 = 1e3 * MM;

/// The templates of every hole that is cut: one for each hole of a board, with its recess and its bolts; `None` where there is no box or no hole.
///
/// # Errors
/// Every problem with the question; why its box cannot be built.
pub fn templates(question: &RawPlanQuestion) -> Result<Option<Vec<u8>>, Vec<Problem>> {
    let name = question.question.design.name.clone();
    let made = with_making(&question.question, |making, _| {
        let paper = making.workshop.paper;
        let holes = making.holes();
        let mut pages = Vec::new();
        for panel in making.cut.panels.iter().filter(|panel| panel.layer.is_none_or(|[layer, _]| layer == 1))
        {
            for cluster in clusters(panel, &holes) {
                pages.extend(tiles(panel, &cluster, paper));
            }
        }
        (!pages.is_empty())
            .then(|| write(&printable(&format!("{name}, templates")), Paper::of(paper), &pages))
    })?;
    Ok(made.flatten())
}

/// Holes that are cut together: one that goes through, what is let in around it, and the bolts near it.
struct Cluster<'a> {
    hole: &'a HolePlan,
    around: Vec<&'a HolePlan>,
}

fn clusters<'a>(panel: &CutPanel, holes: &'a [HolePlan]) -> Vec<Cluster<'a>> {
    let own: Vec<&HolePlan> = holes.iter().filter(|hole| hole.panel == panel.number).collect();
    let beside = |hole: &HolePlan| matches!(hole.hole.kind, HoleKind::Bolt | HoleKind::Dowel);
    let through = own.iter().filter(|hole| !beside(hole) && hole.hole.depth.is_none());
    let far = |a: &HolePlan, b: &HolePlan| (a.hole.at[0] - b.hole.at[0]).hypot(a.hole.at[1] - b.hole.at[1]);
    through
        .map(|hole| {
            let reach = hole.hole.size[0].max(hole.hole.size[1]);
            let near = |other: &&&HolePlan| {
                let same = far(hole, other) < 1e-6 && other.hole.depth.is_some();
                same || (other.hole.kind == HoleKind::Bolt && far(hole, other) < 0.75 * reach)
            };
            Cluster { hole, around: own.iter().filter(near).copied().collect() }
        })
        .collect()
}

/// The drawing of a hole about its middle.
fn drawing(cluster: &Cluster<'_>) -> Drawing {
    let mut drawing = Drawing::plain();
    let middle = cluster.hole.hole.at;
    let mut outline = |size: [f64; 2], round: bool, at: [f64; 2], line: Line| {
        let at = [at[0] - middle[0], at[1] - middle[1]];
        if round {
            drawing.ring("hole", line, at, size[0] / 2.0);
        } else {
            let [w, h] = size.map(|side| side / 2.0);
            let corners = [[-w, -h], [w, -h], [w, h], [-w, h]];
            drawing.polygon("hole", line, corners.map(|[x, y]| [at[0] + x, at[1] + y]).to_vec());
        }
    };
    let hole = &cluster.hole.hole;
    outline(hole.size, hole.round, middle, if hole.round { Line::Cut } else { Line::Seen });
    for one in &cluster.around {
        let size = one.drill.as_ref().map_or(one.hole.size, |(diameter, _)| [*diameter; 2]);
        let line = if one.hole.kind == HoleKind::Bolt { Line::Drill } else { Line::Recess };
        outline(size, one.hole.round, one.hole.at, line);
    }
    // The opening for a router with a bush.
    if let Some(opening) = cluster.hole.template.filter(|_| cluster.hole.offset > 0.0) {
        outline(opening, hole.round, middle, Line::Hidden);
    }
    let cross = |drawing: &mut Drawing, at: [f64; 2], far: f64| {
        drawing.line("middle", Line::Middle, vec![[at[0] - far, at[1]], [at[0] + far, at[1]]]);
        drawing.line("middle", Line::Middle, vec![[at[0], at[1] - far], [at[0], at[1] + far]]);
    };
    cross(&mut drawing, [0.0; 2], 0.02);
    for bolt in cluster.around.iter().filter(|one| one.hole.kind == HoleKind::Bolt) {
        cross(&mut drawing, [bolt.hole.at[0] - middle[0], bolt.hole.at[1] - middle[1]], 0.006);
    }
    drawing.bounded()
}

/// What is said on every page of a template.
fn said(panel: &CutPanel, cluster: &Cluster<'_>) -> Vec<String> {
    let HolePlan { hole, template, offset, .. } = cluster.hole;
    let size = |[w, h]: [f64; 2]| {
        if hole.round {
            format!("diameter {}", millimetres(w))
        } else {
            format!("{} x {}", millimetres(w), millimetres(h))
        }
    };
    let mut lines = vec![
        format!("{}: {} mm, through. Board {} {}.", hole.what, size(hole.size), panel.number, panel.name),
        format!(
            "Its middle is {} mm from the left and {} mm from below, as seen from outside.",
            millimetres(hole.at[0]),
            millimetres(hole.at[1])
        ),
    ];
    if let Some(opening) = template.filter(|_| *offset > 0.0) {
        lines.push(format!(
            "Dashed: opening of a template for the router with its bush, {} mm; {} mm outside the hole.",
            size(opening),
            millimetres(*offset)
        ));
    }
    let drills = cluster.around.iter().filter_map(|one| one.drill.as_ref());
    if let Some((diameter, what)) = drills.into_iter().next() {
        lines.push(format!(
            "Bolts: drill {} mm, {what}. Lay the real frame on before you drill.",
            millimetres(*diameter)
        ));
    }
    lines
}

/// The pages of one template.
fn tiles(panel: &CutPanel, cluster: &Cluster<'_>, paper: RawPaper) -> Vec<Page> {
    let paper = Paper::of(paper);
    let drawing = drawing(cluster);
    let [low, high] = drawing.extent;
    let (low, high) = (low.map(|at| at - AROUND), high.map(|at| at + AROUND));
    // What of a page is drawn on, m; words and the bar stand below.
    let foot = 0.034;
    let area = [paper.size[0] / METRE - 2.0 * MARGIN, paper.size[1] / METRE - 2.0 * MARGIN - foot];
    let count = [0, 1].map(|k| {
        let over = (high[k] - low[k] - area[k]).max(0.0);
        1 + (over / (area[k] - SHARED)).ceil() as usize
    });
    let mut found = Vec::new();
    for row in 0..count[1] {
        for column in 0..count[0] {
            let corner =
                [low[0] + column as f64 * (area[0] - SHARED), high[1] - row as f64 * (area[1] - SHARED)];
            if is_drawn_on(&drawing, corner, area) {
                found.push((row, column, corner));
            }
        }
    }
    let all = found.len();
    let words = said(panel, cluster);
    found
        .into_iter()
        .enumerate()
        .map(|(at, (row, column, corner))| {
            let title = format!("Page {} of {all}: row {}, column {}", at + 1, row + 1, column + 1);
            page(&drawing, paper, corner, area, &title, &words)
        })
        .collect()
}

/// Whether a line passes through a part of the drawing: upper left corner and size, m.
fn is_drawn_on(drawing: &Drawing, [left, top]: [f64; 2], [width, height]: [f64; 2]) -> bool {
    let inside = |[x, y]: [f64; 2]| (left..=left + width).contains(&x) && (top - height..=top).contains(&y);
    let along = |a: [f64; 2], b: [f64; 2]| {
        (0..=64).map(move |step| [0, 1].map(|k| a[k] + (b[k] - a[k]) * f64::from(step) / 64.0))
    };
    let ring = |middle: [f64; 2], radius: f64| {
        (0..360).map(move |step| {
            let angle = f64::from(step).to_radians();
            [middle[0] + radius * angle.cos(), middle[1] + radius * angle.sin()]
        })
    };
    drawing.rings.iter().any(|one| ring(one.middle, one.radius).any(inside))
        || drawing.strokes.iter().any(|stroke| {
            let points = &stroke.points;
            let last = if stroke.closed { points.len() } else { points.len() - 1 };
            (0..last).any(|k| along(points[k], points[(k + 1) % points.len()]).any(inside))
        })
}

fn page(
    drawing: &Drawing,
    paper: Paper,
    [left, top]: [f64; 2],
    area: [f64; 2],
    title: &str,
    words: &[String],
) -> Page {
    let edge = MARGIN * METRE;
    let place = |[x, y]: [f64; 2]| [edge + (x - left) * METRE, edge + (top - y) * METRE];
    let mut marks = at_scale(drawing, place, METRE, [left, top]);
    let [w, h] = area.map(|side| side * METRE);
    // Beyond the frame the paper stays white.
    let white = |from: [f64; 2], to: [f64; 2]| Mark::Line {
        points: vec![from, [to[0], from[1]], to, [from[0], to[1]]],
        closed: true,
        fill: Some(Tone::White),
        pen: None,
    };
    let [wide, tall] = paper.size;
    marks.extend([
        white([0.0, 0.0], [wide, edge]),
        white([0.0, edge + h], [wide, tall]),
        white([0.0, 0.0], [edge, tall]),
        white([edge + w, 0.0], [wide, tall]),
    ]);
    marks.push(Mark::Line {
        points: vec![[edge, edge], [edge + w, edge], [edge + w, edge + h], [edge, edge + h]],
        closed: true,
        fill: None,
        pen: Some(Pen { tone: Tone::Rule, width: 0.5, dash: Some([4.0, 3.0]) }),
    });
    let shared = SHARED * METRE;
    marks.push(Mark::Line {
        points: vec![
            [edge + w - shared, edge],
            [edge + w - shared, edge + h - shared],
            [edge, edge + h - shared],
        ],
        closed: false,
        fill: None,
        pen: Some(Pen { tone: Tone::Rule, width: 0.35, dash: Some([1.0, 3.0]) }),
    });
    let mut y = edge + h + 12.0;
    let mut say = |words: &str, face: Face| {
        marks.push(Mark::Words {
            at: [edge, y],
            face,
            size: 8.0,
            words: printable(words),
            tone: Tone::Ink,
            turned: false,
        });
        y += 11.0;
    };
    say(&format!("{title}. Cut at the outer dashed line, glue over the dotted one."), Face::Bold);
    words.iter().for_each(|line| say(line, Face::Text));
    // The bar that shows whether it was printed at full size.
    let (x, y) = (edge + w - 100.0 * MM, edge + h + 18.0);
    let tick = |at: f64| Mark::Line {
        points: vec![[at, y - 4.0], [at, y + 4.0]],
        closed: false,
        fill: None,
        pen: Some(Pen::fine(Tone::Ink)),
    };
    marks.extend((0..=10).map(|step| tick(x + f64::from(step) * 10.0 * MM)));
    marks.push(Mark::Line {
        points: vec![[x, y], [x + 100.0 * MM, y]],
        closed: false,
        fill: None,
        pen: Some(Pen { tone: Tone::Ink, width: 1.0, dash: None }),
    });
    let words = "100 mm: print at 100 %, measure this bar";
    let at = [x + 100.0 * MM - Face::Text.width(words, 7.0), y + 13.0];
    marks.push(Mark::Words {
        at,
        face: Face::Text,
        size: 7.0,
        words: words.to_owned(),
        tone: Tone::Ink,
        turned: false,
    });
    Page { marks }
}
