//! Curves in a frame, on one axis of notes.

use crate::face::Face;
use crate::paper::{Mark, Pen, Tone};

/// A curve to be drawn.
pub(crate) struct Curve<'a> {
    pub name: &'a str,
    /// Hz, rising.
    pub frequency: &'a [f64],
    pub values: &'a [f64],
    /// A limit that is drawn with it.
    pub limit: Option<&'a [f64]>,
    /// What the axis begins with at the least; from zero where said.
    pub from_zero: bool,
    /// A unit for the axis.
    pub unit: &'a str,
}

/// Frequencies of the axis, Hz.
const FROM: f64 = 10.0;
const TO: f64 = 500.0;
const LINES: [f64; 8] = [10.0, 20.0, 30.0, 50.0, 100.0, 200.0, 300.0, 500.0];

/// Draws a curve into a frame (upper left corner and size, points).
pub(crate) fn draw(curve: &Curve<'_>, [left, top]: [f64; 2], [width, height]: [f64; 2]) -> Vec<Mark> {
    let (x0, y0, w, h) = (left + 28.0, top + 12.0, width - 30.0, height - 26.0);
    let x = |frequency: f64| x0 + (frequency / FROM).ln() / (TO / FROM).ln() * w;
    let shown = |values: &[f64]| -> Vec<f64> {
        let all =
            curve.frequency.iter().zip(values).filter(|(f, v)| (FROM..=TO).contains(*f) && v.is_finite());
        all.map(|(_, value)| *value).collect()
    };
    let mut all = shown(curve.values);
    all.extend(curve.limit.map(shown).unwrap_or_default().into_iter().filter(|value| *value > 0.0));
    let most = all.iter().copied().fold(f64::NEG_INFINITY, f64::max);
    let least = if curve.from_zero {
        0.0
    } else {
        all.iter().copied().fold(f64::INFINITY, f64::min).max(most - 45.0)
    };
    let step = nice((most - least) / 4.0);
    let (low, high) = ((least / step).floor() * step, (most / step).ceil() * step);
    let span = if high > low { high - low } else { 1.0 };
    let y = |value: f64| y0 + h - ((value.clamp(low, high)) - low) / span * h;
    let mut marks = Vec::new();
    let fine = |points, tone| Mark::Line {
        points,
        closed: false,
        fill: None,
        pen: Some(Pen { tone, width: 0.35, dash: None }),
    };
    let words = |at: [f64; 2], words: String, tone| Mark::Words {
        at,
        face: Face::Figures,
        size: 6.5,
        words,
        tone,
        turned: false,
    };
    for frequency in LINES {
        marks.push(fine(vec![[x(frequency), y0], [x(frequency), y0 + h]], Tone::Rule));
        let name = format!("{frequency:.0}");
        let wide = Face::Figures.width(&name, 6.5);
        marks.push(words([x(frequency) - wide / 2.0, y0 + h + 8.0], name, Tone::Soft));
    }
    let count = (span / step).round() as u32;
    for index in 0..=count {
        let value = low + step * f64::from(index);
        marks.push(fine(vec![[x0, y(value)], [x0 + w, y(value)]], Tone::Rule));
        let name = oak_units::significant(value, 3);
        let wide = Face::Figures.width(&name, 6.5);
        marks.push(words([x0 - 3.0 - wide, y(value) + 2.2], name, Tone::Soft));
    }
    let line = |values: &[f64]| -> Vec<[f64; 2]> {
        let all =
            curve.frequency.iter().zip(values).filter(|(f, v)| (FROM..=TO).contains(*f) && v.is_finite());
        all.map(|(frequency, value)| [x(*frequency), y(*value)]).collect()
    };
    if let Some(limit) = curve.limit {
        let pen = Pen { tone: Tone::Short, width: 0.8, dash: Some([3.0, 2.0]) };
        marks.push(Mark::Line { points: line(limit), closed: false, fill: None, pen: Some(pen) });
    }
    let pen = Pen { tone: Tone::Oak, width: 1.3, dash: None };
    marks.push(Mark::Line { points: line(curve.values), closed: false, fill: None, pen: Some(pen) });
    let name = format!("{}, {}", curve.name, curve.unit);
    let at = [x0, top + 8.0];
    marks.push(Mark::Words { at, face: Face::Bold, size: 8.0, words: name, tone: Tone::Ink, turned: false });
    marks.push(words([x0 + w - 10.0, y0 + h + 8.0 + 8.0], "Hz".to_owned(), Tone::Soft));
    marks
}

/// A step of 1, 2 or 5 times a power of ten.
fn nice(step: f64) -> f64 {
    if !(step.is_finite() && step > 0.0) {
        return 1.0;
    }
    let power = 10f64.powf(step.log10().floor());
    let over = step / power;
    power
        * if over <= 1.0 {
            1.0
        } else if over <= 2.0 {
            2.0
        } else if over <= 5.0 {
            5.0
        } else {
            10.0
        }
}
