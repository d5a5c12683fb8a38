//! Bessel filters.

use oak_acoustics::Complex;
use oak_acoustics::root::zero;
use oak_acoustics::source::Section;

use super::{first_order, second_order};

/// What the frequency of a Bessel filter means.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub(super) enum Norm {
    /// -3.01 dB there.
    Magnitude,
    /// The asymptotes meet there.
    Phase,
}

/// `theta_n(0)/theta_n(k s)`.
pub(super) fn low_pass(order: u32, frequency: f64, norm: Norm) -> Vec<Section> {
    let polynomial = reverse_bessel(order);
    let roots = roots(&polynomial);
    let scale = match norm {
        Norm::Phase => polynomial[0].powf(f64::from(order).recip()),
        Norm::Magnitude => {
            let power = |k: f64| {
                let at = |root: &Complex| (Complex::from(1.0) - Complex::new(0.0, k) / root).norm_sqr();
                roots.iter().map(at).product::<f64>() - 2.0
            };
            // The magnitude falls all the way, so there is one.
            zero(0.1, 20.0, 0.0, power).expect("the magnitude passes -3 dB once")
        }
    };
    roots
        .iter()
        .filter(|root| root.im >= 0.0)
        .map(|root| {
            if root.im == 0.0 {
                first_order(frequency, -scale / root.re)
            } else {
                let size = root.norm_sqr();
                second_order(frequency, -2.0 * root.re / size * scale, scale * scale / size)
            }
        })
        .collect()
}

/// Coefficients of `theta_n`, of the lowest power first: `(2n - k)!/(2^(n - k) k! (n - k)!)`.
fn reverse_bessel(order: u32) -> Vec<f64> {
    let factorial = |n: u32| (1..=n).map(f64::from).product::<f64>();
    let coefficient = |k: u32| {
        let left = order - k;
        factorial(2 * order - k) / (2f64.powi(left as i32) * factorial(k) * factorial(left))
    };
    (0..=order).map(coefficient).collect()
}

/// All roots of a real polynomial whose leading coefficient is 1, by the iteration of Durand and Kerner; what is real is made so.
fn roots(polynomial: &[f64]) -> Vec<Complex> {
    let order = polynomial.len() - 1;
    // The roots of theta_n lie around a circle of about this size.
    let size = polynomial[0].powf((order as f64).recip());
    let begin = |k: usize| Complex::from_polar(size, 0.4 + std::f64::consts::TAU * k as f64 / order as f64);
    let mut roots: Vec<Complex> = (0..order).map(begin).collect();
    for _ in 0..STEPS {
        for k in 0..order {
            let here = roots[k];
            let value = polynomial.iter().rev().fold(Complex::from(0.0), |sum, c| sum * here + c);
            let others: Complex =
                (0..order).filter(|other| *other != k).map(|other| here - roots[other]).product();
            roots[k] -= value / others;
        }
    }
    for root in &mut roots {
        if root.im.abs() < 1e-9 * root.norm() {
            root.im = 0.0;
        }
    }
    roots
}

/// From the circle the roots of eighth order stand still after thirty.
const STEPS: usize = 60;
