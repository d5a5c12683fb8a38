//! What the program proposes, put in again and computed.

use std::f64::consts::TAU;

use approx::assert_relative_eq;
use oak_signal::filter::{Alignment, Filter, Pass, Width};
use oak_signal::helper::{Protection, flatten, protect, transform};

fn grid() -> Vec<f64> {
    (0..2000).map(|k| 1000f64.powf(f64::from(k) / 1999.0)).collect()
}

/// Travel of a cone in a closed box: flat below its corner.
fn closed(corner: f64, q: f64, largest: f64) -> Vec<f64> {
    grid()
        .iter()
        .map(|f| {
            let x = f / corner;
            largest / ((1.0 - x * x).powi(2) + (x / q).powi(2)).sqrt()
        })
        .collect()
}

/// Travel of a cone in a vented box: free below its tuning, still at it, a hump above.
fn vented(tuning: f64, below: f64, hump: f64) -> Vec<f64> {
    grid()
        .iter()
        .map(|f| {
            let x = f / tuning;
            if x < 1.0 {
                below * (1.0 - x * x)
            } else {
                4.0 * hump * (x - 1.0) * (-2.0 * (x - 1.0) * 0.73).exp()
            }
        })
        .collect()
}

#[test]
fn the_protective_corner_is_the_lowest_that_does() {
    let grid = grid();
    for order in [2, 4] {
        let travel = closed(40.0, 0.7, 14e-3);
        let Protection::HighPass(corner) = protect(&grid, &travel, 10e-3, order, None) else {
            panic!("a high-pass")
        };
        let largest = |corner: f64| {
            let filter = Filter::Pass {
                pass: Pass::High,
                alignment: Alignment::Butterworth,
                order,
                frequency: corner,
            };
            let chain = filter.chain().expect("a filter");
            grid.iter().zip(&travel).map(|(f, x)| chain.transfer(TAU * f).norm() * x).fold(0.0, f64::max)
        };
        assert_relative_eq!(largest(corner), 10e-3, max_relative = 1e-3);
        assert!(largest(corner * 0.999) > 10e-3);
    }
    assert_eq!(protect(&grid, &closed(40.0, 0.7, 8e-3), 10e-3, 2, None), Protection::NotNeeded);
}

#[test]
fn above_the_tuning_no_high_pass_helps() {
    let grid = grid();
    let too_far_below = vented(30.0, 20e-3, 6e-3);
    assert!(
        matches!(protect(&grid, &too_far_below, 10e-3, 4, Some(30.0)), Protection::HighPass(corner) if corner > 10.0 && corner < 45.0)
    );
    let too_far_above = vented(30.0, 20e-3, 12e-3);
    let hump =
        grid.iter().zip(&too_far_above).filter(|(f, _)| **f > 30.0).map(|(_, x)| *x).fold(0.0, f64::max);
    let Protection::LessPower(share) = protect(&grid, &too_far_above, 10e-3, 4, Some(30.0)) else {
        panic!("less power")
    };
    assert_relative_eq!(share, (10e-3 / hump).powi(2), max_relative = 1e-9);
}

#[test]
fn a_peak_made_by_a_band_is_taken_down_by_its_opposite() {
    let grid: Vec<f64> = (0..300).map(|k| 20.0 * 10f64.powf(f64::from(k) / 299.0)).collect();
    let band =
        Filter::Parametric { frequency: 52.0, gain: 5.0, width: Width::Q(2.3) }.chain().expect("a filter");
    let levels: Vec<f64> = grid.iter().map(|f| 90.0 + 20.0 * band.transfer(TAU * f).norm().log10()).collect();
    let found = flatten(&grid, &levels, 90.0).expect("a peak");
    assert_relative_eq!(found.frequency, 52.0, max_relative = 0.01);
    assert_relative_eq!(found.gain, -5.0, max_relative = 0.02);
    assert_relative_eq!(found.q, 2.3, max_relative = 0.03);
    assert!(found.peak[0] > 4.9 && found.peak[1] < 0.1, "{:?}", found.peak);
    assert!(flatten(&grid, &vec![90.2; 300], 90.0).is_none());
}

#[test]
fn the_lowest_corner_is_the_one_that_what_limits_allows() {
    let grid: Vec<f64> = (0..400).map(|k| 5.0 * 40f64.powf(f64::from(k) / 399.0)).collect();
    // Travel allows 100 dB at 30 Hz, 12 dB an octave less below, and the amplifier 104 dB.
    let most: Vec<f64> = grid.iter().map(|f| (100.0 + 40.0 * (f / 30.0f64).log10()).min(104.0)).collect();
    let found = transform(&grid, &most, 96.0, [60.0, 0.8], 0.707).expect("a corner");
    // Far below its corner the level is 96 + 40 lg(f/fp): 96 - 40 lg fp = 100 - 40 lg 30.
    assert_relative_eq!(found.frequency, 30.0 * 10f64.powf(-0.1), max_relative = 0.01);
    assert_relative_eq!(found.boost, 40.0 * (60.0 / found.frequency).log10(), max_relative = 1e-9);
    assert!(transform(&grid, &most, 108.0, [60.0, 0.8], 0.707).is_none());
}
