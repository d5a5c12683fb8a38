//! The box of a design, laid out.

use std::f64::consts::SQRT_2;

use oak_acoustics::Complex;
use oak_acoustics::enclosure::Compiled;
use oak_acoustics::response::Response;
use oak_cabinetry::drawing::{self, View};
use oak_cabinetry::geometry::Point;
use oak_cabinetry::panel::{self, Location, Plate, Wall};
use oak_cabinetry::{Body, Cabinet, Contents, Part, PartKind};
use serde::Serialize;
use utoipa::ToSchema;

use super::fill::{fills, tuned_as};
use super::waves::waves;
use super::{
    Computed, DampingReport, DrawingReport, FillReport, FoldReport, PortCutReport, RadiatorReport,
    WaveReport, air, damping,
};
use crate::built::Boxed;
use crate::problem::Problem;
use crate::resolve::ResolvedDesign;

/// Where the others take over if the brief does not say, Hz (common practice).
pub const USUAL_CROSSOVER: f64 = 120.0;
/// Boards should resonate above this many times what the box plays (common practice: clear of the band).
pub const CLEAR: f64 = 2.0;
/// Mass of a driver over the square of its frame, kg/m2 (common practice: 5 kg for 250 mm).
const DRIVER_MASS: f64 = 75.0;

/// The box of a design. SI throughout.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct BodyReport {
    /// Width, height and depth outside, m.
    pub outside: [f64; 3],
    /// Of the room, m.
    pub inside: [f64; 3],
    /// Which of width, height and depth were found.
    pub solved: [bool; 3],
    /// Width, height and depth of what the design measures, m.
    pub sizes: [f64; 3],
    /// Whether the volume follows from the sizes, because all of them are stated.
    pub volume_follows: bool,
    /// What the place must hold, m3.
    pub outside_volume: f64,
    /// Each chamber, the one behind the drivers first.
    pub chambers: Vec<ChamberReport>,
    /// How the design is tuned in it.
    pub tuning: TuningReport,
    /// What is mounted.
    pub parts: Vec<PartReport>,
    /// The boards.
    pub panels: Vec<PanelReport>,
    /// What does not fit.
    pub findings: Vec<FindingReport>,
    /// Standing waves, the lowest first.
    pub waves: Vec<WaveReport>,
    /// What they mean for this design.
    pub waves_verdict: String,
    /// What it weighs.
    pub weight: WeightReport,
    /// What the air inside does to it; of kinds without a chamber none.
    pub pressure: Option<PressureReport>,
    /// How loud the panels are beside the driver.
    pub panel_radiation: Option<PanelRadiationReport>,
    /// Layers of fill.
    pub fills: Vec<FillReport>,
    /// How ports are to be cut.
    pub ports: Vec<PortCutReport>,
    /// How radiators are to be weighted.
    pub radiators: Option<RadiatorReport>,
    /// What fill does, by both methods.
    pub damping: Option<DampingReport>,
    /// The folded path of a line or horn.
    pub fold: Option<FoldReport>,
    /// Side section, front, plan and boards apart.
    pub drawings: Vec<DrawingReport>,
}

/// One line of a ledger.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct EntryReport {
    /// What takes it.
    pub what: String,
    /// m3.
    pub volume: f64,
    /// Whether it rests on sizes that nobody stated.
    pub estimated: bool,
}

/// A chamber and what is left of it.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct ChamberReport {
    /// What to call it.
    pub name: &'static str,
    /// Room between the boards, m3.
    pub gross: f64,
    /// What is taken off.
    pub entries: Vec<EntryReport>,
    /// What is left, m3.
    pub net: f64,
    /// What the design asks for, m3.
    pub wanted: f64,
    /// By how much fill makes it seem larger.
    pub gain: f64,
    /// Corners of the chamber's bounds, lowest and highest, m.
    pub bounds: [[f64; 3]; 2],
}

/// How the design is tuned in its box.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct TuningReport {
    /// What is tuned: `Fb`, `Fc` or nothing.
    pub symbol: Option<&'static str>,
    /// Hz.
    pub frequency: Option<f64>,
}

/// Something mounted.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct PartReport {
    /// `driver`, `port`, `radiator`, `item`, `brace`, `partition`, `fold`, `closing` or `mouth`.
    pub kind: &'static str,
    /// What to call it.
    pub name: String,
    /// Which of its kind in the design, from 0.
    pub index: usize,
    /// 0 behind the drivers, 1 before them.
    pub chamber: usize,
    /// Which board it sits in.
    pub face: Option<String>,
    /// Its middle on that board, across and up, m.
    pub at: [f64; 2],
    /// The same place in space, m.
    pub mouth: [f64; 3],
    /// Out of the cabinet there.
    pub normal: [f64; 3],
    /// Across what moves or is open, m.
    pub across: f64,
    /// Height of a slot, m.
    pub tall: Option<f64>,
    /// Across its frame, m; of a driver or radiator.
    pub frame: Option<f64>,
    /// Middle line of a port, or of a way from its mouth inward.
    pub path: Vec<[f64; 3]>,
}

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
    fn of(computed: &Computed, cabinet: &Cabinet, panels: &[Wall]) -> Option<Self> {
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

/// What does not fit, or hardly.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct FindingReport {
    /// In words.
    pub words: String,
    /// Whether it cannot be built so.
    pub forbids: bool,
    /// The part it is about.
    pub part: Option<String>,
}

/// What it weighs, kg.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, ToSchema)]
pub struct WeightReport {
    /// All boards, outer ones around their holes.
    pub panels: f64,
    /// Braces and strips.
    pub braces: f64,
    /// The drivers, estimated from their frames.
    pub drivers: f64,
}

/// How loud all boards together are beside what the cabinet is for.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, ToSchema)]
pub struct PanelRadiationReport {
    /// dB below it, less than nothing.
    pub level: f64,
    /// Where that is worst, Hz.
    pub frequency: f64,
}

impl BodyReport {
    /// Lays out the box of a design that plays up to a crossover (Hz); `None` where it has none.
    ///
    /// # Errors
    /// A box that cannot be built.
    pub fn of(
        wished: &ResolvedDesign,
        computed: &Computed,
        crossover: Option<f64>,
    ) -> Result<Option<Self>, Problem> {
        let Some(Boxed { contents, cabinet }) = computed.built.drawn()? else { return Ok(None) };
        let design = &computed.built.design;
        let [low, high] = cabinet.outer.bounds();
        let [floor, ceiling] = cabinet.interior.bounds();
        let size = |low: Point, high: Point| [0, 1, 2].map(|k| high[k] - low[k]);
        let parts: Vec<_> = cabinet.parts.iter().map(|part| part_report(part, contents, cabinet)).collect();
        let crossover = crossover.unwrap_or(USUAL_CROSSOVER);
        let (waves, waves_verdict) = waves(design, contents, cabinet, crossover);
        let panels = panel::walls(&design.body, contents, cabinet);
        let fills = fills(&design.body, cabinet);
        Ok(Some(Self {
            outside: size(low, high),
            inside: size(floor, ceiling),
            solved: cabinet.solved,
            sizes: cabinet.sizes,
            volume_follows: computed.built.volume_follows(),
            outside_volume: cabinet.outer.volume(),
            tuning: TuningReport::of(&computed.built.compiled),
            chambers: chambers(cabinet),
            fold: FoldReport::of(wished, computed, crossover)?,
            ports: air::ports(computed, contents, cabinet),
            radiators: air::radiators(computed)?,
            damping: damping::damping(computed, cabinet, &fills)?,
            fills,
            parts,
            findings: cabinet
                .findings
                .iter()
                .map(|finding| FindingReport {
                    words: finding.to_string(),
                    forbids: finding.forbids(),
                    part: finding.part().map(str::to_owned),
                })
                .collect(),
            waves,
            waves_verdict,
            weight: WeightReport::of(&design.body, contents, cabinet),
            panel_radiation: panel_radiation(computed, &panels, crossover),
            pressure: PressureReport::of(computed, cabinet, &panels),
            panels: panels.iter().map(|panel| PanelReport::of(computed, panel, crossover)).collect(),
            drawings: View::ALL
                .into_iter()
                .map(|view| DrawingReport::of(&drawing::view(view, &design.body, contents, cabinet)))
                .collect(),
        }))
    }
}

impl WeightReport {
    /// Weighs a box with its drivers.
    pub fn of(body: &Body, contents: &Contents, cabinet: &Cabinet) -> Self {
        Self {
            panels: panel::walls(body, contents, cabinet).iter().map(|panel| panel.mass).sum(),
            braces: panel::braces_and_strips(body, cabinet) * body.panel.material.density,
            drivers: DRIVER_MASS * contents.drivers.frame.powi(2) * f64::from(contents.drivers.in_all()),
        }
    }

    /// All of it, kg.
    pub fn total(&self) -> f64 {
        self.panels + self.braces + self.drivers
    }
}

impl PanelReport {
    fn of(computed: &Computed, panel: &Wall, crossover: f64) -> Self {
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
            mass: panel.mass,
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
        Location::Outer(_) | Location::Partition => return None,
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
        Location::Outer(_) | Location::Fold(_) | Location::Closing => inside(0).norm(),
        Location::Partition => (inside(0) - inside(1)).norm(),
        Location::Slot { front, .. } => inside(usize::from(front)).norm() / 2.0,
    }
}

impl TuningReport {
    fn of(compiled: &Compiled) -> Self {
        let found = tuned_as(compiled);
        Self { symbol: found.map(|found| found.0), frequency: found.map(|found| found.1) }
    }
}

fn chambers(cabinet: &Cabinet) -> Vec<ChamberReport> {
    let names: &[&'static str] = match (cabinet.chambers.len() > 1, cabinet.fold.is_some()) {
        (true, false) => &["Chamber behind", "Chamber before"],
        (false, false) => &["Box"],
        (true, true) => &["Chamber", "Path"],
        (false, true) => &["Path"],
    };
    cabinet
        .chambers
        .iter()
        .zip(names)
        .map(|(chamber, name)| ChamberReport {
            name,
            gross: chamber.ledger.gross,
            entries: chamber
                .ledger
                .entries
                .iter()
                .map(|entry| EntryReport {
                    what: entry.what.clone(),
                    volume: entry.volume,
                    estimated: entry.estimated,
                })
                .collect(),
            net: chamber.ledger.net(),
            wanted: chamber.ledger.wanted,
            gain: chamber.ledger.gain,
            bounds: chamber.interior.bounds(),
        })
        .collect()
}

fn part_report(part: &Part, contents: &Contents, cabinet: &Cabinet) -> PartReport {
    let mouth = cabinet.mouth(part, contents);
    PartReport {
        kind: match part.kind {
            PartKind::Driver => "driver",
            PartKind::Radiator => "radiator",
            PartKind::Port => "port",
            PartKind::Item => "item",
            PartKind::Brace => "brace",
            PartKind::Partition => "partition",
            PartKind::Fold => "fold",
            PartKind::Closing => "closing",
            PartKind::Mouth => "mouth",
            PartKind::Strip => "strip",
        },
        name: part.name(),
        index: part.index,
        chamber: part.chamber,
        face: part.face.map(|face| face.name()),
        at: part.at,
        mouth: mouth.map_or([0.0; 3], |mouth| mouth.outer),
        normal: mouth.map_or([0.0; 3], |mouth| mouth.normal),
        across: mouth.map_or(0.0, |mouth| mouth.size[0]),
        tall: mouth.filter(|mouth| !mouth.round).map(|mouth| mouth.size[1]),
        frame: contents.frame(part),
        path: part.path.clone(),
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
