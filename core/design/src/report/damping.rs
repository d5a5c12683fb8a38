//! What fill does to the tuning, by both methods.

use oak_acoustics::Complex;
use oak_acoustics::enclosure::Compiled;
use oak_acoustics::medium::Stuffing;
use oak_cabinetry::Cabinet;
use serde::Serialize;
use utoipa::ToSchema;

use super::{Computed, FillReport};
use crate::problem::Problem;

/// Fill in the chamber behind the drivers. SI throughout.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct DampingReport {
    /// Where the methods are compared: the tuning, Hz.
    pub frequency: f64,
    /// The quick method: how full it is, and what it weighs where that is given (`weighed`).
    pub quick: Vec<QuickFillReport>,
    /// The physical method, of the layers that were laid; nothing where there are none.
    pub physical: Option<PhysicalFillReport>,
}

/// One amount of fill by the quick method (common practice).
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct QuickFillReport {
    /// As files have it.
    pub id: &'static str,
    /// By how much the chamber seems larger.
    pub gain: f64,
    /// Absorption quality at the tuning.
    pub qa: f64,
    /// How much polyester wool that is, or what the given fill weighs, kg.
    pub mass: f64,
    /// Where the box is tuned with it, Hz.
    pub tuning: f64,
}

/// Layers of fill by flow resistivity and density.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct PhysicalFillReport {
    /// Share of the chamber that is filled.
    pub share: f64,
    /// kg.
    pub mass: f64,
    /// By how much the chamber seems larger.
    pub gain: f64,
    /// Absorption quality at the tuning.
    pub qa: f64,
    /// Where the box is tuned with it, Hz.
    pub tuning: f64,
}

/// Where the chamber behind the drivers is tuned, Hz: of a bandpass not by the ports that are heard.
fn tuned(compiled: &Compiled, divided: bool) -> Option<f64> {
    let behind = compiled.rear_tuning.as_ref().map(|tuning| tuning.reactance);
    let closed = compiled.closed_box.map(|closed| closed.fc);
    if divided { behind.or(closed) } else { super::fill::tuned(compiled) }
}

/// Both methods; `None` where nothing is tuned.
pub(super) fn damping(
    computed: &Computed,
    cabinet: &Cabinet,
    layers: &[FillReport],
) -> Result<Option<DampingReport>, Problem> {
    let design = &computed.built.design;
    let divided = cabinet.chambers.len() > 1;
    let Some(frequency) = tuned(&computed.built.compiled, divided) else { return Ok(None) };
    let chamber = &cabinet.chambers[0];
    let net = chamber.ledger.net();
    if net <= 0.0 || cabinet.fold.is_some() {
        return Ok(None);
    }
    let lengths = computed.built.compiled.lengths();
    let with = |gain: f64| -> Result<f64, Problem> {
        let mut filled = design.clone();
        let wanted = chamber.ledger.wanted;
        filled.enclosure = design.enclosure.with_volumes([Some(wanted * gain), None]).with_lengths(&lengths);
        Ok(tuned(&filled.compile()?, divided).unwrap_or(frequency))
    };
    let of = |id: &'static str, density: f64, gain: f64, qa: f64| -> Result<QuickFillReport, Problem> {
        Ok(QuickFillReport { id, gain, qa, mass: density * net, tuning: with(gain)? })
    };
    let mut quick = ["none", "lined", "half", "full", "packed"]
        .into_iter()
        .zip(Stuffing::ALL)
        .map(|(id, amount)| of(id, amount.density(), amount.gain(), amount.qa()))
        .collect::<Result<Vec<_>, Problem>>()?;
    if let Some(fill) = design.fills[0].filter(|fill| fill.weighed) {
        quick.push(of("weighed", fill.density, fill.filled.gain, fill.filled.qa)?);
    }
    let physical = if design.body.fills.is_empty() {
        None
    } else {
        // Springs side by side: each volume over its own bulk modulus.
        let omega = 2.0 * std::f64::consts::PI * frequency;
        let air = &design.air;
        let mut filled = 0.0;
        let mut spring = Complex::new(0.0, 0.0);
        for (layer, report) in design.body.fills.iter().zip(layers) {
            let [low, high] = report.bounds;
            let volume: f64 = (0..3).map(|k| high[k] - low[k]).product();
            let volume = volume.min((net - filled).max(0.0));
            let (_, modulus) = layer.fill.at(omega, air);
            spring += Complex::new(volume, 0.0) / modulus;
            filled += volume;
        }
        spring += (net - filled) / air.bulk_modulus();
        let gain = spring.re * air.bulk_modulus() / net;
        Some(PhysicalFillReport {
            share: filled / net,
            mass: layers.iter().map(|layer| layer.mass).sum(),
            gain,
            qa: spring.re / spring.im.abs(),
            tuning: with(gain)?,
        })
    };
    Ok(Some(DampingReport { frequency, quick, physical }))
}
