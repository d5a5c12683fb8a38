//! Values of passive parts.

use approx::assert_relative_eq;
use oak_signal::passive::{Series, butterworth, first_order, impedance_equaliser, l_pad, linkwitz_riley};

#[test]
fn preferred_values_are_those_of_the_standard_and_the_nearest_is_by_ratio() {
    // IEC 60063, E12.
    let e12 = [1.0, 1.2, 1.5, 1.8, 2.2, 2.7, 3.3, 3.9, 4.7, 5.6, 6.8, 8.2];
    assert_eq!(Series::E12.decade(), e12);
    assert_eq!(Series::E24.decade().len(), 24);
    // IEC 60063, E96: ends and some between.
    let e96 = Series::E96.decade();
    assert_eq!((e96[0], e96[1], e96[24], e96[48], e96[95]), (1.0, 1.02, 1.78, 3.16, 9.76));
    for (series, wanted, found) in [
        (Series::E12, 9.56, 10.0),
        (Series::E12, 2.445, 2.7),
        (Series::E12, 2.44e-3, 2.7e-3),
        (Series::E24, 2.445, 2.4),
        (Series::E96, 4.7e-6, 4.75e-6),
    ] {
        let next = [series.nearest(wanted)];
        assert_relative_eq!(next[0], found, max_relative = 1e-12);
    }
}

#[test]
fn textbook_values_are_those_of_a_plain_resistance() {
    let omega = std::f64::consts::TAU * 100.0;
    // 8 ohm at 100 Hz: 12.73 mH and 198.9 uF of first order.
    let first = first_order(8.0, omega);
    assert_relative_eq!(first.inductance, 12.732e-3, max_relative = 1e-4);
    assert_relative_eq!(first.capacitance, 198.94e-6, max_relative = 1e-4);
    let flat = butterworth(8.0, omega);
    assert_relative_eq!(flat.inductance / first.inductance, std::f64::consts::SQRT_2, max_relative = 1e-12);
    assert_relative_eq!(first.capacitance / flat.capacitance, std::f64::consts::SQRT_2, max_relative = 1e-12);
    let square = linkwitz_riley(8.0, omega);
    assert_relative_eq!(square.inductance, 2.0 * first.inductance, max_relative = 1e-12);
    let (resistance, capacitance) = impedance_equaliser(6.0, 1.8e-3);
    assert_relative_eq!(resistance, 7.5, max_relative = 1e-12);
    assert_relative_eq!(capacitance, 50e-6, max_relative = 1e-12);
}

#[test]
fn an_l_pad_takes_its_decibels_and_leaves_the_load() {
    let [series, shunt] = l_pad(8.0, 6.0);
    let both = 8.0 * shunt / (8.0 + shunt);
    assert_relative_eq!(series + both, 8.0, max_relative = 1e-12);
    assert_relative_eq!(20.0 * (both / 8.0).log10(), -6.0, max_relative = 1e-12);
}
