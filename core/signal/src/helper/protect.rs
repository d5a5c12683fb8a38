//! The gentlest high-pass that keeps the cone within its travel.

use std::f64::consts::TAU;

use crate::filter::{Alignment, Filter, Pass};

/// Range of corners that are looked at, Hz.
pub const LOWEST_CORNER: f64 = 1.0;
/// See [`LOWEST_CORNER`].
pub const HIGHEST_CORNER: f64 = 400.0;

/// What protects.
#[derive(Debug, Clone, Copy, PartialEq)]
pub enum Protection {
    /// The cone stays within its travel as it is.
    NotNeeded,
    /// A Butterworth high-pass with this corner, Hz: the lowest that does.
    HighPass(f64),
    /// Above the tuning the cone moves too far, which no high-pass helps; at this share of the power it fits.
    LessPower(f64),
}

/// The lowest corner of a Butterworth high-pass of an order at which the travel stays within Xmax (m) at every frequency.
///
/// `travel` is the peak travel (m) without it at rising frequencies (Hz), for a sine of the power that is asked about at each. `|H|` falls with the
/// corner everywhere, so that halving finds it. `vented` is the frequency (Hz) at which the cone of a vented box stands stillest: what it moves above that
/// no high-pass may take away.
pub fn protect(
    frequencies: &[f64],
    travel: &[f64],
    xmax: f64,
    order: u32,
    vented: Option<f64>,
) -> Protection {
    let Some(peak) = travel.iter().copied().reduce(f64::max) else { return Protection::NotNeeded };
    if peak <= xmax {
        return Protection::NotNeeded;
    }
    let above = vented.map(|vented| frequencies.partition_point(|frequency| *frequency < vented));
    let peak_above = above.and_then(|above| travel[above..].iter().copied().reduce(f64::max));
    if let Some(peak) = peak_above.filter(|peak| *peak > xmax) {
        return Protection::LessPower((xmax / peak).powi(2));
    }
    let within = |corner: f64| {
        let filter =
            Filter::Pass { pass: Pass::High, alignment: Alignment::Butterworth, order, frequency: corner };
        let Ok(chain) = filter.chain() else { return false };
        let mut both = frequencies.iter().zip(travel);
        both.all(|(frequency, travel)| chain.transfer(TAU * frequency).norm() * travel <= xmax)
    };
    if !within(HIGHEST_CORNER) {
        return Protection::LessPower((xmax / peak).powi(2));
    }
    let (mut low, mut high) = (LOWEST_CORNER.ln(), HIGHEST_CORNER.ln());
    for _ in 0..60 {
        let middle = 0.5 * (low + high);
        if within(middle.exp()) {
            high = middle;
        } else {
            low = middle;
        }
    }
    Protection::HighPass(high.exp())
}
