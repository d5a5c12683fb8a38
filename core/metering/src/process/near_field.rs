//! From the sound close to cones, ports and radiators to that at a distance.

use std::f64::consts::{PI, TAU};

use crate::Complex;

/// The sound close to one kind of opening.
#[derive(Debug, Clone)]
pub struct Opening {
    /// Area of one, m2.
    pub area: f64,
    /// How many equal ones.
    pub count: f64,
    /// Frequency (Hz), level (dB) and phase (degrees), all openings over the same frequencies and one gain of the microphone.
    pub points: Vec<[f64; 3]>,
    /// Whether the phase was measured.
    pub phased: bool,
}

/// Highest frequency that the near field of a round opening of an area (m2) tells: ka = 1 (Keele, JAES 22, 1974), Hz.
pub fn highest(area: f64, speed: f64) -> f64 {
    speed / (TAU * (area / PI).sqrt())
}

/// A trace (Hz, dB, degrees) over other frequencies (Hz): level and phase straight between its points, the phase the shorter way round; what lies beyond its ends is left out.
pub fn over(points: &[[f64; 3]], frequencies: impl Iterator<Item = f64>) -> Vec<[f64; 3]> {
    let at = |frequency: f64| {
        let after = points.partition_point(|point| point[0] < frequency * (1.0 - 1e-9));
        let there = points.get(after)?;
        if (there[0] / frequency - 1.0).abs() < 1e-6 {
            return Some([frequency, there[1], there[2]]);
        }
        let here = points.get(after.checked_sub(1)?)?;
        let part = (frequency / here[0]).ln() / (there[0] / here[0]).ln();
        let turn = (there[2] - here[2] + 180.0).rem_euclid(360.0) - 180.0;
        Some([frequency, here[1] + part * (there[1] - here[1]), here[2] + part * turn])
    };
    frequencies.filter_map(at).collect()
}

/// The sound of all openings together at a distance (m) in half space, in dB like theirs: the near fields weighed by the roots of their areas (Keele 1974, eq. 12), summed with their phases where all have one, else as powers.
///
/// A piston of radius `a` in a baffle gives `a/(2 r)` of its near field at a distance `r` (Keele 1974, eq. 9). `None` where the openings do not stand over the same frequencies.
pub fn joined(openings: &[Opening], distance: f64) -> Option<Vec<[f64; 2]>> {
    let first = openings.first()?;
    let phased = openings.iter().all(|one| one.phased);
    let same = |one: &Opening| {
        one.points.len() == first.points.len()
            && one.points.iter().zip(&first.points).all(|(a, b)| (a[0] / b[0] - 1.0).abs() < 1e-6)
    };
    if !openings.iter().all(same) {
        return None;
    }
    let far = |one: &Opening| one.count * (one.area / PI).sqrt() / (2.0 * distance);
    let at = |k: usize| {
        let each = openings.iter().map(|one| {
            let [_, level, phase] = one.points[k];
            Complex::from_polar(far(one) * 10f64.powf(level / 20.0), phase.to_radians())
        });
        let size = if phased {
            each.sum::<Complex>().norm()
        } else {
            each.map(|one| one.norm_sqr()).sum::<f64>().sqrt()
        };
        [first.points[k][0], 20.0 * size.log10()]
    };
    Some((0..first.points.len()).map(at).collect())
}
