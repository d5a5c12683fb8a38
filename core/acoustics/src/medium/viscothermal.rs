//! Losses at the walls of a duct.

use super::Air;
use crate::{Complex, root};

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
}

impl CrossSection {
    /// Area, m2.
    pub fn area(&self) -> f64 {
        match *self {
            Self::Round { radius } => std::f64::consts::PI * radius * radius,
            Self::Slot { width, height } => width * height,
        }
    }

    /// Half the hydraulic diameter, m: what the boundary layer is thin or thick against.
    fn reach(&self) -> f64 {
        match *self {
            Self::Round { radius } => radius,
            Self::Slot { width, height } => width * height / (2.0 * (width + height)),
        }
    }

    /// Mean of the boundary-layer profile over the section for a diffusivity (m2/s): 0 without
    /// friction, 1 where friction fills the duct.
    ///
    /// With `x = size sqrt(j)`, size the reach over the layer `sqrt(nu/omega)`: round
    /// `2 I1(x)/(x I0(x))` (Zwikker and Kosten 1949; Stinson 1991, eq. 37 and 45), slit `tanh(x)/x`
    /// (Stinson 1991, eq. 60).
    fn friction(&self, omega: f64, diffusivity: f64) -> Complex {
        let size = self.reach() * (omega / diffusivity).sqrt();
        let inverse = EIGHTH_TURN.conj() / size;
        match self {
            Self::Round { .. } => 2.0 * inverse * bessel_ratio(size),
            // tanh is 1 to double precision long before exp overflows.
            Self::Slot { .. } if size > 30.0 => inverse,
            Self::Slot { .. } => inverse * (EIGHTH_TURN * size).tanh(),
        }
    }
}

/// `sqrt(j)`.
const EIGHTH_TURN: Complex = Complex::new(std::f64::consts::FRAC_1_SQRT_2, std::f64::consts::FRAC_1_SQRT_2);

/// What the walls of a duct do to the air in it at one frequency: rigid, isothermal walls.
#[derive(Debug, Clone, Copy)]
pub struct WallLosses<'a> {
    air: &'a Air,
    /// `1 - F(mu/rho)`.
    inertia: Complex,
    /// `1 + (gamma - 1) F(kappa/(rho cp))`.
    softness: Complex,
}

impl<'a> WallLosses<'a> {
    /// At an angular frequency in rad/s (Stinson 1991).
    pub fn at(air: &'a Air, section: CrossSection, omega: f64) -> Self {
        let viscous = section.friction(omega, air.viscosity / air.density);
        let thermal = section.friction(omega, air.conductivity / (air.density * air.specific_heat));
        Self { air, inertia: 1.0 - viscous, softness: 1.0 + (air.gamma - 1.0) * thermal }
    }

    /// Effective density `rho/(1 - F)`, kg/m3.
    pub fn density(&self) -> Complex {
        self.air.density / self.inertia
    }

    /// Effective bulk modulus `gamma P0/(1 + (gamma - 1) F)`, Pa.
    pub fn modulus(&self) -> Complex {
        self.air.gamma * self.air.pressure / self.softness
    }

    /// Slowness of a wave, s/m: the root of density over modulus.
    pub fn slowness(&self) -> Complex {
        root(self.softness / self.inertia * (self.air.density / (self.air.gamma * self.air.pressure)))
    }

    /// Velocity over pressure in a wave of a slowness that [`Self::slowness`] gave, m/(s Pa): slowness
    /// over density.
    pub fn specific_admittance(&self, slowness: Complex) -> Complex {
        slowness * self.inertia * self.air.density.recip()
    }
}

/// `I1(x)/I0(x)` at `x = size sqrt(j)`.
///
/// Large arguments: ratio of the asymptotic expansions (Abramowitz and Stegun 9.7.1), to 4e-9 for
/// size > 30. Else the continued fraction that follows from the recurrence 9.6.26, run backwards.
fn bessel_ratio(size: f64) -> Complex {
    let u = EIGHTH_TURN.conj() / size;
    if size > 30.0 {
        return 1.0 - u * (0.5 + u * (0.125 + u * (0.125 + u * (25.0 / 128.0 + u * (13.0 / 32.0)))));
    }
    (1..=(size as u32 + 25))
        .rev()
        .fold(Complex::new(0.0, 0.0), |ratio, order| (2.0 * f64::from(order) * u + ratio).inv())
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
        let (below, above) = (bessel_ratio(29.999_999_9), bessel_ratio(30.000_000_1));
        assert!((below - above).norm() < 8e-9, "{}", (below - above).norm());
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

    #[test]
    fn a_wave_has_the_slowness_and_admittance_of_density_and_modulus() {
        let air = Air::reference();
        for section in
            [CrossSection::Round { radius: 0.002 }, CrossSection::Slot { width: 0.3, height: 0.03 }]
        {
            let losses = WallLosses::at(&air, section, 300.0);
            let slowness = losses.slowness();
            let (density, modulus) = (losses.density(), losses.modulus());
            assert!((slowness * slowness * modulus / density - 1.0).norm() < 1e-12);
            assert!((losses.specific_admittance(slowness) * density / slowness - 1.0).norm() < 1e-12);
        }
    }
}
