//! Whether hands, and what they carry, get into a box that is closed.

use oak_cabinetry::PartKind;
use serde::Serialize;
use utoipa::ToSchema;

use super::making::Making;

/// How a hand gets to where it works.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Reach {
    /// Through which hole.
    pub through: String,
    /// How wide that is, m.
    pub width: f64,
    /// Whether a hand passes.
    pub passes: bool,
}

impl Making<'_> {
    /// The widest hole that leads into a chamber of the closed box, with nothing mounted; `None` where there is none.
    pub(super) fn widest(&self, chamber: usize) -> Option<Reach> {
        let outside = self.cabinet.parts.iter().filter(|part| part.face.is_some() && part.chamber == chamber);
        let holes = outside.filter_map(|part| {
            let hole = self.cabinet.hole(part, self.contents)?;
            let width = hole.size[0].min(hole.size[1]);
            // A port is too long to reach through.
            (part.kind != PartKind::Port).then(|| (part.name(), width))
        });
        let (through, width) = holes.max_by(|a, b| a.1.total_cmp(&b.1))?;
        Some(Reach { through, width, passes: width >= self.workshop.hand })
    }

    /// How a hand gets into every chamber at the same time: the worst of them.
    pub(super) fn reach(&self) -> Option<Reach> {
        let chambers = self.cabinet.chambers.len().max(1);
        let each = (0..chambers).map(|chamber| self.widest(chamber));
        let none = || Reach { through: "no hole".to_owned(), width: 0.0, passes: false };
        each.map(|reach| reach.unwrap_or_else(none)).min_by(|a, b| a.width.total_cmp(&b.width))
    }

    /// Whether a hand gets into every chamber once the last board is glued.
    pub(super) fn hands_reach(&self) -> bool {
        self.reach().is_some_and(|reach| reach.passes)
    }

    /// Flares that are wider than the hole of their own port: whether each goes in through the driver's hole, with its port's name and how wide it
    /// is, m.
    pub(super) fn wide_flares(&self) -> Vec<(String, f64, bool)> {
        let body = &self.built.design.body;
        let through = self.widest(0).map_or(0.0, |reach| reach.width);
        let ports = self.cabinet.parts.iter().filter(|part| part.kind == PartKind::Port);
        ports
            .filter_map(|part| {
                let port = self.contents.port(part)?;
                let build = body.port_build(part.chamber == 1, part.index);
                let hole = port.hole(part.wall)[0];
                let bell = hole + 2.0 * build.flares[1];
                (build.flares[1] > 0.0).then(|| (part.name(), bell, bell < through))
            })
            .collect()
    }
}
