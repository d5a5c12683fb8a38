//! Losses at the walls of a duct.

use super::Air;
use crate::lanes::{Real, constant, each};
use crate::{Complex, inverse, root};

/// Shape of a duct's cross-section, as far as its wall losses go.
#[derive(Debug, Clone, Copy, PartialEq)]
pub enum CrossSection {
    /// Circular, radius in m.
    Round {
        /// Radius, m.
        radius: f64,
    },
    /// Rectangular, sides in m. Treated as a slit whose half height is area over perimeter: exact
    /// for a wide slit, and the right wall area where the boundary layer is thin.
    Slot {
        /// Longer or shorter side, m.
        width: f64,
        /// The other side, m.
        height: f64,
    },
    /// Between two walls at a right angle and a board across the corner. Its losses are those of a round one with the same area over
    /// perimeter.
    Corner {
        /// Along each wall, m.
        side: f64,
    },
}

impl CrossSection {
    /// Area, m2.
    pub fn area(&self) -> f64 {
        match *self {
            Self::Round { radius } => std::f64::consts::PI * radius * radius,
            Self::Slot { width, height } => width * height,
            Self::Corner { side } => side * side / 2.0,
        }
    }

    /// Half the hydraulic diameter, m: what the boundary layer is thin or thick against.
    fn reach(&self) -> f64 {
        match *self {
            Self::Round { radius } => radius,
            Self::Slot { width, height } => width * height / (2.0 * (width + height)),
            // Twice the area over the perimeter, as the radius of a round one is.
            Self::Corner { side } => side / (2.0 + std::f64::consts::SQRT_2),
        }
    }
}

/// A duct's cross-section as its walls see it: worked out once for all frequencies.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Walls {
    round: bool,
    /// 1/m.
    inverse_reach: f64,
}

impl From<CrossSection> for Walls {
    fn from(section: CrossSection) -> Self {
        Self { round: !matches!(section, CrossSection::Slot { .. }), inverse_reach: section.reach().recip() }
    }
}

/// Boundary layers at one frequency, the same for all ducts.
#[derive(Debug, Clone, Copy)]
pub struct Layers<'a, T = f64> {
    air: &'a Air,
    /// `sqrt(nu/omega)`, m.
    viscous: T,
    /// `sqrt(kappa/(rho cp omega))`, m.
    thermal: T,
}

impl<'a, T: Real> Layers<'a, T> {
    /// At an angular frequency in rad/s.
    #[inline(always)]
    pub fn at(air: &'a Air, omega: T) -> Self {
        let layer = |diffusivity: f64| (T::of(diffusivity) / omega).root();
        Self {
            air,
            viscous: layer(air.viscosity / air.density),
            thermal: layer(air.conductivity / (air.density * air.specific_heat)),
        }
    }

    /// What the walls of a duct do: rigid and isothermal (Stinson 1991).
    #[inline(always)]
    pub fn losses(&self, walls: Walls) -> WallLosses<'a, T> {
        let reach = T::of(walls.inverse_reach);
        let viscous = friction(walls.round, self.viscous * reach);
        let thermal = friction(walls.round, self.thermal * reach);
        let one = T::of(1.0);
        WallLosses {
            air: self.air,
            inertia: -viscous + one,
            softness: (thermal * T::of(self.air.gamma - 1.0) + one)
                * T::of((self.air.gamma * self.air.pressure).recip()),
        }
    }
}

/// Mean of the boundary-layer profile over a section for a layer that is `thin` times its reach: 0 without friction, 1 where
/// friction fills the duct.
///
/// With `x = sqrt(j)/thin`: round `2 I1(x)/(x I0(x))` (Zwikker and Kosten 1949; Stinson 1991, eq. 37 and 45), slit
/// `tanh(x)/x` (Stinson 1991, eq. 60). For a wide duct the round one is the ratio of the asymptotic expansions (Abramowitz
/// and Stegun 9.7.1), to 4e-9, in the powers of `u = thin/sqrt(j)`; tanh is 1 to double precision.
#[inline(always)]
fn friction<T: Real>(round: bool, thin: T) -> Complex<T> {
    const WIDE: f64 = 1.0 / 30.0;
    const C: f64 = std::f64::consts::FRAC_1_SQRT_2;
    match (round, thin.largest() < WIDE) {
        (true, true) => {
            let t = thin;
            let (first, third, fifth) = (T::of(2.0 * C), T::of(0.25 * C), T::of(25.0 / 64.0 * C));
            let (quarter, last, one) = (T::of(0.25), T::of(13.0 / 16.0), T::of(1.0));
            Complex::new(
                t * (first + t * t * (third + t * (quarter + t * fifth))),
                t * (t * (one + t * (third - t * t * (fifth + t * last))) - first),
            )
        }
        (true, false) => each(thin, |thin| 2.0 * thin * EIGHTH_TURN.conj() * bessel_ratio(thin.recip())),
        (false, true) => constant::<T>(EIGHTH_TURN.conj()) * thin,
        (false, false) => each(thin, |thin| {
            let decay = (EIGHTH_TURN * (-2.0 / thin)).exp();
            thin * EIGHTH_TURN.conj() * (1.0 - decay) * inverse(1.0 + decay)
        }),
    }
}

/// `sqrt(j)`.
const EIGHTH_TURN: Complex = Complex::new(std::f64::consts::FRAC_1_SQRT_2, std::f64::consts::FRAC_1_SQRT_2);

/// What the walls of a duct do to the air in it at one frequency: rigid, isothermal walls.
#[derive(Debug, Clone, Copy)]
pub struct WallLosses<'a, T = f64> {
    air: &'a Air,
    /// `1 - F(mu/rho)`.
    inertia: Complex<T>,
    /// `(1 + (gamma - 1) F(kappa/(rho cp)))/(gamma P0)`, 1/Pa.
    softness: Complex<T>,
}

impl<'a, T: Real> WallLosses<'a, T> {
    /// At an angular frequency in rad/s.
    #[inline(always)]
    pub fn at(air: &'a Air, section: CrossSection, omega: T) -> Self {
        Layers::at(air, omega).losses(section.into())
    }

    /// Effective density `rho/(1 - F)`, kg/m3.
    #[inline(always)]
    pub fn density(&self) -> Complex<T> {
        inverse(self.inertia) * T::of(self.air.density)
    }

    /// Effective bulk modulus `gamma P0/(1 + (gamma - 1) F)`, Pa.
    #[inline(always)]
    pub fn modulus(&self) -> Complex<T> {
        inverse(self.softness)
    }

    /// One over the modulus, 1/Pa.
    #[inline(always)]
    pub fn compressibility(&self) -> Complex<T> {
        self.softness
    }

    /// Slowness of a wave, s/m: the root of density over modulus.
    #[inline(always)]
    pub fn slowness(&self) -> Complex<T> {
        root(self.density() * self.compressibility())
    }
}

/// `I1(x)/I0(x)` at `x = size sqrt(j)`: the continued fraction that follows from the recurrence 9.6.26 of Abramowitz and
/// Stegun, run backwards.
fn bessel_ratio(size: f64) -> Complex {
    let u = EIGHTH_TURN.conj() / size;
    (1..=(size as u32 + 25))
        .rev()
        .fold(Complex::new(0.0, 0.0), |ratio, order| inverse(2.0 * f64::from(order) * u + ratio))
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::J;
    use approx::assert_relative_eq;

    /// Ascending series of I0 and I1 (Abramowitz and Stegun 9.6.10): slow, and exact where the
    /// argument is moderate.
    fn ratio_by_series(x: Complex) -> Complex {
        let quarter = x * x / 4.0;
        let (mut zero, mut one) = (Complex::new(0.0, 0.0), Complex::new(0.0, 0.0));
        let mut term = Complex::new(1.0, 0.0);
        for k in 0..60 {
            let k = f64::from(k);
            zero += term;
            one += term / (k + 1.0);
            term *= quarter / ((k + 1.0) * (k + 1.0));
        }
        one * x / 2.0 / zero
    }

    #[test]
    fn the_bessel_ratio_agrees_with_its_series_and_joins_smoothly() {
        for size in [0.01, 0.5, 2.0, 6.0, 12.0] {
            assert!((bessel_ratio(size) - ratio_by_series(EIGHTH_TURN * size)).norm() < 1e-10, "size {size}");
        }
        let (below, above) = (friction(true, 1.0 / 29.999_999_9), friction(true, 1.0 / 30.000_000_1));
        assert!((below - above).norm() < 1e-9, "{}", (below - above).norm());
    }

    #[test]
    fn a_fine_tube_turns_isothermal_and_resistive() {
        let air = Air::reference();
        let radius = 5e-5;
        let omega = 2.0 * std::f64::consts::PI * 20.0;
        let losses = WallLosses::at(&air, CrossSection::Round { radius }, omega);
        let (density, modulus) = (losses.density(), losses.modulus());
        assert_relative_eq!(modulus.re, air.pressure, max_relative = 1e-3);
        // Poiseuille: flow resistivity 8 mu/a^2.
        assert_relative_eq!(
            (J * omega * density).re,
            8.0 * air.viscosity / (radius * radius),
            max_relative = 1e-3
        );
    }

    #[test]
    fn a_narrow_slit_has_the_resistance_of_plane_poiseuille_flow() {
        let air = Air::reference();
        let (width, height) = (1.0, 2e-4);
        let omega = 2.0 * std::f64::consts::PI * 20.0;
        let density = WallLosses::at(&air, CrossSection::Slot { width, height }, omega).density();
        // 12 mu/h^2, Batchelor 1967, section 4.2.
        assert_relative_eq!(
            (J * omega * density).re,
            12.0 * air.viscosity / (height * height),
            max_relative = 2e-3
        );
    }

    #[test]
    fn a_wide_duct_is_nearly_free_air() {
        let air = Air::reference();
        let losses = WallLosses::at(&air, CrossSection::Round { radius: 0.05 }, 400.0);
        let (density, modulus) = (losses.density(), losses.modulus());
        assert_relative_eq!(density.re, air.density, max_relative = 0.02);
        assert_relative_eq!(modulus.re, air.bulk_modulus(), max_relative = 0.02);
        assert!(density.im < 0.0 && modulus.im > 0.0, "both must take energy");
    }
}
