//! Drawings in a frame.

use oak_cabinetry::drawing::{Drawing, Line, millimetres};

use crate::face::{Face, printable};
use crate::paper::{Mark, Pen, Tone};

fn style(line: Line) -> (Option<Tone>, Pen) {
    let pen = |tone, width, dash| Pen { tone, width, dash };
    match line {
        Line::Cut => (Some(Tone::Wood), pen(Tone::Ink, 0.8, None)),
        Line::Seen => (Some(Tone::White), pen(Tone::Ink, 0.6, None)),
        Line::Hidden => (None, pen(Tone::Soft, 0.5, Some([3.0, 2.0]))),
        Line::Air => (Some(Tone::White), pen(Tone::River, 0.6, None)),
        Line::Metal => (Some(Tone::White), pen(Tone::Ink, 0.6, None)),
        Line::Fill => (None, pen(Tone::Oak, 0.4, Some([1.5, 2.0]))),
        Line::Middle => (None, pen(Tone::Short, 0.5, Some([6.0, 2.0]))),
        Line::Recess => (None, pen(Tone::Oak, 0.6, None)),
        Line::Drill => (None, pen(Tone::River, 0.6, None)),
        Line::Mark | Line::Label => (None, pen(Tone::Soft, 0.4, Some([2.0, 2.0]))),
    }
}

/// Room for measures beside a drawing, points.
const BESIDE: f64 = 26.0;

/// A drawing as large as it goes into a frame (upper left corner and size, points), with its measures; how many points a metre is.
pub(crate) fn draw(drawing: &Drawing, [left, top]: [f64; 2], [width, height]: [f64; 2]) -> Vec<Mark> {
    let [low, high] = drawing.extent;
    let size = [high[0] - low[0], high[1] - low[1]];
    let rows = drawing.measures.iter().map(|measure| measure.row + 1).max().unwrap_or(0) as f64;
    let beside = BESIDE.min(10.0 + 12.0 * rows);
    let scale = ((width - beside) / size[0]).min((height - beside) / size[1]);
    let from = [left + beside + (width - beside - size[0] * scale) / 2.0, top];
    let place = |[x, y]: [f64; 2]| [from[0] + (x - low[0]) * scale, from[1] + (high[1] - y) * scale];
    at_scale(drawing, place, scale, low)
}

/// A drawing at a scale (points a metre), each place where it is put.
pub(crate) fn at_scale(
    drawing: &Drawing,
    place: impl Fn([f64; 2]) -> [f64; 2],
    scale: f64,
    low: [f64; 2],
) -> Vec<Mark> {
    let mut marks = Vec::new();
    for stroke in &drawing.strokes {
        let (fill, pen) = style(stroke.line);
        marks.push(Mark::Line {
            points: stroke.points.iter().map(|at| place(*at)).collect(),
            closed: stroke.closed,
            fill: fill.filter(|_| stroke.closed),
            pen: Some(pen),
        });
    }
    for ring in &drawing.rings {
        let (_, pen) = style(ring.line);
        marks.push(Mark::Circle { middle: place(ring.middle), radius: ring.radius * scale, pen });
    }
    for (at, words) in &drawing.labels {
        let words = printable(words);
        let size = 6.5;
        let [x, y] = place(*at);
        let at = [x - Face::Text.width(&words, size) / 2.0, y];
        marks.push(Mark::Words { at, face: Face::Text, size, words, tone: Tone::Ink, turned: false });
    }
    for measure in &drawing.measures {
        let away = 8.0 + 11.0 * measure.row as f64;
        let [a, b] = measure.between;
        let words = millimetres((b - a).abs());
        let size = 6.5;
        let wide = Face::Figures.width(&words, size);
        let fine =
            |points| Mark::Line { points, closed: false, fill: None, pen: Some(Pen::fine(Tone::Soft)) };
        if measure.upright {
            let [p, q] = [a, b].map(|y| place([low[0], y]));
            let x = p[0] - away;
            marks.push(fine(vec![[x, p[1]], [x, q[1]]]));
            marks.extend([p[1], q[1]].map(|y| fine(vec![[x - 2.0, y], [x + 2.0, y]])));
            let at = [x - 2.0, f64::midpoint(p[1], q[1]) + wide / 2.0];
            marks.push(Mark::Words { at, face: Face::Figures, size, words, tone: Tone::Ink, turned: true });
        } else {
            let [p, q] = [a, b].map(|x| place([x, low[1]]));
            let y = p[1] + away;
            marks.push(fine(vec![[p[0], y], [q[0], y]]));
            marks.extend([p[0], q[0]].map(|x| fine(vec![[x, y - 2.0], [x, y + 2.0]])));
            let at = [f64::midpoint(p[0], q[0]) - wide / 2.0, y - 2.0];
            marks.push(Mark::Words { at, face: Face::Figures, size, words, tone: Tone::Ink, turned: false });
        }
    }
    marks
}
