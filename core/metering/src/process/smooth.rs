//! Smoothing over a part of an octave.

/// Levels (Hz, dB) smoothed over `1/part` of an octave: at each point the mean of the power from half of that below to half of that above, each octave weighing the same.
///
/// The window is rectangular over the logarithm of frequency, as the bands of IEC 61260 are.
pub fn smooth(points: &[[f64; 2]], part: u32) -> Vec<[f64; 2]> {
    let reach = 2f64.powf(0.5 / f64::from(part.max(1)));
    let power: Vec<f64> = points.iter().map(|[_, level]| 10f64.powf(level / 10.0)).collect();
    let at: Vec<f64> = points.iter().map(|[frequency, _]| frequency.ln()).collect();
    // The integral up to each point, straight between them.
    let mut up_to = vec![0.0; points.len()];
    for k in 1..points.len() {
        up_to[k] = up_to[k - 1] + 0.5 * (power[k] + power[k - 1]) * (at[k] - at[k - 1]);
    }
    let integral = |x: f64| {
        let after = at.partition_point(|one| *one <= x).clamp(1, at.len() - 1);
        let (low, high) = (at[after - 1], at[after]);
        let part = ((x - low) / (high - low)).clamp(0.0, 1.0);
        let here = power[after - 1] + part * (power[after] - power[after - 1]);
        up_to[after - 1] + 0.5 * (power[after - 1] + here) * part * (high - low)
    };
    if points.len() < 2 {
        return points.to_vec();
    }
    let (first, last) = (at[0], at[at.len() - 1]);
    let each = points.iter().map(|[frequency, level]| {
        // As far to either side as there is something on both.
        let middle = frequency.ln();
        let half = reach.ln().min(middle - first).min(last - middle);
        if half <= 0.0 {
            return [*frequency, *level];
        }
        let mean = (integral(middle + half) - integral(middle - half)) / (2.0 * half);
        [*frequency, 10.0 * mean.log10()]
    });
    each.collect()
}
