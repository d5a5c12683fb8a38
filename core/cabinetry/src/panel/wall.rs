//! The boards of a cabinet.

use super::{GLUED, Plate};
use crate::body::{Body, Panel};
use crate::cabinet::Cabinet;
use crate::contents::Contents;
use crate::geometry::{Axis, Face, Facet, Frame, area_vector, length};
use crate::part::{Part, PartKind};

/// Which board of a cabinet it is.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Location {
    /// An outer one.
    Outer(Face),
    /// Between two chambers.
    Partition,
    /// Between two channels of a folded way, from 0.
    Fold(usize),
    /// Beside the last channel of a folded way.
    Closing,
    /// The board that ends a chamber shorter than the channels of its way.
    ChamberEnd,
    /// What makes a slot, of the chamber before the drivers or behind them, by the port's position.
    Slot {
        /// Whether it is before the drivers.
        front: bool,
        /// Position of the port.
        index: usize,
    },
}

impl Location {
    /// What to call it.
    pub fn name(self) -> String {
        match self {
            Self::Outer(face) => face.name(),
            Self::Partition => Part::of(PartKind::Partition, 0, 0).name(),
            Self::Fold(index) => Part::of(PartKind::Fold, index, 0).name(),
            Self::Closing => Part::of(PartKind::Closing, 0, 0).name(),
            Self::ChamberEnd => Part::of(PartKind::ChamberEnd, 0, 0).name(),
            Self::Slot { front, index } => {
                format!("{}'s boards", Part::of(PartKind::Port, index, usize::from(front)).name())
            }
        }
    }

    /// Whether the outside is on its other side.
    pub fn is_outer(self) -> bool {
        matches!(self, Self::Outer(_))
    }
}

/// One board of a cabinet.
#[derive(Debug, Clone, PartialEq)]
pub struct Wall {
    /// Which one.
    pub location: Location,
    /// Of what and how thick.
    pub panel: Panel,
    /// Area of its outer side, or of one side of it, m2.
    pub area: f64,
    /// What it is cut from, the holes of an outer one still in it, m3.
    pub wood: f64,
    /// What it weighs around its holes, kg.
    pub mass: f64,
    /// Its fields between edges and braces that can ring; none of a pipe's wall, which is held by its roundness.
    pub fields: Vec<Plate>,
}

impl Wall {
    /// Its weakest field.
    pub fn weakest(&self) -> Option<&Plate> {
        self.fields.iter().min_by(|a, b| a.resonance().total_cmp(&b.resonance()))
    }

    /// Its weakest field's resonance with a support against the middle of that field's first side, Hz.
    pub fn supported(&self) -> Option<f64> {
        let field = self.weakest()?;
        let [a, b] = field.sides;
        Some(Plate { sides: [a / 2.0, b], ..*field }.resonance())
    }

    // Joints lose more than boards (common practice).
    fn loss(&self) -> f64 {
        self.panel.material.loss + 0.03
    }

    /// Volume that a pressure of 1 Pa pushes out at a frequency (Hz), m3/Pa.
    pub fn compliance(&self, frequency: f64) -> f64 {
        self.fields.iter().map(|field| field.compliance() * field.rise(frequency, self.loss())).sum()
    }

    /// How far a pressure of 1 Pa at a frequency (Hz) moves it where it moves most, m/Pa.
    pub fn deflection(&self, frequency: f64) -> f64 {
        let each = self.fields.iter().map(|field| field.deflection() * field.rise(frequency, self.loss()));
        each.fold(0.0, f64::max)
    }
}

/// Closer to an edge than this a brace does not divide a board, m.
pub(super) const EDGE: f64 = 0.01;

pub(super) fn plate(panel: &Panel, a: f64, b: f64) -> Plate {
    Plate { sides: [a, b], thickness: panel.total(), material: panel.material, held: GLUED, free: false }
}

/// The fields between columns and rows (m).
pub(super) fn grid(panel: &Panel, columns: &[f64], rows: &[f64]) -> Vec<Plate> {
    columns.iter().flat_map(|a| rows.iter().map(move |b| (*a, *b))).map(|(a, b)| plate(panel, a, b)).collect()
}

pub(super) fn outer(body: &Body, contents: &Contents, cabinet: &Cabinet) -> Vec<Wall> {
    let (outer, inner) = (cabinet.outer.facets(), cabinet.interior.facets());
    body.shape
        .faces()
        .into_iter()
        .filter_map(|face| {
            let panel = *body.panel(face);
            let sum = |facets: &[Facet]| -> f64 {
                let of_face = facets.iter().filter(|facet| facet.face == face);
                of_face.map(|facet| length(area_vector(&facet.corners)) / 2.0).sum()
            };
            let (area, inside) = (sum(&outer), sum(&inner));
            (area > 0.0).then(|| {
                let parts = cabinet.parts.iter().filter(|part| part.face == Some(face));
                let holes = parts.filter_map(|part| cabinet.hole(part, contents));
                let cut: f64 = holes.map(|hole| hole.area() * panel.total()).sum();
                let wood = f64::midpoint(area, inside) * panel.total();
                let mass = (wood - cut) * panel.material.density;
                Wall {
                    location: Location::Outer(face),
                    panel,
                    area,
                    wood,
                    mass,
                    fields: fields(cabinet, body, face, &panel),
                }
            })
        })
        .collect()
}

/// What lies between the edges of a face and the braces that meet it.
fn fields(cabinet: &Cabinet, body: &Body, face: Face, panel: &Panel) -> Vec<Plate> {
    let Some(frame) = Frame::of(&cabinet.interior, face) else { return Vec::new() };
    let cuts = |direction: [f64; 3], size: f64| -> Vec<f64> {
        let mut places = vec![0.0, size];
        let mut cut = |axis: Axis, at: f64| {
            let share = direction[axis.index()];
            // A board square to an axis meets this one where the axis runs along it.
            if share.abs() > 0.5 {
                let begin = frame.origin[axis.index()];
                let place = (at - begin) / share;
                if (EDGE..size - EDGE).contains(&place) {
                    places.push(place);
                }
            }
        };
        for brace in &body.braces {
            cut(brace.axis, brace.place(&cabinet.interior));
        }
        if let Some((axis, [at, _])) = cabinet.partition() {
            cut(axis, at);
        }
        if let (Some(laid), Some(interior)) = (&cabinet.fold, cabinet.path_interior()) {
            let begin = interior.bounds()[1][body.fold.stack.index()];
            for panel in &laid.panels {
                cut(body.fold.stack, begin - panel.middle);
            }
        }
        places.sort_by(f64::total_cmp);
        places.windows(2).map(|pair| pair[1] - pair[0]).collect()
    };
    grid(panel, &cuts(frame.u, frame.size[0]), &cuts(frame.v, frame.size[1]))
}
