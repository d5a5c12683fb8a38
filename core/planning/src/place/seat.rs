//! Each seat: how loud, how even, and which dips no equaliser fills.

use oak_design::heard::Heard;
use serde::Serialize;
use utoipa::ToSchema;

use super::scene::{Scene, power_mean};

/// What one seat hears.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct SeatReport {
    /// What it is called.
    pub name: String,
    /// The ears, m.
    pub at: [f64; 3],
    /// Mean of the power over the band of the brief at this drive, dB.
    pub level: Option<f64>,
    /// Standard deviation of the level over that band, dB.
    pub spread: Option<f64>,
    /// Whether it is nearer to a cabinet than a sum over modes can say: 0.3 m.
    pub near: bool,
    /// The deepest dip that no equaliser fills, in words.
    pub dip: Option<String>,
}

/// How far under its surroundings a dip counts, dB.
const DEEP: f64 = 10.0;
/// Half of the octaves that its surroundings are.
const AROUND: f64 = 0.5;

pub(super) fn reports(scene: &Scene<'_>) -> Vec<SeatReport> {
    let levels = scene.heard.as_ref().map(Heard::levels);
    let report = |(index, seat): (usize, &oak_design::resolve::Seat)| {
        let heard = scene.heard.as_ref().zip(levels.as_ref());
        let inside = heard.map(|(heard, levels)| {
            let band = scene.band();
            let all = heard.frequency.iter().copied().zip(levels[index].iter().copied());
            all.filter(|(frequency, _)| band.contains(frequency)).collect::<Vec<_>>()
        });
        SeatReport {
            name: seat.name.clone(),
            at: seat.at,
            level: inside.as_deref().map(|inside| power_mean(inside.iter().map(|(_, level)| *level))),
            spread: inside.as_deref().and_then(spread),
            near: heard.is_some_and(|(heard, _)| heard.near[index]),
            dip: inside.as_deref().and_then(dip),
        }
    };
    scene.place.seats.iter().enumerate().map(report).collect()
}

fn spread(levels: &[(f64, f64)]) -> Option<f64> {
    let count = levels.len() as f64;
    let mean = levels.iter().map(|(_, level)| level).sum::<f64>() / count;
    let square = levels.iter().map(|(_, level)| (level - mean).powi(2)).sum::<f64>() / count;
    (count > 0.0).then(|| square.sqrt())
}

/// The deepest local dip against the mean of an octave around it.
fn dip(levels: &[(f64, f64)]) -> Option<String> {
    let (depth, frequency) = (1..levels.len().checked_sub(1)?)
        .filter(|k| levels[*k].1 <= levels[k - 1].1 && levels[*k].1 <= levels[k + 1].1)
        .map(|k| {
            let (frequency, level) = levels[k];
            let near = levels.iter().filter(|(other, _)| (other / frequency).log2().abs() <= AROUND);
            (power_mean(near.map(|(_, level)| *level)) - level, frequency)
        })
        .max_by(|a, b| a.0.total_cmp(&b.0))
        .filter(|(depth, _)| *depth >= DEEP)?;
    Some(format!(
        "{depth:.0} dB down at {frequency:.0} Hz, where sound cancels: filling it by equaliser takes {:.0} times the power there, moves the cone {:.1} times as far, and the seats that \
         have no dip get all of it. Move the cabinet or the seat instead.",
        10f64.powf(depth / 10.0),
        10f64.powf(depth / 20.0),
    ))
}

/// Mean over the band of the difference between the loudest and the softest seat, dB; `None` for fewer than two.
pub(super) fn between(scene: &Scene<'_>) -> Option<f64> {
    let heard = scene.heard.as_ref().filter(|heard| heard.seats.len() > 1)?;
    let (levels, band) = (heard.levels(), scene.band());
    let inside: Vec<usize> =
        (0..heard.frequency.len()).filter(|k| band.contains(&heard.frequency[*k])).collect();
    let span = |k: &usize| {
        let all = levels.iter().map(|seat| seat[*k]);
        all.clone().fold(f64::MIN, f64::max) - all.fold(f64::MAX, f64::min)
    };
    (!inside.is_empty()).then(|| inside.iter().map(span).sum::<f64>() / inside.len() as f64)
}
