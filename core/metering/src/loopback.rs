//! A low-pass hidden in the electrical chain.

use oak_design::Problem;
use serde::Serialize;
use utoipa::ToSchema;

use crate::fit::fit;
use crate::trace::{read_text, wrong};

/// A low-pass as it was found.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, ToSchema)]
pub struct Lowpass {
    /// Where it is 3 dB down, or 6 dB of Linkwitz and Riley's.
    pub corner_hz: f64,
    /// Its order.
    pub order: u32,
    /// Its kind.
    pub kind: LowpassKind,
}

/// A kind of low-pass.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum LowpassKind {
    /// Butterworth.
    Butterworth,
    /// Linkwitz and Riley: a Butterworth of half the order, twice.
    Lr,
}

/// What is looked for; Linkwitz and Riley's exist in even orders alone.
const ORDERS: [(LowpassKind, u32); 10] = [
    (LowpassKind::Butterworth, 1),
    (LowpassKind::Butterworth, 2),
    (LowpassKind::Butterworth, 3),
    (LowpassKind::Butterworth, 4),
    (LowpassKind::Butterworth, 6),
    (LowpassKind::Butterworth, 8),
    (LowpassKind::Lr, 2),
    (LowpassKind::Lr, 4),
    (LowpassKind::Lr, 6),
    (LowpassKind::Lr, 8),
];
/// Most points of a trace that are looked at, and what is left out at its bottom, where a sound card rolls off, Hz.
const POINTS: usize = 600;
const ROLLED_OFF: f64 = 8.0;
/// So far down at the end of a trace a filter is one, dB; and beyond so far down it is noise.
const DOWN: f64 = 3.0;
const NOISE: f64 = 50.0;
/// Where the sound card's own roll-off lies, Hz (common practice), and how far it may be off, as a logarithm.
const CARD: (f64, f64) = (2.5, 0.6);

impl Lowpass {
    /// Level at a frequency (Hz), dB.
    pub fn level(&self, frequency: f64) -> f64 {
        level(self.kind, self.order, frequency / self.corner_hz)
    }
}

fn level(kind: LowpassKind, order: u32, x: f64) -> f64 {
    let butterworth = |order: u32| -10.0 * x.powi(2 * order as i32).ln_1p() / std::f64::consts::LN_10;
    match kind {
        LowpassKind::Butterworth => butterworth(order),
        LowpassKind::Lr => 2.0 * butterworth(order / 2),
    }
}

/// Reads the level of an electrical chain: frequency (Hz) and dB, rising.
///
/// # Errors
/// It is no trace of a level.
pub fn read(file: &str, bytes: &[u8]) -> Result<Vec<[f64; 2]>, Problem> {
    let reading = read_text(file, bytes)?;
    let levels = reading.levels(POINTS);
    let levels = levels.ok_or_else(|| wrong(file, "it is an impedance, and a level is wanted".to_owned()))?;
    Ok(levels.into_iter().map(|[frequency, level, _]| [frequency, level]).collect())
}

/// The low-pass in a level, the kind and order that leave least; `None` where it does not fall by 3 dB up to its end.
pub fn lowpass(levels: &[[f64; 2]]) -> Option<Lowpass> {
    let top = levels.iter().map(|[_, level]| *level).fold(f64::NEG_INFINITY, f64::max);
    let heard: Vec<[f64; 2]> = levels
        .iter()
        .copied()
        .filter(|[frequency, level]| *frequency >= ROLLED_OFF && *level > top - NOISE)
        .collect();
    let [end, _] = *heard.last()?;
    let half = heard.iter().find(|[frequency, level]| *frequency > 2.0 * ROLLED_OFF && *level < top - DOWN);
    let first = half.map_or(end, |[frequency, _]| *frequency);
    let tries = ORDERS.into_iter().filter_map(|(kind, order)| {
        let residuals = |values: &[f64]| {
            let [gain, corner, card] = [values[0], values[1].exp(), values[2].exp()];
            let each = heard.iter().map(|[frequency, found]| {
                let rolled = -10.0 * (card / frequency).powi(2).ln_1p() / std::f64::consts::LN_10;
                gain + rolled + level(kind, order, frequency / corner) - found
            });
            let mut all: Vec<f64> = each.collect();
            all.push((values[2] - CARD.0.ln()) / CARD.1);
            all
        };
        let found = fit(&[top, first.ln(), CARD.0.ln()], heard.len(), &residuals)?;
        let off = residuals(&found.values);
        let left = off[..heard.len()].iter().map(|one| one * one).sum::<f64>();
        Some((left, Lowpass { corner_hz: found.values[1].exp(), order, kind }))
    });
    let (_, best) = tries.min_by(|a, b| a.0.total_cmp(&b.0))?;
    (best.level(end) < -DOWN).then_some(best)
}
