//! Single figures read off a network.

use super::curves::{excursion_of, level_of, pressure_at_one_metre};
use super::{FrequencyGrid, Response};
use crate::network::Network;
use crate::solve::Solver;

/// Span and density of the grid that figures are searched on; roots are then refined, so its
/// spacing only decides how narrow a feature may be and still be seen.
const SEARCH_FROM: f64 = 5.0;
const SEARCH_TO: f64 = 1000.0;
const SEARCH_POINTS: usize = 240;

/// A largest or smallest value and where it lies.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Peak {
    /// The value, SI.
    pub value: f64,
    /// Frequency, Hz.
    pub frequency: f64,
}

/// Figures of one network at one drive.
#[derive(Debug, Clone, PartialEq)]
pub struct Figures {
    /// Piston-band level from the driver's parameters at this drive, dB.
    pub reference_level: f64,
    /// Lowest frequencies within 3, 6 and 10 dB of the reference level, Hz.
    pub f3: Option<f64>,
    /// See `f3`.
    pub f6: Option<f64>,
    /// See `f3`.
    pub f10: Option<f64>,
    /// Highest level between 5 Hz and 1 kHz, dB.
    pub level_peak: Peak,
    /// Largest one-way cone excursion from F3 up, m.
    pub excursion_in_band: Option<Peak>,
    /// Lowest frequency above which the cone stays within Xmax at this drive, Hz.
    pub within_xmax_above: Option<f64>,
    /// Fastest air in any opening, peak m/s.
    pub air_speed: Option<Peak>,
    /// Lowest impedance from 10 Hz up, ohm.
    pub impedance_minimum: Peak,
    /// Impedance minimum between the two peaks of a ported box, Hz.
    pub impedance_dip: Option<f64>,
    /// Largest group delay from F10 up, s.
    pub group_delay: Peak,
}

impl Figures {
    /// Reads the figures off a network driven by `volts` (V RMS).
    pub fn of(network: &Network, volts: f64) -> Self {
        Search::new(network, volts).figures()
    }
}

struct Search<'a> {
    network: &'a Network,
    volts: f64,
    response: Response,
    level: Vec<f64>,
    excursion: Vec<f64>,
}

impl<'a> Search<'a> {
    fn new(network: &'a Network, volts: f64) -> Self {
        let grid = FrequencyGrid::logarithmic(SEARCH_FROM, SEARCH_TO, SEARCH_POINTS)
            .expect("the search grid is within the allowed range");
        let response = Response::of(network, &grid, volts);
        let (level, excursion) = (response.level().collect(), response.excursion().collect());
        Self { network, volts, response, level, excursion }
    }

    fn figures(&self) -> Figures {
        let reference_level = self.network.driver.reference_level(self.volts, &self.network.air);
        let [f3, f6, f10] = [3.0, 6.0, 10.0].map(|drop| self.lowest_within(reference_level - drop));
        let from = |low: Option<f64>| low.unwrap_or(SEARCH_FROM);
        Figures {
            reference_level,
            f3,
            f6,
            f10,
            level_peak: self.largest(&self.level, SEARCH_FROM),
            excursion_in_band: f3.map(|f3| self.largest(&self.excursion, f3)),
            within_xmax_above: self.within_xmax_above(),
            air_speed: self.air_speed(),
            impedance_minimum: self.impedance_minimum(),
            impedance_dip: self.impedance_dip(),
            group_delay: self.largest(&self.response.group_delay, from(f10)),
        }
    }

    /// Lowest frequency at which the level reaches a threshold, refined between grid points.
    fn lowest_within(&self, threshold: f64) -> Option<f64> {
        let index = self.level.iter().position(|level| *level >= threshold)?;
        let mut solver = Solver::new(self.network);
        Some(self.refine(index, |f| {
            solver.solve(f, self.volts);
            let pressure = pressure_at_one_metre(
                self.network.air.density,
                2.0 * std::f64::consts::PI * f,
                solver.total_outflow(),
            );
            level_of(pressure) >= threshold
        }))
    }

    fn within_xmax_above(&self) -> Option<f64> {
        let xmax = self.network.driver.xmax?;
        let Some(last_beyond) = self.excursion.iter().rposition(|x| *x > xmax) else {
            return Some(SEARCH_FROM);
        };
        if last_beyond + 1 >= self.excursion.len() {
            return None;
        }
        let mut solver = Solver::new(self.network);
        Some(self.refine(last_beyond + 1, |f| {
            solver.solve(f, self.volts);
            excursion_of(solver.outflow(self.network.cone, 0) / self.network.driver.sd, f) <= xmax
        }))
    }

    /// Where a condition that holds at a grid point and not at the one before begins to hold.
    fn refine(&self, index: usize, mut holds: impl FnMut(f64) -> bool) -> f64 {
        let mut high = self.response.frequency[index];
        if index == 0 {
            return high;
        }
        let mut low = self.response.frequency[index - 1];
        for _ in 0..40 {
            let middle = 0.5 * (low + high);
            if holds(middle) {
                high = middle;
            } else {
                low = middle;
            }
        }
        high
    }

    fn air_speed(&self) -> Option<Peak> {
        (0..self.network.openings.len())
            .map(|opening| {
                let speeds: Vec<f64> = self.response.air_speed(opening).collect();
                self.largest(&speeds, SEARCH_FROM)
            })
            .max_by(|a, b| a.value.total_cmp(&b.value))
    }

    fn impedance_minimum(&self) -> Peak {
        let negated: Vec<f64> = self.response.impedance.iter().map(|z| -z.norm()).collect();
        let peak = self.largest(&negated, 10.0);
        Peak { value: -peak.value, ..peak }
    }

    /// The dip between the first two impedance maxima, where there are two below 500 Hz.
    fn impedance_dip(&self) -> Option<f64> {
        let size: Vec<f64> = self.response.impedance.iter().map(|z| z.norm()).collect();
        let below = self.response.frequency.partition_point(|f| *f < 500.0);
        let mut maxima = (1..below).filter(|&k| size[k] > size[k - 1] && size[k] >= size[k + 1]);
        let (first, second) = (maxima.next()?, maxima.next()?);
        let negated: Vec<f64> = size[first..=second].iter().map(|z| -z).collect();
        let (at, _) = vertex(&self.response.frequency[first..=second], &negated)?;
        Some(at)
    }

    /// Largest value at or above a frequency, with its place refined by a parabola.
    fn largest(&self, values: &[f64], from: f64) -> Peak {
        let start = self.response.frequency.partition_point(|f| *f < from).min(values.len() - 1);
        let frequencies = &self.response.frequency[start..];
        let (frequency, value) =
            vertex(frequencies, &values[start..]).unwrap_or((frequencies[0], values[start]));
        Peak { value, frequency }
    }
}

/// Vertex of the parabola through the largest value and its neighbours, in log frequency; the end
/// point itself where the largest value is at an end. `None` for an empty slice.
fn vertex(frequency: &[f64], values: &[f64]) -> Option<(f64, f64)> {
    let (k, top) = values.iter().copied().enumerate().max_by(|a, b| a.1.total_cmp(&b.1))?;
    if k == 0 || k + 1 == values.len() {
        return Some((frequency[k], top));
    }
    let (left, right) = (values[k - 1], values[k + 1]);
    let curvature = left - 2.0 * top + right;
    if curvature > -f64::EPSILON * top.abs() {
        return Some((frequency[k], top));
    }
    let shift = 0.5 * (left - right) / curvature;
    let step = (frequency[k + 1] / frequency[k]).ln();
    Some((frequency[k] * (shift * step).exp(), top - 0.25 * (left - right) * shift))
}
