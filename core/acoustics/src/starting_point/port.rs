//! A port to begin with.

use super::Ask;
use crate::driver::Driver;
use crate::enclosure::{Enclosure, Losses, Port, Ported};
use crate::medium::CrossSection;

/// A pipe is sold in steps; sizes are rounded to this, m.
pub const STEP: f64 = 0.005;
/// Longest port that fits, folded, in sides of a cube of the box's volume (common practice).
pub const LONGEST: f64 = 1.5;
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

/// A chamber tuned by one round port that is wide enough to be quiet and short enough to fit, as far as both go
/// together; and whether it had to be made smaller.
pub(super) fn tuned(ask: &Ask, volume: f64, tuning: f64) -> Option<(Ported, bool)> {
    let quiet = (4.0 * quiet_area(&ask.driver, tuning) / std::f64::consts::PI).sqrt();
    let least = (4.0 * LEAST * ask.driver.sd / std::f64::consts::PI).sqrt();
    let mut diameter = ((quiet.max(least) / STEP).ceil() * STEP).clamp(0.02, 0.5);
    let wanted = diameter;
    let chamber = |diameter| Ported {
        volume,
        losses: Losses::USUAL,
        ports: vec![round(diameter, None)],
        tuning: Some(tuning),
    };
    // Too wide a hole tunes too high even without length: then a wider one only makes it worse, a narrower one not.
    while diameter > least.max(0.02) {
        let candidate = chamber(diameter);
        let compiled = Enclosure::Ported(candidate.clone()).compile(&ask.setting);
        match compiled.ok().and_then(|compiled| compiled.port_tuning) {
            Some(found) if found.ports[0].length <= LONGEST * volume.cbrt() => {
                return Some((candidate, diameter < wanted));
            }
            Some(_) => diameter -= STEP,
            None => diameter += 2.0 * STEP,
        }
        if diameter > 0.6 {
            return None;
        }
    }
    let last = chamber(((least.max(0.02) / STEP).ceil()) * STEP);
    Enclosure::Ported(last.clone()).compile(&ask.setting).ok().map(|_| (last, true))
}

/// How to say that the port is smaller than it should be.
pub(super) fn narrow_words(narrow: bool) -> &'static str {
    if narrow {
        " The port is narrower than Small's rule asks so that it fits: flare it, or take a radiator."
    } else {
        ""
    }
}
