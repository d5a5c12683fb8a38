//! The load of the open air on a mouth.

use std::f64::consts::PI;

use super::At;
use crate::lanes::Real;
use crate::medium::Space;
use crate::{Complex, inverse};

/// Resistance that the open air sets against a face of an area (m2), Pa s/m3: that of a baffled piston, whose
/// images in the walls enlarge it, or that of an open pipe where there is no wall.
#[inline(always)]
pub fn radiation_resistance<T: Real>(at: &At<'_, T>, area: f64) -> T {
    let relative = match at.space {
        Space::Full => pipe_impedance(size(at, area)).re,
        space => piston_resistance(size(at, area * images(space))),
    };
    relative * T::of(at.air.density * at.air.speed / area)
}

/// Impedance that the open air sets against a mouth that the walls around it continue, Pa s/m3: a horn's.
#[inline(always)]
pub fn mouth_impedance<T: Real>(at: &At<'_, T>, area: f64) -> Complex<T> {
    let relative = match at.space {
        Space::Full => pipe_impedance(size(at, area)),
        space => piston_impedance(size(at, area * images(space))),
    };
    relative * T::of(at.air.density * at.air.speed / area)
}

/// `ka` of a round face of an area (m2).
#[inline(always)]
fn size<T: Real>(at: &At<'_, T>, area: f64) -> T {
    at.omega * T::of((area / PI).sqrt() / at.air.speed)
}

/// How many times its own area a face has with its images.
fn images(space: Space) -> f64 {
    2.0 * PI / space.angle()
}

/// Radiation impedance of a rigid circular piston in an infinite baffle, over `rho c/S`:
/// `1 - 2 J1(2ka)/(2ka) + j 2 H1(2ka)/(2ka)` (Rayleigh 1896; Morse and Ingard 1968, eq. 7.4.31).
#[inline(always)]
pub fn piston_impedance<T: Real>(ka: T) -> Complex<T> {
    Complex::new(piston_resistance(ka), struve_one(ka * T::of(2.0)) / ka)
}

/// Real part of [`piston_impedance`].
#[inline(always)]
fn piston_resistance<T: Real>(ka: T) -> T {
    let x = ka * T::of(2.0);
    // The closed form loses its digits to cancellation when x is small.
    let eighth = x * x * T::of(0.125);
    if x.largest() < SHORT {
        eighth * alternating(x * x, &PISTON[..6])
    } else if x.largest() < MIDDLING {
        eighth * alternating(x * x, &PISTON)
    } else {
        x.map_lanes(|x| {
            if x < MIDDLING { x * x / 8.0 * alternating(x * x, &PISTON) } else { 1.0 - 2.0 * libm::j1(x) / x }
        })
    }
}

/// Radiation impedance of an unflanged round pipe, over `rho c/S`.
///
/// Rational approximation of Silva et al. 2009 (J. Sound Vib. 322, table 1) to Levine and Schwinger
/// 1948; length correction 0.613 a, resistance `(ka)^2/4` at low frequencies.
#[inline(always)]
pub fn pipe_impedance<T: Real>(ka: T) -> Complex<T> {
    let below = Complex::new(T::of(1.0) - ka * ka * T::of(0.457), ka * T::of(1.393));
    let above = Complex::new(T::of(1.0), ka * T::of(0.167));
    (below - above) * inverse(below + above)
}

/// Below this argument six terms of the ascending series are exact to 1e-13.
const SHORT: f64 = 1.0;
/// Below this one all twelve are.
const MIDDLING: f64 = 4.0;

/// Ratios of the terms of the series of `1 - 2 J1(x)/x`, `1/(2n (2n + 2))`, and of H1, `1/((2n - 1) (2n + 1))`, each
/// from n = 2.
const PISTON: [f64; 12] = ratios(0.0);
const STRUVE: [f64; 12] = ratios(1.0);

const fn ratios(odd: f64) -> [f64; 12] {
    let mut found = [0.0; 12];
    let mut k = 0;
    while k < 12 {
        let even = 2.0 * (k + 2) as f64;
        found[k] = 1.0 / ((even - odd) * (even + 2.0 - odd));
        k += 1;
    }
    found
}

/// `1 - q r0 (1 - q r1 (1 - ...))`: an alternating series by the ratios of its terms.
#[inline(always)]
fn alternating<T: Real>(q: T, ratios: &[f64]) -> T {
    let one = T::of(1.0);
    let mut tail = one;
    for ratio in ratios.iter().rev() {
        tail = one - q * T::of(*ratio) * tail;
    }
    tail
}

/// Struve function H1 for x >= 0.
#[inline(always)]
fn struve_one<T: Real>(x: T) -> T {
    let first = x * x * T::of(2.0 / (3.0 * PI));
    if x.largest() < SHORT {
        first * alternating(x * x, &STRUVE[..6])
    } else if x.largest() < MIDDLING {
        first * alternating(x * x, &STRUVE)
    } else {
        x.map_lanes(struve_one_of)
    }
}

/// By Abramowitz and Stegun 12.1.4 and 12.1.31.
fn struve_one_of(x: f64) -> f64 {
    if x > 18.0 {
        let inverse = 1.0 / (x * x);
        let tail = 1.0 + inverse * (1.0 + inverse * (-3.0 + inverse * (45.0 - 1575.0 * inverse)));
        return libm::y1(x) + 2.0 / PI * tail;
    }
    let square = x * x;
    let mut term = 2.0 / (3.0 * PI) * square;
    let mut sum = term;
    let mut k = 1.0;
    while term.abs() > 1e-17 * sum.abs() {
        term *= -square / ((2.0 * k + 1.0) * (2.0 * k + 3.0));
        sum += term;
        k += 1.0;
    }
    sum
}

#[cfg(test)]
mod tests {
    use super::*;
    use approx::assert_relative_eq;

    #[test]
    fn struve_has_the_tabulated_values() {
        // Abramowitz and Stegun, table 12.1: H1(1) = 0.1984573, H1(5) = 0.8078119.
        assert_relative_eq!(struve_one(1.0), 0.198_457_3, max_relative = 1e-6);
        assert_relative_eq!(struve_one(5.0), 0.807_811_9, max_relative = 1e-6);
        for x in [1.0, 4.0] {
            assert_relative_eq!(struve_one(x - 1e-9), struve_one_of(x), max_relative = 1e-8);
        }
        assert_relative_eq!(struve_one(17.999_999), struve_one(18.000_001), max_relative = 1e-6);
    }

    #[test]
    fn the_short_series_join_the_functions() {
        for x in [0.3, 0.999, 1.001, 3.999, 4.001] {
            assert_relative_eq!(
                piston_resistance(x / 2.0),
                1.0 - 2.0 * libm::j1(x) / x,
                max_relative = 1e-10
            );
        }
    }

    #[test]
    fn a_small_piston_has_the_flanged_length_correction_and_a_large_one_rho_c() {
        for ka in [1e-4, 4.9e-3, 5.1e-3, 0.02] {
            let z = piston_impedance(ka);
            assert_relative_eq!(z.im, 8.0 * ka / (3.0 * PI), max_relative = 1e-3);
            assert_relative_eq!(z.re, ka * ka / 2.0, max_relative = 1e-3);
        }
        let large = piston_impedance(60.0);
        assert_relative_eq!(large.re, 1.0, epsilon = 0.01);
        assert!(large.im.abs() < 0.02);
    }

    #[test]
    fn an_open_pipe_has_the_length_correction_of_levine_and_schwinger() {
        let z = pipe_impedance(0.01);
        assert_relative_eq!(z.im / 0.01, 0.613, max_relative = 1e-3);
        assert_relative_eq!(z.re / 1e-4, 0.25, max_relative = 5e-3);
    }
}
