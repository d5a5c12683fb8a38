//! A drawing, laid out.

use oak_cabinetry::drawing::{Drawing, View};
use serde::Serialize;
use utoipa::ToSchema;

/// A view of a cabinet. Lengths in m, x to the right, y up.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct DrawingReport {
    /// `side`, `front`, `plan` or `exploded`.
    pub view: &'static str,
    /// Its name for people.
    pub name: &'static str,
    /// Lowest and highest coordinates of what is drawn.
    pub extent: [[f64; 2]; 2],
    /// Polygons and lines, in the order of drawing.
    pub strokes: Vec<StrokeReport>,
    /// Circles, after them.
    pub rings: Vec<CircleReport>,
    /// Measures.
    pub measures: Vec<MeasureReport>,
    /// Words.
    pub labels: Vec<LabelReport>,
}

/// A polygon or a line.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct StrokeReport {
    /// What it belongs to.
    pub part: String,
    /// `cut`, `seen`, `hidden`, `air`, `metal`, `fill` or `middle`.
    pub line: &'static str,
    /// Whether it closes.
    pub closed: bool,
    /// Its corners.
    pub points: Vec<[f64; 2]>,
}

/// A circle.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct CircleReport {
    /// What it belongs to.
    pub part: String,
    /// As of a stroke.
    pub line: &'static str,
    /// Its middle.
    pub middle: [f64; 2],
    /// Its radius.
    pub radius: f64,
}

/// A measure along the sheet.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct MeasureReport {
    /// Whether it is measured up; else across.
    pub upright: bool,
    /// Where it begins and ends.
    pub between: [f64; 2],
    /// How many rows outside the drawing it stands.
    pub row: usize,
    /// What it is of.
    pub of: &'static str,
}

/// Words at a place.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct LabelReport {
    /// Their middle.
    pub at: [f64; 2],
    /// The words.
    pub words: String,
}

/// To a hundredth of a millimetre.
fn rounded([x, y]: [f64; 2]) -> [f64; 2] {
    [x, y].map(|value| (value * 1e5).round() / 1e5)
}

impl DrawingReport {
    pub(super) fn of(drawing: &Drawing) -> Self {
        Self {
            view: drawing.view.map_or("flat", View::id),
            name: drawing.view.map_or("Flat", View::name),
            extent: drawing.extent.map(rounded),
            strokes: drawing
                .strokes
                .iter()
                .map(|stroke| StrokeReport {
                    part: stroke.part.clone(),
                    line: stroke.line.name(),
                    closed: stroke.closed,
                    points: stroke.points.iter().copied().map(rounded).collect(),
                })
                .collect(),
            rings: drawing
                .rings
                .iter()
                .map(|ring| CircleReport {
                    part: ring.part.clone(),
                    line: ring.line.name(),
                    middle: rounded(ring.middle),
                    radius: ring.radius,
                })
                .collect(),
            measures: drawing
                .measures
                .iter()
                .map(|measure| MeasureReport {
                    upright: measure.upright,
                    between: measure.between,
                    row: measure.row,
                    of: measure.of,
                })
                .collect(),
            labels: drawing
                .labels
                .iter()
                .map(|(at, words)| LabelReport { at: rounded(*at), words: words.clone() })
                .collect(),
        }
    }
}
