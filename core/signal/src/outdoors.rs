//! Cabinets in the open, on the ground.

use std::f64::consts::TAU;

use oak_acoustics::Complex;

/// Level at a distance (m) over that at 1 m, dB: 6 dB less for each doubling.
pub fn distance_loss(distance: f64) -> f64 {
    -20.0 * distance.log10()
}

/// A cabinet on the ground.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Cabinet {
    /// Where it stands, m.
    pub place: [f64; 2],
    /// Factor; negative where its polarity is reversed.
    pub gain: f64,
    /// How much later it plays, s.
    pub delay: f64,
}

/// Pressure of cabinets at a place (m) over that of one at 1 m: `sum of g/r exp(-j w (tau + r/c))`; nearer than 0.5 m counts as that.
pub fn sum(cabinets: &[Cabinet], place: [f64; 2], frequency: f64, speed: f64) -> Complex {
    let omega = TAU * frequency;
    let part = |cabinet: &Cabinet| {
        let [x, y] = [0, 1].map(|axis| place[axis] - cabinet.place[axis]);
        let distance = x.hypot(y).max(NEAREST);
        Complex::from_polar(cabinet.gain / distance, -omega * (cabinet.delay + distance / speed))
    };
    cabinets.iter().map(part).sum()
}

/// Nearer than this a cabinet is no point any more, m.
const NEAREST: f64 = 0.5;

/// Levels over a field against 1 m, dB, `[rows][columns]` from `low` to `high` (m).
pub fn level_map(
    cabinets: &[Cabinet],
    [low, high]: [[f64; 2]; 2],
    [columns, rows]: [usize; 2],
    frequency: f64,
    speed: f64,
) -> Vec<Vec<f64>> {
    let along = |axis: usize, count: usize, k: usize| {
        low[axis] + (high[axis] - low[axis]) * k as f64 / (count.max(2) - 1) as f64
    };
    let at = |row: usize, column: usize| {
        let heard = sum(cabinets, [along(0, columns, column), along(1, rows, row)], frequency, speed);
        10.0 * heard.norm_sqr().max(1e-20).log10()
    };
    (0..rows).map(|row| (0..columns).map(|column| at(row, column)).collect()).collect()
}

/// A pair that plays to the front only: the second stands a quarter of the wave behind and plays a quarter of the period later, reversed (a gradient pair,
/// Olson 1946, J. Acoust. Soc. Am. 17, 192; from memory).
pub fn steered_pair(frequency: f64, speed: f64) -> [Cabinet; 2] {
    let apart = speed / frequency / 4.0;
    [
        Cabinet { place: [0.0, 0.0], gain: 1.0, delay: 0.0 },
        Cabinet { place: [0.0, -apart], gain: -1.0, delay: apart / speed },
    ]
}
