//! SVG.

use svg::Document;
use svg::node::Node;
use svg::node::element::{Circle, Element, Line as Ruled, Text};

use super::{Drawing, Line, millimetres};

/// Room for measures around a drawing, mm.
const MARGIN: f64 = 70.0;
const ROW: f64 = 24.0;

fn style(line: Line) -> (&'static str, &'static str, &'static str) {
    match line {
        Line::Cut => ("#EBD9B8", "#22261F", "none"),
        Line::Seen => ("#FFFFFF", "#22261F", "none"),
        Line::Hidden => ("none", "#77756B", "6 4"),
        Line::Air => ("#FFFFFF", "#1F5F8B", "none"),
        Line::Metal => ("#D9D9D4", "#22261F", "none"),
        Line::Fill => ("#F1E9DA", "#A8571B", "2 3"),
        Line::Middle => ("none", "#A3341F", "12 3 2 3"),
        Line::Recess => ("#F1E9DA", "#A8571B", "none"),
        Line::Drill => ("none", "#1F5F8B", "none"),
        Line::Mark | Line::Label => ("none", "#77756B", "2 3"),
    }
}

/// A drawing at full size as SVG; its unit is mm.
pub fn write_svg(drawing: &Drawing, title: &str) -> String {
    let [low, high] = drawing.extent;
    let (width, height) = ((high[0] - low[0]) * 1e3 + 2.0 * MARGIN, (high[1] - low[1]) * 1e3 + 2.0 * MARGIN);
    let x = |at: f64| MARGIN + (at - low[0]) * 1e3;
    let y = |at: f64| MARGIN + (high[1] - at) * 1e3;
    let mut document = Document::new()
        .set("width", format!("{width:.2}mm"))
        .set("height", format!("{height:.2}mm"))
        .set("viewBox", format!("0 0 {width:.2} {height:.2}"))
        .set("font-family", "sans-serif")
        .set("font-size", 12);
    document = document.add(svg::node::element::Title::new(title));
    for stroke in &drawing.strokes {
        let (fill, pen, dash) = style(stroke.line);
        let points: Vec<String> =
            stroke.points.iter().map(|at| format!("{:.2},{:.2}", x(at[0]), y(at[1]))).collect();
        let (kind, fill) = if stroke.closed { ("polygon", fill) } else { ("polyline", "none") };
        let mut shape = Element::new(kind);
        shape.assign("points", points.join(" "));
        for (name, value) in
            [("fill", fill), ("stroke", pen), ("stroke-width", "0.7"), ("stroke-dasharray", dash)]
        {
            shape.assign(name, value);
        }
        document = document.add(shape);
    }
    for ring in &drawing.rings {
        let (_, pen, dash) = style(ring.line);
        let circle = Circle::new()
            .set("cx", format!("{:.2}", x(ring.middle[0])))
            .set("cy", format!("{:.2}", y(ring.middle[1])))
            .set("r", format!("{:.2}", ring.radius * 1e3));
        document = document.add(
            circle
                .set("fill", "none")
                .set("stroke", pen)
                .set("stroke-width", 0.7)
                .set("stroke-dasharray", dash),
        );
    }
    for (at, words) in &drawing.labels {
        let text =
            Text::new(words.as_str()).set("x", x(at[0])).set("y", y(at[1])).set("text-anchor", "middle");
        document = document.add(text.set("fill", "#22261F"));
    }
    for measure in &drawing.measures {
        let [from, to] = measure.between;
        let away = 16.0 + ROW * measure.row as f64;
        let words = millimetres((to - from).abs());
        let line = |a: f64, b: f64, c: f64, d: f64| {
            Ruled::new()
                .set("x1", a)
                .set("y1", b)
                .set("x2", c)
                .set("y2", d)
                .set("stroke", "#5D5B51")
                .set("stroke-width", 0.5)
        };
        if measure.upright {
            let at = MARGIN - away;
            document = document
                .add(line(at, y(from), at, y(to)))
                .add(line(at - 3.0, y(from), at + 3.0, y(from)))
                .add(line(at - 3.0, y(to), at + 3.0, y(to)));
            let middle = f64::midpoint(y(from), y(to));
            let text =
                Text::new(words).set("transform", format!("translate({} {middle}) rotate(-90)", at - 3.0));
            document = document.add(text.set("text-anchor", "middle"));
        } else {
            let at = height - MARGIN + away;
            document = document
                .add(line(x(from), at, x(to), at))
                .add(line(x(from), at - 3.0, x(from), at + 3.0))
                .add(line(x(to), at - 3.0, x(to), at + 3.0));
            let text = Text::new(words).set("x", f64::midpoint(x(from), x(to))).set("y", at - 3.0);
            document = document.add(text.set("text-anchor", "middle"));
        }
    }
    document.to_string()
}
