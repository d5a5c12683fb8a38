//! Single figures read off a network.

use std::f64::consts::SQRT_2;

use serde::Serialize;
use utoipa::ToSchema;

use super::curves::{level_of, size};
use super::{FrequencyGrid, LevelBand, Passband, Response};
use crate::network::{Network, OpeningKind, Reference};
use crate::root::begin_of;
use crate::solve::Sweep;

/// Span and density of the grid that figures are searched on; roots are then refined, so its
/// spacing only decides how narrow a feature may be and still be seen.
const SEARCH_FROM: f64 = 5.0;
const SEARCH_TO: f64 = 1000.0;
const SEARCH_POINTS: usize = 240;

/// Ripple is looked for up to this many times F3: what a subwoofer plays.
const RIPPLE_SPAN: f64 = 4.0;

/// Rounds of dividing a grid step (2.2 %) by five that refine a root to a ten-millionth.
const ROUNDS: usize = 8;

/// A largest or smallest value and where it lies.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, ToSchema)]
pub struct Peak {
    /// The value, SI.
    pub value: f64,
    /// Frequency, Hz.
    pub frequency: f64,
}

/// Figures of one network at one drive.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Figures {
    /// What F3, F6 and F10 refer to.
    pub reference: Reference,
    /// Its level at this drive, dB.
    pub reference_level: f64,
    /// Lowest frequencies within 3, 6 and 10 dB of the reference level, Hz.
    pub f3: Option<f64>,
    /// See `f3`.
    pub f6: Option<f64>,
    /// See `f3`.
    pub f10: Option<f64>,
    /// Where the band that begins at F3 falls by 3 dB again, Hz, if it does below 1 kHz.
    pub f3_upper: Option<f64>,
    /// Highest level between 5 Hz and 1 kHz, dB.
    pub level_peak: Peak,
    /// How far the deepest dip between two peaks in the two octaves above F3 lies below the lower of them, dB.
    pub ripple: f64,
    /// Largest one-way cone excursion from F3 up, m.
    pub excursion_in_band: Option<Peak>,
    /// Where the cone stands stillest between two maxima of its travel, m.
    pub excursion_minimum: Option<Peak>,
    /// Largest one-way travel of a passive radiator from F3 up, m.
    pub radiator_travel: Option<Peak>,
    /// Lowest frequency above which the cone stays within Xmax at this drive, Hz.
    pub within_xmax_above: Option<f64>,
    /// Fastest air in any opening, peak m/s.
    pub air_speed: Option<Peak>,
    /// Which opening that is, by position.
    #[serde(skip)]
    pub fastest_opening: Option<usize>,
    /// Lowest impedance from 10 Hz up, ohm.
    pub impedance_minimum: Peak,
    /// Impedance minimum between the first two peaks, Hz.
    #[serde(skip)]
    pub impedance_dip: Option<f64>,
    /// Largest group delay from F10 up, s.
    pub group_delay: Peak,
    /// Highest share of the real power that leaves as sound.
    pub efficiency: Peak,
}

impl Figures {
    /// Reads the figures off a network driven by `volts` (V RMS).
    pub fn of(network: &Network, volts: f64) -> Self {
        Search::new(network, volts).figures()
    }
}

/// How far the deepest dip lies below the lower of the highest peaks on its two sides: a slope with a wiggle has but the wiggle.
pub(crate) fn deepest_dip(levels: &[f64]) -> f64 {
    let mut left = f64::MIN;
    let rightward: Vec<f64> = levels
        .iter()
        .rev()
        .scan(f64::MIN, |highest, level| {
            *highest = highest.max(*level);
            Some(*highest)
        })
        .collect();
    levels.iter().zip(rightward.iter().rev()).fold(0.0, |deepest: f64, (level, right)| {
        left = left.max(*level);
        deepest.max(left.min(*right) - level)
    })
}

struct Search<'a> {
    network: &'a Network,
    volts: f64,
    response: Response,
}

/// A real quantity read off a response at one of its points.
type Reading<'r> = &'r dyn Fn(&Response, usize) -> f64;

impl<'a> Search<'a> {
    fn new(network: &'a Network, volts: f64) -> Self {
        let grid = FrequencyGrid::logarithmic(SEARCH_FROM, SEARCH_TO, SEARCH_POINTS)
            .expect("the search grid is within the allowed range");
        Self { network, volts, response: Response::with_rough_delay(network, &grid, volts) }
    }

    fn figures(&self) -> Figures {
        let level: Reading = &|r, k| level_of(r.pressure[k]);
        let level_peak = self.largest(level, SEARCH_FROM, SEARCH_TO);
        let (reference_level, begins, ends) = self.band();
        let [f6, f10] = [6.0, 10.0].map(|drop| self.lowest_within(reference_level - drop));
        let f3 = begins.map_or_else(
            || self.lowest_within(reference_level - 3.0),
            |begins| Some(self.refine(begins, |r, k| level_of(r.pressure[k]) >= reference_level - 3.0)),
        );
        let f3_upper = self.upper_end(reference_level - 3.0, ends);
        let impedance: Reading = &|r, k| -size(r.impedance[k]);
        let lowest = self.largest(impedance, 10.0, SEARCH_TO);
        let (air_speed, fastest_opening) = self.air_speed().unzip();
        let efficiency: Reading = &|r, k| r.radiated[k] / r.power_at(k);
        Figures {
            reference: self.network.reference,
            reference_level,
            f3,
            f6,
            f10,
            f3_upper,
            level_peak,
            ripple: f3.map_or(0.0, |f3| self.ripple(f3, f3_upper.unwrap_or(SEARCH_TO).min(RIPPLE_SPAN * f3))),
            excursion_in_band: f3.map(|f3| self.largest(&|r, k| r.excursion_at(k), f3, SEARCH_TO)),
            excursion_minimum: self.excursion_minimum(),
            radiator_travel: f3.and_then(|f3| self.radiator_travel(f3)),
            within_xmax_above: self.within_xmax_above(),
            air_speed,
            fastest_opening,
            impedance_minimum: Peak { value: -lowest.value, ..lowest },
            impedance_dip: self.impedance_dip(impedance),
            group_delay: self.group_delay(f10.unwrap_or(SEARCH_FROM)),
            efficiency: self.largest(efficiency, SEARCH_FROM, SEARCH_TO),
        }
    }

    /// The level that the ends refer to, dB, where the band begins if that is known from itself, and where it ends.
    fn band(&self) -> (f64, Option<usize>, usize) {
        let level: Vec<f64> = self.response.pressure.iter().map(|p| level_of(*p)).collect();
        let per_octave = (SEARCH_POINTS - 1) as f64 / (SEARCH_TO / SEARCH_FROM).log2();
        match self.network.reference {
            Reference::Piston => {
                (self.network.piston_level(self.volts), None, Passband::of(&level, per_octave).to)
            }
            Reference::Passband => {
                let LevelBand { reference, from, to } = LevelBand::of(&level, per_octave);
                (reference, Some(from), to)
            }
        }
    }

    /// Where the band ends; for a piston-band reference, where the level above the passband level falls below a threshold.
    fn upper_end(&self, threshold: f64, to: usize) -> Option<f64> {
        let below = |r: &Response, k: usize| level_of(r.pressure[k]) < threshold;
        let last = self.response.frequency.len() - 1;
        (to < last && below(&self.response, to + 1)).then(|| self.refine(to + 1, below))
    }

    fn ripple(&self, from: f64, to: f64) -> f64 {
        let frequency = &self.response.frequency;
        let [start, end] = [from, to].map(|at| frequency.partition_point(|f| *f < at));
        let levels: Vec<f64> =
            self.response.pressure[start..end.max(start)].iter().map(|p| level_of(*p)).collect();
        deepest_dip(&levels)
    }

    /// The first place below 300 Hz where the travel has a minimum between two maxima.
    fn excursion_minimum(&self) -> Option<Peak> {
        let below = self.response.frequency.partition_point(|f| *f < 300.0);
        let travel: Vec<f64> = (0..=below).map(|k| self.response.excursion_at(k)).collect();
        let least = (1..below).find(|&k| travel[k] <= travel[k - 1] && travel[k] < travel[k + 1])?;
        let frequency = &self.response.frequency;
        let found = self.largest(&|r, k| -r.excursion_at(k), frequency[least - 1], frequency[least + 1]);
        Some(Peak { value: -found.value, ..found })
    }

    /// The place is found between neighbours of the grid, the value is solved there.
    fn group_delay(&self, from: f64) -> Peak {
        let Peak { frequency, .. } = self.largest(&|r, k| r.group_delay[k], from, SEARCH_TO);
        Peak { value: self.at(frequency).group_delay[0], frequency }
    }

    fn radiator_travel(&self, from: f64) -> Option<Peak> {
        let openings = self.network.openings.iter().enumerate();
        openings
            .filter(|(_, opening)| opening.kind == OpeningKind::Diaphragm)
            .map(|(opening, _)| {
                let travel = |r: &Response, k: usize| {
                    SQRT_2 * size(r.opening_velocity[opening][k]) / (std::f64::consts::TAU * r.frequency[k])
                };
                self.largest(&travel, from, SEARCH_TO)
            })
            .max_by(|a, b| a.value.total_cmp(&b.value))
    }

    /// Lowest frequency at which the level reaches a threshold.
    fn lowest_within(&self, threshold: f64) -> Option<f64> {
        let reaches = |r: &Response, k: usize| level_of(r.pressure[k]) >= threshold;
        let index = (0..self.response.frequency.len()).find(|&k| reaches(&self.response, k))?;
        Some(self.refine(index, reaches))
    }

    fn within_xmax_above(&self) -> Option<f64> {
        let xmax = self.network.driver.xmax?;
        let within = |r: &Response, k: usize| r.excursion_at(k) <= xmax;
        let points = self.response.frequency.len();
        let first_within = (0..points).rposition(|k| !within(&self.response, k)).map_or(0, |k| k + 1);
        (first_within < points).then(|| self.refine(first_within, within))
    }

    /// Where a condition that holds at a grid point and not at the one before begins to hold.
    fn refine(&self, index: usize, holds: impl Fn(&Response, usize) -> bool) -> f64 {
        let high = self.response.frequency[index];
        if index == 0 {
            return high;
        }
        let low = self.response.frequency[index - 1];
        let mut sweep = Sweep::new(self.network);
        begin_of(low, high, ROUNDS, |places| {
            let response = Response::undelayed(self.network, &mut sweep, &places, self.volts);
            [0, 1, 2, 3].map(|k| holds(&response, k))
        })
    }

    fn at(&self, frequency: f64) -> Response {
        Response::of(self.network, &FrequencyGrid::single(frequency), self.volts)
    }

    fn air_speed(&self) -> Option<(Peak, usize)> {
        (0..self.network.openings.len())
            .filter(|&opening| self.network.openings[opening].kind == OpeningKind::Port)
            .map(|opening| {
                let speed = |r: &Response, k: usize| SQRT_2 * size(r.opening_velocity[opening][k]);
                (self.largest(&speed, SEARCH_FROM, SEARCH_TO), opening)
            })
            .max_by(|a, b| a.0.value.total_cmp(&b.0.value))
    }

    /// The dip between the first two impedance maxima, where there are two below 500 Hz.
    fn impedance_dip(&self, negated: Reading<'_>) -> Option<f64> {
        let size = |k: usize| -negated(&self.response, k);
        let below = self.response.frequency.partition_point(|f| *f < 500.0);
        let mut maxima = (1..below).filter(|&k| size(k) > size(k - 1) && size(k) >= size(k + 1));
        let (first, second) = (maxima.next()?, maxima.next()?);
        let frequency = &self.response.frequency;
        Some(self.largest(negated, frequency[first], frequency[second]).frequency)
    }

    /// Largest reading between two frequencies. Its place is the vertex of the parabola through the
    /// largest grid value and its neighbours, its value is solved there, never extrapolated.
    fn largest(&self, reading: Reading<'_>, from: f64, to: f64) -> Peak {
        let frequency = &self.response.frequency;
        let last = frequency.len() - 1;
        let start = frequency.partition_point(|f| *f < from).min(last);
        let end = frequency.partition_point(|f| *f <= to).saturating_sub(1).max(start);
        let value = |k: usize| reading(&self.response, k);
        let first = (start, value(start));
        let higher = |best: (usize, f64), k: usize| {
            let here = value(k);
            if here >= best.1 { (k, here) } else { best }
        };
        let (top, _) = (start + 1..=end).fold(first, higher);
        let on_grid = Peak { value: value(top), frequency: frequency[top] };
        if top == 0 || top == last {
            return on_grid;
        }
        let (left, right) = (value(top - 1), value(top + 1));
        let curvature = left - 2.0 * on_grid.value + right;
        let shift = 0.5 * (left - right) / curvature;
        let vertex =
            (on_grid.frequency * (shift * (frequency[1] / frequency[0]).ln()).exp()).clamp(from.min(to), to);
        if !vertex.is_finite() {
            return on_grid;
        }
        let refined = Peak { value: reading(&self.at(vertex), 0), frequency: vertex };
        if refined.value > on_grid.value { refined } else { on_grid }
    }
}

#[cfg(test)]
mod tests {
    use super::deepest_dip;

    #[test]
    fn a_dip_is_between_peaks_and_a_slope_has_none() {
        assert!((deepest_dip(&[]) - 0.0).abs() < 1e-12);
        assert!((deepest_dip(&[80.0, 84.0, 88.0, 91.0]) - 0.0).abs() < 1e-12);
        assert!((deepest_dip(&[90.0, 86.0, 89.0]) - 3.0).abs() < 1e-12);
        // A wiggle of half a decibel on a slope of ten.
        assert!((deepest_dip(&[80.0, 82.0, 81.5, 90.0]) - 0.5).abs() < 1e-12);
        // The deepest of two, and one that reaches over a lesser peak.
        assert!((deepest_dip(&[90.0, 88.0, 89.0, 86.0, 90.0]) - 4.0).abs() < 1e-12);
    }
}
