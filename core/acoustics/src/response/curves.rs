//! Curves over frequency.

use std::f64::consts::{PI, SQRT_2};

use super::FrequencyGrid;
use crate::driver::REFERENCE_PRESSURE;
use crate::element::coil_current;
use crate::network::Network;
use crate::solve::Solver;
use crate::{Complex, J};

/// Neighbouring frequencies closer than this ratio serve for the group delay: the central difference is
/// then right to about a thousandth of the delay of a resonance with Q 5.
const NEIGHBOURS_WITHIN: f64 = 1.012;
/// Where the grid is coarser, the delay is differenced over two extra solutions this far apart.
const DELAY_STEP: f64 = 1e-4;

/// The response of a network to one drive, every vector `[n]` over the same `n` frequencies.
#[derive(Debug, Clone, PartialEq)]
pub struct Response {
    /// Hz.
    pub frequency: Vec<f64>,
    /// Pressure at 1 m in half space without the travel time, Pa RMS.
    pub pressure: Vec<Complex>,
    /// Group delay without the travel time, s.
    pub group_delay: Vec<f64>,
    /// Velocity of the cone, outward, m/s RMS.
    pub cone_velocity: Vec<Complex>,
    /// Mean air velocity in each opening, outward, m/s RMS; `[openings][n]`.
    pub opening_velocity: Vec<Vec<Complex>>,
    /// Electrical impedance, ohm.
    pub impedance: Vec<Complex>,
    /// Current, A RMS.
    pub current: Vec<Complex>,
}

/// Pressure at 1 m in half space of a volume velocity (m3/s): `j omega rho U/(2 pi r)`.
fn pressure_at_one_metre(density: f64, omega: f64, outflow: Complex) -> Complex {
    J * omega * density * outflow / (2.0 * PI)
}

impl Response {
    /// Solves a network over a grid for a drive (V RMS).
    pub fn of(network: &Network, grid: &FrequencyGrid, volts: f64) -> Self {
        let frequency = grid.frequencies().to_vec();
        let n = frequency.len();
        let mut response = Self {
            pressure: Vec::with_capacity(n),
            group_delay: Vec::with_capacity(n),
            cone_velocity: Vec::with_capacity(n),
            opening_velocity: network.openings.iter().map(|_| Vec::with_capacity(n)).collect(),
            impedance: Vec::with_capacity(n),
            current: Vec::with_capacity(n),
            frequency,
        };
        let mut solver = Solver::new(network);
        for index in 0..n {
            response.push(network, &mut solver, index, volts);
        }
        response.group_delay = (0..n).map(|index| response.delay_at(&mut solver, index)).collect();
        response
    }

    fn push(&mut self, network: &Network, solver: &mut Solver<'_>, index: usize, volts: f64) {
        let frequency = self.frequency[index];
        let omega = 2.0 * PI * frequency;
        solver.solve(frequency, volts);
        self.pressure.push(pressure_at_one_metre(network.air.density, omega, solver.total_outflow()));
        let velocity = solver.outflow(network.cone, 0) / network.driver.sd;
        self.cone_velocity.push(velocity);
        for (opening, speeds) in network.openings.iter().zip(&mut self.opening_velocity) {
            speeds.push(solver.outflow(opening.element, opening.terminal) / opening.area);
        }
        let current = coil_current(&network.driver, omega, volts, velocity);
        self.current.push(current);
        self.impedance.push(volts / current);
    }

    /// `-d(phase)/d(omega)` as a central difference over log frequency.
    fn delay_at(&self, solver: &mut Solver<'_>, index: usize) -> f64 {
        let frequency = self.frequency[index];
        let near = |a: usize, b: usize| self.frequency[b] < self.frequency[a] * NEIGHBOURS_WITHIN;
        let inside = index > 0 && index + 1 < self.frequency.len();
        let (turn, step) = if inside && near(index - 1, index) && near(index, index + 1) {
            let step = (self.frequency[index + 1] / self.frequency[index - 1]).ln();
            (self.pressure[index + 1] * self.pressure[index - 1].conj(), step)
        } else {
            let mut outflow = |f: f64| {
                solver.solve(f, 1.0);
                solver.total_outflow()
            };
            let [below, above] = [-0.5, 0.5].map(|side| outflow(frequency * (side * DELAY_STEP).exp()));
            (above * below.conj(), DELAY_STEP)
        };
        -turn.arg() / (2.0 * PI * frequency * step)
    }

    /// Levels, dB re 20 uPa at 1 m in half space.
    pub fn level(&self) -> impl Iterator<Item = f64> {
        self.pressure.iter().map(|p| level_of(*p))
    }

    /// One-way peak excursion of the cone, m.
    pub fn excursion(&self) -> impl Iterator<Item = f64> {
        self.cone_velocity.iter().zip(&self.frequency).map(|(v, f)| excursion_of(*v, *f))
    }

    /// Peak air speed in one opening, m/s.
    pub fn air_speed(&self, opening: usize) -> impl Iterator<Item = f64> {
        self.opening_velocity[opening].iter().map(|v| SQRT_2 * v.norm())
    }
}

pub(super) fn level_of(pressure: Complex) -> f64 {
    20.0 * (pressure.norm() / REFERENCE_PRESSURE).log10()
}

pub(super) fn excursion_of(velocity: Complex, frequency: f64) -> f64 {
    SQRT_2 * velocity.norm() / (2.0 * PI * frequency)
}
