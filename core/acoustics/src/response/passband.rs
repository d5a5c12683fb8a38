//! Where the band of a bandpass or horn lies.

/// A band and its highest level.
#[derive(Debug, Clone, Copy, PartialEq)]
pub(crate) struct Passband {
    /// Position of the highest level.
    pub top: usize,
    /// First position within 3 dB of it.
    pub from: usize,
    /// Last position before the level stays more than 3 dB below it.
    pub to: usize,
}

/// How long a level must stay down to be out of the band, octaves: a narrower hole is ripple.
const HOLE: f64 = 1.0 / 3.0;
/// How far below the loudest octave the band's own may be, dB.
const NEARLY: f64 = 6.0;

impl Passband {
    /// Finds the band in levels (dB) over evenly spaced octaves, `per_octave` points each.
    ///
    /// It lies around the lowest octave whose mean level stands out and is within 6 dB of the highest such mean, so that
    /// the resonance of a pipe above it is not taken for the band.
    pub fn of(level: &[f64], per_octave: f64) -> Self {
        let n = level.len();
        let half = ((0.5 * per_octave) as usize).clamp(1, n.saturating_sub(1).max(2) / 2);
        let width = (2 * half + 1) as f64;
        let means: Vec<f64> =
            level.windows(2 * half + 1).map(|octave| octave.iter().sum::<f64>() / width).collect();
        let mean = |centre: usize| means[centre - half];
        let highest = |range: std::ops::RangeInclusive<usize>, value: &dyn Fn(usize) -> f64| {
            range.max_by(|a, b| value(*a).total_cmp(&value(*b))).unwrap_or(0)
        };
        let (first, last) = (half, n - 1 - half);
        let loudest = mean(highest(first..=last, &mean));
        let stands_out = |centre: &usize| {
            let (left, right) = (centre.saturating_sub(half).max(first), (centre + half).min(last));
            mean(*centre) >= loudest - NEARLY && highest(left..=right, &mean) == *centre
        };
        let centre = (first..=last).find(stands_out).unwrap_or(first);
        let top = highest(centre - half..=centre + half, &|k| level[k]);
        let within = |k: usize| level[k] >= level[top] - 3.0;
        let from = (0..=top).find(|&k| within(k)).unwrap_or(top);
        let hole = ((HOLE * per_octave) as usize).max(1);
        let gone = |k: usize| (k..(k + hole).min(n)).all(|at| !within(at));
        let to = (top..n).find(|&k| gone(k)).map_or(n - 1, |k| k.saturating_sub(1));
        Self { top, from, to }
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    fn peak(at: f64, width: f64, height: f64) -> impl Fn(usize) -> f64 {
        move |k| height - 3.0 * ((k as f64 / 20.0 - at) / width).powi(2)
    }

    #[test]
    fn a_narrow_resonance_above_is_not_the_band() {
        let (band, pipe) = (peak(2.0, 0.7, 90.0), peak(5.0, 0.03, 99.0));
        let level: Vec<f64> = (0..140).map(|k| band(k).max(pipe(k))).collect();
        let found = Passband::of(&level, 20.0);
        assert_eq!((found.top, found.from, found.to), (40, 26, 54));
    }

    #[test]
    fn a_narrow_hole_is_ripple_and_a_wide_one_an_end() {
        let level = |hole: usize| {
            (0..140).map(|k| if (60..60 + hole).contains(&k) { 80.0 } else { 90.0 }).collect::<Vec<_>>()
        };
        assert_eq!(Passband::of(&level(4), 20.0).to, 139);
        let wide = Passband::of(&level(9), 20.0);
        assert!(wide.to == 59 || wide.to == 139, "{wide:?}");
    }
}
