//! Curves over frequency.

use std::f64::consts::{PI, SQRT_2};

use super::FrequencyGrid;
use crate::driver::REFERENCE_PRESSURE;
use crate::network::Network;
use crate::solve::Solver;
use crate::{Complex, inverse};

/// Neighbouring frequencies closer than this ratio serve for the group delay: the central difference is
/// then right to about a thousandth of the delay of a resonance with Q 5.
const NEIGHBOURS_WITHIN: f64 = 1.012;
/// Where the grid is coarser, the delay is differenced over two extra solutions this far apart.
const DELAY_STEP: f64 = 1e-4;

/// The response of a network to one drive, every vector `[n]` over the same `n` frequencies.
#[derive(Debug, Clone, PartialEq)]
pub struct Response {
    /// The drive, V RMS.
    pub volts: f64,
    /// Hz.
    pub frequency: Vec<f64>,
    /// Pressure at 1 m in the space of the network, without the travel time, Pa RMS.
    pub pressure: Vec<Complex>,
    /// Group delay without the travel time, s.
    pub group_delay: Vec<f64>,
    /// Velocity of each cone, outward, m/s RMS; `[cones][n]`.
    pub cone_velocity: Vec<Vec<Complex>>,
    /// Mean air velocity in each opening, or velocity of each radiator, outward, m/s RMS; `[openings][n]`.
    pub opening_velocity: Vec<Vec<Complex>>,
    /// Pressure in each chamber, Pa RMS; `[rooms][n]`.
    pub room_pressure: Vec<Vec<Complex>>,
    /// Electrical impedance at the amplifier, ohm.
    pub impedance: Vec<Complex>,
    /// Current, A RMS.
    pub current: Vec<Complex>,
    /// Power that leaves as sound, W.
    pub radiated: Vec<f64>,
}

impl Response {
    /// Solves a network over a grid for a drive (V RMS).
    pub fn of(network: &Network, grid: &FrequencyGrid, volts: f64) -> Self {
        let mut solver = Solver::new(network);
        let mut response = Self::solved(network, &mut solver, grid.frequencies().to_vec(), volts);
        response.group_delay =
            (0..response.frequency.len()).map(|index| response.delay_at(&mut solver, index)).collect();
        response
    }

    /// As [`Self::of`] at one frequency (Hz), without the group delay, which takes two more solutions there.
    pub(super) fn undelayed(network: &Network, frequency: f64, volts: f64) -> Self {
        Self::solved(network, &mut Solver::new(network), vec![frequency], volts)
    }

    fn solved(network: &Network, solver: &mut Solver<'_>, frequency: Vec<f64>, volts: f64) -> Self {
        let n = frequency.len();
        let lists = |count: usize| (0..count).map(|_| Vec::with_capacity(n)).collect::<Vec<_>>();
        let mut response = Self {
            volts,
            pressure: Vec::with_capacity(n),
            group_delay: Vec::new(),
            cone_velocity: lists(network.cones.len()),
            opening_velocity: lists(network.openings.len()),
            room_pressure: lists(network.rooms.len()),
            impedance: Vec::with_capacity(n),
            current: Vec::with_capacity(n),
            radiated: Vec::with_capacity(n),
            frequency,
        };
        for index in 0..n {
            response.push(network, solver, index);
        }
        response
    }

    /// Levels only, dB re 20 uPa at 1 m, `[n]`.
    pub fn levels(network: &Network, grid: &FrequencyGrid, volts: f64) -> Vec<f64> {
        let mut solver = Solver::new(network);
        let level = |frequency: &f64| {
            solver.solve(*frequency, volts);
            level_of(solver.heard_pressure())
        };
        grid.frequencies().iter().map(level).collect()
    }

    fn push(&mut self, network: &Network, solver: &mut Solver<'_>, index: usize) {
        solver.solve(self.frequency[index], self.volts);
        self.pressure.push(solver.heard_pressure());
        for (cone, velocities) in network.cones.iter().zip(&mut self.cone_velocity) {
            velocities.push(solver.outflow(cone.element, 0) / cone.area);
        }
        for (opening, speeds) in network.openings.iter().zip(&mut self.opening_velocity) {
            speeds.push(solver.outflow(opening.element, opening.terminal) / opening.area);
        }
        for (room, pressures) in network.rooms.iter().zip(&mut self.room_pressure) {
            pressures.push(solver.pressure(room.node));
        }
        let current = solver.current();
        self.current.push(current);
        self.impedance.push(self.volts * inverse(current));
        self.radiated.push(solver.radiated());
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
            let mut pressure = |f: f64| {
                solver.solve(f, 1.0);
                solver.heard_pressure()
            };
            let [below, above] = [-0.5, 0.5].map(|side| pressure(frequency * (side * DELAY_STEP).exp()));
            (above * below.conj(), DELAY_STEP)
        };
        -small_angle(turn) / (2.0 * PI * frequency * step)
    }

    /// Levels, dB re 20 uPa at 1 m.
    pub fn level(&self) -> impl Iterator<Item = f64> {
        self.pressure.iter().map(|p| level_of(*p))
    }

    /// One-way peak excursion of the cone that moves farthest, m.
    pub fn excursion(&self) -> impl Iterator<Item = f64> {
        (0..self.frequency.len()).map(|index| self.excursion_at(index))
    }

    pub(super) fn excursion_at(&self, index: usize) -> f64 {
        let fastest = self.cone_velocity.iter().map(|cone| cone[index].norm()).fold(0.0, f64::max);
        travel(fastest, self.frequency[index])
    }

    /// Peak air speed in one opening, m/s.
    pub fn air_speed(&self, opening: usize) -> impl Iterator<Item = f64> {
        self.opening_velocity[opening].iter().map(|v| SQRT_2 * v.norm())
    }

    /// One-way peak excursion of what closes one opening, m.
    pub fn opening_travel(&self, opening: usize) -> impl Iterator<Item = f64> {
        self.opening_velocity[opening].iter().zip(&self.frequency).map(|(v, f)| travel(v.norm(), *f))
    }

    /// Real power at the terminals, W.
    pub fn power(&self) -> impl Iterator<Item = f64> {
        self.current.iter().map(|current| self.volts * current.re)
    }

    /// Share of the real power that leaves as sound.
    pub fn efficiency(&self) -> impl Iterator<Item = f64> {
        self.radiated.iter().zip(self.power()).map(|(radiated, power)| radiated / power)
    }
}

/// Argument of a complex number; where it is small, as between neighbouring frequencies, by its series to 1e-12.
fn small_angle(z: Complex) -> f64 {
    let tangent = z.im / z.re;
    if !(z.re > 0.0 && tangent.abs() < 0.06) {
        return z.arg();
    }
    let square = tangent * tangent;
    tangent * (1.0 - square * (1.0 / 3.0 - square * (1.0 / 5.0 - square * (1.0 / 7.0 - square / 9.0))))
}

/// Silence has a level too, so that every curve is made of numbers.
const SILENCE: f64 = 1e-20;

pub(super) fn level_of(pressure: Complex) -> f64 {
    20.0 * (pressure.norm().max(SILENCE) / REFERENCE_PRESSURE).log10()
}

/// One-way peak travel of a velocity (m/s RMS).
fn travel(velocity: f64, frequency: f64) -> f64 {
    SQRT_2 * velocity / (2.0 * PI * frequency)
}
