//! The boards of a box: how they resonate, move and sound, and what they weigh.

use std::f64::consts::{PI, SQRT_2};

use oak_acoustics::Complex;
use oak_acoustics::medium::CrossSection;
use oak_acoustics::response::Response;
use oak_cabinetry::cut::{FlatPart, Joints, flat_parts};
use oak_cabinetry::geometry::Face;
use oak_cabinetry::panel::{self, Location, Plate, Wall};
use oak_cabinetry::{Body, Cabinet, Contents};
use serde::Serialize;
use utoipa::ToSchema;

use super::Computed;
use crate::resolve::ResolvedDesign;

/// Boards should resonate above this many times what the box plays (common practice: clear of the band).
pub const CLEAR: f64 = 2.0;
/// Mass of a driver over the square of its frame, kg/m2 (common practice: 5 kg for 250 mm).
const DRIVER_MASS: f64 = 75.0;
/// Mass of a radiator without what is put on it over the square of its frame, kg/m2: a basket and a cone without a magnet (common practice, from memory).
const RADIATOR_MASS: f64 = 20.0;
/// PVC, kg/m3.
const TUBE: f64 = 1400.0;

/// A board.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct PanelReport {
    /// Which one.
    pub name: String,
    /// Whether it stands inside: a partition, a board of a fold or a slot.
    pub inside: bool,
    /// All layers, m.
    pub thickness: f64,
    /// How many layers.
    pub layers: u32,
    /// What it is of, in files.
    pub material: &'static str,
    /// m2.
    pub area: f64,
    /// What it weighs around its holes, kg.
    pub mass: f64,
    /// Lowest resonance of its weakest field, Hz; of a pipe's wall none.
    pub resonance: Option<f64>,
    /// That field, m.
    pub field: Option<[f64; 2]>,
    /// Where it resonates too low and no brace reaches it, what helps.
    pub remedy: Option<String>,
    /// How far it moves where it moves most, at worst up to the crossover at the design's drive, m peak.
    pub deflection: Option<f64>,
    /// How loud it is beside the sound.
    pub radiation: Option<PanelRadiationReport>,
}

/// What the air inside does to the box at the design's drive.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct PressureReport {
    /// Highest pressure behind the drivers, Pa peak, and where, Hz.
    pub peak: [f64; 2],
    /// The largest outer board.
    pub face: String,
    /// What pushes on it then, N.
    pub force: f64,
    /// Air that the cones move one way over the air in the chamber.
    pub moved: f64,
    /// By how much that makes the spring of the air stiffer inward than outward, as a share.
    pub stiffer: f64,
}

impl PressureReport {
    pub(super) fn of(computed: &Computed, cabinet: &Cabinet, panels: &[Wall]) -> Option<Self> {
        let (response, built) = (&computed.response, &computed.built);
        let pressures = response.chamber_pressure.first()?;
        let peaks = pressures.iter().map(|pressure| SQRT_2 * pressure.norm());
        let peak = peaks
            .zip(&response.frequency)
            .map(|(peak, frequency)| [peak, *frequency])
            .max_by(|a, b| a[0].total_cmp(&b[0]))?;
        let outer = panels.iter().filter(|panel| panel.location.is_outer());
        let wall = outer.max_by(|a, b| a.area.total_cmp(&b.area))?;
        let area = built.compiled.network.cones.first()?.area;
        // Beyond its travel the figure says nothing.
        let most = built.design.driver.driver.xmax.unwrap_or(f64::INFINITY);
        let travel = response.excursion().fold(0.0, f64::max).min(most);
        let moved = area * travel / cabinet.chambers.first()?.ledger.net();
        Some(Self {
            peak,
            face: wall.location.name(),
            force: peak[0] * wall.area,
            moved,
            // p V^gamma stays: to first order the spring changes by (gamma + 1) times the share, one way up and the other down.
            stiffer: (built.design.air.gamma + 1.0) * moved,
        })
    }
}

/// What it weighs, kg.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, ToSchema)]
pub struct WeightReport {
    /// The outer boards around their holes, as they are cut.
    pub panels: f64,
    /// Boards inside: braces, partitions, folds, slots, strips.
    pub braces: f64,
    /// The drivers, estimated from their frames.
    pub drivers: f64,
    /// Radiators, estimated from their frames, with the mass that is put on them.
    pub radiators: f64,
    /// Tubes of ports.
    pub tubes: f64,
    /// Fill.
    pub fill: f64,
}

/// How loud all boards together are beside what the cabinet is for.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, ToSchema)]
pub struct PanelRadiationReport {
    /// dB below it, less than nothing.
    pub level: f64,
    /// Where that is worst, Hz.
    pub frequency: f64,
}

/// Mass of the outer boards, and of those inside, kg, as they are cut; the wall of a pipe and round corners, which are not cut flat, with the outer
/// ones.
pub fn board_masses(body: &Body, contents: &Contents, cabinet: &Cabinet, joints: &Joints) -> [f64; 2] {
    let mut boards = [0.0; 2];
    for part in flat_parts(body, contents, cabinet, joints) {
        boards[usize::from(part.face.is_none())] += flat_mass(&part);
    }
    let all = panel::walls(body, contents, cabinet);
    let shell = all.iter().filter(|wall| matches!(wall.location, Location::Outer(Face::Shell)));
    boards[0] += shell.map(|wall| wall.mass).sum::<f64>();
    boards
}

/// Mass of all that are alike, kg.
fn flat_mass(part: &FlatPart) -> f64 {
    part.wood() * part.panel.material.density * f64::from(part.count)
}

/// Mass of one board of a box as it is cut, kg.
pub(super) fn cut_mass(wall: &Wall, flat: &[FlatPart]) -> f64 {
    let name = wall.location.name();
    let is_it = |part: &&FlatPart| match wall.location {
        Location::Outer(face) => part.face == Some(face),
        _ => part.face.is_none() && part.name == name,
    };
    let found: f64 = flat.iter().filter(is_it).map(flat_mass).sum();
    if found > 0.0 { found } else { wall.mass }
}

/// Tubes of all ports, kg.
fn tubes(design: &ResolvedDesign, contents: &Contents) -> f64 {
    let each = [false, true].into_iter().zip(&contents.ports).flat_map(|(front, ports)| {
        ports.iter().enumerate().map(move |(index, port)| (design.body.port_build(front, index).wall, port))
    });
    each.map(|(wall, port)| match port.section {
        CrossSection::Round { radius } => {
            let ring = PI * ((radius + wall).powi(2) - radius * radius);
            f64::from(port.count) * ring * port.length * TUBE
        }
        CrossSection::Slot { .. } | CrossSection::Corner { .. } => 0.0,
    })
    .sum()
}

impl WeightReport {
    /// Weighs a box with its drivers and its fill.
    pub fn of(design: &ResolvedDesign, contents: &Contents, cabinet: &Cabinet) -> Self {
        let body = &design.body;
        let [panels, braces] = board_masses(body, contents, cabinet, &design.joints);
        Self {
            panels,
            braces,
            radiators: contents.radiators.map_or(0.0, |radiators| {
                let (_, added) = body.washers.nearest();
                f64::from(radiators.count) * (RADIATOR_MASS * radiators.frame().powi(2) + added)
            }),
            tubes: tubes(design, contents),
            drivers: DRIVER_MASS * contents.drivers.frame.powi(2) * f64::from(contents.drivers.in_all()),
            fill: super::laid_fill::weight(design, cabinet),
        }
    }

    /// All of it, kg.
    pub fn total(&self) -> f64 {
        self.panels + self.braces + self.drivers + self.radiators + self.tubes + self.fill
    }
}

impl PanelReport {
    pub(super) fn of(computed: &Computed, panel: &Wall, flat: &[FlatPart], crossover: f64) -> Self {
        let weakest = panel.weakest();
        let response = &computed.response;
        let moved = response.frequency.iter().enumerate().filter(|(_, frequency)| **frequency <= crossover);
        let moved =
            moved.map(|(at, frequency)| SQRT_2 * across(response, panel, at) * panel.deflection(*frequency));
        Self {
            name: panel.location.name(),
            inside: !panel.location.is_outer(),
            thickness: panel.panel.total(),
            layers: panel.panel.layers,
            material: panel.panel.material.id,
            area: panel.area,
            mass: cut_mass(panel, flat),
            resonance: weakest.map(Plate::resonance),
            field: weakest.map(|field| field.sides),
            remedy: remedy(panel, crossover),
            deflection: weakest.map(|_| moved.fold(0.0, f64::max)),
            radiation: weakest.and_then(|_| radiation(computed, std::slice::from_ref(panel), crossover)),
        }
    }
}

/// What lifts the resonance of a board of a slot or a fold, which braces do not reach.
fn remedy(panel: &Wall, crossover: f64) -> Option<String> {
    let now = panel.weakest()?.resonance();
    let how = match panel.location {
        Location::Outer(_) | Location::Partition | Location::ChamberEnd => return None,
        Location::Slot { .. } => {
            "a bracket or a strip on edge along the middle of its widest board, on the chamber's side"
        }
        Location::Fold(_) | Location::Closing => {
            "a strip on edge between it and the next board, along the middle of the path"
        }
    };
    let then = panel.supported()?;
    let low = now < CLEAR * crossover;
    low.then(|| format!("{how}, brings its resonance from {now:.0} to about {then:.0} Hz"))
}

/// What presses on a board at a position of the frequencies, Pa RMS: the chamber's pressure on outer ones, what two chambers differ
/// by on the board between them; along a slot it falls to nothing, half of it on average; on boards of a fold no more than all of it.
fn across(response: &Response, panel: &Wall, at: usize) -> f64 {
    let inside = |chamber: usize| response.chamber_pressure.get(chamber).map_or(Complex::ZERO, |all| all[at]);
    match panel.location {
        Location::Outer(_) | Location::Fold(_) | Location::Closing | Location::ChamberEnd => inside(0).norm(),
        Location::Partition => (inside(0) - inside(1)).norm(),
        Location::Slot { front, .. } => inside(usize::from(front)).norm() / 2.0,
    }
}

/// How loud the outer boards are together beside everything else, at worst from F3 to the crossover (Hz).
pub fn panel_radiation(computed: &Computed, panels: &[Wall], crossover: f64) -> Option<PanelRadiationReport> {
    let outer: Vec<Wall> = panels.iter().filter(|panel| panel.location.is_outer()).cloned().collect();
    radiation(computed, &outer, crossover)
}

/// How much air boards move beside what is heard, at worst from F3 to the crossover (Hz).
fn radiation(computed: &Computed, panels: &[Wall], crossover: f64) -> Option<PanelRadiationReport> {
    let response: &Response = &computed.response;
    response.chamber_pressure.first()?;
    let lowest = computed.figures.f3?;
    let band = response.frequency.iter().enumerate().filter(|(_, f)| (lowest..=crossover).contains(*f));
    band.map(|(at, frequency)| {
        let omega = 2.0 * std::f64::consts::PI * frequency;
        let each = panels.iter().map(|panel| panel.compliance(*frequency) * across(response, panel, at));
        let moved = omega * each.sum::<f64>();
        // Of several cabinets what one moves beside what one is heard of.
        let heard = response.pressure[at].norm() / computed.built.compiled.network.source(omega);
        PanelRadiationReport { level: 20.0 * (moved / heard).log10(), frequency: *frequency }
    })
    .max_by(|a, b| a.level.total_cmp(&b.level))
}
