//! Batteries, ears, walls and amplifiers.

use approx::assert_relative_eq;
use oak_acoustics::Complex;
use oak_acoustics::medium::Air;
use oak_acoustics::response::{SoundSource, mean_share};
use oak_signal::amplifier::{AMPLIFIER_KINDS, headroom};
use oak_signal::energy::{Budget, hours_in_words};
use oak_signal::exposure::{a_weighting, allowed_time, dose, wall_reduction, weighted_average};
use oak_signal::in_place::{Stand, in_the_open};
use oak_signal::outdoors::{beams, distance_loss, steered_pair};

#[test]
fn a_battery_lasts_as_its_sum_says() {
    // 50 W at clipping, music: 10 W of mean power; over 0.8 and 3 W idle 15.5 W; 240 Wh last 15.5 h.
    let music = Budget { usable: 240.0, idle: 3.0, efficiency: 0.8, rated: 50.0, crest: 10.0, backoff: 0.0 };
    assert_relative_eq!(music.mean_power(), 50.0 * 10f64.powf(-0.699), max_relative = 1e-4);
    assert_relative_eq!(music.hours(), 240.0 / (3.0 + music.mean_power() / 0.8), max_relative = 1e-12);
    // A sine at clipping is its rated power; 3 dB further down half.
    let sine = Budget { crest: 10.0 * 2f64.log10(), ..music };
    assert_relative_eq!(sine.mean_power(), 50.0, max_relative = 1e-12);
    let softer = Budget { backoff: 10.0 * 2f64.log10(), ..sine };
    assert_relative_eq!(softer.mean_power(), 25.0, max_relative = 1e-12);
    assert_relative_eq!(music.solar_hours(100.0), 100.0 / music.drawn(), max_relative = 1e-12);
    assert_eq!(hours_in_words(0.75), "45 min");
    assert_eq!(hours_in_words(3.5), "3 h 30 min");
    assert_eq!(hours_in_words(15.49), "15 h");
}

/// NIOSH publication 98-126, table 1-1.
#[test]
fn exposure_follows_the_table() {
    for (level, minutes) in
        [(85.0, 480.0), (88.0, 240.0), (91.0, 120.0), (94.0, 60.0), (97.0, 30.0), (100.0, 15.0)]
    {
        assert_relative_eq!(allowed_time(level), minutes * 60.0, max_relative = 1e-12);
    }
    assert_relative_eq!(dose(&[[85.0, 4.0 * 3600.0], [88.0, 2.0 * 3600.0]]), 100.0, max_relative = 1e-12);
    assert_relative_eq!(weighted_average(200.0), 88.01, epsilon = 0.01);
}

/// IEC 61672-1, table 2, to its tenth.
#[test]
fn the_a_curve_is_that_of_the_standard() {
    for (frequency, weight) in [
        (10f64.powf(1.3), -50.5),
        (10f64.powf(1.5), -39.4),
        (10f64.powf(1.8), -26.2),
        (100.0, -19.1),
        (10f64.powf(2.4), -8.6),
        (1000.0, 0.0),
        (10f64.powf(3.4), 1.3),
    ] {
        assert_relative_eq!(a_weighting(frequency), weight, epsilon = 0.06);
    }
    assert_relative_eq!(a_weighting(41.2), -33.95, epsilon = 0.01);
}

#[test]
fn a_wall_takes_six_decibels_for_twice_the_mass_and_never_gives_any() {
    assert_relative_eq!(wall_reduction(100.0, 50.0) - wall_reduction(50.0, 50.0), 6.02, epsilon = 0.01);
    assert_relative_eq!(wall_reduction(200.0, 100.0), 39.02, epsilon = 0.01);
    assert_eq!(wall_reduction(2.0, 30.0).to_bits(), 0f64.to_bits());
}

#[test]
fn an_amplifier_is_judged_by_mean_power_and_headroom() {
    // 500 W at clipping are 100 W of music.
    assert_relative_eq!(500.0 * mean_share(10.0) / 250.0, 0.4, max_relative = 2e-3);
    assert_relative_eq!(headroom(40.0, 20.0), 6.02, epsilon = 0.01);
    for kind in AMPLIFIER_KINDS {
        assert!(kind.power.iter().flatten().count() >= 1 && kind.efficiency < 1.0, "{}", kind.id);
        // No current is promised below the load that it stands.
        assert!(kind.power[2].is_none() || kind.minimum_load <= 2.0, "{}", kind.id);
    }
}

#[test]
fn in_the_open_the_level_falls_with_distance_and_a_pair_can_be_steered() {
    assert_relative_eq!(distance_loss(8.0), -18.06, epsilon = 0.01);
    let air = Air::reference();
    let flow = SoundSource {
        element: 0,
        place: Some([0.0; 3]),
        extra_path: 0.0,
        flow: vec![Complex::new(1e-3, 0.0)],
    };
    let stand = |x: f64| Stand { place: [x, 0.0, 0.0], turned: 0.0, gain: 1.0, delay: 0.0 };
    // Pressure times distance, over that of one.
    let heard = |stands: &[Stand], [x, y]: [f64; 2]| {
        let at = [[x, y, 0.0]];
        in_the_open(stands, std::slice::from_ref(&flow), &at, &[50.0], &air)[0][0].norm() * x.hypot(y)
    };
    let one = heard(&[stand(0.0)], [0.0, 10.0]);
    // One small box plays alike to all sides, and a front of half a metre up to some 200 Hz.
    for place in [[10.0, 0.0], [0.0, -10.0], [6.0, 8.0]] {
        assert_relative_eq!(heard(&[stand(0.0)], place), one, max_relative = 1e-9);
    }
    assert_relative_eq!(beams(0.5, 343.0), 218.4, epsilon = 0.1);
    // Two side by side are 6 dB louder on their axis; half a wave apart they cancel along their line.
    let quarter = air.speed / 50.0 / 4.0;
    let pair = [stand(-quarter), stand(quarter)];
    assert_relative_eq!(20.0 * (heard(&pair, [0.0, 800.0]) / one).log10(), 6.02, epsilon = 0.02);
    assert!(heard(&pair, [4000.0, 0.0]) < 0.02 * one);
    // A steered pair plays to where it faces and hardly behind, whichever way it is turned.
    for turned in [0.0f64, 1.1, -2.4] {
        let steered = steered_pair(Stand { turned, ..stand(3.0) }, 50.0, air.speed);
        let (sine, cosine) = turned.sin_cos();
        let [front, back] = [600.0, -600.0].map(|far| heard(&steered, [3.0 - far * sine, far * cosine]));
        assert!(front > 20.0 * back, "{front} {back}");
        assert_relative_eq!(front, 2.0 * one, max_relative = 0.02);
    }
}
