//! The standing-wave check: what the standing waves of a chamber do to a design.

use std::sync::Arc;

use oak_acoustics::Stop;
use oak_acoustics::cavity::{Block, Cavity, CavityError, Patch};
use oak_acoustics::driver::REFERENCE_PRESSURE;
use oak_acoustics::element::Slice;
use oak_acoustics::enclosure::{ChamberModel, Compiled};
use oak_acoustics::medium::Fill;
use oak_acoustics::network::Network;
use oak_acoustics::response::{FrequencyGrid, Response};
use oak_cabinetry::geometry::{Axis, Point};
use oak_cabinetry::{Body, Cabinet, Contents, Mouth, PartKind, modes};
use serde::Serialize;
use utoipa::ToSchema;

use crate::built::{Boxed, Built};
use crate::problem::{Problem, ProblemKind};
use crate::resolve::ResolvedDesign;

/// Span of the check, Hz, and how many frequencies.
const SPAN: (f64, f64) = (20.0, 700.0);
const POINTS: usize = 320;
/// Pieces along the axis of a chain.
const CUTS: usize = 96;

/// How the air in the chamber is modelled.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum CavityModel {
    /// As ducts along its longest axis.
    Quick,
    /// In all three directions.
    Full,
}

/// One way to model the air, computed.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct CavityCheckCurves {
    /// Impedance, ohm.
    pub impedance: Vec<f64>,
    /// Level at 1 m, dB.
    pub level: Vec<f64>,
    /// Level that the first port or radiator alone makes at 1 m, dB; empty without one.
    pub port: Vec<f64>,
}

/// What standing waves do. SI throughout.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct CavityCheckReport {
    /// Hz.
    pub frequency: Vec<f64>,
    /// With the chamber as one spring.
    pub lumped: CavityCheckCurves,
    /// With its waves.
    pub cavity: CavityCheckCurves,
    /// The first peak of impedance above that of a spring, Hz, and how high it is, ohm.
    pub ripple: [f64; 2],
    /// The first peak of the port, or without one of the whole, above that of a spring, Hz, and how high it is, dB.
    pub bump: [f64; 2],
    /// In words.
    pub words: String,
    /// `quick` or `full`.
    pub model: &'static str,
    /// Unknowns of the full model.
    pub unknowns: Option<usize>,
    /// By how much the reduced model was off where it was compared with a full solution, as a share.
    pub error: Option<f64>,
}

/// Checks a design; `None` where its cabinet is no single room behind the drivers, or where it
/// was stopped. `told` hears how many of how many steps are done.
///
/// # Errors
/// A box that cannot be built or has no place for something, or a full model of a room that is no plain box.
pub fn cavity_check(
    design: &ResolvedDesign,
    model: CavityModel,
    stop: &Stop,
    told: &(dyn Fn(usize, usize) + Sync),
) -> Result<Option<CavityCheckReport>, Problem> {
    let settled = design.built()?;
    let Some(Boxed { contents, cabinet }) = settled.drawn()? else { return Ok(None) };
    let Built { design: built, compiled, .. } = &settled;
    if contents.path.is_some() {
        return Ok(None);
    }
    let openings: Vec<Vec<Vec<Mouth>>> =
        (0..cabinet.chambers.len()).map(|chamber| openings(contents, cabinet, chamber)).collect();
    // What has no place cannot sound.
    if openings.iter().flatten().any(Vec::is_empty) {
        let reason = cabinet.findings.iter().find(|finding| finding.forbids()).map(ToString::to_string);
        return Err(unbuildable(reason.unwrap_or_default()));
    }
    let mut chambers = Vec::with_capacity(openings.len());
    let mut size = None;
    for (chamber, openings) in openings.iter().enumerate() {
        chambers.push(match model {
            CavityModel::Quick => chain(&design.body, cabinet, chamber, openings),
            CavityModel::Full => {
                if !modes::plain(&design.body.shape) {
                    let reason =
                        "only a plain box is modelled in three directions; the quick check takes any shape";
                    return Err(Problem { field: "body.shape".to_owned(), ..unbuildable(reason.to_owned()) });
                }
                let cavity = cavity(&design.body, cabinet, chamber, openings);
                let reduced = match cavity.reduce(&design.air, stop, told) {
                    Ok(reduced) => reduced,
                    Err(CavityError::Stopped) => return Ok(None),
                    Err(error) => {
                        let reason = format!("{error}: the quick check takes any size");
                        return Err(unbuildable(reason));
                    }
                };
                let (unknowns, error) = size.unwrap_or((0, 0.0_f64));
                size = Some((unknowns + reduced.unknowns, error.max(reduced.error)));
                ChamberModel::Waves(Arc::new(reduced))
            }
        });
    }
    let waves = built.enclosure.compile_with_cavity(&built.setting(), [chambers.first(), chambers.get(1)]);
    let waves = waves.map_err(|error| unbuildable(error.to_string()))?;
    let Some(waves) = waves else { return Ok(None) };
    let grid = FrequencyGrid::logarithmic(SPAN.0, SPAN.1, POINTS).expect("within the allowed range");
    let [lumped, cavity] = [compiled, &waves].map(|compiled| curves(compiled, &grid, built.drive.volts));
    let frequency = grid.frequencies().to_vec();
    let heard = |curves: &CavityCheckCurves| {
        if curves.port.is_empty() { curves.level.clone() } else { curves.port.clone() }
    };
    let sides = cabinet.chambers.iter().map(|chamber| {
        let [low, high] = chamber.interior.bounds();
        (0..3).map(|k| high[k] - low[k]).fold(0.0, f64::max)
    });
    let longest = sides.fold(0.0, f64::max);
    let from = SHOW * built.air.speed / (2.0 * longest);
    let ripple = first_peak(&frequency, from, [&cavity.impedance, &lumped.impedance], RIPPLE);
    let bump = first_peak(&frequency, from, [&heard(&cavity), &heard(&lumped)], BUMP);
    Ok(Some(CavityCheckReport {
        words: words(ripple, bump, !lumped.port.is_empty()),
        frequency,
        lumped,
        cavity,
        ripple,
        bump,
        model: if model == CavityModel::Quick { "quick" } else { "full" },
        unknowns: size.map(|size| size.0),
        error: size.map(|size| size.1),
    }))
}

/// A peak from which on it is named: of level, dB, and of impedance, ohm.
const BUMP: f64 = 3.0;
const RIPPLE: f64 = 0.2;
/// From which share of the frequency of the lowest wave on a peak is one of a wave. Below, the air of a long box weighs on the
/// port and moves the tuning, which is another matter.
const SHOW: f64 = 0.7;

/// The first frequency where one curve stands above another by a peak worth naming, and by how much; where none is, the largest
/// there is.
fn first_peak(frequency: &[f64], from: f64, [one, other]: [&[f64]; 2], named: f64) -> [f64; 2] {
    let rise: Vec<f64> = one.iter().zip(other).map(|(a, b)| a - b).collect();
    let shown = (1..rise.len().saturating_sub(1)).filter(|at| frequency[*at] > from);
    let peaks = shown.clone().filter(|at| rise[*at] >= rise[at - 1] && rise[*at] > rise[at + 1]);
    let first = peaks.clone().find(|at| rise[*at] > named);
    let found = first.or_else(|| shown.max_by(|a, b| rise[*a].total_cmp(&rise[*b])));
    found.map_or([from, 0.0], |at| [frequency[at], rise[at]])
}

fn words(ripple: [f64; 2], bump: [f64; 2], ported: bool) -> String {
    let what = if ported { "what leaves the port" } else { "the sound" };
    if bump[1] < BUMP && ripple[1] < RIPPLE {
        return "Neither the impedance nor the sound shows a standing wave worth naming below 700 Hz."
            .to_owned();
    }
    let impedance = if ripple[1] < RIPPLE {
        "the impedance hardly shows it".to_owned()
    } else {
        format!("the impedance shows one at {:.0} Hz, {:.1} ohm high", ripple[0], ripple[1])
    };
    format!(
        "At {:.0} Hz a standing wave lifts {what} by {:.0} dB above that of a box without any; {impedance}.",
        bump[0], bump[1]
    )
}

fn curves(compiled: &Compiled, grid: &FrequencyGrid, volts: f64) -> CavityCheckCurves {
    let network: &Network = &compiled.network;
    let response = Response::without_delay(network, grid, volts);
    let port = match (response.opening_velocity.first(), network.openings.first()) {
        (Some(velocity), Some(opening)) => velocity
            .iter()
            .zip(&response.frequency)
            .map(|(velocity, frequency)| {
                // Pressure of a source at 1 m: rho w U over the solid angle.
                let flow = velocity.norm() * opening.area;
                let pressure = network.source(2.0 * std::f64::consts::PI * frequency) * flow;
                20.0 * (pressure / REFERENCE_PRESSURE).max(1e-9).log10()
            })
            .collect(),
        _ => Vec::new(),
    };
    CavityCheckCurves {
        impedance: response.impedance.iter().map(|z| z.norm()).collect(),
        level: response.level().collect(),
        port,
    }
}

fn unbuildable(reason: String) -> Problem {
    Problem::new("body", ProblemKind::Unbuildable { reason })
}

/// What meets the air of a chamber, opening by opening: drivers, then each port of the design, or the radiators; in the chamber before the
/// drivers at last the ports that lead into it from the one behind.
fn openings(contents: &Contents, cabinet: &Cabinet, chamber: usize) -> Vec<Vec<Mouth>> {
    let of = |kind: PartKind, within: usize, index: Option<usize>| -> Vec<Mouth> {
        let parts = cabinet.parts.iter().filter(|part| part.chamber == within && part.kind == kind);
        let parts = parts.filter(|part| index.is_none_or(|index| part.index == index));
        parts.filter_map(|part| cabinet.mouth(part, contents)).collect()
    };
    // Drivers belong to the chamber behind them, and look into the one before.
    let mut all = vec![of(PartKind::Driver, 0, None)];
    all.extend((0..contents.ports[chamber].len()).map(|index| of(PartKind::Port, chamber, Some(index))));
    if contents.radiators.is_some() {
        all.push(of(PartKind::Radiator, 0, None));
    }
    if chamber == 1 && contents.through {
        let through = (0..contents.ports[0].len()).map(|index| of(PartKind::Port, 0, Some(index)));
        // There their outer ends count.
        let turned = |mouth: Mouth| Mouth { inner: mouth.outer, direction: mouth.normal, ..mouth };
        all.extend(through.map(|mouths| mouths.into_iter().map(turned).collect::<Vec<_>>()));
    }
    all
}

fn chain(body: &Body, cabinet: &Cabinet, chamber: usize, openings: &[Vec<Mouth>]) -> ChamberModel {
    let room = &cabinet.chambers[chamber].interior;
    let [low, high] = room.bounds();
    let longest = Axis::ALL
        .into_iter()
        .max_by(|a, b| (high[a.index()] - low[a.index()]).total_cmp(&(high[b.index()] - low[b.index()])))
        .unwrap_or(Axis::Y);
    let k = longest.index();
    let step = (high[k] - low[k]) / CUTS as f64;
    // What stands in the room is spread evenly over it.
    let ledger = &cabinet.chambers[chamber].ledger;
    let left = (ledger.net() / ledger.gross).clamp(0.05, 1.0);
    let fill_at = |at: f64| -> Option<Fill> {
        // Layers lie in the chamber behind the drivers.
        body.fills.iter().filter(|_| chamber == 0).find_map(|layer| {
            let [from, to] = layer.bounds(room)?;
            // Only layers across the axis fill a slice; those along it line it, which a chain does not see.
            let across = (0..3).all(|j| j == k || (from[j] <= low[j] + 1e-6 && to[j] >= high[j] - 1e-6));
            (across && from[k] <= at && at <= to[k]).then_some(layer.fill)
        })
    };
    let slice = |cut: usize| {
        let at = low[k] + (cut as f64 + 0.5) * step;
        let area = (room.area_at(longest, at) * left).max(1e-6);
        Slice { length: step, start: area, end: area, width: None, fill: fill_at(at) }
    };
    let openings = openings
        .iter()
        .map(|mouths| {
            let places = mouths.iter().map(|mouth| mouth.inner[k] - low[k]);
            places.sum::<f64>() / mouths.len() as f64
        })
        .collect();
    ChamberModel::Chain { slices: (0..CUTS).map(slice).collect(), openings }
}

fn cavity(body: &Body, cabinet: &Cabinet, chamber: usize, openings: &[Vec<Mouth>]) -> Cavity {
    let room = &cabinet.chambers[chamber].interior;
    let [low, high] = room.bounds();
    let size = [0, 1, 2].map(|k| high[k] - low[k]);
    let ledger = &cabinet.chambers[chamber].ledger;
    let free = (ledger.net() / ledger.gross).clamp(0.05, 1.0);
    let within = |point: Point| [0, 1, 2].map(|k| (point[k] - low[k]).clamp(0.0, size[k]));
    let blocks = body
        .fills
        .iter()
        .filter(|_| chamber == 0)
        .filter_map(|layer| {
            let [from, to] = layer.bounds(room)?;
            Some(Block { low: within(from), high: within(to), fill: layer.fill })
        })
        .collect();
    let patch = |mouth: &Mouth| {
        let middle = mouth.inner;
        let flat = (0..3)
            .max_by(|a, b| mouth.direction[*a].abs().total_cmp(&mouth.direction[*b].abs()))
            .unwrap_or(2);
        // A square of a circle's area; a slot is as wide as it lies level.
        let square = [mouth.area().sqrt(); 2];
        let [wide, tall] = if mouth.round { square } else { mouth.size };
        let half = mouth.level.map(|level| if level.abs() > 0.5 { wide } else { tall } / 2.0);
        let mut patch = Patch { low: [0.0; 3], high: [0.0; 3] };
        for k in 0..3 {
            let half = if k == flat { 0.0 } else { half[k] };
            let middle = (middle[k] - low[k]).clamp(0.0, size[k]);
            patch.low[k] = (middle - half).max(0.0);
            patch.high[k] = (middle + half).min(size[k]);
        }
        patch
    };
    let openings = openings.iter().map(|mouths| mouths.iter().map(patch).collect()).collect();
    Cavity { size, blocks, openings, free }
}
