//! Laws by which a horn widens.

use crate::root::{ALL, end_of};

/// Kind of flare between two areas over a length.
#[derive(Debug, Clone, Copy, PartialEq)]
pub enum Flare {
    /// Straight sides: the root of the area grows evenly. Also a taper, also a plain duct.
    Conical,
    /// The area grows by the same share in every step.
    Exponential,
    /// `sqrt(S) = sqrt(S1) (cosh(x/x0) + T sinh(x/x0))` (Salmon 1946): T 1 is exponential, 0 a catenoid,
    /// large T nearly conical.
    Hyperbolic {
        /// Salmon's T, 0 and up.
        t: f64,
    },
    /// The curve whose tangent to the axis has the same length everywhere.
    Tractrix,
    /// The area itself grows evenly.
    Parabolic,
}

/// Why a flare cannot be shaped.
#[derive(Debug, Clone, Copy, PartialEq, thiserror::Error)]
pub enum FlareError {
    /// A tractrix turns away from the axis before it has gone so far out.
    #[error("a tractrix between these areas is at least {0} m long")]
    TractrixTooShort(f64),
    /// A tractrix and a hyperbolic flare only widen.
    #[error("this flare must widen")]
    MustWiden,
}

/// A flare with its constants found.
#[derive(Debug, Clone, Copy)]
pub(super) struct FlareCurve {
    flare: Flare,
    length: f64,
    start: f64,
    end: f64,
    /// Hyperbolic: `L/x0`. Tractrix: the tangent's length, m.
    constant: f64,
}

impl Flare {
    /// Checks that it can be shaped between two areas (m2) over a length (m).
    ///
    /// # Errors
    /// See [`FlareError`].
    pub fn check(self, length: f64, start: f64, end: f64) -> Result<(), FlareError> {
        match self {
            Self::Hyperbolic { .. } if end < start => Err(FlareError::MustWiden),
            Self::Tractrix if end <= start => Err(FlareError::MustWiden),
            Self::Tractrix => {
                let (inner, outer) = radii(start, end);
                let shortest = tractrix_length(outer, inner, outer);
                if length < shortest * (1.0 - 1e-9) {
                    Err(FlareError::TractrixTooShort(shortest))
                } else {
                    Ok(())
                }
            }
            _ => Ok(()),
        }
    }

    pub(super) fn curve(self, length: f64, start: f64, end: f64) -> FlareCurve {
        let constant = match self {
            Self::Hyperbolic { t } => {
                let goal = (end / start).sqrt();
                let widening = |u: f64| u.cosh() + t * u.sinh();
                end_of(0.0, goal.max(1.0).acosh() + 1e-12, ALL, |u| widening(u) < goal)
            }
            Self::Tractrix => {
                let (inner, outer) = radii(start, end);
                let mut high = 2.0 * outer;
                while tractrix_length(high, inner, outer) < length && high < 1e6 * outer {
                    high *= 2.0;
                }
                end_of(outer, high, ALL, |tangent| tractrix_length(tangent, inner, outer) < length)
            }
            _ => 0.0,
        };
        FlareCurve { flare: self, length, start, end, constant }
    }
}

impl FlareCurve {
    /// Area at a place along the way (m), m2.
    pub(super) fn area_at(&self, x: f64) -> f64 {
        let part = (x / self.length).clamp(0.0, 1.0);
        let (start, end) = (self.start, self.end);
        match self.flare {
            Flare::Conical => {
                let root = start.sqrt() + (end.sqrt() - start.sqrt()) * part;
                root * root
            }
            Flare::Exponential => start * (end / start).powf(part),
            Flare::Hyperbolic { t } => {
                let u = self.constant * part;
                let root = u.cosh() + t * u.sinh();
                start * root * root
            }
            Flare::Tractrix => {
                let (inner, outer) = radii(start, end);
                let left = self.length * (1.0 - part);
                let radius = end_of(inner, outer, ALL, |r| tractrix_length(self.constant, r, outer) > left);
                std::f64::consts::PI * radius * radius
            }
            Flare::Parabolic => start + (end - start) * part,
        }
    }
}

fn radii(start: f64, end: f64) -> (f64, f64) {
    ((start / std::f64::consts::PI).sqrt(), (end / std::f64::consts::PI).sqrt())
}

/// Way along the axis of a tractrix from one radius to a larger one; the tangent is `a` long:
/// `x(r) = a acosh(a/r) - sqrt(a^2 - r^2)`, measured back from where it stands across the axis.
fn tractrix_length(a: f64, inner: f64, outer: f64) -> f64 {
    let back = |r: f64| a * (a / r).max(1.0).acosh() - (a * a - r * r).max(0.0).sqrt();
    back(inner) - back(outer)
}

#[cfg(test)]
mod tests {
    use super::*;
    use proptest::prelude::*;

    const KINDS: [Flare; 6] = [
        Flare::Conical,
        Flare::Exponential,
        Flare::Hyperbolic { t: 0.0 },
        Flare::Hyperbolic { t: 0.6 },
        Flare::Tractrix,
        Flare::Parabolic,
    ];

    proptest! {
        #[test]
        fn every_flare_begins_and_ends_as_asked_and_widens_between(
            start in 0.002f64..0.05, widening in 1.05f64..30.0, length in 0.3f64..4.0,
        ) {
            let end = start * widening;
            for flare in KINDS {
                if flare.check(length, start, end).is_err() {
                    continue;
                }
                let curve = flare.curve(length, start, end);
                prop_assert!((curve.area_at(0.0) / start - 1.0).abs() < 1e-6, "{flare:?}");
                prop_assert!((curve.area_at(length) / end - 1.0).abs() < 1e-6, "{flare:?}");
                let areas: Vec<_> = (0..=20).map(|k| curve.area_at(length * f64::from(k) / 20.0)).collect();
                prop_assert!(areas.windows(2).all(|two| two[1] > two[0]), "{flare:?}");
            }
        }

        #[test]
        fn a_tractrix_has_a_tangent_of_one_length(start in 0.002f64..0.02, stretch in 1.0f64..1.6) {
            let end = 8.0 * start;
            let (inner, outer) = radii(start, end);
            let length = stretch * tractrix_length(outer, inner, outer);
            let curve = Flare::Tractrix.curve(length, start, end);
            for part in [0.2, 0.4, 0.6, 0.8] {
                let radius = |x: f64| (curve.area_at(x) / std::f64::consts::PI).sqrt();
                let (x, h) = (part * length, 1e-5 * length);
                let slope = (radius(x + h) - radius(x - h)) / (2.0 * h);
                let tangent = radius(x) * (1.0 + slope.powi(-2)).sqrt();
                prop_assert!((tangent / curve.constant - 1.0).abs() < 1e-4, "{tangent} {}", curve.constant);
            }
        }
    }

    #[test]
    fn hyperbolic_with_t_one_is_exponential() {
        let (a, b) =
            (Flare::Hyperbolic { t: 1.0 }.curve(2.0, 0.01, 0.2), Flare::Exponential.curve(2.0, 0.01, 0.2));
        for k in 0..=10 {
            let x = 0.2 * f64::from(k);
            assert!((a.area_at(x) / b.area_at(x) - 1.0).abs() < 1e-9);
        }
    }

    #[test]
    fn what_cannot_be_shaped_is_refused() {
        assert!(matches!(Flare::Tractrix.check(0.1, 0.01, 0.3), Err(FlareError::TractrixTooShort(_))));
        assert_eq!(Flare::Tractrix.check(1.0, 0.3, 0.1), Err(FlareError::MustWiden));
        assert_eq!(Flare::Hyperbolic { t: 0.5 }.check(1.0, 0.3, 0.1), Err(FlareError::MustWiden));
        assert_eq!(Flare::Conical.check(1.0, 0.3, 0.1), Ok(()));
    }
}
