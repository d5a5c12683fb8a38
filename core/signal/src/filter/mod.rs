//! Active filters by name, as the rational functions of their analogue prototypes.

mod bessel;
mod butterworth;
mod equaliser;

use std::f64::consts::{FRAC_1_SQRT_2, LN_2};

use oak_acoustics::source::{Chain, Section, Traced};

/// Shape of a low-pass or high-pass.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Alignment {
    /// `|H|^2 = 1/(1 + (f/f0)^2n)`: -3.01 dB at `f0`.
    Butterworth,
    /// The square of a Butterworth filter of half the order: -6.02 dB at `f0` (Linkwitz 1976, J. Audio Eng. Soc. 24(1), 2).
    LinkwitzRiley,
    /// `theta_n(0)/theta_n(k s)` with the reverse Bessel polynomial, `k` such that it is -3.01 dB at `f0` (Thomson 1949, Proc. IEE 96, 487).
    Bessel,
    /// The same with `k = theta_n(0)^(1/n)`: far above `f0` it falls as the Butterworth filter does.
    BesselPhase,
}

/// Which side is let through.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Pass {
    /// What is below the corner.
    Low,
    /// What is above it.
    High,
}

/// How wide a parametric band is.
#[derive(Debug, Clone, Copy, PartialEq)]
pub enum Width {
    /// Q.
    Q(f64),
    /// Octaves between the two frequencies of half its gain in dB.
    Octaves(f64),
}

/// How a shelf passes from one level to the other.
#[derive(Debug, Clone, Copy, PartialEq)]
pub enum Slope {
    /// First order.
    First,
    /// Second order by its Q.
    Q(f64),
    /// Second order by the cookbook's shelf slope: 1 is the steepest without overshoot.
    S(f64),
}

/// One active filter.
#[derive(Debug, Clone, PartialEq)]
pub enum Filter {
    /// A low-pass or high-pass of an order.
    Pass {
        /// Which side is let through.
        pass: Pass,
        /// Its shape.
        alignment: Alignment,
        /// 1 to 8; Linkwitz-Riley even.
        order: u32,
        /// Corner, Hz.
        frequency: f64,
    },
    /// What is below (`Pass::Low`) or above (`Pass::High`) a frequency, made louder or softer.
    Shelf {
        /// Which side changes.
        side: Pass,
        /// Hz, where half of the gain in dB is reached.
        frequency: f64,
        /// dB.
        gain: f64,
        /// How it passes over.
        slope: Slope,
    },
    /// A band made louder or softer.
    Parametric {
        /// Its middle, Hz.
        frequency: f64,
        /// dB.
        gain: f64,
        /// How wide it is.
        width: Width,
    },
    /// A sealed box's own corner replaced by another (Linkwitz 1978, Wireless World; 1980, Speaker Builder).
    LinkwitzTransform {
        /// The box's own Fc (Hz) and Qtc.
        own: [f64; 2],
        /// What they shall become.
        wanted: [f64; 2],
    },
    /// Turns the phase and leaves the level.
    AllPass {
        /// Hz.
        frequency: f64,
        /// Second order with this Q; first order where absent.
        q: Option<f64>,
    },
    /// Later, s.
    Delay(f64),
    /// The other polarity.
    Invert,
    /// Louder or softer at every frequency, dB.
    Gain(f64),
    /// As measured.
    Measured(Traced),
}

/// Why a filter is none.
#[derive(Debug, Clone, Copy, PartialEq, thiserror::Error)]
pub enum FilterError {
    /// An order out of range.
    #[error("order {0} is outside 1 to 8")]
    Order(u32),
    /// Linkwitz-Riley filters are squares.
    #[error("a Linkwitz-Riley filter has an even order, not {0}")]
    Odd(u32),
    /// A shelf slope out of range.
    #[error("shelf slope {0} is not above 0 and at most 1")]
    Slope(f64),
    /// A frequency, Q or width that is not above zero.
    #[error("{0} is not above zero")]
    NotPositive(f64),
}

/// As many orders as there are.
pub const ORDERS: std::ops::RangeInclusive<u32> = 1..=8;

impl Filter {
    /// As what multiplies the amplifier's voltage.
    ///
    /// # Errors
    /// See [`FilterError`].
    pub fn chain(&self) -> Result<Chain, FilterError> {
        let sections = |sections| Ok(Chain { sections, ..Chain::default() });
        match self {
            Self::Pass { pass, alignment, order, frequency } => {
                sections(passes(*pass, *alignment, *order, positive(*frequency)?)?)
            }
            Self::Shelf { side, frequency, gain, slope } => {
                sections(vec![equaliser::shelf(*side, positive(*frequency)?, *gain, *slope)?])
            }
            Self::Parametric { frequency, gain, width } => {
                let q = match *width {
                    Width::Q(q) => positive(q)?,
                    Width::Octaves(octaves) => (2.0 * (positive(octaves)? * LN_2 / 2.0).sinh()).recip(),
                };
                sections(vec![equaliser::parametric(positive(*frequency)?, *gain, q)])
            }
            Self::LinkwitzTransform { own, wanted } => {
                for value in own.iter().chain(wanted) {
                    positive(*value)?;
                }
                sections(vec![equaliser::linkwitz_transform(*own, *wanted)])
            }
            Self::AllPass { frequency, q } => {
                q.map(positive).transpose()?;
                sections(vec![equaliser::all_pass(positive(*frequency)?, *q)])
            }
            Self::Delay(delay) => Ok(Chain { delay: *delay, ..Chain::default() }),
            Self::Invert => Ok(Chain { gain: -1.0, ..Chain::default() }),
            Self::Gain(gain) => Ok(Chain { gain: ratio(*gain), ..Chain::default() }),
            Self::Measured(traced) => Ok(Chain { traced: vec![traced.clone()], ..Chain::default() }),
        }
    }
}

fn passes(pass: Pass, alignment: Alignment, order: u32, frequency: f64) -> Result<Vec<Section>, FilterError> {
    if !ORDERS.contains(&order) {
        return Err(FilterError::Order(order));
    }
    let low = match alignment {
        Alignment::Butterworth => butterworth::low_pass(order, frequency),
        Alignment::LinkwitzRiley if order % 2 == 1 => return Err(FilterError::Odd(order)),
        Alignment::LinkwitzRiley => {
            let half = butterworth::low_pass(order / 2, frequency);
            [half.clone(), half].concat()
        }
        Alignment::Bessel => bessel::low_pass(order, frequency, bessel::Norm::Magnitude),
        Alignment::BesselPhase => bessel::low_pass(order, frequency, bessel::Norm::Phase),
    };
    Ok(match pass {
        Pass::Low => low,
        Pass::High => low.into_iter().map(Section::mirrored).collect(),
    })
}

fn positive(value: f64) -> Result<f64, FilterError> {
    if value > 0.0 && value.is_finite() { Ok(value) } else { Err(FilterError::NotPositive(value)) }
}

/// Factor of a gain in dB.
pub(crate) fn ratio(decibels: f64) -> f64 {
    10f64.powf(decibels / 20.0)
}

/// `1/(1 + s/w)` and `1/(1 + s/(w Q) + s^2/w^2)` at a frequency (Hz) over that which `s` is normalised to.
fn first_order(frequency: f64, slope: f64) -> Section {
    Section { frequency, numerator: [1.0, 0.0, 0.0], denominator: [1.0, slope, 0.0] }
}

fn second_order(frequency: f64, slope: f64, curve: f64) -> Section {
    Section { frequency, numerator: [1.0, 0.0, 0.0], denominator: [1.0, slope, curve] }
}

/// Q of the flattest second order.
pub const FLATTEST: f64 = FRAC_1_SQRT_2;
