//! The signal itself.

use std::f64::consts::{PI, TAU};

use oak_design::Problem;
use oak_design::problem::ProblemKind;

/// An exponential sine sweep (Farina, AES Convention 108, 2000, paper 5093): `sin(w1 T/L (e^(t L/T) - 1))`, `L = ln(w2/w1)`. Its frequency grows by the same factor in the same time, so that each
/// harmonic of what is measured lies at a place of its own before the response.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Sweep {
    /// Samples a second.
    pub rate: u32,
    /// s.
    pub seconds: f64,
    /// Hz, its beginning.
    pub from: f64,
    /// Hz, its end.
    pub to: f64,
}

/// Rates that sound cards have, Hz.
pub(super) const RATES: [u32; 6] = [44_100, 48_000, 88_200, 96_000, 176_400, 192_000];
/// Shortest and longest sweep, s.
const SECONDS: [f64; 2] = [0.5, 60.0];
/// Of its length, what it fades in and out over, so that it does not click.
const FADES: [f64; 2] = [0.02, 0.005];

impl Sweep {
    /// One that a sound card can play.
    ///
    /// # Errors
    /// Every value that is out of its range.
    pub fn new(rate: u32, seconds: f64, from: f64, to: f64) -> Result<Self, Vec<Problem>> {
        let wrong = |field: &str, reason: String| Problem::new(field, ProblemKind::Unshapeable { reason });
        let mut problems = Vec::new();
        if !RATES.contains(&rate) {
            problems.push(wrong("rate", format!("{rate} samples a second are not among {RATES:?}")));
        }
        if !(SECONDS[0]..=SECONDS[1]).contains(&seconds) {
            problems.push(wrong(
                "seconds",
                format!("{seconds} s is not within {} and {} s", SECONDS[0], SECONDS[1]),
            ));
        }
        if !(1.0..=1000.0).contains(&from) {
            problems.push(wrong("from", format!("{from} Hz is not within 1 and 1000 Hz")));
        }
        let most = 0.5 * f64::from(rate);
        if !(2.0 * from..=most).contains(&to) {
            problems.push(wrong("to", format!("{to} Hz is not within {} and {most} Hz", 2.0 * from)));
        }
        if problems.is_empty() { Ok(Self { rate, seconds, from, to }) } else { Err(problems) }
    }

    fn growth(&self) -> f64 {
        (self.to / self.from).ln()
    }

    /// Its samples, -1 to 1.
    pub fn samples(&self) -> Vec<f64> {
        let count = (self.seconds * f64::from(self.rate)).round() as usize;
        let [fade_in, fade_out] = FADES.map(|share| share * self.seconds);
        let sample = |at: usize| {
            let t = at as f64 / f64::from(self.rate);
            let turned = TAU * self.from * self.seconds / self.growth()
                * ((t * self.growth() / self.seconds).exp() - 1.0);
            let rise = |t: f64, over: f64| if t < over { 0.5 - 0.5 * (PI * t / over).cos() } else { 1.0 };
            turned.sin() * rise(t, fade_in) * rise(self.seconds - t, fade_out)
        };
        (0..count).map(sample).collect()
    }

    /// How long before the response that of a harmonic lies, s: `T ln(n)/L`.
    pub fn ahead(&self, harmonic: u32) -> f64 {
        self.seconds * f64::from(harmonic).ln() / self.growth()
    }
}
