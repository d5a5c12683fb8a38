//! Bands of a part of an octave.

use super::value_at;

/// A band.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Band {
    /// Its middle, Hz, exact: 1000 G^(x/b), of even b 1000 G^((2x+1)/(2b)) with G = 10^(3/10).
    pub middle: f64,
    /// From and to, Hz.
    pub edges: [f64; 2],
    /// Its level, dB.
    pub level: f64,
}

/// Ratio of an octave (IEC 61260-1:2014, 5.2: base ten).
const OCTAVE: f64 = 1.995_262_314_968_879_5;
/// Points of a band that are summed up.
const INSIDE: u32 = 48;

/// The levels of a trace (Hz, dB) in bands of `1/part` of an octave that lie wholly within it: the mean of the power over the logarithm of frequency, as pink noise through the trace would read, 0 dB being what stands alone at 0 dB.
///
/// Middles and edges are those of IEC 61260-1:2014, 5.4 and 5.5.
pub fn bands(points: &[[f64; 2]], part: u32) -> Vec<Band> {
    let (Some([first, _]), Some([last, _])) = (points.first(), points.last()) else { return Vec::new() };
    let b = f64::from(part.max(1));
    let half = if part.is_multiple_of(2) { 0.5 } else { 0.0 };
    let step = OCTAVE.powf(1.0 / b);
    let number = |frequency: f64| (frequency / 1000.0).ln() / step.ln() - half;
    let (low, high) = (number(*first).floor() as i32, number(*last).ceil() as i32);
    let band = |x: i32| {
        let middle = 1000.0 * step.powf(f64::from(x) + half);
        let edges = [middle / step.sqrt(), middle * step.sqrt()];
        let power = (0..INSIDE).map(|k| {
            let at = edges[0] * step.powf((f64::from(k) + 0.5) / f64::from(INSIDE));
            value_at(points, at).map(|level| 10f64.powf(level / 10.0))
        });
        let sum: Option<f64> = power.sum();
        // The whole band has to be there.
        let whole = edges[0] >= first * (1.0 - 1e-6) && edges[1] <= last * (1.0 + 1e-6);
        Some(Band { middle, edges, level: 10.0 * (sum? / f64::from(INSIDE)).log10() }).filter(|_| whole)
    };
    (low..=high).filter_map(band).collect()
}
