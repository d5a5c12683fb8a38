//! The box of a design, laid out.

use oak_acoustics::enclosure::Compiled;
use oak_cabinetry::cut::flat_parts;
use oak_cabinetry::drawing::{self, View};
use oak_cabinetry::geometry::Point;
use oak_cabinetry::{Cabinet, Contents, Part, PartKind, panel};
use serde::Serialize;
use utoipa::ToSchema;

use super::fill::{fills, tuned_as};
use super::waves::waves;
use super::{
    Computed, DampingReport, DrawingReport, FillReport, FoldReport, PanelRadiationReport, PanelReport,
    PortCutReport, PressureReport, RadiatorReport, WaveReport, WeightReport, air, damping, panel_radiation,
};
use crate::built::Boxed;
use crate::problem::Problem;
use crate::resolve::ResolvedDesign;

/// Where the others take over if the brief does not say, Hz (common practice).
pub const USUAL_CROSSOVER: f64 = 120.0;

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
        let flat = flat_parts(&design.body, contents, cabinet, &design.joints);
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
            weight: WeightReport::of(design, contents, cabinet),
            panel_radiation: panel_radiation(computed, &panels, crossover),
            pressure: PressureReport::of(computed, cabinet, &panels),
            panels: panels.iter().map(|panel| PanelReport::of(computed, panel, &flat, crossover)).collect(),
            drawings: View::ALL
                .into_iter()
                .map(|view| DrawingReport::of(&drawing::view(view, &design.body, contents, cabinet)))
                .collect(),
        }))
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
            PartKind::ChamberEnd => "chamber_end",
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
