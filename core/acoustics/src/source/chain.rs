//! Active filters one after another: a complex factor on the amplifier's voltage.

use super::{Section, Traced};
use crate::lanes::{Real, each};
use crate::{Complex, inverse};

/// Filters, gain, polarity and delay together. The default leaves everything as it is.
#[derive(Debug, Clone, PartialEq)]
pub struct Chain {
    /// Rational functions, multiplied.
    pub sections: Vec<Section>,
    /// Measured transfer functions, multiplied.
    pub traced: Vec<Traced>,
    /// Factor at every frequency; negative where the polarity is reversed.
    pub gain: f64,
    /// s.
    pub delay: f64,
}

impl Default for Chain {
    fn default() -> Self {
        Self { sections: Vec::new(), traced: Vec::new(), gain: 1.0, delay: 0.0 }
    }
}

/// Sections that are divided at once: their products stay far from the ends of a double's range.
const AT_ONCE: usize = 8;

impl Chain {
    /// Transfer at an angular frequency, rad/s.
    #[inline(always)]
    pub fn transfer<T: Real>(&self, omega: T) -> Complex<T> {
        let mut transfer = Complex::from(T::of(self.gain));
        for some in self.sections.chunks(AT_ONCE) {
            let [mut above, mut below] = some[0].parts(omega);
            for section in &some[1..] {
                let [numerator, denominator] = section.parts(omega);
                above *= numerator;
                below *= denominator;
            }
            transfer *= above * inverse(below);
        }
        if self.delay != 0.0 {
            transfer *= each(omega, |omega| Complex::cis(-omega * self.delay));
        }
        for traced in &self.traced {
            transfer *= each(omega, |omega| traced.transfer(omega));
        }
        transfer
    }

    /// `-d arg H/d omega` at an angular frequency (rad/s), s: of the functions themselves, not of differences.
    pub fn group_delay(&self, omega: f64) -> f64 {
        let sections: f64 = self.sections.iter().map(|section| section.group_delay(omega)).sum();
        let traced: f64 = self.traced.iter().map(|traced| traced.group_delay(omega)).sum();
        self.delay + sections + traced
    }

    /// This chain with another behind it.
    #[must_use]
    pub fn then(mut self, other: Self) -> Self {
        self.sections.extend(other.sections);
        self.traced.extend(other.traced);
        self.gain *= other.gain;
        self.delay += other.delay;
        self
    }
}
