//! How long ears stand it, and what neighbours hear.

/// Level that ears stand for a working day, dB(A) (NIOSH publication 98-126, 1998).
pub const RECOMMENDED: f64 = 85.0;
/// Level that halves the time, dB.
pub const EXCHANGE: f64 = 3.0;

/// Time that a level (dB(A)) may last: `480 min/2^((L - 85)/3)`, s.
pub fn allowed_time(level: f64) -> f64 {
    480.0 * 60.0 / ((level - RECOMMENDED) / EXCHANGE).exp2()
}

/// Dose of levels (dB(A)) that lasted some time (s), %: 100 is a full day's.
pub fn dose(stretches: &[[f64; 2]]) -> f64 {
    100.0 * stretches.iter().map(|[level, time]| time / allowed_time(*level)).sum::<f64>()
}

/// The level that gives a dose (%) in eight hours, dB(A): `10 lg(D/100) + 85`.
pub fn weighted_average(dose: f64) -> f64 {
    10.0 * (dose / 100.0).log10() + RECOMMENDED
}

/// A-weighting at a frequency, dB (IEC 61672-1, annex E: its poles from 20.6, 107.7, 737.9 and 12,194 Hz, 0 dB at 1 kHz).
pub fn a_weighting(frequency: f64) -> f64 {
    let square = frequency * frequency;
    let (low, first, second, high) = (20.598_997f64, 107.652_65f64, 737.862_23f64, 12_194.217f64);
    let gain = |square: f64| {
        high.powi(2) * square * square
            / ((square + low.powi(2))
                * ((square + first.powi(2)) * (square + second.powi(2))).sqrt()
                * (square + high.powi(2)))
    };
    20.0 * (gain(square) / gain(1e6)).log10()
}

/// What a wall of some mass per area (kg/m2) takes off, never under nothing: `20 lg(m f) - 47` dB, the field-incidence mass law; a rough figure, wrong near
/// a panel's own resonance and for holes (from memory).
pub fn wall_reduction(mass: f64, frequency: f64) -> f64 {
    (20.0 * (mass * frequency).log10() - 47.0).max(0.0)
}
