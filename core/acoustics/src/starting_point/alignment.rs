//! Alignments of ported boxes: a system of the fourth order with box losses.
//!
//! Thiele 1971 and Small 1973: with `T = 1/sqrt(ws wb)`, `h = Fb/Fs`, `alpha = Vas/Vb` the response is
//! `s^4/(s^4 + a1 s^3 + a2 s^2 + a3 s + 1)`.

use crate::root::{ALL, end_of, zero};

/// A box for a driver.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Alignment {
    /// Total Q of the driver it is for.
    pub qts: f64,
    /// Tuning over the driver's resonance.
    pub h: f64,
    /// Vas over the volume of the box.
    pub alpha: f64,
}

/// Ripple parameters of Chebyshev alignments that are still of use: 0.35 has about 4 dB.
const LEAST_K: f64 = 0.35;

fn a1(qts: f64, ql: f64, h: f64) -> f64 {
    (ql + h * qts) / (h.sqrt() * ql * qts)
}

fn a3(qts: f64, ql: f64, h: f64) -> f64 {
    (h * ql + qts) / (h.sqrt() * ql * qts)
}

/// Solves `a2 = (h + (alpha + 1 + h^2) QL Qts)/(h QL Qts)` for alpha.
fn alpha(qts: f64, ql: f64, h: f64, a2: f64) -> f64 {
    a2 * h - h / (ql * qts) - 1.0 - h * h
}

/// Quasi-Butterworth of the third order: `A1 = A2 = 0`. For a Qts at or below the Butterworth one.
pub fn quasi_butterworth(qts: f64, ql: f64) -> Option<Alignment> {
    let excess = |h: f64| {
        let a1 = a1(qts, ql, h);
        (a1 * a1 / 2.0).powi(2) + 2.0 - 2.0 * a1 * a3(qts, ql, h)
    };
    let h = zero(0.2, 6.0, 0.0, excess)?;
    let alpha = alpha(qts, ql, h, a1(qts, ql, h).powi(2) / 2.0);
    (alpha > 0.0).then_some(Alignment { qts, h, alpha })
}

/// Butterworth of the fourth order: `A1 = A2 = A3 = 0`, which one Qts has.
pub fn butterworth(ql: f64) -> Alignment {
    let excess = |qts: f64| {
        // Beyond the one that is looked for there is none.
        quasi_butterworth(qts, ql)
            .map_or(-1.0, |Alignment { h, .. }| a3(qts, ql, h).powi(2) - a1(qts, ql, h).powi(2))
    };
    let qts = zero(0.25, 0.6, 0.0, excess).unwrap_or(0.6);
    quasi_butterworth(qts, ql).unwrap_or(Alignment { qts, h: 1.0, alpha: 1.0 })
}

/// Chebyshev of the fourth order with ripple parameter `k` (1 is Butterworth): two equal peaks.
pub fn chebyshev_for(k: f64, ql: f64) -> Option<Alignment> {
    let root2 = std::f64::consts::SQRT_2;
    let d = (k.powi(4) + 6.0 * k * k + 1.0) / 8.0;
    let a3 = k * (4.0 + 2.0 * root2).sqrt() / d.powf(0.25);
    let a2 = (1.0 + k * k * (1.0 + root2)) / d.sqrt();
    let a1 = a3 / d.sqrt() * (1.0 - (1.0 - k * k) / (2.0 * root2));
    // a1 and a3 both give Qts; with s = sqrt(h) they agree where this is 0.
    let excess = |s: f64| a3 * s - a1 * s.powi(3) + (s.powi(4) - 1.0) / ql;
    let s = zero(0.3, 2.5, 0.0, excess)?;
    let h = s * s;
    let qts = (a1 * s - h / ql).recip();
    let alpha = alpha(qts, ql, h, a2);
    (qts > 0.0 && alpha > 0.0).then_some(Alignment { qts, h, alpha })
}

/// The Chebyshev alignment of a Qts above the Butterworth one; `None` where it would ripple too much.
pub fn chebyshev(qts: f64, ql: f64) -> Option<Alignment> {
    let highest = chebyshev_for(LEAST_K, ql)?;
    if qts > highest.qts || qts < butterworth(ql).qts {
        return None;
    }
    let k = end_of(LEAST_K, 1.0, ALL, |k| chebyshev_for(k, ql).is_none_or(|found| found.qts > qts));
    chebyshev_for(k, ql).map(|found| Alignment { qts, ..found })
}

/// The flat alignment: quasi-Butterworth below the Butterworth Qts, Chebyshev above.
pub fn flat(qts: f64, ql: f64) -> Option<(Alignment, &'static str)> {
    if qts <= butterworth(ql).qts {
        quasi_butterworth(qts, ql).map(|found| (found, "QB3"))
    } else {
        chebyshev(qts, ql).map(|found| (found, "C4"))
    }
}

/// Keele's closed forms for QL 7 (Keele 1974, from memory): volume over Vas, Fb over Fs, F3 over Fs.
pub fn keele(qts: f64) -> [f64; 3] {
    [15.0 * qts.powf(2.87), 0.42 * qts.powf(-0.9), 0.26 * qts.powf(-1.4)]
}
