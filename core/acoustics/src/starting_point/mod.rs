//! Starting points: what builders would try first around a driver.
//!
//! One file a family, each with a static list of starting points. Every start is worked out with losses by the solver or by
//! a lossy alignment, and says in words where it comes from. Where there is no sensible start, that is said instead.

mod alignment;
mod baffle;
mod bandpass;
mod horn;
mod line;
pub mod port;
mod ported;
mod radiator;
mod sealed;
mod search;

pub use alignment::{Alignment, butterworth, chebyshev, flat, keele, quasi_butterworth};
pub use baffle::{INFINITE_BAFFLE, OPEN_BAFFLE};
pub use bandpass::{BANDPASS4, BANDPASS6_PARALLEL, BANDPASS6_SERIES};
pub use horn::{BACK_HORN, FRONT_HORN, SLOT_FLARE, TAPPED_HORN};
pub use line::{LINE, MASS_LOADED_LINE, tapered};
pub use ported::PORTED;
pub use radiator::{PASSIVE_RADIATOR, opposed};
pub use sealed::{APERIODIC, SEALED};

use crate::driver::Driver;
use crate::enclosure::{Enclosure, Setting};

/// What a builder wishes for.
#[derive(Debug, Clone, Copy, PartialEq, Default)]
pub struct Wishes {
    /// Most air in all chambers and ways together, m3.
    pub volume: Option<f64>,
    /// Lowest note, Hz.
    pub lowest: Option<f64>,
}

/// Boxes that a data sheet recommends for one driver.
#[derive(Debug, Clone, Copy, PartialEq, Default)]
pub struct Recommended {
    /// Net volume of a closed one, m3.
    pub sealed: Option<f64>,
    /// Net volume (m3) and tuning (Hz) of a ported one.
    pub ported: Option<[f64; 2]>,
}

/// The starting point that takes what the data sheet recommends.
pub const MAKER: &str = "maker";

/// What a starting point is asked.
#[derive(Debug, Clone)]
pub struct Ask {
    /// The drivers and what is around them.
    pub setting: Setting,
    /// All drivers together as one.
    pub driver: Driver,
    /// What is wished for.
    pub wishes: Wishes,
    /// What the sheet recommends.
    pub recommended: Recommended,
    /// Across the frame of one driver, and how deep it is, m.
    pub size: [f64; 2],
}

/// Frame and depth of usual woofers over their cone's diameter (common practice).
const USUAL_SIZE: [f64; 2] = [1.23, 0.52];

/// One way to begin.
#[derive(Debug, Clone, Copy)]
pub struct StartingPoint {
    /// As written on the command line.
    pub id: &'static str,
    /// As written for people.
    pub name: &'static str,
    /// Works out a start.
    pub start: fn(&Ask) -> Result<Start, Refusal>,
}

/// A cabinet to begin with.
#[derive(Debug, Clone, PartialEq)]
pub struct Start {
    /// The cabinet.
    pub enclosure: Enclosure,
    /// Where it comes from, in a sentence or two.
    pub reason: String,
}

/// Why there is no sensible start.
#[derive(Debug, Clone, PartialEq, thiserror::Error)]
#[error("{0}")]
pub struct Refusal(pub String);

impl Ask {
    /// A question about drivers in a setting.
    pub fn new(setting: Setting, wishes: Wishes) -> Self {
        let driver = setting.driver();
        let cone = (4.0 * setting.driver_array.driver.sd / std::f64::consts::PI).sqrt();
        let size = USUAL_SIZE.map(|share| share * cone);
        Self { setting, driver, wishes, recommended: Recommended::default(), size }
    }

    fn vas(&self) -> f64 {
        self.driver.vas(&self.setting.air)
    }

    /// The lowest note wished for, or another frequency (Hz).
    fn lowest_or(&self, other: f64) -> f64 {
        self.wishes.lowest.unwrap_or(other)
    }

    /// A volume (m3), no more than wished for, and how to say so where it was cut.
    fn within(&self, volume: f64) -> (f64, &'static str) {
        match self.wishes.volume {
            Some(most) if volume > most => {
                (most, " Cut to the size that was wished for, which raises its lower end.")
            }
            _ => (volume, ""),
        }
    }

    /// Least room that the driver goes into, m3: a fifth wider than its frame, as long as that, and 30 mm deeper than the driver, with an
    /// eighth for what it takes itself (common practice).
    fn holding(&self) -> f64 {
        let [frame, depth] = self.size;
        1.125 * 1.2 * frame * frame * (depth + 0.03)
    }
}

fn refuse<T>(reason: String) -> Result<T, Refusal> {
    Err(Refusal(reason))
}

/// Litres, for reasons.
fn litres(volume: f64) -> String {
    if volume < 0.01 { format!("{:.2} l", volume * 1e3) } else { format!("{:.1} l", volume * 1e3) }
}
