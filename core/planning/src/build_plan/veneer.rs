//! Veneer as it is cut: over the boards on every side, to be trimmed once it is glued.

use oak_design::file::RawFinish;
use serde::Serialize;
use utoipa::ToSchema;

use super::making::Making;

/// How far it reaches over its board on every side, m (common practice).
const OVER: f64 = 0.025;
/// How much of what is bought is lost to matching and to bad places (common practice).
const LOST: f64 = 0.15;

/// One size of veneer.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct VeneerPiece {
    /// Number of the board it goes on.
    pub panel: u32,
    /// What that is.
    pub name: String,
    /// How many, of all cabinets.
    pub count: u32,
    /// Width and height, along the board's, m.
    pub size: [f64; 2],
}

impl Making<'_> {
    /// What is cut of veneer, board by board; nothing under another finish.
    pub(super) fn veneers(&self) -> Vec<VeneerPiece> {
        if self.workshop.finish != RawFinish::Veneer {
            return Vec::new();
        }
        let seen =
            self.cut.panels.iter().filter(|panel| panel.outside && panel.layer.is_none_or(|[at, _]| at == 1));
        let piece = |panel: &oak_design::report::CutPanel| {
            let across = |axis: usize| {
                let along = || panel.outer.iter().map(|point| point[axis]);
                along().fold(f64::NEG_INFINITY, f64::max) - along().fold(f64::INFINITY, f64::min)
            };
            VeneerPiece {
                panel: panel.number,
                name: panel.name.split(", layer").next().unwrap_or_default().to_owned(),
                count: panel.count,
                size: [0, 1].map(|axis| across(axis) + 2.0 * OVER),
            }
        };
        seen.map(piece).collect()
    }

    /// How much veneer is bought, m2.
    pub(super) fn veneer(&self) -> f64 {
        let cut = |piece: &VeneerPiece| f64::from(piece.count) * piece.size[0] * piece.size[1];
        (1.0 + LOST) * self.veneers().iter().map(cut).sum::<f64>()
    }
}
