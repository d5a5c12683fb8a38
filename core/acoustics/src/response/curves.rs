//! Curves over frequency.

use std::f64::consts::{PI, SQRT_2};

use super::FrequencyGrid;
use crate::driver::REFERENCE_PRESSURE;
use crate::element::Asking;
use crate::lanes::{Real, lane};
use crate::network::{Network, Node};
use crate::solve::{Solver, Sweep, Work};
use crate::{Complex, inverse};

/// Neighbouring frequencies closer than this ratio serve for the group delay: the central difference is
/// then right to about a thousandth of the delay of a resonance with Q 5.
const NEIGHBOURS_WITHIN: f64 = 1.012;
/// Where the grid is coarser, the delay is differenced over two extra solutions this far apart.
const DELAY_STEP: f64 = 1e-4;

/// The response of a network to one signal, every vector `[n]` over the same `n` frequencies.
#[derive(Debug, Clone, PartialEq)]
pub struct Response {
    /// The signal, as the drive that it makes where no filter changes it, V RMS.
    pub volts: f64,
    /// Hz.
    pub frequency: Vec<f64>,
    /// Voltage of the amplifier, before its own resistance: the signal through the filters, V RMS.
    pub drive: Vec<Complex>,
    /// Pressure at 1 m in the space of the network, without the travel time, Pa RMS.
    pub pressure: Vec<Complex>,
    /// Group delay without the travel time, s.
    pub group_delay: Vec<f64>,
    /// Velocity of each cone, outward, m/s RMS; `[cones][n]`.
    pub cone_velocity: Vec<Vec<Complex>>,
    /// Mean air velocity in each opening, or velocity of each radiator, outward, m/s RMS; `[openings][n]`.
    pub opening_velocity: Vec<Vec<Complex>>,
    /// Pressure in each chamber, Pa RMS; `[chambers][n]`.
    pub chamber_pressure: Vec<Vec<Complex>>,
    /// What the amplifier drives, behind its own resistance, ohm.
    pub impedance: Vec<Complex>,
    /// Current, A RMS.
    pub current: Vec<Complex>,
    /// Power that leaves as sound, W.
    pub radiated: Vec<f64>,
    /// Current in each branch of the passive parts, A RMS; `[branches][n]`.
    pub part_current: Vec<Vec<Complex>>,
}

impl Response {
    /// Solves a network over a grid for a drive (V RMS).
    pub fn of(network: &Network, grid: &FrequencyGrid, volts: f64) -> Self {
        let mut sweep = Sweep::new(network);
        let mut response = Self::undelayed(network, &mut sweep, grid.frequencies(), volts);
        response.delay(network, &mut sweep, NEIGHBOURS_WITHIN);
        response
    }

    /// As [`Self::of`] with the group delay differenced between neighbours however far apart: enough to find where it is largest.
    pub(super) fn with_rough_delay(network: &Network, grid: &FrequencyGrid, volts: f64) -> Self {
        let mut sweep = Sweep::new(network);
        let mut response = Self::undelayed(network, &mut sweep, grid.frequencies(), volts);
        response.delay(network, &mut sweep, f64::INFINITY);
        response
    }

    /// As [`Self::of`] without the group delay, which on a coarse grid takes two more solutions for each.
    pub fn without_delay(network: &Network, grid: &FrequencyGrid, volts: f64) -> Self {
        Self::undelayed(network, &mut Sweep::new(network), grid.frequencies(), volts)
    }

    /// As [`Self::without_delay`] at frequencies (Hz) in any order.
    pub(super) fn undelayed(
        network: &Network,
        sweep: &mut Sweep<'_>,
        frequencies: &[f64],
        volts: f64,
    ) -> Self {
        let mut response = Self::empty(network, frequencies.to_vec(), volts);
        sweep.run(Curves { network, frequencies, into: &mut response });
        response
    }

    fn empty(network: &Network, frequency: Vec<f64>, volts: f64) -> Self {
        let n = frequency.len();
        let lists = |count: usize| (0..count).map(|_| Vec::with_capacity(n)).collect::<Vec<_>>();
        Self {
            volts,
            drive: Vec::with_capacity(n),
            pressure: Vec::with_capacity(n),
            group_delay: Vec::new(),
            cone_velocity: lists(network.cones.len()),
            opening_velocity: lists(network.openings.len()),
            chamber_pressure: lists(network.chambers.len()),
            impedance: Vec::with_capacity(n),
            current: Vec::with_capacity(n),
            radiated: Vec::with_capacity(n),
            part_current: lists(network.passive_parts.len()),
            frequency,
        }
    }

    /// Levels only, dB re 20 uPa at 1 m, `[n]`.
    pub fn levels(network: &Network, grid: &FrequencyGrid, volts: f64) -> Vec<f64> {
        pressures(&mut Sweep::new(network), grid.frequencies(), volts).into_iter().map(level_of).collect()
    }

    /// Solves at some frequencies (Hz) side by side and keeps `count` of them.
    #[inline(always)]
    fn push<T: Asking>(&mut self, network: &Network, solver: &mut Solver<'_, T>, frequency: T, count: usize) {
        solver.solve(frequency, self.volts);
        let keep = |list: &mut Vec<Complex>, value: Complex<T>| {
            list.extend((0..count).map(|index| lane(value, index)));
        };
        keep(&mut self.pressure, solver.heard_pressure());
        for (cone, velocities) in network.cones.iter().zip(&mut self.cone_velocity) {
            keep(velocities, solver.outflow(cone.element, 0) * T::of(cone.area.recip()));
        }
        for (opening, speeds) in network.openings.iter().zip(&mut self.opening_velocity) {
            let outflow = solver.outflow(opening.element, opening.terminal);
            keep(speeds, outflow * T::of(opening.area.recip()));
        }
        for (chamber, pressures) in network.chambers.iter().zip(&mut self.chamber_pressure) {
            keep(pressures, solver.pressure(chamber.node));
        }
        let current = solver.current();
        keep(&mut self.current, current);
        let drive = solver.pressure(Node::Amplifier);
        keep(&mut self.drive, drive);
        let own = T::of(network.output_resistance);
        keep(&mut self.impedance, inverse(current) * drive - Complex::from(own));
        for (part, currents) in network.passive_parts.iter().zip(&mut self.part_current) {
            keep(currents, solver.outflow(part.element, 1));
        }
        let radiated = solver.radiated();
        self.radiated.extend((0..count).map(|index| radiated.extract(index)));
    }

    /// Fills in `-d(phase)/d(omega)`: of the filters from their functions, of what follows them as a central difference over log frequency,
    /// between neighbours closer than a ratio.
    fn delay(&mut self, network: &Network, sweep: &mut Sweep<'_>, within: f64) {
        let n = self.frequency.len();
        let near = |a: usize, b: usize| self.frequency[b] < self.frequency[a] * within;
        let between =
            |index: usize| index > 0 && index + 1 < n && near(index - 1, index) && near(index, index + 1);
        let beside: Vec<f64> = (0..n)
            .filter(|index| !between(*index))
            .flat_map(|index| [-0.5, 0.5].map(|side| self.frequency[index] * (side * DELAY_STEP).exp()))
            .collect();
        let unfiltered = |pressure: Complex, drive: Complex| pressure * drive.conj();
        let filter = |frequency: f64| network.chain.transfer(2.0 * PI * frequency);
        let beside: Vec<Complex> = pressures(sweep, &beside, 1.0)
            .into_iter()
            .zip(&beside)
            .map(|(pressure, frequency)| unfiltered(pressure, filter(*frequency)))
            .collect();
        let mut beside = beside.chunks_exact(2);
        let here = |index: usize| unfiltered(self.pressure[index], self.drive[index]);
        // The grid is logarithmic.
        let step = if n > 2 { (self.frequency[2] / self.frequency[0]).ln() } else { DELAY_STEP };
        let turns = (0..n).map(|index| {
            let (below, above, step) = if between(index) {
                (here(index - 1), here(index + 1), step)
            } else {
                let pair = beside.next().expect("two solutions for each");
                (pair[0], pair[1], DELAY_STEP)
            };
            let omega = 2.0 * PI * self.frequency[index];
            network.chain.group_delay(omega) - small_angle(above * below.conj()) / (omega * step)
        });
        self.group_delay = turns.collect();
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
        let fastest = self.cone_velocity.iter().map(|cone| size(cone[index])).fold(0.0, f64::max);
        travel(fastest, self.frequency[index])
    }

    /// Peak air speed in one opening, m/s.
    pub fn air_speed(&self, opening: usize) -> impl Iterator<Item = f64> {
        self.opening_velocity[opening].iter().map(|v| SQRT_2 * size(*v))
    }

    /// One-way peak excursion of what closes one opening, m.
    pub fn opening_travel(&self, opening: usize) -> impl Iterator<Item = f64> {
        self.opening_velocity[opening].iter().zip(&self.frequency).map(|(v, f)| travel(size(*v), *f))
    }

    /// Real power that the amplifier gives into what it drives, W.
    pub fn power(&self) -> impl Iterator<Item = f64> {
        (0..self.frequency.len()).map(|index| self.power_at(index))
    }

    pub(super) fn power_at(&self, index: usize) -> f64 {
        self.impedance[index].re * self.current[index].norm_sqr()
    }

    /// Apparent power at the same place, VA.
    pub fn apparent_power(&self) -> impl Iterator<Item = f64> {
        self.impedance
            .iter()
            .zip(&self.current)
            .map(|(impedance, current)| size(*impedance) * current.norm_sqr())
    }

    /// Share of the real power that leaves as sound.
    pub fn efficiency(&self) -> impl Iterator<Item = f64> {
        self.radiated.iter().zip(self.power()).map(|(radiated, power)| radiated / power)
    }
}

/// All curves but the group delay.
struct Curves<'a> {
    network: &'a Network,
    frequencies: &'a [f64],
    into: &'a mut Response,
}

impl Work for Curves<'_> {
    type Output = ();

    #[inline(always)]
    fn run<T: Asking>(self, solver: &mut Solver<'_, T>) {
        for some in self.frequencies.chunks(T::LANES) {
            self.into.push(self.network, solver, side_by_side::<T>(some), some.len());
        }
    }
}

/// What is heard, Pa RMS at 1 m.
struct Heard<'a> {
    frequencies: &'a [f64],
    volts: f64,
}

impl Work for Heard<'_> {
    type Output = Vec<Complex>;

    #[inline(always)]
    fn run<T: Asking>(self, solver: &mut Solver<'_, T>) -> Vec<Complex> {
        let mut heard = Vec::with_capacity(self.frequencies.len());
        for some in self.frequencies.chunks(T::LANES) {
            solver.solve(side_by_side(some), self.volts);
            let pressure = solver.heard_pressure();
            heard.extend((0..some.len()).map(|index| lane(pressure, index)));
        }
        heard
    }
}

/// One thing that sounds: a cone's front, a port, a radiator, a leak.
#[derive(Debug, Clone, PartialEq)]
pub struct SoundSource {
    /// Which element, by position in the network.
    pub element: usize,
    /// Where its box has it, m; unknown of leaks, and of designs without a box.
    pub place: Option<[f64; 3]>,
    /// How much farther than the nearest it has to a listener before it, m.
    pub extra_path: f64,
    /// What leaves it, m3/s RMS, `[n]`.
    pub flow: Vec<Complex>,
}

impl SoundSource {
    /// Everything that sounds of a network at frequencies (Hz) for a signal (V RMS).
    pub fn all(network: &Network, frequencies: &[f64], volts: f64) -> Vec<Self> {
        Sweep::new(network).run(Sounding { network, frequencies, volts })
    }
}

/// What leaves each thing that sounds.
struct Sounding<'a> {
    network: &'a Network,
    frequencies: &'a [f64],
    volts: f64,
}

impl Work for Sounding<'_> {
    type Output = Vec<SoundSource>;

    #[inline(always)]
    fn run<T: Asking>(self, solver: &mut Solver<'_, T>) -> Vec<SoundSource> {
        let Self { network, frequencies, volts } = self;
        let place =
            |element: usize| network.places.iter().find(|(found, _)| *found == element).map(|(_, at)| *at);
        let empty = |(element, extra_path)| {
            let flow = Vec::with_capacity(frequencies.len());
            SoundSource { element, place: place(element), extra_path, flow }
        };
        let mut sources: Vec<SoundSource> = solver.sounding().map(empty).collect();
        for some in frequencies.chunks(T::LANES) {
            solver.solve(side_by_side(some), volts);
            for (which, source) in sources.iter_mut().enumerate() {
                let flow = solver.spread_flow(which);
                source.flow.extend((0..some.len()).map(|index| lane(flow, index)));
            }
        }
        sources
    }
}

/// Frequencies in lanes, the last repeated where they do not come out even.
#[inline(always)]
fn side_by_side<T: Real>(some: &[f64]) -> T {
    T::by_lane(|lane| some[lane.min(some.len() - 1)])
}

/// What is heard at frequencies (Hz) for a drive (V RMS), Pa RMS at 1 m, `[n]`.
pub(super) fn pressures(sweep: &mut Sweep<'_>, frequencies: &[f64], volts: f64) -> Vec<Complex> {
    sweep.run(Heard { frequencies, volts })
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

/// Absolute value. What sounds, moves and flows is far from where squares overflow.
pub(super) fn size(z: Complex) -> f64 {
    z.norm_sqr().sqrt()
}

/// Silence has a level too, so that every curve is made of numbers.
const SILENCE: f64 = 1e-20;

pub(super) fn level_of(pressure: Complex) -> f64 {
    20.0 * (size(pressure).max(SILENCE) / REFERENCE_PRESSURE).log10()
}

/// One-way peak travel of a velocity (m/s RMS).
fn travel(velocity: f64, frequency: f64) -> f64 {
    SQRT_2 * velocity / (2.0 * PI * frequency)
}
