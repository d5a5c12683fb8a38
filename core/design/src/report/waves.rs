//! The standing waves of a box, laid out.

use oak_cabinetry::geometry::{Axis, Solid};
use oak_cabinetry::modes::{self, Mode, Opening};
use oak_cabinetry::{Cabinet, Contents};
use serde::Serialize;
use utoipa::ToSchema;

use crate::resolve::ResolvedDesign;

/// Up to where standing waves are listed, Hz.
const HIGHEST: f64 = 700.0;
/// Most that are listed.
const MOST: usize = 24;
/// Standing waves reach the ear from about a third above the crossover down (common practice: a sub below 120 Hz in a box
/// under 1.4 m has none to fear).
const HEARD_UP_TO: f64 = 1.33;
/// Coupling from which on a driver excites a wave well.
const FIRM: f64 = 0.3;
/// Two waves nearer than this share of their frequency add up (common practice).
const TOGETHER: f64 = 0.05;

/// How firmly something holds a standing wave.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct CouplingReport {
    /// Which part.
    pub part: String,
    /// -1 to 1.
    pub value: f64,
}

/// A standing wave.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct WaveReport {
    /// Hz.
    pub frequency: f64,
    /// Half waves across, up and forward.
    pub order: [u32; 3],
    /// Drivers, ports and radiators.
    pub couplings: Vec<CouplingReport>,
    /// Whether the cabinet plays it and the driver excites it.
    pub feared: bool,
    /// With which other wave it falls together, Hz.
    pub with: Option<f64>,
    /// A quarter of its wave: how thick a layer on a wall works best, m.
    pub quarter: f64,
    /// Pressure over the middle section, row by row from below, each from the back, -1 to 1.
    pub picture: Vec<Vec<f64>>,
}

/// Standing waves of the chamber behind the drivers for a cabinet that plays up to a crossover (Hz), and what they mean.
pub(super) fn waves(
    design: &ResolvedDesign,
    contents: &Contents,
    cabinet: &Cabinet,
    crossover: f64,
) -> (Vec<WaveReport>, String) {
    // A way alone has no room to ring: its resonances are in every curve.
    if cabinet.fold.is_some() && cabinet.chambers.len() == 1 {
        return (
            Vec::new(),
            "The path has no chamber: what resonates along it is in every curve already.".to_owned(),
        );
    }
    let chamber = &cabinet.chambers[0];
    // A partition leaves a plain room plain where it goes across boards that are square to it.
    let plain =
        modes::plain(&design.body.shape) && (cabinet.chambers.len() == 1 || chamber.interior.axis == Axis::X);
    let openings: Vec<(String, Opening)> = cabinet
        .parts
        .iter()
        .filter(|part| part.chamber == 0)
        .filter_map(|part| {
            let mouth = cabinet.mouth(part, contents)?;
            Some((part.name(), Opening::disc(mouth.inner, mouth.normal, mouth.area())))
        })
        .collect();
    let found = modes::standing_waves(&chamber.interior, plain, design.air.speed, HIGHEST);
    let pairs = modes::coinciding(&found, TOGETHER);
    let highest = crossover * HEARD_UP_TO;
    let reports: Vec<WaveReport> = found
        .iter()
        .enumerate()
        .take(MOST)
        .map(|(index, mode)| {
            let couplings: Vec<_> = openings
                .iter()
                .map(|(part, opening)| CouplingReport { part: part.clone(), value: mode.coupling(opening) })
                .collect();
            let driven =
                couplings.iter().any(|coupling| coupling.part == "driver" && coupling.value.abs() > FIRM);
            let other = pairs.iter().find_map(|pair| match *pair {
                [a, b] if a == index => Some(b),
                [a, b] if b == index => Some(a),
                _ => None,
            });
            WaveReport {
                frequency: mode.frequency,
                order: mode.order,
                feared: mode.frequency < highest && driven,
                couplings,
                with: other.map(|other| found[other].frequency),
                quarter: modes::quarter_wave(mode.frequency, design.air.speed),
                picture: picture(mode, &chamber.interior),
            }
        })
        .collect();
    let verdict = verdict(&reports, crossover);
    (reports, verdict)
}

/// Pressure over the section through the middle.
fn picture(mode: &Mode, room: &Solid) -> Vec<Vec<f64>> {
    const ROWS: usize = 16;
    const COLUMNS: usize = 12;
    let [low, high] = room.bounds();
    // A wave across shows best beside the middle, where it would be nothing.
    let across = if mode.order[0] > 0 { low[0] } else { f64::midpoint(low[0], high[0]) };
    let at = |row: usize, column: usize| {
        let up = low[1] + (high[1] - low[1]) * row as f64 / (ROWS - 1) as f64;
        let forward = low[2] + (high[2] - low[2]) * column as f64 / (COLUMNS - 1) as f64;
        (mode.pressure([across, up, forward]) * 100.0).round() / 100.0
    };
    (0..ROWS).map(|row| (0..COLUMNS).map(|column| at(row, column)).collect()).collect()
}

fn verdict(waves: &[WaveReport], crossover: f64) -> String {
    let Some(first) = waves.first() else {
        return "Nothing in this box resonates below 700 Hz.".to_owned();
    };
    let feared: Vec<_> = waves.iter().filter(|wave| wave.feared).collect();
    if let Some(worst) = feared.first() {
        return format!(
            "The driver excites a standing wave at {:.0} Hz, within reach of what the box plays (up to {crossover:.0} Hz). \
             Fill where its air moves most, in the middle between the walls or a thick layer on one of them, or move the driver \
             towards its node.",
            worst.frequency
        );
    }
    if first.frequency > crossover * HEARD_UP_TO {
        return format!(
            "The lowest standing wave lies at {:.0} Hz, well above the {crossover:.0} Hz that the box plays up to: nothing will excite it.",
            first.frequency
        );
    }
    format!(
        "A standing wave lies at {:.0} Hz, but the driver sits near its node and hardly excites it.",
        first.frequency
    )
}
