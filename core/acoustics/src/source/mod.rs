//! What comes before the drivers: active filters that multiply the amplifier's voltage, the amplifier's output resistance, and
//! passive parts between amplifier and drivers.

mod chain;
mod part;
mod section;
mod traced;

pub use chain::Chain;
pub use part::{Branch, Part, PartForm};
pub use section::Section;
pub use traced::{Traced, TracedError};

use crate::Complex;

/// From the signal to the terminals of the drivers.
#[derive(Debug, Clone, Default, PartialEq)]
pub struct Source {
    /// Active filters, before the amplifier.
    pub chain: Chain,
    /// Output resistance of the amplifier, ohm.
    pub output_resistance: f64,
    /// Passive parts, from the amplifier to the drivers.
    pub parts: Vec<Part>,
}

impl Source {
    /// The most of the amplifier's voltage that parts let through into a driver, at most 1: what a level in the passband comes to. The driver's resistance
    /// (ohm) is that of its coil with what is in series with it anyway, cable and amplifier (ohm). It is looked for between 5 Hz and 1 kHz.
    pub(crate) fn passes(&self, series: f64, driver: f64) -> f64 {
        if self.parts.is_empty() {
            return 1.0;
        }
        const POINTS: i32 = 120;
        let through = (0..=POINTS).map(|k| {
            let omega = std::f64::consts::TAU * 5.0 * 200f64.powf(f64::from(k) / f64::from(POINTS));
            self.through(omega, series, driver)
        });
        through.fold(0.0, f64::max).min(1.0)
    }

    /// Voltage at the coil's resistance over what it would be without parts.
    fn through(&self, omega: f64, series: f64, driver: f64) -> f64 {
        let coil = driver - series;
        // From the drivers backwards: what is seen, and what of it comes through.
        let (mut seen, mut share) = (Complex::from(coil), Complex::from(1.0));
        for part in self.parts.iter().rev() {
            let own = part.form.branches().map(|branch| branch.impedance(omega).inv()).sum::<Complex>();
            if part.in_series {
                let whole = seen + own.inv();
                share *= seen / whole;
                seen = whole;
            } else {
                seen = (seen.inv() + own).inv();
            }
        }
        share *= seen / (seen + series);
        share.norm() * driver / coil
    }
}
