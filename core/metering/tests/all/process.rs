//! Smoothing, bands, near fields, phases.

use std::f64::consts::PI;

use approx::assert_relative_eq;
use oak_metering::Complex;
use oak_metering::process::{
    Opening, average, bands, difference, highest, joined, matched, minimum_phase, smooth,
};

fn grid(from: f64, to: f64, count: u32) -> impl Iterator<Item = f64> {
    (0..count).map(move |k| from * (to / from).powf(f64::from(k) / f64::from(count - 1)))
}

#[test]
fn a_slope_of_the_power_stays_and_a_narrow_peak_keeps_its_power() {
    let slope: Vec<[f64; 2]> = grid(10.0, 1000.0, 800).map(|f| [f, 3.0 * f.log2()]).collect();
    let smoothed = smooth(&slope, 3);
    // 3 dB an octave: the mean of 10^(0.3 x) over a third of an octave about 0, by hand.
    let step = 0.3 * 10f64.ln();
    let by_hand = 10.0 * (2.0 * (step / 6.0).sinh() / (step / 3.0)).log10();
    for ([f, found], [_, was]) in smoothed.iter().zip(&slope).filter(|([f, _], _)| (20.0..500.0).contains(f))
    {
        assert!((found - was - by_hand).abs() < 0.01, "{f} Hz: {} over {by_hand}", found - was);
    }
    // One point that stands 30 dB out of silence spreads over a whole octave.
    let mut spike: Vec<[f64; 2]> = grid(10.0, 1000.0, 600).map(|f| [f, -60.0]).collect();
    spike[300][1] = 30.0;
    let wide = smooth(&spike, 1);
    let above = wide.iter().filter(|[_, level]| *level > -20.0).map(|[f, _]| *f).collect::<Vec<_>>();
    assert_relative_eq!(above[above.len() - 1] / above[0], 2.0, epsilon = 0.05);
}

#[test]
fn bands_lie_where_the_standard_puts_them() {
    let flat: Vec<[f64; 2]> = grid(10.0, 5000.0, 500).map(|f| [f, 7.0]).collect();
    let thirds = bands(&flat, 3);
    let middles: Vec<f64> = thirds.iter().map(|band| band.middle).collect();
    // IEC 61260-1:2014, table E.1: exact middles of thirds of octaves.
    for exact in
        [12.589, 15.849, 19.953, 25.119, 31.623, 39.811, 50.119, 63.096, 79.433, 100.0, 125.89, 1000.0]
    {
        assert!(middles.iter().any(|middle| (middle / exact - 1.0).abs() < 1e-4), "{exact} in {middles:?}");
    }
    for band in &thirds {
        assert_relative_eq!(band.level, 7.0, epsilon = 1e-9);
        assert_relative_eq!(band.edges[1] / band.edges[0], 10f64.powf(0.1), epsilon = 1e-9);
    }
    // Of an even part the middle of 1 kHz is an edge (5.4, note): 1000 G^(1/(2b)).
    let halves = bands(&flat, 2);
    assert!(halves.iter().any(|band| (band.edges[0] - 1000.0).abs() < 1e-6));
}

/// Pressure on the axis of a piston in a baffle over what its velocity makes: exact for all distances (Keele 1974, eq. 6).
fn on_axis(k: f64, radius: f64, distance: f64) -> f64 {
    2.0 * (0.5 * k * ((distance * distance + radius * radius).sqrt() - distance)).sin()
}

#[test]
fn a_near_field_tells_the_far_field_of_a_piston_up_to_ka_of_one() {
    let (speed, radius) = (343.0, 0.16);
    let area = PI * radius * radius;
    let points = grid(10.0, highest(area, speed), 60).map(|f| {
        let near = on_axis(2.0 * PI * f / speed, radius, 0.0);
        [f, 20.0 * near.log10(), 0.0]
    });
    let opening = Opening { area, count: 1.0, points: points.collect(), phased: true };
    assert_relative_eq!(highest(area, speed) * 2.0 * PI / speed * radius, 1.0, epsilon = 1e-9);
    for [f, level] in joined(&[opening], 1.0).expect("one opening") {
        // Far along the axis, scaled from so far away that the sphere is one.
        let far = 20.0 * (on_axis(2.0 * PI * f / speed, radius, 50.0) * 50.0).log10();
        assert!((level - far).abs() < 0.4, "{f} Hz: {level:.3} over {far:.3}");
        if f < 0.5 * highest(area, speed) {
            assert!((level - far).abs() < 0.1, "{f} Hz: {level:.3} over {far:.3}");
        }
    }
}

#[test]
fn two_openings_sum_by_the_roots_of_their_areas_and_with_their_phases() {
    // Both move the same air: one is a quarter as large, so its near field is twice as loud (Keele 1974, eq. 12).
    let at = |area: f64, level: f64, phase: f64| Opening {
        area,
        count: 1.0,
        points: vec![[20.0, level, phase], [40.0, level, phase]],
        phased: true,
    };
    let louder = 20.0 * 2f64.log10();
    let alone = joined(&[at(0.04, 80.0, 0.0)], 1.0).expect("one")[0][1];
    let together = joined(&[at(0.04, 80.0, 0.0), at(0.01, 80.0 + louder, 0.0)], 1.0).expect("both");
    assert_relative_eq!(together[0][1] - alone, louder, epsilon = 1e-9);
    let against = joined(&[at(0.04, 80.0, 0.0), at(0.01, 80.0 + louder, 179.0)], 1.0).expect("both");
    assert!(against[0][1] < alone - 30.0);
    let apart = Opening { points: vec![[21.0, 80.0, 0.0], [40.0, 80.0, 0.0]], ..at(0.01, 80.0, 0.0) };
    assert_eq!(joined(&[at(0.04, 80.0, 0.0), apart], 1.0), None);
}

#[test]
fn levels_are_laid_on_each_other_averaged_and_subtracted() {
    let points: Vec<[f64; 2]> = grid(20.0, 500.0, 100).map(|f| [f, 80.0 + f.log10()]).collect();
    let other: Vec<[f64; 2]> = grid(10.0, 800.0, 333).map(|f| [f, 86.5 + f.log10()]).collect();
    assert_relative_eq!(matched(&points, &other, [100.0, 200.0]).expect("in common"), 6.5, epsilon = 1e-6);
    assert_eq!(matched(&points, &other, [900.0, 2000.0]), None);
    assert!(
        difference(&other, &points)
            .iter()
            .all(|[f, off]| (20.0..500.1).contains(f) && (off - 6.5).abs() < 1e-6)
    );
    // Equal powers: 3 dB over the mean of one that is silent.
    let silent: Vec<[f64; 2]> = points.iter().map(|[f, _]| [*f, -200.0]).collect();
    let both = average(&[&points, &silent]);
    assert_relative_eq!(points[7][1] - both[7][1], 10.0 * 2f64.log10(), epsilon = 1e-9);
}

#[test]
fn the_phase_of_a_box_follows_from_its_level() {
    // A high-pass of the fourth order, Q 0.6 and 1.1 at 30 and 42 Hz.
    let pair = |f: f64, at: f64, q: f64| {
        let s = Complex::new(0.0, f / at);
        s * s / (s * s + s / q + 1.0)
    };
    let of = |f: f64| pair(f, 30.0, 0.6) * pair(f, 42.0, 1.1);
    let points: Vec<[f64; 2]> = grid(8.0, 800.0, 400).map(|f| [f, 20.0 * of(f).norm().log10()]).collect();
    for ([f, _], phase) in points.iter().zip(minimum_phase(&points)) {
        let wanted = of(*f).arg().to_degrees();
        let off = (phase - wanted + 180.0).rem_euclid(360.0) - 180.0;
        assert!(off.abs() < 2.0, "{f:.1} Hz: {phase:.1} instead of {wanted:.1}");
    }
}
