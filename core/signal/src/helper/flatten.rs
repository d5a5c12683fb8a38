//! One band that takes a peak down.

use std::f64::consts::TAU;

use crate::crossover::golden;
use crate::filter::{Filter, Width};

/// A parametric band, and what it makes of the level.
#[derive(Debug, Clone, PartialEq)]
pub struct Flattening {
    /// Hz.
    pub frequency: f64,
    /// dB, below nothing.
    pub gain: f64,
    /// Q.
    pub q: f64,
    /// Largest deviation above the reference before and after, dB.
    pub peak: [f64; 2],
}

impl Flattening {
    /// As a filter.
    pub fn filter(&self) -> Filter {
        Filter::Parametric { frequency: self.frequency, gain: self.gain, width: Width::Q(self.q) }
    }
}

/// A peak less than this is left alone, dB.
const WORTH: f64 = 0.5;
/// Rounds in which gain, frequency and width are refined in turn.
const ROUNDS: usize = 6;

/// The band that brings the highest peak of a level (dB at rising frequencies, Hz) nearest to a reference (dB) within an octave and a half around it; `None`
/// where no peak is worth it. It only cuts.
pub fn flatten(frequencies: &[f64], levels: &[f64], reference: f64) -> Option<Flattening> {
    let top = (0..levels.len()).max_by(|a, b| levels[*a].total_cmp(&levels[*b]))?;
    let height = levels[top] - reference;
    if height < WORTH {
        return None;
    }
    let around: Vec<(f64, f64)> = frequencies
        .iter()
        .zip(levels)
        .filter(|(frequency, _)| (*frequency / frequencies[top]).log2().abs() < 1.5)
        .map(|(frequency, level)| (*frequency, level - reference))
        .collect();
    let of = |frequency: f64, gain: f64, q: f64| Flattening { frequency, gain, q, peak: [height, 0.0] };
    let left = |band: &Flattening| -> Vec<f64> {
        let Ok(chain) = band.filter().chain() else { return Vec::new() };
        let gain = |frequency: f64| 20.0 * chain.transfer(TAU * frequency).norm().log10();
        around.iter().map(|(frequency, level)| level + gain(*frequency)).collect()
    };
    // What stays above counts; what falls below as well, where the peak was.
    let cost = |band: &Flattening| -> f64 {
        let before = around.iter().map(|(_, level)| level.min(0.0));
        left(band).iter().zip(before).map(|(after, before)| (after - before).powi(2)).sum()
    };
    let mut best = of(frequencies[top], -height, 1.0);
    for _ in 0..ROUNDS {
        let (frequency, gain) = (best.frequency, best.gain);
        best.q = golden(-1.5, 2.5, |log| cost(&of(frequency, gain, log.exp()))).exp();
        let q = best.q;
        best.gain = golden(-1.5 * height, 0.0, |gain| cost(&of(frequency, gain, q)));
        let gain = best.gain;
        best.frequency = frequency * golden(-0.3, 0.3, |log| cost(&of(frequency * log.exp(), gain, q))).exp();
    }
    best.peak[1] = left(&best).into_iter().fold(0.0, f64::max);
    Some(best)
}
