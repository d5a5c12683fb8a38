//! How much fill is in a chamber, the quick method.

use serde::Serialize;
use utoipa::ToSchema;

/// Amount of fill. Each stands for a gain in apparent volume and an absorption quality: common practice, with
/// the span of Small 1972 (QA 100 and more empty, 5 or less filled; gain up to about 1.25 in practice).
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Stuffing {
    /// None.
    None,
    /// The walls are lined.
    Lined,
    /// Half of the volume.
    Half,
    /// All of it, loosely.
    Full,
    /// All of it, packed.
    Packed,
}

/// What fill in a chamber comes to.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, ToSchema)]
pub struct Filled {
    /// By how much the chamber seems larger.
    pub gain: f64,
    /// Absorption quality at the tuning.
    pub qa: f64,
}

impl Filled {
    /// Of polyester wool, spread evenly, its mass over the chamber's volume (kg/m3): between the amounts of [`Stuffing`], the gain evenly and
    /// the absorption by its logarithm; no more than packed above that.
    pub fn of_polyester(density: f64) -> Self {
        let amounts = Stuffing::ALL.windows(2).map(|two| (two[0], two[1]));
        for (less, more) in amounts {
            if density <= more.density() {
                let share = (density.max(0.0) - less.density()) / (more.density() - less.density());
                return Self {
                    gain: less.gain() + share * (more.gain() - less.gain()),
                    qa: less.qa() * (more.qa() / less.qa()).powf(share),
                };
            }
        }
        Self { gain: Stuffing::Packed.gain(), qa: Stuffing::Packed.qa() }
    }
}

impl Stuffing {
    /// From nothing to packed.
    pub const ALL: [Self; 5] = [Self::None, Self::Lined, Self::Half, Self::Full, Self::Packed];

    /// Mass of polyester wool over the volume of the chamber, kg/m3 (common practice).
    pub fn density(self) -> f64 {
        match self {
            Self::None => 0.0,
            Self::Lined => 2.0,
            Self::Half => 5.0,
            Self::Full => 10.0,
            Self::Packed => 20.0,
        }
    }

    /// By how much the chamber seems larger.
    pub fn gain(self) -> f64 {
        match self {
            Self::None => 1.0,
            Self::Lined => 1.04,
            Self::Half => 1.1,
            Self::Full => 1.2,
            Self::Packed => 1.25,
        }
    }

    /// Absorption quality at the tuning.
    pub fn qa(self) -> f64 {
        match self {
            Self::None => 100.0,
            Self::Lined => 50.0,
            Self::Half => 20.0,
            Self::Full => 10.0,
            Self::Packed => 5.0,
        }
    }
}
