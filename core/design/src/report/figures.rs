//! Single figures.

use oak_acoustics::enclosure::{PassageFacts, PortTuning};
use oak_acoustics::response::Figures;
use serde::Serialize;
use utoipa::ToSchema;

use super::Computed;

/// A line or horn as it came out, SI.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, ToSchema)]
pub struct PassageReport {
    /// m.
    pub length: f64,
    /// m3.
    pub volume: f64,
    /// m2.
    pub start: f64,
    /// m2.
    pub end: f64,
    /// Cut-off of a widening way, Hz.
    pub cutoff: Option<f64>,
    /// Where it brakes the cone, Hz.
    pub resonance: Option<f64>,
}

/// One port as it came out.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, ToSchema)]
pub struct PortReport {
    /// m.
    pub length: f64,
    /// Area of one port, m2.
    pub area: f64,
    /// First resonance of the pipe itself, Hz.
    pub pipe_resonance: f64,
    /// Width of a slot, m.
    pub width: Option<f64>,
}

/// Single figures of a design at its drive.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct FigureReport {
    /// What is read off the solution.
    #[serde(flatten)]
    pub solved: Figures,
    /// In which opening the air is fastest.
    pub fastest_opening: Option<String>,
    /// Sealed: system resonance, Hz.
    pub fc: Option<f64>,
    /// Sealed: Q at that resonance, box losses included.
    pub qtc: Option<f64>,
    /// Tuning, where the box-side reactance crosses zero, Hz; of two ported chambers the front one's.
    pub fb: Option<f64>,
    /// Ported: tuning by Helmholtz's formula, Hz.
    pub fb_helmholtz: Option<f64>,
    /// Impedance minimum between the two peaks, Hz.
    pub fb_impedance: Option<f64>,
    /// Two ported chambers: tuning of the rear one, Hz.
    pub fb_rear: Option<f64>,
    /// Passive radiators: where they cancel the cone, Hz.
    pub notch: Option<f64>,
    /// Each port; of two ported chambers the front one's.
    pub ports: Vec<PortReport>,
    /// Two ported chambers: each port of the rear one.
    pub rear_ports: Vec<PortReport>,
    /// Lines and horns.
    pub passage: Option<PassageReport>,
}

impl PassageReport {
    fn of(facts: PassageFacts, resonance: Option<f64>) -> Self {
        let PassageFacts { length, volume, start, end, cutoff } = facts;
        Self { length, volume, start, end, cutoff, resonance }
    }
}

fn ports(tuning: Option<&PortTuning>) -> Vec<PortReport> {
    let ports = tuning.into_iter().flat_map(|tuning| &tuning.ports);
    ports
        .map(|port| PortReport {
            length: port.length,
            area: port.area,
            width: port.width,
            pipe_resonance: port.pipe_resonance,
        })
        .collect()
}

impl FigureReport {
    /// Lays the figures out; `resonance` (Hz) is where the cone stands still in a line or tapped horn.
    pub(super) fn of(computed: &Computed, resonance: Option<f64>) -> Self {
        let Computed { figures, built, .. } = computed;
        let compiled = &built.compiled;
        let (tuning, radiators) = (compiled.port_tuning.as_ref(), compiled.radiator_tuning);
        let fb =
            tuning.map(|tuning| tuning.reactance).or(radiators.map(|tuning| tuning.tuning)).or(resonance);
        Self {
            solved: figures.clone(),
            fastest_opening: figures.fastest_opening.map(|at| compiled.network.openings[at].label.clone()),
            fc: compiled.closed_box.map(|closed| closed.fc),
            qtc: compiled.closed_box.map(|closed| closed.qtc),
            fb,
            fb_helmholtz: tuning.map(|tuning| tuning.helmholtz),
            fb_impedance: fb.and(figures.impedance_dip),
            fb_rear: compiled.rear_tuning.as_ref().map(|tuning| tuning.reactance),
            notch: radiators.map(|tuning| tuning.notch),
            ports: ports(tuning),
            rear_ports: ports(compiled.rear_tuning.as_ref()),
            passage: compiled.passage.map(|facts| PassageReport::of(facts, resonance)),
        }
    }
}
