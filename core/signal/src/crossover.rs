//! The sub and the main loudspeakers together.

use std::f64::consts::TAU;

use oak_acoustics::Complex;

/// One voice at the frequencies of the judgement, over its passband level, with its filters and distance.
pub type Voice = Vec<Complex>;

/// `f0/2 .. 2 f0`, 24 an octave: 49 frequencies, Hz.
pub fn frequencies(crossover: f64) -> Vec<f64> {
    (-24..=24).map(|k| crossover * (f64::from(k) / 24.0).exp2()).collect()
}

/// What comes later for a distance (m), at frequencies (Hz).
pub fn travelled(voice: &[Complex], frequencies: &[f64], distance: f64, speed: f64) -> Voice {
    let late = |frequency: &f64| Complex::from_polar(1.0, -TAU * frequency * distance / speed);
    voice.iter().zip(frequencies).map(|(value, frequency)| value * late(frequency)).collect()
}

/// How even a sum is.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Evenness {
    /// Standard deviation of the level, dB.
    pub flatness: f64,
    /// Highest less lowest level, dB.
    pub span: f64,
}

/// How even sub and mains are together with a delay on the sub (s; negative: on the mains) and a polarity.
pub fn evenness(
    sub: &[Complex],
    mains: &[Complex],
    frequencies: &[f64],
    delay: f64,
    inverted: bool,
) -> Evenness {
    let sign = if inverted { -1.0 } else { 1.0 };
    let mut levels = [0.0; 49];
    let count = frequencies.len().min(levels.len());
    for (k, level) in levels.iter_mut().enumerate().take(count) {
        let both = mains[k] + sub[k] * Complex::from_polar(sign, -TAU * frequencies[k] * delay);
        *level = 10.0 * both.norm_sqr().max(1e-20).log10();
    }
    let levels = &levels[..count];
    let mean = levels.iter().sum::<f64>() / count as f64;
    let square = levels.iter().map(|level| (level - mean).powi(2)).sum::<f64>() / count as f64;
    let most = levels.iter().copied().fold(f64::MIN, f64::max);
    let least = levels.iter().copied().fold(f64::MAX, f64::min);
    Evenness { flatness: square.sqrt(), span: most - least }
}

/// Delay and polarity of the flattest sum.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Aligned {
    /// On the sub; negative: on the mains, s.
    pub delay: f64,
    /// Whether the sub's polarity is reversed.
    pub inverted: bool,
    /// What it comes to.
    pub evenness: Evenness,
}

/// Largest delay that is looked at either way, s.
pub const MOST_DELAY: f64 = 0.016;
/// Delays on the sub and on the mains, s.
pub const EITHER: [f64; 2] = [-MOST_DELAY, MOST_DELAY];
/// Delays on the sub alone, s.
pub const ON_THE_SUB: [f64; 2] = [0.0, MOST_DELAY];
/// Step of the first look, s.
pub const STEP: f64 = 2e-5;

/// The flattest of all delays between two (s; [`EITHER`] for all) and both polarities: looked at in steps, then refined by golden section.
pub fn align(sub: &[Complex], mains: &[Complex], frequencies: &[f64], [from, to]: [f64; 2]) -> Aligned {
    let flatness = |delay: f64, inverted: bool| evenness(sub, mains, frequencies, delay, inverted).flatness;
    let [first, last] = [from, to].map(|end| (end / STEP).round() as i32);
    let looks = [false, true]
        .into_iter()
        .flat_map(|inverted| (first..=last).map(move |k| (f64::from(k) * STEP, inverted)));
    let best = looks
        .map(|(delay, inverted)| (flatness(delay, inverted), delay, inverted))
        .min_by(|a, b| a.0.total_cmp(&b.0).then(a.1.abs().total_cmp(&b.1.abs())));
    let (_, delay, inverted) = best.unwrap_or((0.0, 0.0, false));
    let delay = golden((delay - STEP).max(from), (delay + STEP).min(to), |delay| flatness(delay, inverted));
    Aligned { delay, inverted, evenness: evenness(sub, mains, frequencies, delay, inverted) }
}

/// Least value between two places by golden section.
pub(crate) fn golden(mut low: f64, mut high: f64, value: impl Fn(f64) -> f64) -> f64 {
    let ratio = (5f64.sqrt() - 1.0) / 2.0;
    let (mut left, mut right) = (high - ratio * (high - low), low + ratio * (high - low));
    let (mut at_left, mut at_right) = (value(left), value(right));
    for _ in 0..60 {
        if at_left < at_right {
            (high, right, at_right) = (right, left, at_left);
            left = high - ratio * (high - low);
            at_left = value(left);
        } else {
            (low, left, at_left) = (left, right, at_right);
            right = low + ratio * (high - low);
            at_right = value(right);
        }
    }
    0.5 * (low + high)
}
