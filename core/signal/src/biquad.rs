//! Filters as a signal processor takes them.

use std::f64::consts::{PI, TAU};

use oak_acoustics::Complex;
use oak_acoustics::source::{Chain, Section};
use serde::Serialize;
use utoipa::ToSchema;

/// Sample rates that biquads are made for, 1/s.
pub const SAMPLE_RATES: [f64; 6] = [44_100.0, 48_000.0, 88_200.0, 96_000.0, 176_400.0, 192_000.0];

/// `y = b0 x + b1 x1 + b2 x2 - a1 y1 - a2 y2` with `a0 = 1`.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, ToSchema)]
pub struct Biquad {
    /// `b0`, `b1`, `b2`.
    pub b: [f64; 3],
    /// `a1`, `a2`; they are subtracted.
    pub a: [f64; 2],
}

/// A chain as biquads.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Biquads {
    /// Samples a second.
    pub sample_rate: f64,
    /// One after another.
    pub sections: Vec<Biquad>,
    /// Factor at every frequency; negative where the polarity is reversed.
    pub gain: f64,
    /// s; apart, because it is no biquad.
    pub delay: f64,
    /// The same in samples.
    pub delay_samples: f64,
}

/// Why a chain cannot be made biquads.
#[derive(Debug, Clone, Copy, PartialEq, thiserror::Error)]
pub enum BiquadError {
    /// A filter above half the sample rate.
    #[error("a filter at {frequency} Hz is not below half the sample rate, {nyquist} Hz")]
    AboveNyquist {
        /// Hz.
        frequency: f64,
        /// Half the sample rate, Hz.
        nyquist: f64,
    },
    /// A measured transfer function has no poles and zeros.
    #[error("a measured filter cannot be written as biquads")]
    Measured,
}

/// How a device keeps its numbers.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum NumberFormat {
    /// 32-bit floating point.
    Single,
    /// So many digits behind the point.
    Decimals(u32),
}

impl Biquad {
    /// The bilinear transform of a section, pre-warped so that it is exact at the section's frequency.
    ///
    /// # Errors
    /// [`BiquadError::AboveNyquist`].
    pub fn of(section: &Section, sample_rate: f64) -> Result<Self, BiquadError> {
        let Section { frequency, numerator, denominator } = *section;
        if frequency >= sample_rate / 2.0 {
            return Err(BiquadError::AboveNyquist { frequency, nyquist: sample_rate / 2.0 });
        }
        let warp = (PI * frequency / sample_rate).tan();
        let first = numerator[2] == 0.0 && denominator[2] == 0.0;
        // Times `(1 + z^-1)^order` after `s = (1 - z^-1)/(warp (1 + z^-1))`, and times `warp^order`.
        let turned = |[zeroth, first_order, second]: [f64; 3]| {
            if first {
                [zeroth * warp + first_order, zeroth * warp - first_order, 0.0]
            } else {
                let [c0, c1, c2] = [zeroth * warp * warp, first_order * warp, second];
                [c0 + c1 + c2, 2.0 * (c0 - c2), c0 - c1 + c2]
            }
        };
        let (b, [a0, a1, a2]) = (turned(numerator), turned(denominator));
        Ok(Self { b: b.map(|value| value / a0), a: [a1 / a0, a2 / a0] })
    }

    /// Transfer at an angle of `omega/sample rate`, rad.
    pub fn transfer(&self, angle: f64) -> Complex {
        // Of `1 - z^-1`, so that near zero frequency nothing is lost to cancellation.
        let step = Complex::new(2.0 * (angle / 2.0).sin().powi(2), angle.sin());
        let value = |[c0, c1, c2]: [f64; 3]| {
            // c0 + c1 (1 - d) + c2 (1 - d)^2
            Complex::from(c0 + c1 + c2) - step * (c1 + 2.0 * c2) + step * step * c2
        };
        value(self.b) / value([1.0, self.a[0], self.a[1]])
    }

    fn kept_as(self, format: NumberFormat) -> Self {
        let kept = |value: f64| match format {
            NumberFormat::Single => f64::from(value as f32),
            NumberFormat::Decimals(digits) => {
                let scale = 10f64.powi(digits as i32);
                (value * scale).round() / scale
            }
        };
        Self { b: self.b.map(kept), a: self.a.map(kept) }
    }
}

impl Biquads {
    /// A chain at a sample rate, 1/s.
    ///
    /// # Errors
    /// See [`BiquadError`].
    pub fn of(chain: &Chain, sample_rate: f64) -> Result<Self, BiquadError> {
        if !chain.traced.is_empty() {
            return Err(BiquadError::Measured);
        }
        let sections = chain.sections.iter().map(|section| Biquad::of(section, sample_rate));
        Ok(Self {
            sample_rate,
            sections: sections.collect::<Result<_, _>>()?,
            gain: chain.gain,
            delay: chain.delay,
            delay_samples: chain.delay * sample_rate,
        })
    }

    /// Transfer at a frequency (Hz), with gain and delay.
    pub fn transfer(&self, frequency: f64) -> Complex {
        let angle = TAU * frequency / self.sample_rate;
        let delayed = Complex::from_polar(1.0, -TAU * frequency * self.delay) * self.gain;
        self.sections.iter().fold(delayed, |product, section| product * section.transfer(angle))
    }

    /// The same as a device keeps its numbers.
    #[must_use]
    pub fn kept_as(&self, format: NumberFormat) -> Self {
        let sections = self.sections.iter().map(|section| section.kept_as(format)).collect();
        Self { sections, ..self.clone() }
    }

    /// How far it lies from its chain at most between 5 and 500 Hz, dB and rad, where the chain is within 60 dB of its top.
    pub fn deviation(&self, chain: &Chain) -> [f64; 2] {
        const POINTS: i32 = 400;
        let wanted: Vec<(f64, Complex)> = (0..=POINTS)
            .map(|k| {
                let frequency = 5.0 * 100f64.powf(f64::from(k) / f64::from(POINTS));
                (frequency, chain.transfer(TAU * frequency))
            })
            .collect();
        let top = wanted.iter().map(|(_, value)| value.norm()).fold(0.0, f64::max);
        let heard = wanted.iter().filter(|(_, value)| value.norm() > 1e-3 * top);
        heard.fold([0.0, 0.0], |[level, phase]: [f64; 2], (frequency, value)| {
            let off = self.transfer(*frequency) / value;
            [level.max((20.0 * off.norm().log10()).abs()), phase.max(off.arg().abs())]
        })
    }
}
