//! Rounded ends of ports.
//!
//! An end rounded by a quarter circle of radius `r` widens over a length `r`. How much of that length counts is counted in two ways: half of it
//! (common practice), or the integral of `S0/S` over the real profile with the end correction of the wider mouth, which is the
//! mass of air that the flare really holds at low frequencies.

use std::f64::consts::PI;

use oak_acoustics::element::End;
use oak_acoustics::medium::CrossSection;

/// Area of a port whose edge stands so far (m) outside its throat, m2.
fn area(section: CrossSection, aside: f64) -> f64 {
    match section {
        CrossSection::Round { radius } => PI * (radius + aside).powi(2),
        // The boards above and below are rounded; the sides stay.
        CrossSection::Slot { width, height } => width * (height + 2.0 * aside),
        // Only the board across the corner is rounded.
        CrossSection::Corner { side } => (side + std::f64::consts::SQRT_2 * aside).powi(2) / 2.0,
    }
}

/// What a flare of a radius (m) counts as a length of the throat beyond its end correction, m: by the integral over its
/// profile, the end correction of the mouth against the throat's counted.
pub fn counts(section: CrossSection, radius: f64, end: End) -> f64 {
    if radius <= 0.0 {
        return 0.0;
    }
    let (throat, mouth) = (section.area(), area(section, radius));
    profile(section, radius) + end.length_correction(mouth) * throat / mouth - end.length_correction(throat)
}

/// The integral of the throat's area over the flare's, m.
pub fn profile(section: CrossSection, radius: f64) -> f64 {
    const STEPS: usize = 64;
    let throat = section.area();
    let at = |part: f64| throat / area(section, radius * (1.0 - (1.0 - part * part).sqrt()));
    let step = |index: usize| {
        let [a, b] = [index, index + 1].map(|k| k as f64 / STEPS as f64);
        (at(a) + 4.0 * at(f64::midpoint(a, b)) + at(b)) / 6.0
    };
    radius * (0..STEPS).map(step).sum::<f64>() / STEPS as f64
}
