//! What a microphone would record of a sweep through a cabinet.

use std::f64::consts::{PI, TAU};

use rand::SeedableRng;
use rand_chacha::ChaCha8Rng;
use rustfft::FftPlanner;

use crate::measure::Wired;
use crate::scenario::Bench;
use crate::{Complex, normal};

/// A sweep and the silence around it.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Played {
    /// Samples a second.
    pub rate: u32,
    /// How long the sweep lasts, s.
    pub seconds: f64,
    /// From and to, Hz.
    pub range: [f64; 2],
    /// Before and after it, s.
    pub silence: [f64; 2],
}

/// Of the sweep, what fades in and out.
const FADES: [f64; 2] = [0.02, 0.005];
/// Of full scale: the loudest, noise and hum.
const LOUDEST: f64 = 0.5;
const NOISE: f64 = 2e-5;
const HUM: f64 = 2e-4;
/// How far beyond its end a sweep is computed, over that.
const BEYOND: f64 = 1.5;

impl Played {
    /// An exponential sweep (Farina, AES Convention 108, 2000, paper 5093), written down here once more so that what reads it is not tested on itself.
    fn sweep(&self) -> Vec<f64> {
        let growth = (self.range[1] / self.range[0]).ln();
        let count = (self.seconds * f64::from(self.rate)).round() as usize;
        let edge = |t: f64, over: f64| if t < over { 0.5 * (1.0 - (PI * t / over).cos()) } else { 1.0 };
        let at = |k: usize| {
            let t = k as f64 / f64::from(self.rate);
            let turned =
                TAU * self.range[0] * self.seconds / growth * ((t * growth / self.seconds).exp() - 1.0);
            turned.sin() * edge(t, FADES[0] * self.seconds) * edge(self.seconds - t, FADES[1] * self.seconds)
        };
        (0..count).map(at).collect()
    }
}

impl Bench {
    /// The samples of a recording, -1 to 1: silence, the sweep through the cabinet, silence; with noise and hum.
    pub fn record(&self, wired: Wired, played: &Played) -> Vec<f64> {
        let sweep = played.sweep();
        let rate = f64::from(played.rate);
        let [before, after] = played.silence.map(|seconds| (seconds * rate).round() as usize);
        let length = before + sweep.len() + after;
        let count = (length + sweep.len()).next_power_of_two();
        let mut planner = FftPlanner::new();
        let mut spectrum = vec![Complex::from(0.0); count];
        for (at, sample) in sweep.iter().enumerate() {
            spectrum[before + at] = Complex::from(*sample);
        }
        planner.plan_fft_forward(count).process(&mut spectrum);
        for k in 1..=count / 2 {
            let frequency = k as f64 * rate / count as f64;
            // Beyond its end a sweep has next to nothing.
            let heard = frequency < BEYOND * played.range[1];
            spectrum[k] *= if heard { self.value(wired, frequency) } else { Complex::from(0.0) };
            if k < count / 2 {
                spectrum[count - k] = spectrum[k].conj();
            }
        }
        spectrum[0] = Complex::from(0.0);
        planner.plan_fft_inverse(count).process(&mut spectrum);
        let loudest = spectrum.iter().map(|value| value.re.abs()).fold(1e-30, f64::max);
        let mut random = ChaCha8Rng::seed_from_u64(5);
        let at = |k: usize| {
            let hum = HUM * (TAU * self.chain.mains * k as f64 / rate).sin();
            LOUDEST * spectrum[k].re / loudest + NOISE * normal(&mut random) + hum
        };
        (0..length).map(at).collect()
    }
}

/// One channel of 16 bits as a WAV file.
pub fn wav(rate: u32, samples: &[f64]) -> Vec<u8> {
    let bytes = u32::try_from(samples.len() * 2).unwrap_or(u32::MAX);
    let mut file = Vec::with_capacity(44 + samples.len() * 2);
    file.extend(b"RIFF");
    file.extend((36 + bytes).to_le_bytes());
    file.extend(b"WAVEfmt ");
    file.extend(16u32.to_le_bytes());
    for (value, size) in [(1u32, 2), (1, 2), (rate, 4), (rate * 2, 4), (2, 2), (16, 2)] {
        file.extend(&value.to_le_bytes()[..size]);
    }
    file.extend(b"data");
    file.extend(bytes.to_le_bytes());
    for sample in samples {
        let value = (sample.clamp(-1.0, 1.0) * f64::from(i16::MAX)).round() as i16;
        file.extend(value.to_le_bytes());
    }
    file
}
