//! Every hole: its size in both systems, its template, its pilot, and what is wrong with where it is.

use oak_cabinetry::cut::{EdgeJoint, FlatHole, HoleKind};
use oak_cabinetry::panel::Material;
use oak_design::file::RawFixing;
use oak_design::report::CutPanel;
use serde::Serialize;
use utoipa::ToSchema;

use super::hardware::{head, nut_hole, thread_for};
use super::making::Making;

/// One hole, or bolts of one circle, in a board.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct HolePlan {
    /// Number of its board.
    pub panel: u32,
    /// Which hole of that board, from 0.
    pub index: usize,
    /// As the board has it.
    #[serde(flatten)]
    pub hole: FlatHole,
    /// Its diameter or width in inches, up to the next 32nd: as the numerator over 32.
    pub inch32: u32,
    /// Diameter or width and height of the opening in a template that a router runs in with its guide bush, m; none of what is drilled.
    pub template: Option<[f64; 2]>,
    /// How far the edge of that template stands off the hole all round, m.
    pub offset: f64,
    /// What is drilled for the screws around it: diameter, m, and what for.
    pub drill: Option<(f64, String)>,
    /// The board that is drilled together with it on one pin, where there is one.
    pub pair: Option<u32>,
    /// What is wrong with it.
    pub faults: Vec<String>,
}

/// Least wood between a hole and the edge of its board, m (common practice), and least distance of a bolt from an edge, in its diameters.
const LEAST: f64 = 0.008;
const LEAST_DIAMETERS: f64 = 1.5;

impl Making<'_> {
    /// Every hole of every board.
    pub fn holes(&self) -> Vec<HolePlan> {
        let panels = &self.cut.panels;
        panels
            .iter()
            .flat_map(|panel| panel.holes.iter().enumerate().map(|(at, hole)| self.hole(panel, at, hole)))
            .collect()
    }

    fn hole(&self, panel: &CutPanel, index: usize, hole: &FlatHole) -> HolePlan {
        let [cutter, bush] = self.workshop.router;
        let drilled = matches!(hole.kind, HoleKind::Bolt | HoleKind::Dowel);
        let offset = if drilled { 0.0 } else { (bush - cutter) / 2.0 };
        let template = (!drilled).then(|| hole.size.map(|side| side + 2.0 * offset));
        HolePlan {
            panel: panel.number,
            index,
            hole: hole.clone(),
            inch32: up_to_32nds(hole.size[0]),
            template,
            offset,
            drill: self.drill(panel, hole),
            pair: self.pair(panel, hole),
            faults: self.faults(panel, hole),
        }
    }

    /// What is drilled where a bolt comes.
    fn drill(&self, panel: &CutPanel, hole: &FlatHole) -> Option<(f64, String)> {
        if hole.kind != HoleKind::Bolt {
            return None;
        }
        let thread = thread_for(self.bolts().1);
        match self.workshop.fixing {
            RawFixing::WoodScrews => {
                let screw = self.driver_screw()?;
                let pilot = screw.pilot(Material::named(panel.material)?);
                Some((pilot, format!("pilot for {}", screw.name())))
            }
            RawFixing::TNuts => Some((nut_hole(thread, false), format!("T-nut M{:.0}", thread * 1e3))),
            RawFixing::Inserts => Some((nut_hole(thread, true), format!("insert M{:.0}", thread * 1e3))),
        }
    }

    /// The other layer of a board of several, whose hole is cut on the same pin.
    fn pair(&self, panel: &CutPanel, hole: &FlatHole) -> Option<u32> {
        let [layer, all] = panel.layer?;
        let other = if layer < all { layer + 1 } else { layer - 1 };
        let name = panel.name.split(", layer").next()?;
        let same = |one: &&CutPanel| {
            one.name.split(", layer").next() == Some(name) && one.layer.is_some_and(|[at, _]| at == other)
        };
        let found = self.cut.panels.iter().find(same)?;
        found
            .holes
            .iter()
            .any(|one| one.kind == hole.kind || one.kind == HoleKind::Recess)
            .then_some(found.number)
    }

    fn faults(&self, panel: &CutPanel, hole: &FlatHole) -> Vec<String> {
        let mut faults = Vec::new();
        // A slot and a mouth lie along their walls on purpose; dowels stand in the joint.
        let along = match hole.kind {
            HoleKind::Mouth | HoleKind::Dowel => true,
            HoleKind::Port => !hole.round,
            HoleKind::Driver | HoleKind::Radiator | HoleKind::Recess | HoleKind::Bolt | HoleKind::Item => {
                false
            }
        };
        if !along {
            let (distance, met) = self.nearest_edge(panel, hole);
            let least = if hole.kind == HoleKind::Bolt { LEAST_DIAMETERS * hole.size[0] } else { LEAST };
            if let Some((name, zone)) = met.filter(|(_, zone)| distance < *zone - 1e-6) {
                faults.push(format!(
                    "the {} crosses the joint with the {name}: {:.0} mm from the edge, whose board is {:.0} mm thick",
                    hole.what, distance * 1e3, zone * 1e3
                ));
            } else if distance < least - 1e-6 {
                faults.push(format!(
                    "the {} is {:.0} mm from the edge; {:.0} mm at least are left",
                    hole.what,
                    distance * 1e3,
                    least * 1e3
                ));
            }
        }
        if hole.kind == HoleKind::Bolt && self.workshop.fixing == RawFixing::WoodScrews {
            let wide = head(self.screw_diameter());
            if wide <= hole.size[0] {
                faults.push(format!(
                    "a screw head of {:.1} mm slips through the frame's hole of {:.1} mm: use washers",
                    wide * 1e3,
                    hole.size[0] * 1e3
                ));
            }
            if self.driver_screw().is_none_or(|screw| screw.length < SHORTEST) {
                faults.push(format!(
                    "no screw holds in {:.0} mm of wood without coming through: use T-nuts, or a thicker board",
                    self.holds_driver() * 1e3
                ));
            }
        }
        faults
    }

    /// How far the rim of a hole is from the nearest edge of its board, m, and of an edge that reaches over another board which that is and how
    /// thick, m. Of all edges the one that is the worst to be near.
    fn nearest_edge(&self, panel: &CutPanel, hole: &FlatHole) -> (f64, Option<(String, f64)>) {
        let count = panel.outer.len();
        let each = (0..count).map(|k| {
            let [a, b] = [panel.outer[k], panel.outer[(k + 1) % count]];
            let along = [b[0] - a[0], b[1] - a[1]];
            let long = along[0].hypot(along[1]).max(1e-12);
            let normal = [-along[1] / long, along[0] / long];
            let from = (hole.at[0] - a[0]) * normal[0] + (hole.at[1] - a[1]) * normal[1];
            let reach = if hole.round {
                hole.size[0] / 2.0
            } else {
                (normal[0] * hole.size[0] / 2.0).abs() + (normal[1] * hole.size[1] / 2.0).abs()
            };
            let edge = panel.edges.get(k);
            let over = edge.filter(|edge| edge.joint == EdgeJoint::Over).and_then(|edge| edge.meets.clone());
            let zone = over.map(|name| {
                let thick: f64 = self
                    .cut
                    .panels
                    .iter()
                    .filter(|one| one.outside && one.name.split(", layer").next() == Some(name.as_str()))
                    .map(|one| one.thickness)
                    .sum();
                (name, thick)
            });
            (from - reach, zone)
        });
        let spare = |(distance, zone): &(f64, Option<(String, f64)>)| {
            distance - zone.as_ref().map_or(0.0, |(_, thick)| *thick)
        };
        each.min_by(|a, b| spare(a).total_cmp(&spare(b))).unwrap_or((f64::INFINITY, None))
    }
}

/// Shortest screw that holds a driver, m (common practice).
const SHORTEST: f64 = 0.016;

/// A length in 32nds of an inch, up: what is cut must let the driver in.
pub(super) fn up_to_32nds(length: f64) -> u32 {
    (length / 0.0254 * 32.0 - 1e-6).ceil() as u32
}
