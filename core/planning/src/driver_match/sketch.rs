//! What a cabinet comes to for a brief, roughly: enough for an optimiser to tell better from worse.

use std::ops::Range;

use oak_acoustics::enclosure::{Compiled, Enclosure, Setting};
use oak_acoustics::network::Reference;
use oak_acoustics::response::{Allowance, FrequencyGrid, LevelBand, MaxOutput, Response};
use oak_acoustics::starting_point::port;
use oak_design::resolve::{Brief, ResolvedDesign};

use super::tunable::{Around, SHORTEST};
use crate::case::{level_at_one_metre, upper_end};
use crate::check::{even, size};

/// Steps of the band that a cabinet is sketched in, and how many more below and beyond it, so that its ends are seen.
const STEPS: usize = 26;
const BELOW: usize = 8;
const BEYOND: usize = 1;
/// Lowest frequency of a sketch, Hz.
const LOWEST: f64 = 1.5;
/// How far above what is asked a sketch aims, so that the rounding of sizes does not fall short: a part of the lowest note,
/// dB, a part of the room, and dB of evenness.
const AIM: [f64; 4] = [0.996, 0.15, 0.99, 0.1];
/// What a doubling of the volume weighs against a doubling of what a brief asks: enough to tell a smaller cabinet from a
/// larger one that does no more.
const BULK: f64 = 0.01;
/// What a port half as wide as is quiet weighs where no level says how wide it must be.
const NARROW: f64 = 0.1;
/// What an octave or 6 dB too little, or a doubling of the room, weighs against the same of what is asked when starts are
/// compared.
const VIOLATION: f64 = 10.0;
/// dB of a doubling.
const DOUBLING: f64 = 6.02;
/// Lightest radiator over the drivers' moving mass: a cone needs its own mass (common practice).
const LIGHTEST: f64 = 0.6;

/// Where a driver's cabinets are sketched.
#[derive(Debug, Clone)]
pub(super) struct Evaluator {
    /// What bounds depend on.
    pub around: Around,
    /// What cabinets are compiled for.
    pub setting: Setting,
    /// What they may be driven to.
    pub allowance: Allowance,
    /// Level asked at 1 m, dB.
    pub asked: Option<f64>,
    grid: FrequencyGrid,
    /// The band that is asked for, as positions.
    band: Range<usize>,
}

/// A rough judgement; doublings throughout: an octave of the lowest note, 6 dB, twice the size.
#[derive(Debug, Clone, Copy)]
pub(super) struct Sketch {
    /// How much falls short of what is asked, with the preference for a small cabinet; less is better.
    pub merit: f64,
    /// What must not be below zero: room, evenness, length of the port, its shortness, mass of the radiator.
    pub within: [f64; 5],
    /// Tuning of the port, Hz.
    pub tuning: Option<f64>,
}

impl Evaluator {
    /// Sets up for drivers in a resolved design that is surrounded as a brief has it.
    pub fn new(brief: &Brief, design: &ResolvedDesign, around: Around) -> Self {
        let top = upper_end(brief, around.lowest);
        let octaves = |steps: usize| (top / around.lowest).powf(steps as f64 / STEPS as f64);
        // A wide band of low notes would reach below what can be computed.
        let below = (0..=BELOW).rev().find(|below| around.lowest / octaves(*below) >= LOWEST).unwrap_or(0);
        let (from, to) = (around.lowest / octaves(below), top * octaves(BEYOND));
        let grid = FrequencyGrid::logarithmic(from, to, below + STEPS + BEYOND + 1)
            .expect("a brief's notes lie within the allowed range");
        Self {
            around,
            setting: design.setting(),
            allowance: design.allowance,
            asked: level_at_one_metre(brief),
            band: below..below + STEPS + 1,
            grid,
        }
    }

    /// Sketches a cabinet; `None` where it cannot be compiled.
    pub fn sketch(&self, enclosure: &Enclosure) -> Option<Sketch> {
        let compiled = enclosure.compile(&self.setting).ok()?;
        let response = Response::without_delay(&compiled.network, &self.grid, 1.0);
        let level: Vec<f64> = response.level().collect();
        let passband = match compiled.network.reference {
            Reference::Piston => compiled.network.piston_level(1.0),
            Reference::Passband => LevelBand::of(&level, self.per_octave()).reference,
        };
        let f3 = self.f3(&level, passband);
        let octaves = (f3 / (AIM[0] * self.around.lowest)).log2().max(0.0);
        let decibels = self.asked.map_or(0.0, |asked| {
            let least =
                MaxOutput::least_level(&compiled.network, &response, &self.allowance, self.band.clone());
            ((asked + AIM[1] - least) / DOUBLING).max(0.0)
        });
        let narrow = if self.asked.is_none() { self.narrow(&compiled) } else { 0.0 };
        let merit = octaves + decibels + BULK * enclosure.air().log2() + NARROW * narrow;
        let tuning = compiled.port_tuning.as_ref().map(|tuning| tuning.reactance);
        Some(Sketch { merit, within: self.within(enclosure, &compiled, &level, passband, f3), tuning })
    }

    fn per_octave(&self) -> f64 {
        let frequency = self.grid.frequencies();
        (frequency[1] / frequency[0]).log2().recip()
    }

    /// The frequency from which the level stays within 3 dB of its passband level up to its highest place, Hz, read between the points.
    /// Below them all it goes on as a box falls, so that a lower end is better even where it is far off.
    fn f3(&self, level: &[f64], passband: f64) -> f64 {
        let frequency = self.grid.frequencies();
        let threshold = passband - 3.0;
        let top = (0..level.len()).max_by(|a, b| level[*a].total_cmp(&level[*b])).unwrap_or(0);
        if level[top] < threshold {
            // Not even its highest place reaches the passband: an octave more for every 12 dB.
            return frequency[top] * ((threshold - level[top]) / 12.0).exp2();
        }
        match (0..top).rfind(|&k| level[k] < threshold) {
            Some(k) => {
                let share = (threshold - level[k]) / (level[k + 1] - level[k]);
                frequency[k] * (frequency[k + 1] / frequency[k]).powf(share)
            }
            None => frequency[0] / ((level[0] - threshold) / 24.0).exp2(),
        }
    }

    fn within(
        &self,
        enclosure: &Enclosure,
        compiled: &Compiled,
        level: &[f64],
        passband: f64,
        f3: f64,
    ) -> [f64; 5] {
        let ports = compiled.port_tuning.as_ref().map_or(&[][..], |tuning| &tuning.ports);
        let taken = enclosure.air() + size::port_volume(compiled);
        let room = (AIM[2] * self.around.room / taken).log2();
        let first =
            self.grid.frequencies().partition_point(|f| *f < f3).clamp(self.band.start, self.band.end - 1);
        let even = -(even::unevenness(&level[first..self.band.end], passband) + AIM[3]) / DOUBLING;
        let side = chamber_of_ports(enclosure).cbrt();
        let [longest, shortest] = match ports {
            [] => [0.0, 0.0],
            [port, ..] => {
                [(port::LONGEST * side / port.length).log2(), (port.length / (1.2 * SHORTEST)).log2()]
            }
        };
        let mass = enclosure.radiators().map_or(0.0, |cabinet| {
            let all = cabinet.radiator.mass * f64::from(cabinet.radiator.count);
            (all / (2.0 * LIGHTEST * self.around.driver.mms)).log2()
        });
        [room, even, longest, shortest, mass]
    }

    /// Doublings by which the port's area is less than what is quiet by Small's rule.
    fn narrow(&self, compiled: &Compiled) -> f64 {
        compiled.port_tuning.as_ref().map_or(0.0, |tuning| {
            let quiet =
                port::quiet_area(&self.around.driver, tuning.reactance).min(0.4 * self.around.driver.sd);
            (quiet / tuning.ports.iter().map(|port| port.area).sum::<f64>()).log2().max(0.0)
        })
    }
}

/// Volume of the chamber that ports lead out of, m3.
fn chamber_of_ports(enclosure: &Enclosure) -> f64 {
    match enclosure {
        Enclosure::Bandpass4(bandpass) => bandpass.front.volume,
        other => other.air(),
    }
}

impl Sketch {
    /// By how much constraints are violated together.
    pub fn violation(&self) -> f64 {
        self.within.iter().map(|within| (-within).max(0.0)).sum()
    }

    /// Merit with what is violated, for comparing starts; less is better.
    pub fn with_violations(&self) -> f64 {
        self.merit + VIOLATION * self.violation()
    }
}
