//! Filters hidden in the chain, by the definition of Butterworth (1930) and of Linkwitz and Riley (1976).

use std::f64::consts::TAU;

use oak_metering::Complex;
use oak_metering::loopback::{LowpassKind, lowpass, read};
use oak_rig::normal;
use rand::{Rng, SeedableRng};
use rand_chacha::ChaCha8Rng;

/// Level of a Butterworth low-pass from its poles, dB.
fn butterworth(order: u32, x: f64) -> f64 {
    let pole = |k: u32| {
        Complex::from_polar(
            1.0,
            TAU * (2.0 * f64::from(k) + f64::from(order) - 1.0) / (4.0 * f64::from(order)),
        )
    };
    let all = (1..=order).map(pole).map(|pole| (Complex::new(0.0, x) - pole).norm()).product::<f64>();
    -20.0 * all.log10()
}

/// What a chain with a filter does: its gain, a sound card that rolls off below 3 Hz, and noise.
fn chain(filter: impl Fn(f64) -> f64, noise: f64, random: &mut ChaCha8Rng) -> Vec<[f64; 2]> {
    (0..300)
        .map(|k| {
            let frequency = 5.0 * 100f64.powf(f64::from(k) / 299.0);
            let card = -10.0 * (1.0 + (3.0 / frequency).powi(2)).log10();
            [frequency, -7.0 + card + filter(frequency) + noise * normal(random)]
        })
        .collect()
}

#[test]
fn the_kind_the_order_and_the_corner_of_a_hidden_low_pass_are_found() {
    let mut random = ChaCha8Rng::seed_from_u64(2);
    for order in [1, 2, 3, 4, 6] {
        let corner = random.random_range(50.0..160.0);
        let found = lowpass(&chain(|f| butterworth(order, f / corner), 0.05, &mut random)).expect("a filter");
        assert_eq!((found.kind, found.order), (LowpassKind::Butterworth, order));
        assert!((found.corner_hz / corner - 1.0).abs() < 0.01, "{found:?}, truly {corner}");
    }
    for order in [4, 8] {
        let corner = random.random_range(60.0..120.0);
        let twice = |f: f64| 2.0 * butterworth(order / 2, f / corner);
        let found = lowpass(&chain(twice, 0.05, &mut random)).expect("a filter");
        assert_eq!((found.kind, found.order), (LowpassKind::Lr, order));
        assert!((found.corner_hz / corner - 1.0).abs() < 0.01, "{found:?}, truly {corner}");
    }
}

#[test]
fn a_chain_without_one_has_none() {
    let mut random = ChaCha8Rng::seed_from_u64(5);
    for noise in [0.02, 0.3] {
        assert_eq!(lowpass(&chain(|_| 0.0, noise, &mut random)), None);
    }
    assert!(
        read("loopback.txt", b"Hz ohm\n10 8\n20 9\n30 8\n")
            .expect_err("an impedance")
            .to_string()
            .contains("a level is wanted")
    );
}
