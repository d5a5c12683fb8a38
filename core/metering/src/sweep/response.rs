//! From a recording to a response.

use std::f64::consts::{PI, TAU};

use realfft::RealFftPlanner;

use super::signal::Sweep;
use crate::Complex;

/// What a recording answers to an impulse in place of the sweep; what comes before it in time stands at its end.
#[derive(Debug, Clone)]
pub struct Impulse {
    /// Samples a second.
    pub rate: f64,
    /// Its values.
    pub samples: Vec<f64>,
    sweep: Sweep,
}

/// What is kept of an impulse response: so long before its beginning and after it, s, with soft edges.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Window {
    /// s.
    pub before: f64,
    /// s.
    pub after: f64,
}

/// Where the sweep has nothing, the quotient is held down: so far below its loudest, in power.
const NOTHING: f64 = 1e-7;
/// Of either side of a window, what its edge (half a Hann window) takes.
const EDGE: f64 = 0.25;
/// Between two harmonics, the share that belongs to either.
const SHARE: f64 = 0.45;

/// Divides channels of one recording by their sweep in the spectrum, where the sweep has something.
pub fn deconvolve<const CHANNELS: usize>(recorded: [&[f64]; CHANNELS], sweep: &Sweep) -> [Impulse; CHANNELS] {
    let played = (sweep.seconds * f64::from(sweep.rate)).round() as usize;
    let longest = recorded.iter().map(|samples| samples.len()).max().unwrap_or(0);
    // So long that nothing of the end meets the beginning.
    let count = quick_length(longest + played);
    let mut planner = RealFftPlanner::new();
    let (forward, back) = (planner.plan_fft_forward(count), planner.plan_fft_inverse(count));
    let spectrum = |samples: &[f64]| {
        let mut values = samples.to_vec();
        values.resize(count, 0.0);
        let mut spectrum = forward.make_output_vec();
        // Both are as long as the plan.
        forward.process(&mut values, &mut spectrum).expect("lengths of the plan");
        spectrum
    };
    let (sent, came) = std::thread::scope(|scope| {
        let sent = scope.spawn(|| spectrum(&sweep.samples()));
        let came = recorded.map(spectrum);
        (sent.join().expect("a spectrum"), came)
    });
    let most = sent.iter().map(Complex::norm_sqr).fold(0.0, f64::max);
    came.map(|mut came| {
        for (came, sent) in came.iter_mut().zip(&sent) {
            *came *= sent.conj() / ((sent.norm_sqr() + NOTHING * most) * count as f64);
        }
        // The ends of a real signal's spectrum are real, but for rounding.
        let last = came.len() - 1;
        (came[0].im, came[last].im) = (0.0, 0.0);
        let mut samples = back.make_output_vec();
        back.process(&mut came, &mut samples).expect("lengths of the plan");
        Impulse { rate: f64::from(sweep.rate), samples, sweep: *sweep }
    })
}

/// The shortest even length from one on that has no factor over five: such a transform is quick.
fn quick_length(least: usize) -> usize {
    let mut best = least.next_power_of_two();
    for fives in 0..10 {
        for threes in 0..12 {
            let odd = 5usize.pow(fives) * 3usize.pow(threes);
            if odd > best {
                break;
            }
            let twos = least.div_ceil(odd).next_power_of_two().max(2);
            best = best.min(odd * twos);
        }
    }
    best
}

impl Impulse {
    /// Where it is loudest, s.
    pub fn arrives(&self) -> f64 {
        let half = self.samples.len() / 2;
        let loudest = (0..half).max_by(|a, b| self.samples[*a].abs().total_cmp(&self.samples[*b].abs()));
        loudest.unwrap_or(0) as f64 / self.rate
    }

    /// Its spectrum at frequencies (Hz) through a window that begins at a time (s), with the phase from there.
    pub fn response(&self, from: f64, window: Window, frequencies: &[f64]) -> Vec<Complex> {
        let count = self.samples.len() as i64;
        let [first, last] =
            [from - window.before, from + window.after].map(|at| (at * self.rate).round() as i64);
        let edge = |part: f64| 0.5 - 0.5 * (PI * part.clamp(0.0, 1.0)).cos();
        let kept: Vec<(f64, f64)> = (first..=last)
            .map(|at| {
                let after = at as f64 / self.rate - from;
                let weight = if after < 0.0 {
                    edge((after + window.before) / (EDGE * window.before))
                } else {
                    edge((window.after - after) / (EDGE * window.after))
                };
                (after, weight * self.samples[at.rem_euclid(count) as usize])
            })
            .collect();
        let at = |frequency: &f64| {
            // One turn from sample to sample instead of a sine for each.
            let step = Complex::from_polar(1.0, -TAU * frequency / self.rate);
            let first = kept.first().map_or(0.0, |(after, _)| *after);
            let mut turn = Complex::from_polar(1.0, -TAU * frequency * first);
            let mut sum = Complex::from(0.0);
            for (_, value) in &kept {
                sum += turn * value;
                turn *= step;
            }
            sum
        };
        frequencies.iter().map(at).collect()
    }

    /// The response of a harmonic (2, 3 and so on) at frequencies of what was played, Hz: what the recording has at so many times each.
    pub fn harmonic(&self, order: u32, frequencies: &[f64]) -> Vec<Complex> {
        let [below, here, above] = [order - 1, order, order + 1].map(|order| self.sweep.ahead(order));
        let window = Window { before: SHARE * (above - here), after: SHARE * (here - below) };
        let times: Vec<f64> = frequencies.iter().map(|frequency| frequency * f64::from(order)).collect();
        self.response(self.arrives() - here, window, &times)
    }
}
