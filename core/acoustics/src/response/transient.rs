//! What is heard of a step and of a tone burst.

use std::f64::consts::{PI, SQRT_2};

use rustfft::algorithm::Radix4;
use rustfft::{Fft, FftDirection};

use super::curves::pressures;
use crate::Complex;
use crate::network::Network;
use crate::solve::Sweep;

/// Samples and their rate, 1/s: one second, and a frequency every hertz.
const SAMPLES: usize = 4096;
const RATE: f64 = 4096.0;
/// The response is let through below the first and shut out above the second of these, Hz: with a raised
/// cosine between them, so that the band limit does not ring.
const BAND: [f64; 2] = [500.0, 1000.0];

/// What is played.
#[derive(Debug, Clone, Copy, PartialEq)]
pub enum Excitation {
    /// The voltage rises at once and stays.
    Step,
    /// Some cycles of a tone.
    Burst(Burst),
}

/// Cycles of a tone that swell and fade as a raised cosine.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Burst {
    /// Hz.
    pub frequency: f64,
    /// How many cycles.
    pub cycles: f64,
}

/// A response over time, every vector of the same length.
#[derive(Debug, Clone, PartialEq)]
pub struct Transient {
    /// s.
    pub time: Vec<f64>,
    /// Drive, V.
    pub drive: Vec<f64>,
    /// Pressure at 1 m, Pa.
    pub pressure: Vec<f64>,
}

impl Transient {
    /// Upper end of the band that is let through, Hz.
    pub const BAND_LIMIT: f64 = BAND[1];

    /// Plays an excitation whose sine would be `volts` (V RMS) through a network, band-limited as
    /// [`Self::BAND_LIMIT`] says, and keeps what falls into half a second.
    pub fn of(network: &Network, excitation: Excitation, volts: f64) -> Self {
        let drive = drive(excitation, volts * SQRT_2);
        let mut spectrum: Vec<Complex> = drive.iter().map(|volts| Complex::new(*volts, 0.0)).collect();
        // Of the library's ways the one for this length, not its planner, which would have every way there is compiled.
        Radix4::new(SAMPLES, FftDirection::Forward).process(&mut spectrum);
        let frequency = |bin: usize| bin as f64 * RATE / SAMPLES as f64;
        let played: Vec<f64> =
            (1..SAMPLES / 2).map(frequency).take_while(|frequency| *frequency < BAND[1]).collect();
        let heard = pressures(&mut Sweep::new(network), &played, 1.0);
        spectrum[0] = Complex::new(0.0, 0.0);
        spectrum[played.len() + 1..].fill(Complex::new(0.0, 0.0));
        for ((value, heard), frequency) in spectrum[1..].iter_mut().zip(heard).zip(played) {
            // Twice, for the negative frequency that is left out.
            *value *= heard * (2.0 * window(frequency) / SAMPLES as f64);
        }
        Radix4::new(SAMPLES, FftDirection::Inverse).process(&mut spectrum);
        let kept = SAMPLES / 2;
        let pressure = spectrum[..kept].iter().map(|value| value.re).collect();
        let time = (0..kept).map(|k| k as f64 / RATE).collect();
        Self { time, drive: drive[..kept].to_vec(), pressure }
    }
}

/// A step is up for half of the time, so that what repeats is a slow square wave; what it left before has
/// died away after half a second in any box that is heard above 10 Hz.
fn drive(excitation: Excitation, peak: f64) -> Vec<f64> {
    let at = |k: usize| match excitation {
        Excitation::Step => {
            if k < SAMPLES / 2 {
                peak
            } else {
                0.0
            }
        }
        Excitation::Burst(Burst { frequency, cycles }) => {
            let turns = frequency * k as f64 / RATE;
            if turns >= cycles {
                return 0.0;
            }
            peak * (2.0 * PI * turns).sin() * 0.5 * (1.0 - (2.0 * PI * turns / cycles).cos())
        }
    };
    (0..SAMPLES).map(at).collect()
}

fn window(frequency: f64) -> f64 {
    let part = ((frequency - BAND[0]) / (BAND[1] - BAND[0])).clamp(0.0, 1.0);
    0.5 * (1.0 + (PI * part).cos())
}
