//! A port to begin with.

use super::Ask;
use crate::driver::Driver;
use crate::enclosure::{Enclosure, Losses, Port, Ported};
use crate::medium::CrossSection;

/// A pipe is sold in steps; sizes are rounded to this, m.
pub const STEP: f64 = 0.005;
/// Longest port that fits, folded, in sides of a cube of the box's volume (common practice).
pub const LONGEST: f64 = 1.5;
/// Longest port of one of two chambers with its clear air, in sides of a cube of the chamber's volume (common practice).
const STRAIGHT: f64 = 1.0;
/// The same of one that stands beside the driver in the board between them.
const BESIDE: f64 = 0.65;
/// Widest port of one of two chambers, likewise (common practice).
const WIDEST: f64 = 0.45;
/// Smallest port over the cone's area: below a twentieth the air only hisses (common practice).
pub const LEAST: f64 = 0.05;

/// Area that keeps the air slow: `0.8 Fb Vd` (Small 1973, SI), or a ninth of the cone where Xmax is not known.
pub fn quiet_area(driver: &Driver, tuning: f64) -> f64 {
    match driver.vd() {
        Some(vd) => 0.8 * tuning * vd,
        None => driver.sd / 9.0,
    }
}

/// A round port, free inside and in the wall outside (m).
pub fn round(diameter: f64, length: Option<f64>) -> Port {
    Port::new(CrossSection::Round { radius: diameter / 2.0 }, length)
}

/// What a port may be.
#[derive(Debug, Clone, Copy)]
struct Allowed {
    /// Where the cone moves most, and with it the air in the port, Hz.
    moves_at: f64,
    /// Longest, and longest with the clear air before its end, m.
    longest: [f64; 2],
    /// m.
    widest: f64,
}

/// A chamber tuned by one round port that is wide enough to be quiet and short enough to fit, as far as both go
/// together; and whether it had to be made smaller.
pub(super) fn tuned(ask: &Ask, volume: f64, tuning: f64) -> Option<(Ported, bool)> {
    let longest = [LONGEST * volume.cbrt(), f64::INFINITY];
    port_for(ask, volume, tuning, Allowed { moves_at: tuning, longest, widest: f64::INFINITY })
}

/// The same for a chamber of a bandpass, through which all is heard from `low` (Hz) on: there the cone moves most, above its tuning hardly.
/// Such a port goes straight through its chamber or turns once, with as much clear air before its end as it is wide; one that stands beside
/// the driver in the board between the chambers makes a wide and shallow box.
pub(super) fn tuned_from(
    ask: &Ask,
    volume: f64,
    tuning: f64,
    low: f64,
    beside: bool,
) -> Option<(Ported, bool)> {
    let longest = [f64::INFINITY, if beside { BESIDE } else { STRAIGHT } * volume.cbrt()];
    port_for(
        ask,
        volume,
        tuning,
        Allowed { moves_at: low.min(tuning), longest, widest: WIDEST * volume.cbrt() },
    )
}

fn port_for(ask: &Ask, volume: f64, tuning: f64, allowed: Allowed) -> Option<(Ported, bool)> {
    let quiet = (4.0 * quiet_area(&ask.driver, allowed.moves_at) / std::f64::consts::PI).sqrt();
    let least = (4.0 * LEAST * ask.driver.sd / std::f64::consts::PI).sqrt();
    let mut diameter = ((quiet.max(least) / STEP).ceil() * STEP).clamp(0.02, 0.5);
    let wanted = diameter;
    let chamber = |diameter| Ported {
        volume,
        losses: Losses::USUAL,
        ports: vec![round(diameter, None)],
        tuning: Some(tuning),
    };
    // A narrow hole may tune too low even without length: then a wider one is looked for, and none narrower any more.
    let mut widened = false;
    while diameter > least.max(0.02) && diameter <= 0.6 {
        let candidate = chamber(diameter);
        let compiled = Enclosure::Ported(candidate.clone()).compile(&ask.setting);
        match compiled.ok().and_then(|compiled| compiled.port_tuning) {
            Some(found) if allowed.fits(found.ports[0].length, diameter) => {
                return Some((candidate, diameter < wanted));
            }
            Some(_) if widened => return Some((candidate, true)),
            Some(_) => diameter -= STEP,
            None => {
                diameter += STEP;
                widened = true;
            }
        }
    }
    if diameter > 0.6 {
        return None;
    }
    let last = chamber(((least.max(0.02) / STEP).ceil()) * STEP);
    Enclosure::Ported(last.clone()).compile(&ask.setting).ok().map(|_| (last, true))
}

impl Allowed {
    fn fits(&self, length: f64, diameter: f64) -> bool {
        length <= self.longest[0] && length + diameter <= self.longest[1] && diameter <= self.widest
    }
}

/// How to say that the port is smaller than it should be.
pub(super) fn narrow_words(narrow: bool) -> &'static str {
    if narrow {
        " The port is narrower than Small's rule asks so that it fits: flare it, or take a radiator."
    } else {
        ""
    }
}
