//! What is done with a trace before it is looked at: smoothed, put into bands, laid on another, joined from several near fields.

mod bands;
mod combine;
mod near_field;
mod smooth;

pub use bands::{Band, bands};
pub use combine::{average, difference, matched, minimum_phase};
pub use near_field::{Opening, highest, joined, over};
pub use smooth::smooth;

/// Value of a trace at a frequency (Hz): straight between its points over the logarithm of frequency; `None` beyond its ends.
pub fn value_at(points: &[[f64; 2]], frequency: f64) -> Option<f64> {
    let (first, last) = (points.first()?, points.last()?);
    if frequency < first[0] * (1.0 - 1e-9) || frequency > last[0] * (1.0 + 1e-9) {
        return None;
    }
    let after = points.partition_point(|[at, _]| *at <= frequency).clamp(1, points.len().max(2) - 1);
    let ([low, a], [high, b]) = (points[after - 1], *points.get(after)?);
    let part = ((frequency / low).ln() / (high / low).ln()).clamp(0.0, 1.0);
    Some(a + part * (b - a))
}
