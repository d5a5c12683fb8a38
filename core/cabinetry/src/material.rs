//! What boards are made of.

/// A board material. Values are typical; sheets differ by a tenth and more.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Material {
    /// Its name in files.
    pub id: &'static str,
    /// Whether its grain shows which way it lies.
    pub has_grain: bool,
    /// Its name for people.
    pub name: &'static str,
    /// kg/m3.
    pub density: f64,
    /// Young's modulus in bending, Pa; of plies the mean of both directions, by the root of their product.
    pub modulus: f64,
    /// Poisson's ratio.
    pub poisson: f64,
    /// Loss factor of its bending vibration; one over Q.
    pub loss: f64,
    /// Where the values are from.
    pub source: &'static str,
}

/// The first is what a board is of where nothing is said.
///
/// Density and modulus of MDF, particle board and plywood: USDA Wood Handbook (FPL-GTR-190), chapter 12, from memory; of
/// the hardwood (oak) chapter 5, from memory, with the mean over both directions of the grain. Loss factors and PVC:
/// typical handbook values, common practice.
pub static MATERIALS: &[Material] = &[
    Material {
        id: "mdf",
        has_grain: false,
        name: "MDF",
        density: 740.0,
        modulus: 3.3e9,
        poisson: 0.25,
        loss: 0.02,
        source: WOOD,
    },
    Material {
        id: "birch_ply",
        has_grain: true,
        name: "Birch plywood",
        density: 680.0,
        modulus: 8.0e9,
        poisson: 0.2,
        loss: 0.015,
        source: USUAL,
    },
    Material {
        id: "poplar_ply",
        has_grain: true,
        name: "Light plywood, poplar",
        density: 450.0,
        modulus: 5.0e9,
        poisson: 0.2,
        loss: 0.015,
        source: USUAL,
    },
    Material {
        id: "pine_ply",
        has_grain: true,
        name: "Pine plywood",
        density: 520.0,
        modulus: 6.0e9,
        poisson: 0.2,
        loss: 0.015,
        source: WOOD,
    },
    Material {
        id: "particle_board",
        has_grain: false,
        name: "Particle board",
        density: 680.0,
        modulus: 2.6e9,
        poisson: 0.25,
        loss: 0.02,
        source: WOOD,
    },
    Material {
        id: "hardwood",
        has_grain: true,
        name: "Hardwood, oak",
        density: 680.0,
        modulus: 5.0e9,
        poisson: 0.3,
        loss: 0.012,
        source: WOOD,
    },
    Material {
        id: "pvc",
        has_grain: false,
        name: "PVC pipe",
        density: 1400.0,
        modulus: 3.0e9,
        poisson: 0.38,
        loss: 0.03,
        source: USUAL,
    },
    Material {
        id: "acrylic",
        has_grain: false,
        name: "Acrylic",
        density: 1190.0,
        modulus: 3.2e9,
        poisson: 0.37,
        loss: 0.03,
        source: USUAL,
    },
    Material {
        id: "aluminium",
        has_grain: false,
        name: "Aluminium",
        density: 2700.0,
        modulus: 70e9,
        poisson: 0.33,
        loss: 0.002,
        source: USUAL,
    },
];

const WOOD: &str = "USDA Wood Handbook, typical value, from memory";
const USUAL: &str = "Typical handbook value, from memory";

impl Material {
    /// The material of a name in files.
    pub fn named(id: &str) -> Option<&'static Self> {
        MATERIALS.iter().find(|material| material.id == id)
    }

    /// How stiff a board is in bending, N m: `E h^3/(12 (1 - nu^2))`.
    pub fn stiffness(&self, thickness: f64) -> f64 {
        self.modulus * thickness.powi(3) / (12.0 * (1.0 - self.poisson * self.poisson))
    }
}
