//! Ports as they were drawn: what they set against the air that moves through them.

use std::f64::consts::TAU;

use oak_acoustics::element::End;
use oak_acoustics::enclosure::{PortTuning, Ported};
use oak_acoustics::medium::{Air, CrossSection, WallLosses};
use oak_acoustics::root::zero;

use crate::Complex;

#[derive(Debug, Clone, Copy)]
struct One {
    section: CrossSection,
    length: f64,
    ends: [f64; 2],
    count: f64,
}

/// All ports of a box.
#[derive(Debug, Clone)]
pub struct Ports {
    each: Vec<One>,
    air: Air,
}

impl Ports {
    /// As a design has them, in the air of the day.
    pub fn of(ported: &Ported, tuning: &PortTuning, air: &Air) -> Self {
        let each = ported.ports.iter().zip(tuning.lengths()).map(|(port, length)| {
            let end = |end: End| end.length_correction(port.section.area());
            One {
                section: port.section,
                length,
                ends: [(end(port.inner) + port.extra).max(0.0), end(port.outer)],
                count: f64::from(port.count),
            }
        });
        Self { each: each.collect(), air: *air }
    }

    /// One round tube for all, by radius, length and what each end adds (m).
    pub fn tube(radius: f64, length: f64, ends: [f64; 2], air: &Air) -> Self {
        Self {
            each: vec![One { section: CrossSection::Round { radius }, length, ends, count: 1.0 }],
            air: *air,
        }
    }

    /// The lowest resonance of a port by itself, half a wave with its ends, Hz.
    pub fn pipe(&self) -> f64 {
        let longest = self.each.iter().map(|one| one.length + one.ends[0] + one.ends[1]).fold(0.0, f64::max);
        self.air.speed / (2.0 * longest)
    }

    /// The same ports, each longer by a length, m.
    #[must_use]
    pub fn longer(&self, by: f64) -> Self {
        let each = self.each.iter().map(|one| One { length: (one.length + by).max(1e-3), ..*one });
        Self { each: each.collect(), air: self.air }
    }

    /// The length by which each is longer, m, so that they set so much (Pa s/m3) against the air at a frequency (Hz); `None` where no length that can be cut does.
    pub fn reaching(&self, reactance: f64, frequency: f64) -> Option<f64> {
        let lengths = self.each.iter().map(|one| one.length);
        let (shortest, longest) =
            lengths.fold((f64::INFINITY, 0.0f64), |(low, high), length| (low.min(length), high.max(length)));
        // Twice as long as the longest, as far as a quarter wave lets it rise.
        let most = (2.0 * longest + 0.3).min(0.2 * self.air.speed / frequency);
        zero(-0.95 * shortest, most, 0.0, |by| self.longer(by).against(frequency, false).im - reactance)
    }

    /// What they set together against a flow at a frequency (Hz), open or shut at their mouths, Pa s/m3.
    pub fn against(&self, frequency: f64, shut: bool) -> Complex {
        let omega = TAU * frequency;
        let admittance = |one: &One| {
            let losses = WallLosses::at(&self.air, one.section, omega);
            let wave = Complex::i() * omega * losses.slowness();
            let characteristic = (losses.density() * losses.modulus()).sqrt();
            let turn = (wave * one.length).tanh();
            let [inner, outer] = one.ends.map(|end| Complex::new(0.0, omega * self.air.density * end));
            let tube = if shut {
                inner + characteristic / turn
            } else {
                inner + characteristic * (outer + characteristic * turn) / (characteristic + outer * turn)
            };
            one.count * one.section.area() / tube
        };
        self.each.iter().map(admittance).sum::<Complex>().inv()
    }
}
