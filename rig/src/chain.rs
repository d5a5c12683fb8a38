//! What stands between a cabinet and a trace of it.

use std::f64::consts::TAU;

use rand::Rng;
use rand_chacha::ChaCha8Rng;

use crate::{Cabinet, Complex};

/// Noise where there is no signal, in the unit of the trace.
const FLOOR: f64 = 1e-9;

/// A filter that nobody knows of.
#[derive(Debug, Clone, Copy)]
pub struct Lowpass {
    /// Hz, as its maker states it.
    pub corner: f64,
    /// Order; of Linkwitz and Riley's an even one.
    pub order: u32,
    /// Linkwitz and Riley's instead of Butterworth's.
    pub twice: bool,
}

impl Lowpass {
    /// Its response.
    pub fn response(&self, frequency: f64) -> Complex {
        let x = Complex::new(0.0, frequency / self.corner);
        let butterworth = |order: u32| -> Complex {
            let pole =
                |k: u32| Complex::from_polar(1.0, TAU * f64::from(2 * k + order - 1) / f64::from(4 * order));
            (1..=order).map(|k| -pole(k) / (x - pole(k))).product()
        };
        if self.twice { butterworth(self.order / 2).powi(2) } else { butterworth(self.order) }
    }

    /// Where it is 6 dB down, Hz.
    pub fn down_6_db(&self) -> f64 {
        if self.twice { self.corner } else { self.corner * 3f64.powf(0.5 / f64::from(self.order)) }
    }
}

/// A sound card, an amplifier, a microphone and a room.
#[derive(Debug, Clone)]
pub struct Chain {
    /// Hidden before the terminals.
    pub lowpass: Option<Lowpass>,
    /// Where the sound card rolls off, Hz.
    pub card: f64,
    /// The microphone's gain with its sign, and its delay, s.
    pub microphone: (f64, f64),
    /// The marked resistor of the jig over what is marked.
    pub jig: f64,
    /// Of the mains, Hz.
    pub mains: f64,
    /// Modes of the room: Hz, Q, and what of the sound comes back by them.
    pub room: Vec<[f64; 3]>,
    /// Share of the sound of one opening in the near field of the other.
    pub crosstalk: f64,
    /// Noise under the signal, dB.
    pub noise: f64,
}

/// Of mean 0 and deviation 1 (Box and Muller 1958).
pub fn normal(random: &mut ChaCha8Rng) -> f64 {
    let (u, v): (f64, f64) = (random.random_range(1e-12..1.0), random.random_range(0.0..1.0));
    (-2.0 * u.ln()).sqrt() * (TAU * v).cos()
}

impl Chain {
    /// From the generator to the terminals.
    pub fn electrical(&self, frequency: f64) -> Complex {
        let card = Complex::new(0.0, frequency / self.card);
        self.lowpass.map_or(Complex::from(1.0), |filter| filter.response(frequency)) * card / (1.0 + card)
    }

    /// A trace with noise as a share of each value.
    pub fn noisy(&self, value: Complex, random: &mut ChaCha8Rng) -> Complex {
        let share = 10f64.powf(-self.noise / 20.0) / 2f64.sqrt();
        // Where nothing sounds there is still noise.
        value + Complex::new(normal(random), normal(random)) * (share * value.norm() + FLOOR)
    }

    /// Sound in the mouth of an opening of an area (m2): what it moves itself, and what comes of the others (Keele, JAES 22, 1974).
    pub fn near(
        &self,
        cabinet: &Cabinet,
        frequency: f64,
        own: Complex,
        area: f64,
        other: Complex,
    ) -> Complex {
        let j = Complex::i();
        let omega = TAU * frequency;
        let radius = (area / std::f64::consts::PI).sqrt();
        let spread = j * omega * cabinet.air.density / (std::f64::consts::PI * radius);
        let room: Complex = self
            .room
            .iter()
            .map(|[at, q, share]| {
                let x = frequency / at;
                *share * x * x / Complex::new(1.0 - x * x, x / q)
            })
            .sum();
        let (gain, delay) = self.microphone;
        let sound = spread * (own + self.crosstalk * other + room * (own + other));
        sound * gain * Complex::from_polar(1.0, -omega * delay) * self.electrical(frequency)
    }

    /// What the mains put on a level at a frequency, over what is usual.
    pub fn hum(&self, frequency: f64, size: f64) -> f64 {
        let nearest = (frequency / self.mains).round().max(1.0);
        let off = (frequency - nearest * self.mains) / 0.7;
        0.3 * size / nearest * (-off * off).exp()
    }
}
