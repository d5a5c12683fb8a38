//! Shelves, a parametric band, the Linkwitz transform and all-passes. Shelves and band after Bristow-Johnson, "Cookbook formulae for
//! audio equalizer biquad filter coefficients": its analogue prototypes, `A = 10^(gain/40)`.

use oak_acoustics::source::Section;

use super::{FilterError, Pass, Slope, positive, ratio};

/// Low: `A (s^2 + sqrt(A)/Q s + A)/(A s^2 + sqrt(A)/Q s + 1)`; high: `A (A s^2 + sqrt(A)/Q s + 1)/(s^2 + sqrt(A)/Q s + A)`. First order:
/// `(s + A)/(s + 1/A)` and `A^2 (s + 1/A)/(s + A)`.
pub(super) fn shelf(side: Pass, frequency: f64, gain: f64, slope: Slope) -> Result<Section, FilterError> {
    let a = ratio(gain / 2.0);
    let damping = match slope {
        Slope::First => {
            let (numerator, denominator) = match side {
                Pass::Low => ([a, 1.0, 0.0], [a.recip(), 1.0, 0.0]),
                Pass::High => ([a, a * a, 0.0], [a, 1.0, 0.0]),
            };
            return Ok(Section { frequency, numerator, denominator });
        }
        Slope::Q(q) => positive(q)?.recip(),
        Slope::S(s) if s > 0.0 && s <= 1.0 => ((a + a.recip()) * (s.recip() - 1.0) + 2.0).sqrt(),
        Slope::S(s) => return Err(FilterError::Slope(s)),
    };
    let middle = a.sqrt() * damping;
    let (numerator, denominator) = match side {
        Pass::Low => ([a * a, a * middle, a], [1.0, middle, a]),
        Pass::High => ([a, a * middle, a * a], [a, middle, 1.0]),
    };
    Ok(Section { frequency, numerator, denominator })
}

/// `(s^2 + s A/Q + 1)/(s^2 + s/(A Q) + 1)`: an equal boost and cut cancel.
pub(super) fn parametric(frequency: f64, gain: f64, q: f64) -> Section {
    let a = ratio(gain / 2.0);
    Section { frequency, numerator: [1.0, a / q, 1.0], denominator: [1.0, (a * q).recip(), 1.0] }
}

/// `(s^2 + s w0/Q0 + w0^2)/(s^2 + s wp/Qp + wp^2)`, normalised to the wanted corner.
pub(super) fn linkwitz_transform([own, own_q]: [f64; 2], [wanted, wanted_q]: [f64; 2]) -> Section {
    let up = own / wanted;
    Section {
        frequency: wanted,
        numerator: [up * up, up / own_q, 1.0],
        denominator: [1.0, wanted_q.recip(), 1.0],
    }
}

/// `(1 - s)/(1 + s)`, or `(s^2 - s/Q + 1)/(s^2 + s/Q + 1)`.
pub(super) fn all_pass(frequency: f64, q: Option<f64>) -> Section {
    match q {
        None => Section { frequency, numerator: [1.0, -1.0, 0.0], denominator: [1.0, 1.0, 0.0] },
        Some(q) => {
            let slope = q.recip();
            Section { frequency, numerator: [1.0, -slope, 1.0], denominator: [1.0, slope, 1.0] }
        }
    }
}
