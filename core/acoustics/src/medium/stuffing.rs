//! How much fill is in a chamber, the quick method.

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

impl Stuffing {
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
