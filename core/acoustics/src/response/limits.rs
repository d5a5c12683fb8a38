//! What limits it: the maximum clean level at each frequency.

use std::ops::Range;

use super::Response;
use super::curves::{level_of, size};
use crate::network::{Network, OpeningKind};

/// What amplifier, coil and builder allow. What is not given does not limit.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Allowance {
    /// Amplifier, V RMS of a sine.
    pub volts: Option<f64>,
    /// Amplifier, A RMS of a sine.
    pub amperes: Option<f64>,
    /// Heat that all coils together can turn away, W.
    pub heat: Option<f64>,
    /// Crest factor of the programme, dB of peak over RMS: a sine has 3.01, music 10, film 12 (common
    /// practice). The coil heats by the programme's mean power.
    pub crest: f64,
    /// One-way travel of a cone, m.
    pub xmax: Option<f64>,
    /// Air speed in any opening, peak m/s: 17 for straight edges, 34 for generous flares (common practice).
    pub air_speed: f64,
}

/// What binds.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Limit {
    /// The amplifier's voltage.
    Voltage,
    /// The amplifier's current.
    Current,
    /// Heat in the coil.
    Heat,
    /// Travel of the cone.
    Cone,
    /// Travel of a passive radiator.
    Radiator,
    /// Air speed in an opening.
    Air,
}

/// The maximum clean level, every vector `[n]` over the frequencies of a response.
#[derive(Debug, Clone, PartialEq)]
pub struct MaxOutput {
    /// Voltage of the amplifier that it takes, V RMS; infinite where nothing limits.
    pub volts: Vec<f64>,
    /// Its level at 1 m, dB.
    pub level: Vec<f64>,
    /// What binds; `None` where nothing limits.
    pub limit: Vec<Option<Limit>>,
}

impl MaxOutput {
    /// Scales a response of a network up to what is allowed.
    pub fn of(network: &Network, response: &Response, allowance: &Allowance) -> Self {
        let mean = mean_share(allowance.crest);
        let mut max_output = Self { volts: Vec::new(), level: Vec::new(), limit: Vec::new() };
        for index in 0..response.frequency.len() {
            let (scale, limit) = largest(network, response, allowance, mean, index);
            max_output.volts.push(scale * size(response.drive[index]));
            max_output.level.push(level_of(response.pressure[index]) + 20.0 * scale.log10());
            max_output.limit.push(limit);
        }
        max_output
    }

    /// The least of its levels over some of the frequencies, dB; infinite where nothing limits.
    pub fn least_level(
        network: &Network,
        response: &Response,
        allowance: &Allowance,
        band: Range<usize>,
    ) -> f64 {
        let mean = mean_share(allowance.crest);
        let pressure = |index: usize| {
            let (scale, _) = largest(network, response, allowance, mean, index);
            if scale.is_finite() { response.pressure[index] * scale } else { f64::INFINITY.into() }
        };
        let least = band.map(pressure).min_by(|a, b| a.norm_sqr().total_cmp(&b.norm_sqr()));
        least.map_or(f64::INFINITY, level_of)
    }
}

/// By how much the drive of a response may be multiplied, and what binds then; the programme's mean power is `mean` of a sine's.
fn largest(
    network: &Network,
    response: &Response,
    allowance: &Allowance,
    mean: f64,
    index: usize,
) -> (f64, Option<Limit>) {
    scales(network, response, allowance, mean, index)
        .filter(|(scale, _)| scale.is_finite())
        .map(|(scale, limit)| (scale, Some(limit)))
        .fold((f64::INFINITY, None), |least, next| if next.0 < least.0 { next } else { least })
}

/// Mean power of a programme with a crest factor (dB of peak over RMS) over that of a sine of the same peak, whose crest is 2 in power.
pub fn mean_share(crest: f64) -> f64 {
    2.0 * 10f64.powf(-crest / 10.0)
}

/// By how much the drive of a response may be multiplied until each limit is met.
fn scales<'a>(
    network: &'a Network,
    response: &'a Response,
    allowance: &'a Allowance,
    mean: f64,
    index: usize,
) -> impl Iterator<Item = (f64, Limit)> + 'a {
    let current = size(response.current[index]);
    let heat = current * current * network.coil_resistance * mean;
    let fixed = [
        allowance.volts.map(|volts| (volts / size(response.drive[index]), Limit::Voltage)),
        allowance.amperes.map(|amperes| (amperes / current, Limit::Current)),
        allowance.heat.map(|watts| ((watts / heat).sqrt(), Limit::Heat)),
        allowance.xmax.map(|xmax| (xmax / response.excursion_at(index), Limit::Cone)),
    ];
    let openings = network.openings.iter().enumerate().filter_map(move |(which, opening)| {
        let speed = std::f64::consts::SQRT_2 * size(response.opening_velocity[which][index]);
        match opening.kind {
            OpeningKind::Port => Some((allowance.air_speed / speed, Limit::Air)),
            OpeningKind::Throat => None,
            OpeningKind::Diaphragm => opening.xmax.map(|xmax| {
                let travel = speed / (std::f64::consts::TAU * response.frequency[index]);
                (xmax / travel, Limit::Radiator)
            }),
        }
    });
    fixed.into_iter().flatten().chain(openings)
}
