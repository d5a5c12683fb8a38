//! A design computed over all that a signal may hold, and what single filters change of it.

use std::f64::consts::{PI, TAU};

use oak_acoustics::response::{Figures, FrequencyGrid, MaxOutput, Response};
use oak_acoustics::source::Chain;
use oak_design::Problem;
use oak_design::built::Built;
use oak_design::file::RawFilter;
use oak_design::resolve::{Brief, ResolvedDesign, resolve_filter};
use serde::Serialize;
use utoipa::ToSchema;

use super::name::filter_name;
use crate::case::level_at_one_metre;

/// One filter and what it does here.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct FilterReport {
    /// What it is.
    pub name: String,
    /// What it changes at this drive: travel, level, voltage. Nothing where it is bypassed.
    pub effect: String,
    /// What is to be minded: a boost below the tuning.
    pub caution: Option<String>,
}

/// All filters together.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, ToSchema)]
pub struct ChainReport {
    /// The most that it makes louder, dB, and where, Hz: the signal clips so much earlier there.
    pub most: [f64; 2],
    /// Largest cone travel from 5 Hz up without and with it at this drive, m.
    pub travel: [f64; 2],
    /// Level at the lowest note without and with it, dB.
    pub lowest: Option<[f64; 2]>,
}

/// A design at every frequency that may be played.
pub(super) struct Survey {
    pub design: ResolvedDesign,
    pub brief: Option<Brief>,
    pub built: Built,
    pub response: Response,
    pub figures: Figures,
    pub max_output: MaxOutput,
    /// Peak travel of the cone, m.
    pub travel: Vec<f64>,
    /// dB at 1 m.
    pub level: Vec<f64>,
}

/// Lowest and highest frequency (Hz) and their number.
const GRID: (f64, f64, usize) = (1.0, 1000.0, 600);
/// Music and film hold nothing that matters below, Hz.
const AUDIBLE: f64 = 5.0;

impl Survey {
    pub fn of(design: ResolvedDesign, brief: Option<Brief>) -> Result<Self, Problem> {
        let (from, to, points) = GRID;
        let grid = FrequencyGrid::logarithmic(from, to, points).expect("within the allowed range");
        let built = design.built()?;
        let network = &built.compiled.network;
        let response = Response::without_delay(network, &grid, design.drive.volts);
        let figures = Figures::of(network, design.drive.volts);
        let max_output = MaxOutput::of(network, &response, &built.design.allowance);
        let (travel, level) = (response.excursion().collect(), response.level().collect());
        Ok(Self { design, brief, built, response, figures, max_output, travel, level })
    }

    pub fn frequencies(&self) -> &[f64] {
        &self.response.frequency
    }

    /// Level at 1 m that the brief asks for, dB.
    pub fn asked(&self) -> Option<f64> {
        self.brief.as_ref().and_then(level_at_one_metre)
    }

    /// The lowest note of the brief, Hz.
    pub fn lowest(&self) -> Option<f64> {
        self.brief.as_ref().and_then(|brief| brief.lowest)
    }

    /// Position of the frequency nearest to one, Hz.
    pub fn nearest(&self, frequency: f64) -> usize {
        self.frequencies().partition_point(|at| *at < frequency).min(self.frequencies().len() - 1)
    }

    /// Frequency (Hz) that the box is tuned to: that of its ports, or its own resonance.
    pub fn tuning(&self) -> Option<f64> {
        let compiled = &self.built.compiled;
        let port = compiled.port_tuning.as_ref().map(|tuning| tuning.reactance);
        port.or(compiled.closed_box.map(|closed| closed.fc))
    }

    /// Largest travel from 5 Hz up once every value is multiplied by a factor of its frequency, m, and where, Hz.
    pub fn largest_travel(&self, factor: impl Fn(f64) -> f64) -> [f64; 2] {
        let from = self.nearest(AUDIBLE);
        let all = self.frequencies()[from..].iter().zip(&self.travel[from..]);
        let moved = all.map(|(frequency, travel)| [travel * factor(*frequency), *frequency]);
        moved.reduce(|most, next| if next[0] > most[0] { next } else { most }).unwrap_or([0.0, AUDIBLE])
    }

    /// All filters together.
    pub fn chain(&self) -> ChainReport {
        let gain = |frequency: f64| magnitude(&self.design.source.chain, frequency);
        let from = self.nearest(AUDIBLE);
        let loudest = self.frequencies()[from..]
            .iter()
            .map(|frequency| [decibels(gain(*frequency)), *frequency])
            .reduce(|most, next| if next[0] > most[0] + 1e-9 { next } else { most });
        ChainReport {
            most: loudest.unwrap_or([0.0, AUDIBLE]),
            travel: [
                self.largest_travel(|frequency| gain(frequency).recip())[0],
                self.largest_travel(|_| 1.0)[0],
            ],
            lowest: self.lowest().map(|lowest| {
                let level = self.level[self.nearest(lowest)];
                [level - decibels(gain(lowest)), level]
            }),
        }
    }

    /// What one filter does, beside the others.
    pub fn filter(&self, raw: &RawFilter) -> FilterReport {
        let name = filter_name(raw);
        let chain = if raw.bypassed { None } else { resolve_filter(raw) };
        let Some(chain) = chain else {
            return FilterReport { name, effect: String::new(), caution: None };
        };
        if self.design.source.chain == Chain::default() && chain != Chain::default() {
            return FilterReport { name, effect: "not played on the bench".to_owned(), caution: None };
        }
        FilterReport { name, effect: self.effect(&chain), caution: self.caution(&chain) }
    }

    fn effect(&self, chain: &Chain) -> String {
        let gain = |frequency: f64| magnitude(chain, frequency);
        let mut parts = Vec::new();
        let [without, with] =
            [self.largest_travel(|frequency| gain(frequency).recip())[0], self.largest_travel(|_| 1.0)[0]];
        if (with / without - 1.0).abs() > 0.005 {
            parts.push(format!("cone travel {:.1} → {:.1} mm", without * 1e3, with * 1e3));
        }
        if let Some(lowest) = self.lowest() {
            let change = decibels(gain(lowest));
            if change.abs() > 0.05 {
                parts.push(format!("{} dB at {lowest:.0} Hz", signed(change)));
            }
        }
        let delay = self.lowest().or(self.tuning()).map(|at| (at, chain.group_delay(TAU * at)));
        if let Some((at, delay)) = delay.filter(|(_, delay)| delay.abs() > 5e-4) {
            parts.push(format!("{:.1} ms later at {at:.0} Hz", delay * 1e3));
        }
        if parts.is_empty() { "changes little here".to_owned() } else { parts.join(", ") }
    }

    /// What a boost costs below the tuning of a vented box, or in a closed one where the cone does not follow it. What is louder at every frequency is none.
    fn caution(&self, chain: &Chain) -> Option<String> {
        let compiled = &self.built.compiled;
        let vented = compiled.port_tuning.as_ref().map(|tuning| tuning.reactance);
        let tuning = vented.or(compiled.closed_box.map(|closed| closed.fc))?;
        let above = decibels(magnitude(chain, 4.0 * tuning));
        let below =
            self.frequencies().iter().filter(|frequency| (AUDIBLE..0.95 * tuning).contains(*frequency));
        let [boost, at] = below
            .map(|frequency| [decibels(magnitude(chain, *frequency)) - above, *frequency])
            .reduce(|most, next| if next[0] > most[0] { next } else { most })?;
        if boost < 0.5 {
            return None;
        }
        let k = self.nearest(at);
        let [before, after] = [self.travel[k] / 10f64.powf(boost / 20.0), self.travel[k]];
        let cost = format!(
            "at {at:.0} Hz by {boost:.1} dB, which takes {:.1} times the power and moves the cone {:.1} instead of {:.1} mm",
            10f64.powf(boost / 10.0),
            after * 1e3,
            before * 1e3
        );
        if vented.is_some() {
            return Some(format!(
                "Boosts below the tuning of {tuning:.0} Hz: {cost}. Cut first, boost last."
            ));
        }
        let xmax = self.design.allowance.xmax.filter(|xmax| after > *xmax)?;
        Some(format!("Boosts {cost}, past its ±{:.1} mm: play softer, or ask less of it.", xmax * 1e3))
    }

    /// Where the cone begins to beam: `ka = 1`, above which a piston in a wall is heard less to the side (Beranek, Acoustics, ch. 4; from memory), Hz.
    pub fn beams(&self) -> f64 {
        let cone = (self.design.driver.driver.sd / PI).sqrt();
        self.design.air.speed / (TAU * cone)
    }
}

/// Size of a chain's factor at a frequency, Hz.
pub(super) fn magnitude(chain: &Chain, frequency: f64) -> f64 {
    chain.transfer(TAU * frequency).norm()
}

/// A change as it is read, with a true minus.
pub(crate) fn signed(decibels: f64) -> String {
    format!("{decibels:+.1}").replace('-', "−")
}

/// A factor in dB.
pub(super) fn decibels(factor: f64) -> f64 {
    20.0 * factor.max(1e-12).log10()
}
