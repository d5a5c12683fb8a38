//! Quick looks at what a cabinet comes to, for starting points that try many.

use super::Ask;
use crate::enclosure::Enclosure;
use crate::response::{FrequencyGrid, Passband, Response, deepest_dip};
use crate::root::zero;

/// Levels and frequencies of a candidate, enough to rank it.
pub(super) struct Look {
    frequency: Vec<f64>,
    level: Vec<f64>,
    reference: f64,
}

/// The band around the highest level.
pub(super) struct Band {
    /// Octaves within 3 dB of the peak.
    pub octaves: f64,
    /// Lower end, Hz.
    pub from: f64,
    /// Upper end, Hz.
    pub to: f64,
    /// Highest level over the piston level of the driver, dB.
    pub gain: f64,
    /// Lowest level between both ends under the highest, dB.
    pub hollow: f64,
    /// How far the deepest dip lies below the lower of the peaks beside it, dB.
    pub ripple: f64,
}

const POINTS: usize = 72;
const SPAN: f64 = 3.6;

impl Look {
    /// Solves a cabinet from 1/3.6 to 3.6 times a frequency (Hz); `None` where it cannot be compiled.
    pub fn at(ask: &Ask, enclosure: &Enclosure, middle: f64) -> Option<Self> {
        let compiled = enclosure.compile(&ask.setting).ok()?;
        let grid = FrequencyGrid::logarithmic(middle / SPAN, middle * SPAN, POINTS).ok()?;
        let response = Response::levels(&compiled.network, &grid, 1.0);
        Some(Self {
            reference: compiled.network.piston_level(1.0),
            level: response,
            frequency: grid.frequencies().to_vec(),
        })
    }

    /// Lowest frequency within 3 dB of the piston level, Hz.
    pub fn f3(&self) -> Option<f64> {
        let index = self.level.iter().position(|level| *level >= self.reference - 3.0)?;
        Some(self.frequency[index])
    }

    /// Highest level over the piston level, dB.
    pub fn peak(&self) -> f64 {
        self.level.iter().copied().fold(f64::MIN, f64::max) - self.reference
    }

    pub fn band(&self) -> Band {
        let per_octave = (POINTS - 1) as f64 / (2.0 * SPAN.log2());
        let Passband { top, from, to } = Passband::of(&self.level, per_octave);
        Band {
            octaves: (self.frequency[to] / self.frequency[from]).log2(),
            from: self.frequency[from],
            to: self.frequency[to],
            gain: self.level[top] - self.reference,
            ripple: deepest_dip(&self.level[from..=to]),
            hollow: self.level[top] - self.level[from..=to].iter().copied().fold(f64::MAX, f64::min),
        }
    }
}

/// How near a crossing is found, as a ratio less one.
const CLOSE: f64 = 1e-8;

/// Where a function that falls (or rises) along a logarithmic span crosses zero; `None` where it has one sign.
pub(super) fn crossing(low: f64, high: f64, value: impl Fn(f64) -> Option<f64>) -> Option<f64> {
    let (low, high) = (low.ln(), high.ln());
    let mut lost = false;
    let found = zero(low, high, CLOSE, |middle| {
        value(middle.exp()).unwrap_or_else(|| {
            lost = true;
            f64::NAN
        })
    })?;
    (!lost).then(|| found.exp())
}
