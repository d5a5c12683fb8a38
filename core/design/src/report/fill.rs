//! Fill as it lies in a box, and where the box is tuned.

use oak_acoustics::enclosure::Compiled;
use oak_cabinetry::geometry::Point;
use oak_cabinetry::{Body, Cabinet, Part, PartKind};
use serde::Serialize;
use utoipa::ToSchema;

/// A layer of fill.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct FillReport {
    /// On which board.
    pub face: String,
    /// m.
    pub thickness: f64,
    /// What it weighs, kg.
    pub mass: f64,
    /// kg/m3.
    pub density: f64,
    /// Pa s/m2.
    pub resistivity: f64,
    /// Where it lies: corners of its bounds, m.
    pub bounds: [[f64; 3]; 2],
    /// The ports whose inner end it blocks.
    pub blocks: Vec<String>,
}

/// Where a cabinet is tuned, Hz: its ports, its radiators, or the resonance of a closed box.
pub(super) fn tuned(compiled: &Compiled) -> Option<f64> {
    tuned_as(compiled).map(|found| found.1)
}

pub(super) fn tuned_as(compiled: &Compiled) -> Option<(&'static str, f64)> {
    let port = compiled.port_tuning.as_ref().map(|tuning| ("Fb", tuning.reactance));
    let radiator = compiled.radiator_tuning.as_ref().map(|tuning| ("Fb", tuning.tuning));
    port.or(radiator).or(compiled.closed_box.map(|closed| ("Fc", closed.fc)))
}

pub(super) fn fills(body: &Body, cabinet: &Cabinet) -> Vec<FillReport> {
    let room = &cabinet.chambers[0].interior;
    body.fills
        .iter()
        .filter_map(|layer| {
            let bounds = layer.bounds(room)?;
            let [low, high] = bounds;
            let within =
                |point: Point| (0..3).all(|k| point[k] >= low[k] - 1e-9 && point[k] <= high[k] + 1e-9);
            let mut blocks: Vec<String> = cabinet
                .parts
                .iter()
                .filter(|part| {
                    part.kind == PartKind::Port && part.path.last().is_some_and(|end| within(*end))
                })
                .map(Part::name)
                .collect();
            // Equal ports share their name.
            blocks.dedup();
            let volume: f64 = (0..3).map(|k| high[k] - low[k]).product();
            Some(FillReport {
                face: layer.face.name(),
                thickness: layer.thickness,
                mass: volume * layer.fill.bulk_density,
                density: layer.fill.bulk_density,
                resistivity: layer.fill.resistivity,
                bounds,
                blocks,
            })
        })
        .collect()
}
