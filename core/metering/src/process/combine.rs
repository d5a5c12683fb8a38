//! Several traces, and the phase that belongs to a level.

use rustfft::FftPlanner;

use super::value_at;
use crate::Complex;

/// What is added to a level (Hz, dB) so that its mean over a band is that of another, dB; `None` where they have no point of the band in common.
pub fn matched(points: &[[f64; 2]], other: &[[f64; 2]], band: [f64; 2]) -> Option<f64> {
    let off: Vec<f64> = points
        .iter()
        .filter(|[frequency, _]| (band[0]..=band[1]).contains(frequency))
        .filter_map(|[frequency, level]| Some(value_at(other, *frequency)? - level))
        .collect();
    (!off.is_empty()).then(|| off.iter().sum::<f64>() / off.len() as f64)
}

/// The mean power of several levels (Hz, dB), over the frequencies of the first where all have something.
pub fn average(several: &[&[[f64; 2]]]) -> Vec<[f64; 2]> {
    let Some((first, others)) = several.split_first() else { return Vec::new() };
    let at = |[frequency, level]: &[f64; 2]| {
        let mut sum = 10f64.powf(level / 10.0);
        for other in others {
            sum += 10f64.powf(value_at(other, *frequency)? / 10.0);
        }
        Some([*frequency, 10.0 * (sum / several.len() as f64).log10()])
    };
    first.iter().filter_map(at).collect()
}

/// By how much a level lies over another, dB, over the frequencies of the first where both have something.
pub fn difference(points: &[[f64; 2]], other: &[[f64; 2]]) -> Vec<[f64; 2]> {
    let at = |[frequency, level]: &[f64; 2]| Some([*frequency, level - value_at(other, *frequency)?]);
    points.iter().filter_map(at).collect()
}

/// Points of the spectrum that a phase is found from, and how far below and above a trace it is carried on by its last slopes, octaves.
const POINTS: usize = 1 << 15;
const BEYOND: f64 = 10.0;
/// Of a trace, what tells its slope at either end, octaves.
const SLOPE: f64 = 0.5;

/// The phase (degrees) of the system of least phase with a level (Hz, dB): the Hilbert transform of its logarithm, through the cepstrum (Oppenheim and Schafer, Discrete-Time Signal Processing, 12.1). Beyond its ends the level goes on with the slope it has there.
pub fn minimum_phase(points: &[[f64; 2]]) -> Vec<f64> {
    let (Some(first), Some(last)) = (points.first(), points.last()) else { return Vec::new() };
    let slope = |at: f64, from: f64| {
        let [a, b] = [value_at(points, at), value_at(points, from)];
        a.zip(b).map_or(0.0, |(a, b)| (a - b) / (at / from).log2())
    };
    let low = slope(first[0], first[0] * 2f64.powf(SLOPE));
    let high = slope(last[0], last[0] / 2f64.powf(SLOPE));
    let level = |frequency: f64| {
        let held = frequency.clamp(first[0] / 2f64.powf(BEYOND), last[0] * 2f64.powf(BEYOND));
        if held < first[0] {
            first[1] + low * (held / first[0]).log2()
        } else if held > last[0] {
            last[1] + high * (held / last[0]).log2()
        } else {
            value_at(points, held).unwrap_or(0.0)
        }
    };
    // A bilinear axis: it reaches from nothing to infinity, and its middle lies in the trace's.
    let middle = (first[0] * last[0]).sqrt();
    let warped = |frequency: f64| 2.0 * (frequency / middle).atan();
    let mut values: Vec<Complex> = (0..POINTS)
        .map(|k| {
            let turned = std::f64::consts::TAU * k.min(POINTS - k) as f64 / POINTS as f64;
            let frequency = middle * (0.5 * turned).tan();
            Complex::from(level(frequency) / 20.0 * std::f64::consts::LN_10)
        })
        .collect();
    let mut planner = FftPlanner::new();
    planner.plan_fft_inverse(POINTS).process(&mut values);
    for (k, value) in values.iter_mut().enumerate() {
        *value *= match k {
            0 => 1.0,
            k if k == POINTS / 2 => 1.0,
            k if k < POINTS / 2 => 2.0,
            _ => 0.0,
        } / POINTS as f64;
    }
    planner.plan_fft_forward(POINTS).process(&mut values);
    let at = |frequency: f64| {
        let place = warped(frequency) / std::f64::consts::TAU * POINTS as f64;
        let (below, part) = (place.floor() as usize, place.fract());
        let [a, b] = [values[below % POINTS].im, values[(below + 1) % POINTS].im];
        (a + part * (b - a)).to_degrees()
    };
    points.iter().map(|[frequency, _]| at(*frequency)).collect()
}
