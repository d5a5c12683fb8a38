//! Step and tone burst of a design.

use oak_acoustics::response::{Burst, Excitation, Transient};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use crate::problem::Problem;
use crate::resolve::ResolvedDesign;

/// What is played.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Played {
    /// The voltage rises at once and stays.
    Step,
    /// Some cycles of a tone, swelling and fading.
    Burst,
}

/// Why nothing can be played.
#[derive(Debug, Clone, Copy, PartialEq, thiserror::Error)]
pub enum BurstError {
    /// A frequency outside of what is played.
    #[error("frequency {0} Hz is outside 5 to 500 Hz")]
    Frequency(f64),
    /// Too few cycles or more than fit.
    #[error("{0} cycles are outside 1 to {1:.0}, what fits into 0.4 s at this frequency")]
    Cycles(f64, f64),
}

/// What is heard over half a second.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct TransientReport {
    /// Upper end of the band that is let through, Hz.
    pub band_limit: f64,
    /// s.
    pub time: Vec<f32>,
    /// Drive, V.
    pub drive: Vec<f32>,
    /// Pressure at 1 m, Pa.
    pub pressure: Vec<f32>,
}

/// Checks what is to be played; `frequency` in Hz.
///
/// # Errors
/// See [`BurstError`].
pub fn excitation(played: Played, frequency: f64, cycles: f64) -> Result<Excitation, BurstError> {
    if played == Played::Step {
        return Ok(Excitation::Step);
    }
    if !(5.0..=500.0).contains(&frequency) {
        return Err(BurstError::Frequency(frequency));
    }
    let most = 0.4 * frequency;
    if !(1.0..=most.max(1.0)).contains(&cycles) {
        return Err(BurstError::Cycles(cycles, most.max(1.0)));
    }
    Ok(Excitation::Burst(Burst { frequency, cycles }))
}

impl TransientReport {
    /// Plays an excitation through a design.
    ///
    /// # Errors
    /// What only shows when ports and ways are worked out.
    pub fn of(design: &ResolvedDesign, excitation: Excitation) -> Result<Self, Problem> {
        let compiled = design.built()?.compiled;
        let Transient { time, drive, pressure } =
            Transient::of(&compiled.network, excitation, design.drive.volts);
        let single = |values: Vec<f64>| values.into_iter().map(|value| value as f32).collect();
        Ok(Self {
            band_limit: Transient::BAND_LIMIT,
            time: single(time),
            drive: single(drive),
            pressure: single(pressure),
        })
    }
}
