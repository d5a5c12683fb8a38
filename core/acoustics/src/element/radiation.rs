//! The load of the open air on a mouth.

use std::f64::consts::PI;

use super::At;
use crate::medium::Space;
use crate::{Complex, J};

/// Resistance that the open air sets against a face of an area (m2), Pa s/m3: that of a baffled piston, whose
/// images in the walls enlarge it, or that of an open pipe where there is no wall.
pub fn radiation_resistance(at: &At<'_>, area: f64) -> f64 {
    let ka = at.omega / at.air.speed * (area / PI).sqrt();
    let relative = match at.space {
        Space::Full => pipe_impedance(ka).re,
        space => piston_resistance(ka * images(space).sqrt()),
    };
    relative * at.air.density * at.air.speed / area
}

/// Impedance that the open air sets against a mouth that the walls around it continue, Pa s/m3: a horn's.
pub fn mouth_impedance(at: &At<'_>, area: f64) -> Complex {
    let ka = at.omega / at.air.speed * (area / PI).sqrt();
    let relative = match at.space {
        Space::Full => pipe_impedance(ka),
        space => piston_impedance(ka * images(space).sqrt()),
    };
    relative * at.air.density * at.air.speed / area
}

/// How many times its own area a face has with its images.
fn images(space: Space) -> f64 {
    2.0 * PI / space.angle()
}

/// Radiation impedance of a rigid circular piston in an infinite baffle, over `rho c/S`:
/// `1 - 2 J1(2ka)/(2ka) + j 2 H1(2ka)/(2ka)` (Rayleigh 1896; Morse and Ingard 1968, eq. 7.4.31).
pub fn piston_impedance(ka: f64) -> Complex {
    Complex::new(piston_resistance(ka), struve_one(2.0 * ka) / ka)
}

/// Real part of [`piston_impedance`].
fn piston_resistance(ka: f64) -> f64 {
    let x = 2.0 * ka;
    // The closed form loses its digits to cancellation when x is small.
    if x < SHORT {
        return x * x / 8.0 * short_series(x * x, PISTON);
    }
    1.0 - 2.0 * libm::j1(x) / x
}

/// Radiation impedance of an unflanged round pipe, over `rho c/S`.
///
/// Rational approximation of Silva et al. 2009 (J. Sound Vib. 322, table 1) to Levine and Schwinger
/// 1948; length correction 0.613 a, resistance `(ka)^2/4` at low frequencies.
pub fn pipe_impedance(ka: f64) -> Complex {
    let s = J * ka;
    let below = 1.0 + 1.393 * s + 0.457 * s * s;
    let above = 1.0 + 0.167 * s;
    (below - above) / (below + above)
}

/// Below this argument six terms of the ascending series are exact to 1e-13.
const SHORT: f64 = 1.0;

/// Ratios of the terms of the series of `1 - 2 J1(x)/x` and of H1.
const PISTON: [f64; 6] = [1.0 / 24.0, 1.0 / 48.0, 1.0 / 80.0, 1.0 / 120.0, 1.0 / 168.0, 1.0 / 224.0];
const STRUVE: [f64; 6] = [1.0 / 15.0, 1.0 / 35.0, 1.0 / 63.0, 1.0 / 99.0, 1.0 / 143.0, 1.0 / 195.0];

/// `1 - q r0 (1 - q r1 (1 - ...))`: an alternating series by the ratios of its terms.
fn short_series(q: f64, ratios: [f64; 6]) -> f64 {
    ratios.iter().rev().fold(1.0, |tail, ratio| 1.0 - q * ratio * tail)
}

/// Struve function H1 for x >= 0 (Abramowitz and Stegun 12.1.4 and 12.1.31).
fn struve_one(x: f64) -> f64 {
    if x > 18.0 {
        let inverse = 1.0 / (x * x);
        let tail = 1.0 + inverse * (1.0 + inverse * (-3.0 + inverse * (45.0 - 1575.0 * inverse)));
        return libm::y1(x) + 2.0 / PI * tail;
    }
    let square = x * x;
    if x < SHORT {
        return 2.0 * square / (3.0 * PI) * short_series(square, STRUVE);
    }
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
        assert_relative_eq!(struve_one(17.999_999), struve_one(18.000_001), max_relative = 1e-6);
    }

    #[test]
    fn the_short_series_join_the_functions() {
        for x in [0.3, 0.999, 1.001] {
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
