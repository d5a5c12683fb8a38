//! The level neither booms nor sags between the lowest note that is reached and the crossover.

use super::{Check, Verdict};
use crate::Case;

/// How far above its passband level the response may rise, dB (common practice).
const PEAK: f64 = 3.0;
/// How far below it the response may fall, dB (common practice).
const SAG: f64 = 6.0;

/// How far levels (dB) leave what is even around a passband level, dB; negative where they do not.
pub(crate) fn unevenness(level: &[f64], passband: f64) -> f64 {
    let highest = level.iter().copied().fold(f64::MIN, f64::max);
    let lowest = level.iter().copied().fold(f64::MAX, f64::min);
    (highest - passband - PEAK).max(passband - lowest - SAG)
}

pub(super) fn judge(case: &Case<'_>) -> Option<Check> {
    let figures = &case.computed.figures;
    let frequency = &case.computed.response.frequency;
    let f3 = figures.f3?;
    let levels: Vec<(f64, f64)> = case
        .band
        .clone()
        .map(|k| frequency[k])
        .zip(case.computed.response.level().skip(case.band.start))
        .filter(|(frequency, _)| *frequency >= f3)
        .collect();
    let level: Vec<f64> = levels.iter().map(|(_, level)| *level).collect();
    let passband = figures.reference_level;
    if level.is_empty() || unevenness(&level, passband) <= 0.05 {
        return None;
    }
    let off = |level: f64| (level - passband - PEAK).max(passband - level - SAG);
    let (at, level) = levels.iter().copied().max_by(|a, b| off(a.1).total_cmp(&off(b.1)))?;
    let peak = level > passband;
    Some(Check {
        id: "even",
        name: "Evenness",
        reached: format!("{:+.1} dB", level - passband),
        words: format!("{} at {at:.0} Hz", if peak { "peak" } else { "sag" }),
        verdict: Verdict::Short,
        ratio: 10f64.powf(-off(level) / 20.0),
        why: if peak {
            format!(
                "At {at:.0} Hz the level stands {:.1} dB above its passband level; more than {PEAK:.0} dB is heard as one note that booms. A \
                 larger or less high-tuned cabinet, fill, or a driver with a lower Qts evens it out; an equaliser can cut it.",
                level - passband
            )
        } else {
            format!(
                "At {at:.0} Hz, within the band, the level lies {:.1} dB below its passband level. A higher tuning fills a sag above it; a \
                 bandpass must reach up to the crossover; a coil's inductance lowers the upper end.",
                passband - level
            )
        },
    })
}
