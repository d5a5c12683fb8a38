//! A box in three dimensions, as data: boards as the space between an outer and inner surface, and what is mounted.

use oak_cabinetry::geometry::Point;
use oak_cabinetry::{Cabinet, Contents, Piece};
use serde::Serialize;
use utoipa::ToSchema;

use super::laid_fill::laid_fill;
use crate::resolve::ResolvedDesign;

/// A box in three dimensions, m: `x` across from left to right, `y` up, `z` forward.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct ModelReport {
    /// Lowest and highest corner.
    pub bounds: [[f64; 3]; 2],
    /// Its boards; a pipe's wall and round corners in many pieces.
    pub panels: Vec<PanelModel>,
    /// What is mounted, with the names that drawings use.
    pub parts: Vec<ModelPartReport>,
    /// Fill as it is usually laid: the corners of its faces, counter-clockwise as seen from outside.
    pub fills: Vec<Vec<Vec<[f64; 3]>>>,
}

/// A board, or a flat piece of one, m.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct PanelModel {
    /// Which side.
    pub face: String,
    /// Corners outside, counter-clockwise as seen from there.
    pub outer: Vec<[f64; 3]>,
    /// The same corners inside.
    pub inner: Vec<[f64; 3]>,
}

/// Something mounted.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct ModelPartReport {
    /// What to call it.
    pub name: String,
    /// The room it takes.
    pub pieces: Vec<Piece>,
    /// Middle of its opening, m; of boards none.
    pub mouth: Option<[f64; 3]>,
    /// Out of the cabinet there.
    pub normal: [f64; 3],
    /// Width and height of the opening, of a round one its diameter, m.
    pub size: [f64; 2],
    /// Whether it is round.
    pub round: bool,
    /// Whether it is the half of its width and height that lies in a corner.
    pub corner: bool,
    /// Middle line of its air from the mouth inward, m; of ports and ways.
    pub path: Vec<[f64; 3]>,
    /// In which chamber: 0 behind the drivers, 1 before them.
    pub chamber: usize,
}

impl ModelReport {
    /// Lays a box out.
    pub fn of(design: &ResolvedDesign, contents: &Contents, cabinet: &Cabinet) -> Self {
        let part = |part: &oak_cabinetry::Part| {
            let mouth = cabinet.mouth(part, contents);
            let place: Option<Point> = mouth.map(|mouth| mouth.outer);
            ModelPartReport {
                name: part.name(),
                pieces: part.pieces.clone(),
                mouth: place,
                normal: mouth.map_or([0.0; 3], |mouth| mouth.normal),
                size: mouth.map_or([0.0; 2], |mouth| mouth.size),
                round: mouth.is_some_and(|mouth| mouth.round),
                corner: mouth.is_some_and(|mouth| mouth.corner.is_some()),
                path: part.path.clone(),
                chamber: part.chamber,
            }
        };
        Self {
            bounds: cabinet.outer.bounds(),
            // The room is the outside with every face moved in, so both have the same faces and corners.
            panels: cabinet
                .outer
                .facets()
                .into_iter()
                .zip(cabinet.interior.facets())
                .map(|(outer, inner)| PanelModel {
                    face: outer.face.name(),
                    outer: outer.corners,
                    inner: inner.corners,
                })
                .collect(),
            parts: cabinet.parts.iter().map(part).collect(),
            fills: laid_fill(design, cabinet),
        }
    }
}
