//! Losses at the walls of a duct.

use super::Air;
use crate::{Complex, J};

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

    /// Mean of the boundary-layer profile over the section for a diffusivity (m2/s): 0 without
    /// friction, 1 where friction fills the duct.
    ///
    /// Round: `2 J1(z)/(z J0(z))`, `z = a sqrt(-j omega/nu)` (Zwikker and Kosten 1949; Stinson
    /// 1991, eq. 37 and 45). Slit: `tanh(x)/x`, `x = h sqrt(j omega/nu)` (Stinson 1991, eq. 60).
    fn friction(&self, omega: f64, diffusivity: f64) -> Complex {
        let wave = (omega / diffusivity).sqrt();
        match *self {
            Self::Round { radius } => {
                let z = radius
                    * wave
                    * Complex::new(std::f64::consts::FRAC_1_SQRT_2, -std::f64::consts::FRAC_1_SQRT_2);
                2.0 * bessel_ratio(z) / z
            }
            Self::Slot { width, height } => {
                let half = width * height / (2.0 * (width + height));
                let x = half
                    * wave
                    * Complex::new(std::f64::consts::FRAC_1_SQRT_2, std::f64::consts::FRAC_1_SQRT_2);
                // tanh is 1 to double precision long before exp overflows.
                if x.re > 20.0 { x.inv() } else { x.tanh() / x }
            }
        }
    }
}

/// Complex density (kg/m3) and bulk modulus (Pa) of air in a duct with rigid isothermal walls.
///
/// `rho_e = rho/(1 - F(mu/rho))`, `K_e = gamma P0/(1 + (gamma - 1) F(kappa/(rho cp)))`
/// (Stinson 1991).
pub fn effective_medium(air: &Air, section: CrossSection, omega: f64) -> (Complex, Complex) {
    let viscous = section.friction(omega, air.viscosity / air.density);
    let thermal = section.friction(omega, air.conductivity / (air.density * air.specific_heat));
    (air.density / (1.0 - viscous), air.gamma * air.pressure / (1.0 + (air.gamma - 1.0) * thermal))
}

/// `J1(z)/J0(z)` for z on the ray `arg z = -pi/4`.
///
/// Large arguments: ratio of the Hankel expansions (Abramowitz and Stegun 9.2.7), with the
/// vanishing wave dropped, to 2e-9 for |z| > 30. Else the continued fraction of 9.1.73, run
/// backwards.
fn bessel_ratio(z: Complex) -> Complex {
    let size = z.norm();
    if size > 30.0 {
        let w = J / z;
        let order_one =
            1.0 + w * (3.0 / 8.0 + w * (-15.0 / 128.0 + w * (315.0 / 3072.0 + w * (-14175.0 / 98304.0))));
        let order_zero =
            1.0 + w * (-1.0 / 8.0 + w * (9.0 / 128.0 + w * (-225.0 / 3072.0 + w * (11025.0 / 98304.0))));
        return -J * order_one / order_zero;
    }
    let mut ratio = Complex::new(0.0, 0.0);
    for order in (1..=(size as u32 + 25)).rev() {
        ratio = (2.0 * f64::from(order) / z - ratio).inv();
    }
    ratio
}

#[cfg(test)]
mod tests {
    use super::*;
    use approx::assert_relative_eq;

    /// Ascending series of J0 and J1 (Abramowitz and Stegun 9.1.10): slow, and exact where the
    /// argument is moderate.
    fn ratio_by_series(z: Complex) -> Complex {
        let quarter = -z * z / 4.0;
        let (mut zero, mut one) = (Complex::new(0.0, 0.0), Complex::new(0.0, 0.0));
        let mut term = Complex::new(1.0, 0.0);
        for k in 0..60 {
            let k = f64::from(k);
            zero += term;
            one += term / (k + 1.0);
            term *= quarter / ((k + 1.0) * (k + 1.0));
        }
        one * z / 2.0 / zero
    }

    #[test]
    fn the_bessel_ratio_agrees_with_its_series_and_joins_smoothly() {
        let ray = Complex::from_polar(1.0, -std::f64::consts::FRAC_PI_4);
        for size in [0.01, 0.5, 2.0, 6.0, 12.0] {
            let z = ray * size;
            assert!((bessel_ratio(z) - ratio_by_series(z)).norm() < 1e-10, "|z| = {size}");
        }
        let (below, above) = (bessel_ratio(ray * 29.999_999), bessel_ratio(ray * 30.000_001));
        assert!((below - above).norm() < 1e-7);
    }

    #[test]
    fn a_fine_tube_turns_isothermal_and_resistive() {
        let air = Air::reference();
        let radius = 5e-5;
        let omega = 2.0 * std::f64::consts::PI * 20.0;
        let (density, modulus) = effective_medium(&air, CrossSection::Round { radius }, omega);
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
        let (density, _) = effective_medium(&air, CrossSection::Slot { width, height }, omega);
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
        let (density, modulus) = effective_medium(&air, CrossSection::Round { radius: 0.05 }, 400.0);
        assert_relative_eq!(density.re, air.density, max_relative = 0.02);
        assert_relative_eq!(modulus.re, air.bulk_modulus(), max_relative = 0.02);
        assert!(density.im < 0.0 && modulus.im > 0.0, "both must take energy");
    }
}
