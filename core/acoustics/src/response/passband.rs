//! Where the band of a bandpass or horn lies.

/// A band and the level that stands for it.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct LevelBand {
    /// Mean power of the band over the logarithm of frequency, as a level, dB.
    pub reference: f64,
    /// First position within 3 dB of it.
    pub from: usize,
    /// Last position within 3 dB of it.
    pub to: usize,
}

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

impl LevelBand {
    /// Finds the band in levels (dB) over evenly spaced octaves, `per_octave` points each: it begins as the lowest octave that stands out,
    /// and is then what lies within 3 dB of its own mean power, holes of less than a third of an octave included, until that no longer
    /// changes. Of bands that follow each other in a circle it is the narrowest.
    pub fn of(level: &[f64], per_octave: f64) -> Self {
        let (centre, half) = lowest_octave(level, per_octave);
        let hole = ((HOLE * per_octave) as usize).max(1);
        let mut seen = vec![(centre - half, centre + half)];
        // There are only so many bands, so one comes again.
        loop {
            let last = *seen.last().expect("begun with one");
            let next = around(level, last, mean(level, last) - 3.0, hole);
            if let Some(at) = seen.iter().position(|band| *band == next) {
                let (from, to) = *seen[at..].iter().min_by_key(|(from, to)| to - from).expect("at least one");
                return Self { reference: mean(level, (from, to)), from, to };
            }
            seen.push(next);
        }
    }
}

/// Mean power between two positions, as a level, dB.
fn mean(level: &[f64], (from, to): (usize, usize)) -> f64 {
    let powers = level[from..=to].iter().map(|level| 10f64.powf(level / 10.0));
    10.0 * (powers.sum::<f64>() / (to - from + 1) as f64).log10()
}

/// What lies above a threshold around the highest place of a band, without a hole of so many points.
fn around(level: &[f64], (from, to): (usize, usize), threshold: f64, hole: usize) -> (usize, usize) {
    let top = (from..=to).max_by(|a, b| level[*a].total_cmp(&level[*b])).unwrap_or(from);
    let reach = |places: &mut dyn Iterator<Item = usize>| {
        let (mut end, mut missing) = (top, 0);
        for k in places {
            if level[k] >= threshold {
                (end, missing) = (k, 0);
            } else {
                missing += 1;
            }
            if missing >= hole {
                break;
            }
        }
        end
    };
    (reach(&mut (0..top).rev()), reach(&mut (top + 1..level.len())))
}

/// Middle and half width of the lowest octave whose mean level stands out and is within 6 dB of the highest such mean, so that the
/// resonance of a pipe above it is not taken for the band.
fn lowest_octave(level: &[f64], per_octave: f64) -> (usize, usize) {
    let n = level.len();
    let half = ((0.5 * per_octave) as usize).clamp(1, n.saturating_sub(1).max(2) / 2);
    let width = (2 * half + 1) as f64;
    let means: Vec<f64> =
        level.windows(2 * half + 1).map(|octave| octave.iter().sum::<f64>() / width).collect();
    let mean = |centre: usize| means[centre - half];
    let (first, last) = (half, n - 1 - half);
    let highest = |range: std::ops::RangeInclusive<usize>| {
        range.max_by(|a, b| mean(*a).total_cmp(&mean(*b))).unwrap_or(first)
    };
    let loudest = mean(highest(first..=last));
    let stands_out = |centre: &usize| {
        let (left, right) = (centre.saturating_sub(half).max(first), (centre + half).min(last));
        mean(*centre) >= loudest - NEARLY && highest(left..=right) == *centre
    };
    ((first..=last).find(stands_out).unwrap_or(first), half)
}

impl Passband {
    /// Finds the band in levels (dB) over evenly spaced octaves, `per_octave` points each.
    ///
    /// It lies around the lowest octave that stands out.
    pub fn of(level: &[f64], per_octave: f64) -> Self {
        let n = level.len();
        let (centre, half) = lowest_octave(level, per_octave);
        let top =
            (centre - half..=centre + half).max_by(|a, b| level[*a].total_cmp(&level[*b])).unwrap_or(centre);
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
        assert_eq!(Passband::of(&level(9), 20.0).to, 59);
        assert_eq!(LevelBand::of(&level(4), 20.0).to, 139);
        assert_eq!(LevelBand::of(&level(9), 20.0).to, 59);
    }

    #[test]
    fn the_level_of_a_band_is_its_mean_power_and_the_band_what_lies_within_3_db_of_it() {
        let (band, pipe) = (peak(2.0, 0.7, 90.0), peak(5.0, 0.03, 99.0));
        let level: Vec<f64> = (0..140).map(|k| band(k).max(pipe(k))).collect();
        let LevelBand { reference, from, to } = LevelBand::of(&level, 20.0);
        let powers: Vec<f64> = level[from..=to].iter().map(|level| 10f64.powf(level / 10.0)).collect();
        let mean = 10.0 * (powers.iter().sum::<f64>() / powers.len() as f64).log10();
        assert!((reference - mean).abs() < 1e-9 && (87.5..90.0).contains(&reference), "{reference}");
        assert!(level[from] >= reference - 3.0 && level[from - 1] < reference - 3.0);
        assert!(level[to] >= reference - 3.0 && level[to + 1] < reference - 3.0);
        assert!(to < 60, "the pipe is not part of it");
    }

    #[test]
    fn a_shoulder_near_the_threshold_leaves_a_band_that_no_longer_changes() {
        for shoulder in [86.9, 86.95, 87.0, 87.05, 87.1] {
            let level: Vec<f64> = (0..160)
                .map(|k| match k {
                    40..=70 => 90.0,
                    71..=110 => shoulder,
                    _ => 60.0,
                })
                .collect();
            let found = LevelBand::of(&level, 20.0);
            let again = around(&level, (found.from, found.to), found.reference - 3.0, 6);
            assert_eq!(again, (found.from, found.to));
        }
    }
}
