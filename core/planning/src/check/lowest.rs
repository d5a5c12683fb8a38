//! The lowest note is heard in full.

use super::{Check, Verdict};
use crate::Case;
use crate::case::upper_end;

/// Where other loudspeakers take over if a brief leaves it open, Hz (common practice).
const CROSSOVER: f64 = 80.0;
/// The level may end below where others take over by this share: they overlap (common practice).
const OVERLAP: f64 = 0.9;

/// What a rounding of shown figures may hide, dB.
const HIDDEN: f64 = 0.05;

/// How the level goes on above F3, within the band that is asked for.
#[derive(Debug, Clone, Copy, PartialEq)]
pub enum Above {
    /// Within 3 dB all the way.
    Held,
    /// It falls further, by so many dB below its passband level at a frequency (Hz), and comes back.
    Sags(f64, f64),
    /// It ends at a frequency, Hz.
    Ends(f64),
}

/// Reads on from a lowest note (Hz) how the levels (dB) at the frequencies of a band (Hz) stand to their reference (dB).
pub fn above(frequency: &[f64], level: &[f64], reference: f64, f3: f64) -> Above {
    let first = frequency.partition_point(|f| *f < f3);
    let within = |k: usize| level[k] >= reference - 3.0 - HIDDEN;
    let Some(last) = (first..level.len()).rev().find(|k| within(*k)) else { return Above::Held };
    let least = (first..=last).min_by(|a, b| level[*a].total_cmp(&level[*b])).unwrap_or(first);
    if !within(least) {
        Above::Sags(reference - level[least], frequency[least])
    } else if last + 1 < level.len() {
        Above::Ends(frequency[last])
    } else {
        Above::Held
    }
}

pub(super) fn judge(case: &Case<'_>) -> Option<Check> {
    let asked = case.brief.lowest?;
    let figures = &case.computed.figures;
    let reached = figures.f3;
    // A grid point is not a promise: a tenth of a percent is within what any box is built to.
    let met = reached.is_some_and(|f3| f3 <= asked * 1.001);
    let level: Vec<f64> = case.computed.response.level().collect();
    let above = reached.map_or(Above::Held, |f3| {
        above(&case.computed.response.frequency, &level, figures.reference_level, f3)
    });
    // A level that ends before the others begin leaves a hole, however low it reaches.
    let end = case.brief.crossover.unwrap_or(upper_end(case.brief, asked).min(CROSSOVER));
    let hole = match above {
        Above::Ends(at) if met && at < OVERLAP * end => Some(at / end),
        _ => None,
    };
    let words = match (reached, above) {
        (Some(_), Above::Sags(by, at)) if met => format!("sags {by:.1} dB at {at:.0} Hz"),
        (Some(_), Above::Ends(at)) if met => format!("only up to {at:.0} Hz"),
        _ if met => format!("asked: {asked:.1} Hz"),
        (Some(f3), _) => format!("{:.1} Hz too high", f3 - asked),
        (None, _) => "nowhere".to_owned(),
    };
    let six = figures.f6.map_or(String::new(), |f6| format!(" At {f6:.1} Hz it is 6 dB down."));
    let held = match above {
        Above::Held => "The level is within 3 dB of its passband level from there up.".to_owned(),
        Above::Sags(by, at) => format!(
            "The level is within 3 dB of its passband level there, but above it sags: at {at:.0} Hz it is {by:.1} dB below. A higher tuning \
             or a smaller box fills that."
        ),
        Above::Ends(at) => format!(
            "The level is within 3 dB of its passband level from there up to {at:.0} Hz, short of the {end:.0} Hz where the others take over. A larger front \
             chamber with a higher tuning, or another kind of cabinet, reaches farther up."
        ),
    };
    Some(Check {
        id: "lowest",
        name: "Lowest note, −3 dB",
        reached: reached.map_or("–".to_owned(), |f3| format!("{f3:.1} Hz")),
        words,
        verdict: Verdict::of(met && hole.is_none()),
        ratio: hole.unwrap_or(reached.map_or(0.0, |f3| asked / f3)),
        why: if met {
            format!("{held}{six}")
        } else {
            format!(
                "Below it the bass fades.{six} More volume with a lower tuning, a driver with more Vas or a lower Fs, or \
                 mass on the cone go lower; a room or car adds level below its lowest mode that is not counted here."
            )
        },
    })
}
