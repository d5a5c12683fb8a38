//! Runs the computation on a design and lays out what comes back.

mod air;
mod as_built;
mod body;
mod computed;
mod cut;
mod damping;
mod drawing;
mod driver;
mod export;
mod figures;
mod fill;
mod fold;
mod laid_fill;
mod model;
mod panel;
mod traces;
mod waves;

pub use air::{PortCutReport, RadiatorReport};
pub use as_built::AsBuiltReport;
pub use body::{
    BodyReport, ChamberReport, EntryReport, FindingReport, PartReport, TuningReport, USUAL_CROSSOVER,
};
pub use computed::{Computed, compute, compute_unboxed, compute_undelayed};
pub use cut::{CutEdge, CutPanel, CutReport};
pub use damping::{DampingReport, PhysicalFillReport, QuickFillReport};
pub use drawing::{CircleReport, DrawingReport, LabelReport, MeasureReport, StrokeReport};
pub use driver::{DoubtReport, DriverReport, UsedReport};
pub use export::{
    AirExport, BuiltExport, ChamberExport, DriverExport, LedgerExport, PassageExport, PassiveExport,
    PortExport, RadiatorExport, SectionExport, SourceExport, StretchExport,
};
pub use figures::{FigureReport, PassageReport, PortReport};
pub use fill::FillReport;
pub use fold::{FoldOffer, FoldPanelReport, FoldReport, fold_offers};
pub use model::{ModelPartReport, ModelReport, PanelModel};
pub use panel::{
    CLEAR, PanelRadiationReport, PanelReport, PressureReport, WeightReport, board_masses, panel_radiation,
};
pub use traces::{RibbonPiece, at_seats, limit_name};
pub use waves::{CouplingReport, WaveReport};

use oak_acoustics::medium::Space;
use oak_acoustics::response::FrequencyGrid;
use serde::Serialize;
use utoipa::ToSchema;

use crate::built::Built;
use crate::conditions::DriveOrigin;
use crate::problem::Problem;
use crate::resolve::ResolvedDesign;
use crate::trace::{Quantity, Trace, TraceOrigin};

/// Everything computed of one design. SI throughout, but dB, degrees and ms where a name says so.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Report {
    /// Drive and space in words: what the figures stand in.
    pub conditions: String,
    /// Where the drive is from.
    pub drive: DriveOrigin,
    /// Drive at the terminals, V RMS.
    pub volts: f64,
    /// The space it radiates into: `full`, `half`, `quarter` or `eighth`.
    pub space: &'static str,
    /// The driver as completed.
    pub driver: DriverReport,
    /// All drivers together as they are used, behind their cable.
    pub used: UsedReport,
    /// Its box, in short.
    pub as_built: AsBuiltReport,
    /// Single figures.
    pub figures: FigureReport,
    /// Lines over frequency.
    pub traces: Vec<Trace>,
    /// What runs out first, from low to high frequencies.
    pub ribbon: Vec<RibbonPiece>,
}

impl Report {
    /// Computes a resolved design and lays out the results.
    ///
    /// # Errors
    /// See [`compute`].
    pub fn of(design: &ResolvedDesign, grid: &FrequencyGrid) -> Result<Self, Problem> {
        let computed = compute(design, grid)?;
        let Built { design, compiled, .. } = &computed.built;
        let mut traces = traces::traces(&compiled.network, &computed.response, &computed.max_output);
        if let Some(place) = &design.playing.place {
            traces.extend(traces::at_seats(&computed, place));
        }
        Ok(Self {
            conditions: design.conditions(),
            drive: design.drive.origin,
            volts: design.drive.volts,
            space: match design.space {
                Space::Full => "full",
                Space::Half => "half",
                Space::Quarter => "quarter",
                Space::Eighth => "eighth",
            },
            driver: DriverReport::of(&design.driver),
            used: UsedReport::of(design),
            as_built: AsBuiltReport::of(&computed.built),
            figures: FigureReport::of(&computed, design.enclosure.resonance(&design.setting())),
            traces,
            ribbon: traces::ribbon(&computed.response, &computed.max_output),
        })
    }

    /// The lines of a quantity, in the order of openings, radiators or chambers.
    pub fn lines(&self, quantity: Quantity, origin: TraceOrigin) -> impl Iterator<Item = &Trace> {
        self.traces.iter().filter(move |trace| (trace.quantity, trace.origin) == (quantity, origin))
    }

    /// Leaves out what the lanes of the interface do not draw: half of it.
    pub fn keep_what_lanes_draw(&mut self) {
        // A drive that no filter shapes is one number.
        let shaped = self.lines(Quantity::Drive, TraceOrigin::Simulated).any(Trace::varies);
        self.traces
            .retain(|trace| trace.quantity.is_drawn() && (trace.quantity != Quantity::Drive || shaped));
        for trace in &mut self.traces {
            if trace.quantity == Quantity::Level {
                trace.phase = None;
            }
        }
    }
}
