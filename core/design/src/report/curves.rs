//! Curves over frequency, and what runs out first along them.

use oak_acoustics::network::{Network, OpeningKind};
use oak_acoustics::response::{Limit, MaxOutput, Response};
use serde::Serialize;
use utoipa::ToSchema;

/// The largest clean output over the frequencies of the curves.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct MaxOutputReport {
    /// dB at 1 m; null where nothing limits.
    pub level: Vec<Option<f32>>,
    /// What binds, from low to high frequencies.
    pub ribbon: Vec<RibbonPiece>,
}

/// A stretch of frequencies in which one thing runs out first.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, ToSchema)]
pub struct RibbonPiece {
    /// Hz.
    pub from: f64,
    /// Hz.
    pub to: f64,
    /// `voltage`, `current`, `heat`, `cone`, `radiator`, `air` or `nothing`.
    pub limit: &'static str,
}

/// Curves, every list of the same length. Seven digits (single precision) are kept.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Curves {
    /// Hz.
    pub frequency: Vec<f32>,
    /// dB re 20 uPa at 1 m in the space of the design.
    pub level: Vec<f32>,
    /// ms, without the travel time.
    pub group_delay: Vec<f32>,
    /// Excursion of the cone that moves farthest, one-way peak, mm.
    pub excursion: Vec<f32>,
    /// Peak air speed in each port, throat and mouth, m/s.
    pub air_speed: Vec<Vec<f32>>,
    /// What these are called.
    pub air_labels: Vec<String>,
    /// One-way peak travel of each kind of radiator, mm.
    pub radiator_travel: Vec<Vec<f32>>,
    /// Pressure in each chamber, Pa RMS.
    pub chamber_pressure: Vec<Vec<f32>>,
    /// What these are called.
    pub chamber_labels: Vec<&'static str>,
    /// ohm.
    pub impedance: Vec<f32>,
    /// Degrees.
    pub impedance_phase: Vec<f32>,
    /// What no lane draws; absent where only these are asked for.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub further: Option<FurtherCurves>,
}

/// Curves that no lane draws, as long as the others.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct FurtherCurves {
    /// Degrees, without the travel time.
    pub phase: Vec<f32>,
    /// The drive of the largest clean output, V RMS; null where nothing limits.
    pub clean_volts: Vec<Option<f32>>,
    /// A RMS.
    pub current: Vec<f32>,
    /// Real power, W.
    pub power: Vec<f32>,
    /// Apparent power, VA.
    pub apparent_power: Vec<f32>,
    /// Share of the real power that leaves as sound, %.
    pub efficiency: Vec<f32>,
}

impl MaxOutputReport {
    pub(super) fn of(response: &Response, max_output: &MaxOutput) -> Self {
        let mut ribbon: Vec<RibbonPiece> = Vec::new();
        for (frequency, limit) in response.frequency.iter().zip(&max_output.limit) {
            let limit = limit_name(*limit);
            match ribbon.last_mut() {
                Some(piece) if piece.limit == limit => piece.to = *frequency,
                last => {
                    // Pieces meet where the next begins.
                    if let Some(piece) = last {
                        piece.to = *frequency;
                    }
                    ribbon.push(RibbonPiece { from: *frequency, to: *frequency, limit });
                }
            }
        }
        Self { level: finite(&max_output.level), ribbon }
    }
}

fn finite(values: &[f64]) -> Vec<Option<f32>> {
    values.iter().map(|value| value.is_finite().then_some(*value as f32)).collect()
}

/// The word for a limit in files.
pub fn limit_name(limit: Option<Limit>) -> &'static str {
    match limit {
        None => "nothing",
        Some(Limit::Voltage) => "voltage",
        Some(Limit::Current) => "current",
        Some(Limit::Heat) => "heat",
        Some(Limit::Cone) => "cone",
        Some(Limit::Radiator) => "radiator",
        Some(Limit::Air) => "air",
    }
}

fn single(values: impl Iterator<Item = f64>) -> Vec<f32> {
    values.map(|value| value as f32).collect()
}

impl Curves {
    pub(super) fn of(network: &Network, response: &Response, max_output: &MaxOutput) -> Self {
        let openings = |of: fn(OpeningKind) -> bool| {
            let all = network.openings.iter().enumerate();
            all.filter(move |(_, opening)| of(opening.kind))
        };
        let air = |kind| matches!(kind, OpeningKind::Port | OpeningKind::Throat);
        let diaphragm = |kind| kind == OpeningKind::Diaphragm;
        Self {
            frequency: single(response.frequency.iter().copied()),
            level: single(response.level()),
            group_delay: single(response.group_delay.iter().map(|delay| delay * 1e3)),
            excursion: single(response.excursion().map(|x| x * 1e3)),
            air_speed: openings(air).map(|(at, _)| single(response.air_speed(at))).collect(),
            air_labels: openings(air).map(|(_, opening)| opening.label.clone()).collect(),
            radiator_travel: openings(diaphragm)
                .map(|(at, _)| single(response.opening_travel(at).map(|x| x * 1e3)))
                .collect(),
            chamber_pressure: response
                .chamber_pressure
                .iter()
                .map(|chamber| single(chamber.iter().map(|p| p.norm())))
                .collect(),
            chamber_labels: network.chambers.iter().map(|chamber| chamber.label).collect(),
            impedance: single(response.impedance.iter().map(|z| z.norm())),
            impedance_phase: single(response.impedance.iter().map(|z| z.arg().to_degrees())),
            further: Some(FurtherCurves::of(response, max_output)),
        }
    }
}

impl FurtherCurves {
    fn of(response: &Response, max_output: &MaxOutput) -> Self {
        Self {
            phase: single(response.pressure.iter().map(|p| p.arg().to_degrees())),
            clean_volts: finite(&max_output.volts),
            current: single(response.current.iter().map(|i| i.norm())),
            power: single(response.power()),
            apparent_power: single(response.current.iter().map(|i| i.norm() * response.volts)),
            efficiency: single(response.efficiency().map(|share| share * 100.0)),
        }
    }
}
