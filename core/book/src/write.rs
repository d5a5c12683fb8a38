//! Pages as PDF.

use krilla::Document;
use krilla::color::rgb;
use krilla::geom::{Path, PathBuilder, Point, Transform};
use krilla::metadata::Metadata;
use krilla::num::NormalizedF32;
use krilla::page::PageSettings;
use krilla::paint::{Fill, Stroke, StrokeDash};
use krilla::surface::Surface;
use krilla::text::TextDirection;

use crate::paper::{Mark, Page, Paper, Pen, Tone};

/// A PDF of pages.
pub(crate) fn write(title: &str, paper: Paper, pages: &[Page]) -> Vec<u8> {
    let mut document = Document::new();
    document.set_metadata(Metadata::new().title(title.to_owned()).language("en".to_owned()));
    for page in pages {
        let [width, height] = paper.size.map(|side| side as f32);
        let settings = PageSettings::from_wh(width, height).expect("paper has a size");
        let mut sheet = document.start_page_with(settings);
        let mut surface = sheet.surface();
        for mark in &page.marks {
            draw(&mut surface, mark);
        }
        surface.finish();
        sheet.finish();
    }
    document.finish().expect("lines, circles and words in fonts that ship")
}

fn point([x, y]: [f64; 2]) -> Point {
    Point::from_xy(x as f32, y as f32)
}

fn fill(tone: Tone) -> Fill {
    let [red, green, blue] = tone.rgb();
    Fill {
        paint: rgb::Color::new(red, green, blue).into(),
        opacity: NormalizedF32::ONE,
        rule: Default::default(),
    }
}

fn stroke(pen: Pen) -> Stroke {
    let [red, green, blue] = pen.tone.rgb();
    let dash = pen.dash.map(|dash| StrokeDash { array: dash.map(|part| part as f32).to_vec(), offset: 0.0 });
    Stroke {
        paint: rgb::Color::new(red, green, blue).into(),
        width: pen.width as f32,
        dash,
        ..Stroke::default()
    }
}

fn draw(surface: &mut Surface<'_>, mark: &Mark) {
    match mark {
        Mark::Words { at, face, size, words, tone, turned } => {
            surface.set_stroke(None);
            surface.set_fill(Some(fill(*tone)));
            let write = |surface: &mut Surface<'_>, at: Point| {
                surface.draw_text(at, face.font(), *size as f32, words, false, TextDirection::LeftToRight);
            };
            if *turned {
                let [x, y] = at.map(|part| part as f32);
                // Turned to the left: what was to the right is above.
                surface.push_transform(&Transform::from_row(0.0, -1.0, 1.0, 0.0, x, y));
                write(surface, Point::from_xy(0.0, 0.0));
                surface.pop();
            } else {
                write(surface, point(*at));
            }
        }
        Mark::Line { points, closed, fill: filled, pen } => {
            let Some(path) = line(points, *closed) else { return };
            surface.set_fill(filled.map(fill));
            surface.set_stroke(pen.map(stroke));
            surface.draw_path(&path);
        }
        Mark::Circle { middle, radius, pen } => {
            let Some(path) = circle(*middle, *radius) else { return };
            surface.set_fill(None);
            surface.set_stroke(Some(stroke(*pen)));
            surface.draw_path(&path);
        }
    }
}

fn line(points: &[[f64; 2]], closed: bool) -> Option<Path> {
    let (first, rest) = points.split_first()?;
    let mut builder = PathBuilder::new();
    builder.move_to(first[0] as f32, first[1] as f32);
    for [x, y] in rest {
        builder.line_to(*x as f32, *y as f32);
    }
    if closed {
        builder.close();
    }
    builder.finish()
}

/// Four arcs, each off the circle by less than three ten-thousandths of its radius.
fn circle([x, y]: [f64; 2], radius: f64) -> Option<Path> {
    const HANDLE: f64 = 0.552_284_75;
    let at = |u: f64, v: f64| [(x + radius * u) as f32, (y + radius * v) as f32];
    let mut builder = PathBuilder::new();
    let [from_x, from_y] = at(1.0, 0.0);
    builder.move_to(from_x, from_y);
    let mut way = [1.0, 0.0];
    for _ in 0..4 {
        let [u, v] = way;
        let next = [-v, u];
        let [a, b] = at(u + HANDLE * next[0], v + HANDLE * next[1]);
        let [c, d] = at(next[0] + HANDLE * u, next[1] + HANDLE * v);
        let [e, f] = at(next[0], next[1]);
        builder.cubic_to(a, b, c, d, e, f);
        way = next;
    }
    builder.close();
    builder.finish()
}
