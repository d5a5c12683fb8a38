//! Traces of a computed design, and what limits it along them.

use oak_acoustics::network::{Network, OpeningKind};
use oak_acoustics::response::{Limit, MaxOutput, Response};
use serde::Serialize;
use utoipa::ToSchema;

use super::Computed;
use crate::heard::Heard;
use crate::resolve::ListeningPlace;
use crate::trace::{Quantity, Trace, TraceOrigin};

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

/// What binds, from low to high frequencies.
pub(super) fn ribbon(response: &Response, max_output: &MaxOutput) -> Vec<RibbonPiece> {
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
    ribbon
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

/// All lines of a response: what lanes draw first.
pub(super) fn traces(network: &Network, response: &Response, max_output: &MaxOutput) -> Vec<Trace> {
    let simulated = |quantity, values: Vec<f64>| {
        Trace::new(quantity, TraceOrigin::Simulated, &response.frequency, &values)
    };
    let limit =
        |quantity, values: &[f64]| Trace::new(quantity, TraceOrigin::Limit, &response.frequency, values);
    let [level_phase, load_phase] = [&response.pressure, &response.impedance]
        .map(|values| values.iter().map(|value| value.arg().to_degrees()).collect::<Vec<_>>());
    let mut traces = vec![
        simulated(Quantity::Level, response.level().collect()).with_phase(&level_phase),
        limit(Quantity::Level, &max_output.level),
        simulated(Quantity::Excursion, response.excursion().map(|x| x * 1e3).collect()),
    ];
    for (at, opening) in network.openings.iter().enumerate() {
        let trace = match opening.kind {
            OpeningKind::Port | OpeningKind::Throat => {
                simulated(Quantity::AirSpeed, response.air_speed(at).collect())
            }
            OpeningKind::Diaphragm => {
                let travel = response.opening_travel(at).map(|x| x * 1e3);
                simulated(Quantity::RadiatorTravel, travel.collect())
            }
        };
        traces.push(trace.labelled(&opening.label));
    }
    for (pressure, chamber) in response.chamber_pressure.iter().zip(&network.chambers) {
        let pressure = pressure.iter().map(|p| p.norm()).collect();
        traces.push(simulated(Quantity::ChamberPressure, pressure).labelled(chamber.label));
    }
    let current: Vec<f64> = response.current.iter().map(|current| current.norm()).collect();
    traces.extend([
        simulated(Quantity::Impedance, response.impedance.iter().map(|z| z.norm()).collect())
            .with_phase(&load_phase),
        simulated(Quantity::GroupDelay, response.group_delay.iter().map(|delay| delay * 1e3).collect()),
        simulated(Quantity::Drive, response.drive.iter().map(|drive| drive.norm()).collect()),
        limit(Quantity::Drive, &max_output.volts),
        simulated(Quantity::ApparentPower, response.apparent_power().collect()),
        simulated(Quantity::Current, current),
        simulated(Quantity::Power, response.power().collect()),
        simulated(Quantity::Efficiency, response.efficiency().map(|share| share * 100.0).collect()),
    ]);
    traces
}

/// What arrives at the seats of a place: the mean of the power, and each seat by its name.
pub fn at_seats(computed: &Computed, place: &ListeningPlace) -> Vec<Trace> {
    let Some(heard) = Heard::of(&computed.built, place, &computed.response.frequency) else {
        return Vec::new();
    };
    let trace =
        |values: &[f64]| Trace::new(Quantity::SeatLevel, TraceOrigin::Simulated, &heard.frequency, values);
    let each = heard.levels().into_iter().zip(&place.seats);
    let seats = each.map(|(levels, seat)| trace(&levels).labelled(&seat.name));
    std::iter::once(trace(&heard.mean())).chain(seats).collect()
}
