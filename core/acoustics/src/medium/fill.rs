//! Porous fill.

use super::Air;
use crate::lanes::Real;
use crate::{Complex, inverse, root};

/// What a fill's frame does.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Frame {
    /// It stands still.
    Rigid,
    /// It moves with the air and has no stiffness of its own: loose wool.
    Limp,
}

/// A homogeneous fibrous fill.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Fill {
    /// Static flow resistivity, Pa s/m2.
    pub resistivity: f64,
    /// Bulk density, kg/m3.
    pub bulk_density: f64,
    /// Whether it moves.
    pub frame: Frame,
    /// Where it lines a wall of a duct and does not fill it.
    pub lining: Option<Lining>,
}

/// Fill along a wall of a duct, open air beside it.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Lining {
    /// Share of the cross-section that it takes.
    pub share: f64,
    /// How thick it is, m.
    pub depth: f64,
}

/// Density of the stuff that fibres are made of, polyester and wool near 1380, glass 2500 kg/m3: what
/// the porosity follows from. The porosity is above 0.97 for every loose fill, whatever the fibre.
const FIBRE_DENSITY: f64 = 1380.0;

/// Densities that the formula of [`Fill::polyester`] was made for, kg/m3.
pub const POLYESTER: [f64; 2] = [12.0, 60.0];

/// Flow resistivity of polyester over its density (kg/m3): factor and exponent.
const GARAI_POMPOLI: (f64, f64) = (25.989, 1.404);

impl Fill {
    /// Polyester of a bulk density (kg/m3): flow resistivity `25.989 rho^1.404` (Garai and Pompoli 2005, for
    /// fibres of 18 to 48 um and [12 to 60 kg/m3](POLYESTER)).
    pub fn polyester(bulk_density: f64, frame: Frame) -> Self {
        let (factor, exponent) = GARAI_POMPOLI;
        Self { resistivity: factor * bulk_density.powf(exponent), bulk_density, frame, lining: None }
    }

    /// Share of the volume that is air.
    pub fn porosity(&self) -> f64 {
        1.0 - self.bulk_density / FIBRE_DENSITY
    }

    /// Effective density (kg/m3) and bulk modulus (Pa) of a duct with it at an angular frequency (rad/s).
    ///
    /// Beside a lining sound goes the passage's way: what the lining takes of its pressure and of its flow falls off in its depth t by
    /// `F = tan(k t)/(k t)`, k its own wave number, and both act side by side: `1/rho = s F/rho_f + (1 - s)/rho_0`, `1/K = s F/K_f + (1 - s)/K_0`.
    /// From the wave equation in both, the passage much narrower than a wave.
    #[inline(always)]
    pub fn at<T: Real>(&self, omega: T, air: &Air) -> (Complex<T>, Complex<T>) {
        let (density, modulus) = self.throughout(omega, air);
        let Some(Lining { share, depth }) = self.lining else { return (density, modulus) };
        let reached = tangent_share(root(density * inverse(modulus)) * omega * T::of(depth)) * T::of(share);
        let beside = |filled: Complex<T>, open: f64| {
            inverse(inverse(filled) * reached + Complex::from(T::of((1.0 - share) / open)))
        };
        (beside(density, air.density), beside(modulus, air.bulk_modulus()))
    }

    /// Effective density (kg/m3) and bulk modulus (Pa) within it at an angular frequency (rad/s).
    ///
    /// Rigid frame: Allard and Champoux 1992, `X = rho0 f/sigma`, scaled from the paper's 1.2 kg/m3 and
    /// 101.32 kPa to the air at hand; the modulus with both constants times j, as passivity asks. Limp frame: `(M rho - rho0^2)/(M + rho - 2 rho0)` with
    /// `M` the bulk density and the air in it (Panneton 2007).
    #[inline(always)]
    fn throughout<T: Real>(&self, omega: T, air: &Air) -> (Complex<T>, Complex<T>) {
        let per_x = T::of(self.resistivity * 2.0 * std::f64::consts::PI / air.density) / omega;
        let density = T::of(air.density);
        let rigid = drag(per_x, 0.0364, 0.1144) * T::of(air.density / 1.2) + density;
        let heat = drag(per_x, 2.82, 24.9);
        let modulus = (heat + T::of(29.64)) * inverse(heat + T::of(21.17)) * T::of(air.pressure);
        match self.frame {
            Frame::Rigid => (rigid, modulus),
            Frame::Limp => {
                let total = T::of(self.bulk_density + self.porosity() * air.density);
                let moving = rigid * total - density * density;
                (moving * inverse(rigid + total - density * T::of(2.0)), modulus)
            }
        }
    }
}

/// `tan(z)/z` by Lambert's fraction, for what is damped: to 1e-6 up to |z| of 3.
#[inline(always)]
fn tangent_share<T: Real>(z: Complex<T>) -> Complex<T> {
    let square = z * z;
    let mut below = Complex::from(T::of(f64::from(2 * FRACTIONS + 1)));
    for step in (0..FRACTIONS).rev() {
        below = Complex::from(T::of(f64::from(2 * step + 1))) - square * inverse(below);
    }
    inverse(below)
}

/// Steps of the fraction.
const FRACTIONS: u32 = 10;

/// `sqrt(-a/X^2 - j b/X)`: written as -j times a root in the right half plane.
#[inline(always)]
fn drag<T: Real>(per_x: T, a: f64, b: f64) -> Complex<T> {
    let upright = root(Complex::new(per_x * per_x * T::of(a), per_x * T::of(b)));
    Complex::new(upright.im, -upright.re)
}

/// A fill that can be bought.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct FillMaterial {
    /// Its name in files.
    pub id: &'static str,
    /// Its name for people.
    pub name: &'static str,
    /// What it is.
    pub fill: Fill,
    /// Where the values are from.
    pub source: &'static str,
}

impl FillMaterial {
    /// Density of polyester wool (kg/m3) that resists flow as much as this at a density: by Garai and Pompoli's exponent for both, from the
    /// resistivity it is listed with.
    pub fn as_polyester(&self, density: f64) -> f64 {
        let polyester = Fill::polyester(self.fill.bulk_density, self.fill.frame).resistivity;
        density * (self.fill.resistivity / polyester).powf(1.0 / GARAI_POMPOLI.1)
    }
}

const SOLD: &str = "typical of what is sold, common practice";

/// Fills that are easily had. They differ from maker to maker by a third and more; weigh yours.
pub fn fill_materials() -> Vec<FillMaterial> {
    let polyester = |id, name, density| FillMaterial {
        id,
        name,
        fill: Fill::polyester(density, Frame::Limp),
        source: "resistivity by Garai and Pompoli 2005",
    };
    // Bies and Hansen 1980: 3.18e-9 rho^1.53/d^2, fibres of 7 um.
    let glass = |density: f64| 3.18e-9 * density.powf(1.53) / 7e-6_f64.powi(2);
    let other = |id, name, bulk_density, resistivity, frame, source| FillMaterial {
        id,
        name,
        fill: Fill { resistivity, bulk_density, frame, lining: None },
        source,
    };
    vec![
        polyester("polyester_loose", "Polyester wool, loose", 12.0),
        polyester("polyester", "Polyester wadding", 15.0),
        polyester("polyester_firm", "Polyester wadding, firm", 30.0),
        other("wool", "Sheep's wool", 15.0, 1500.0, Frame::Limp, SOLD),
        other(
            "glass",
            "Glass wool",
            20.0,
            glass(20.0),
            Frame::Limp,
            "resistivity by Bies and Hansen 1980, fibres of 7 um",
        ),
        other("mineral", "Mineral wool slab", 45.0, 12_000.0, Frame::Rigid, SOLD),
        other("foam", "Foam with open pores", 30.0, 8_000.0, Frame::Rigid, SOLD),
        other("felt", "Felt", 90.0, 25_000.0, Frame::Rigid, SOLD),
    ]
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::J;
    use std::f64::consts::PI;

    const WOOL: Fill = Fill { resistivity: 12_000.0, bulk_density: 40.0, frame: Frame::Rigid, lining: None };

    /// Miki 1990: characteristic impedance over rho c and wave number over w/c, q = f/sigma.
    fn miki(frequency: f64, resistivity: f64) -> (Complex, Complex) {
        let q = frequency / resistivity;
        let (a, b) = (q.powf(-0.632), q.powf(-0.618));
        (Complex::new(1.0 + 0.070 * a, -0.107 * a), Complex::new(1.0 + 0.109 * b, -0.160 * b))
    }

    #[test]
    fn a_rigid_fill_agrees_with_miki_where_both_hold() {
        // Both are fits to Delany and Bazley's range, 0.01 < f/sigma < 1; they differ by some percent.
        let air = Air::reference();
        for frequency in [250.0, 500.0, 1000.0, 2000.0, 4000.0] {
            let (density, modulus) = WOOL.at(2.0 * PI * frequency, &air);
            let impedance = root(density * modulus) / (air.density * air.speed);
            let number = root(density / modulus) * air.speed;
            let (theirs, their_number) = miki(frequency, WOOL.resistivity);
            assert!((impedance - theirs).norm() < 0.12 * theirs.norm(), "{frequency}: {impedance} {theirs}");
            assert!((number - their_number).norm() < 0.12 * their_number.norm(), "{frequency}: {number}");
        }
    }

    #[test]
    fn a_fill_is_isothermal_and_resists_at_low_frequencies() {
        let air = Air::reference();
        let omega = 2.0 * PI * 5.0;
        let (density, modulus) = WOOL.at(omega, &air);
        assert!((modulus.re / air.pressure - 1.0).abs() < 0.01);
        // The flow resistivity itself: Re(j w rho), within the 4 % that sqrt(0.0364) 2 pi leaves.
        assert!(((J * omega * density).re / WOOL.resistivity - 1.0).abs() < 0.04);
        let (density, modulus) = WOOL.at(2.0 * PI * 2e5, &air);
        assert!((modulus.re / air.bulk_modulus() - 1.0).abs() < 0.1, "{modulus}");
        assert!((density.re / air.density - 1.0).abs() < 0.2, "{density}");
    }

    #[test]
    fn a_limp_fill_moves_with_the_air_where_it_drags_hardest() {
        let air = Air::reference();
        let limp = Fill { frame: Frame::Limp, ..WOOL };
        let (density, _) = limp.at(2.0 * PI * 2.0, &air);
        let total = limp.bulk_density + limp.porosity() * air.density;
        assert!((density.re / total - 1.0).abs() < 0.1, "{density} {total}");
        let (high_limp, _) = limp.at(2.0 * PI * 2000.0, &air);
        let (high_rigid, _) = WOOL.at(2.0 * PI * 2000.0, &air);
        assert!((high_limp / high_rigid - 1.0).norm() < 0.1);
    }

    #[test]
    fn fill_takes_energy_at_every_frequency() {
        let air = Air::reference();
        for frame in [Frame::Rigid, Frame::Limp] {
            for bulk in [3.0, 12.0, 60.0] {
                let fill = Fill::polyester(bulk, frame);
                for frequency in [1.0, 10.0, 60.0, 300.0, 3000.0, 20_000.0] {
                    let (density, modulus) = fill.at(2.0 * PI * frequency, &air);
                    assert!(density.im < 0.0 && modulus.im > 0.0, "{bulk} kg/m3 at {frequency} Hz");
                }
            }
        }
    }

    #[test]
    fn the_share_of_a_depth_is_that_of_the_tangent() {
        for (size, angle) in [(0.01, -0.7), (0.5, -0.7), (1.5, -0.4), (3.0, -0.78)] {
            let z = Complex::from_polar(size, angle);
            let (found, expected) = (tangent_share(z), z.tan() / z);
            assert!((found - expected).norm() < 1e-6 * expected.norm(), "{z}: {found} {expected}");
        }
    }

    #[test]
    fn polyester_resists_as_garai_and_pompoli_measured() {
        // Their table 2, from memory: about 1700 Pa s/m2 at 20 kg/m3.
        let resistivity = Fill::polyester(20.0, Frame::Limp).resistivity;
        assert!((1500.0..2000.0).contains(&resistivity), "{resistivity}");
    }
}
