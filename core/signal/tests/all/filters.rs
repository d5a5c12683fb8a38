//! Filters against scipy.signal and their own identities.

use std::collections::BTreeMap;
use std::f64::consts::{FRAC_1_SQRT_2, TAU};

use approx::assert_relative_eq;
use oak_acoustics::Complex;
use oak_acoustics::source::{Chain, Traced};
use oak_signal::filter::{Alignment, FLATTEST, Filter, FilterError, Pass, Slope, Width};
use proptest::prelude::*;

fn chain(filter: &Filter) -> Chain {
    filter.chain().expect("a filter")
}

fn at(filter: &Filter, frequency: f64) -> Complex {
    chain(filter).transfer(TAU * frequency)
}

fn pass(pass: Pass, alignment: Alignment, order: u32, frequency: f64) -> Filter {
    Filter::Pass { pass, alignment, order, frequency }
}

/// What a name in the reference's first column means.
fn named(case: &str) -> Filter {
    let words: Vec<&str> = case.split(' ').collect();
    let number = |k: usize| words[k].parse::<f64>().expect("a number");
    let side = |word: &str| if word == "low" { Pass::Low } else { Pass::High };
    match words[0] {
        "butterworth" | "linkwitz-riley" | "bessel" | "bessel-phase" => {
            let alignment = match words[0] {
                "butterworth" => Alignment::Butterworth,
                "linkwitz-riley" => Alignment::LinkwitzRiley,
                "bessel" => Alignment::Bessel,
                _ => Alignment::BesselPhase,
            };
            pass(side(words[1]), alignment, number(2) as u32, number(3))
        }
        "shelf" => {
            let slope = match words[4] {
                "first" => Slope::First,
                "q" => Slope::Q(number(5)),
                _ => Slope::S(number(5)),
            };
            Filter::Shelf { side: side(words[1]), frequency: number(2), gain: number(3), slope }
        }
        "parametric" => {
            let width = if words[3] == "q" { Width::Q(number(4)) } else { Width::Octaves(number(4)) };
            Filter::Parametric { frequency: number(1), gain: number(2), width }
        }
        "transform" => {
            Filter::LinkwitzTransform { own: [number(1), number(2)], wanted: [number(3), number(4)] }
        }
        "all-pass" => Filter::AllPass { frequency: number(1), q: (words.len() > 2).then(|| number(2)) },
        other => panic!("{other} is not known here"),
    }
}

#[test]
fn responses_and_delays_are_those_of_scipy() {
    let file = concat!(env!("CARGO_MANIFEST_DIR"), "/../../reference/filters/filters.csv");
    let mut reader = csv::Reader::from_path(file).expect("reference");
    let mut seen: BTreeMap<String, usize> = BTreeMap::new();
    for row in reader.deserialize::<(String, f64, f64, f64, f64)>() {
        let (case, frequency, re, im, delay) = row.expect("a row");
        let chain = chain(&named(&case));
        let (found, wanted) = (chain.transfer(TAU * frequency), Complex::new(re, im));
        assert!(
            (found - wanted).norm() <= 1e-9 * wanted.norm(),
            "{case} at {frequency} Hz: {found} not {wanted}"
        );
        let found = chain.group_delay(TAU * frequency);
        assert!((found - delay).abs() <= 1e-9, "{case} at {frequency} Hz: {found} s not {delay} s");
        *seen.entry(case).or_default() += 1;
    }
    assert!(seen.len() > 80, "{} filters", seen.len());
}

#[test]
fn corners_are_where_their_names_say() {
    for order in 1..=8 {
        for side in [Pass::Low, Pass::High] {
            for alignment in [Alignment::Butterworth, Alignment::Bessel] {
                assert_relative_eq!(
                    at(&pass(side, alignment, order, 37.0), 37.0).norm(),
                    FRAC_1_SQRT_2,
                    max_relative = 1e-12
                );
            }
        }
    }
    for order in [2, 4, 6, 8] {
        assert_relative_eq!(
            at(&pass(Pass::Low, Alignment::LinkwitzRiley, order, 80.0), 80.0).norm(),
            0.5,
            max_relative = 1e-12
        );
    }
    // Half the dB at its frequency, all of it at the end.
    for slope in [Slope::First, Slope::Q(FLATTEST), Slope::S(0.6)] {
        let shelf = |side| Filter::Shelf { side, frequency: 50.0, gain: -8.0, slope };
        for side in [Pass::Low, Pass::High] {
            let decibels = |frequency: f64| 20.0 * at(&shelf(side), frequency).norm().log10();
            assert_relative_eq!(decibels(50.0), -4.0, max_relative = 1e-12);
            let [inside, outside] = if side == Pass::Low { [1e-4, 1e8] } else { [1e8, 1e-4] };
            assert_relative_eq!(decibels(inside), -8.0, max_relative = 1e-6);
            assert!(decibels(outside).abs() < 1e-5);
        }
    }
    // Octaves lie between the two points of half the dB.
    let band = Filter::Parametric { frequency: 40.0, gain: 6.0, width: Width::Octaves(1.5) };
    for side in [-0.75f64, 0.75] {
        assert_relative_eq!(20.0 * at(&band, 40.0 * side.exp2()).norm().log10(), 3.0, max_relative = 1e-12);
    }
    // 40 log10(f0/fp) at the bottom, nothing at the top.
    let transform = Filter::LinkwitzTransform { own: [50.0, 0.9], wanted: [25.0, 0.5] };
    assert_relative_eq!(at(&transform, 1e-4).norm(), 4.0, max_relative = 1e-9);
    assert_relative_eq!(at(&transform, 1e8).norm(), 1.0, max_relative = 1e-9);
}

#[test]
fn linkwitz_riley_halves_sum_flat_two_and_six_with_one_side_inverted() {
    for order in [2, 4, 6, 8] {
        let sign = if order % 4 == 2 { -1.0 } else { 1.0 };
        for frequency in [11.0, 60.0, 80.0, 97.0, 600.0] {
            let [low, high] = [Pass::Low, Pass::High]
                .map(|side| at(&pass(side, Alignment::LinkwitzRiley, order, 80.0), frequency));
            assert_relative_eq!((low + high * sign).norm(), 1.0, max_relative = 1e-12);
        }
    }
}

#[test]
fn what_is_no_filter_is_refused_with_its_value() {
    let refused = |filter: Filter| filter.chain().expect_err("refused");
    assert_eq!(refused(pass(Pass::Low, Alignment::Butterworth, 9, 80.0)), FilterError::Order(9));
    assert_eq!(refused(pass(Pass::Low, Alignment::Bessel, 0, 80.0)), FilterError::Order(0));
    assert_eq!(refused(pass(Pass::High, Alignment::LinkwitzRiley, 3, 80.0)), FilterError::Odd(3));
    assert_eq!(refused(pass(Pass::High, Alignment::Butterworth, 2, -1.0)), FilterError::NotPositive(-1.0));
    let steep = Filter::Shelf { side: Pass::Low, frequency: 50.0, gain: 6.0, slope: Slope::S(1.2) };
    assert_eq!(refused(steep), FilterError::Slope(1.2));
}

#[test]
fn a_measured_filter_is_what_was_measured_whatever_its_phase_is_wrapped_to() {
    // A delay of 2 ms with a fall of 6 dB per octave, its phase wrapped.
    let points: Vec<[f64; 3]> = (0..400)
        .map(|k| {
            let frequency = 10.0 * 100f64.powf(f64::from(k) / 399.0);
            let turned = -360.0 * frequency * 2e-3;
            [frequency, -20.0 * (frequency / 10.0).log10(), (turned + 180.0).rem_euclid(360.0) - 180.0]
        })
        .collect();
    let chain = chain(&Filter::Measured(Traced::new(&points).expect("a trace")));
    for frequency in [10.0, 33.3, 250.0, 999.0] {
        let found = chain.transfer(TAU * frequency);
        assert_relative_eq!(found.norm(), 10.0 / frequency, max_relative = 1e-6);
        let turned = (found * Complex::from_polar(1.0, TAU * frequency * 2e-3)).arg();
        assert!(turned.abs() < 2e-3, "{frequency} Hz: {turned}");
        assert_relative_eq!(chain.group_delay(TAU * frequency), 2e-3, max_relative = 2e-2);
    }
    // Beyond its ends it stays as it is.
    assert_relative_eq!(chain.transfer(TAU * 5.0).norm(), 1.0, max_relative = 1e-12);
    assert!(Traced::new(&points[..1]).is_err());
    assert!(Traced::new(&[[20.0, 0.0, 0.0], [10.0, 0.0, 0.0]]).is_err());
    assert!(Traced::new(&[[20.0, f64::NAN, 0.0], [30.0, 0.0, 0.0]]).is_err());
}

proptest! {
    #[test]
    fn a_boost_and_an_equal_cut_cancel(
        frequency in 10.0f64..200.0, gain in -15.0f64..15.0, q in 0.3f64..8.0, where_ in 5.0f64..500.0,
    ) {
        let band = |gain| Filter::Parametric { frequency, gain, width: Width::Q(q) };
        let shelf = |gain| Filter::Shelf { side: Pass::Low, frequency, gain, slope: Slope::Q(q) };
        for [one, other] in [[band(gain), band(-gain)], [shelf(gain), shelf(-gain)]] {
            let both = chain(&one).then(chain(&other)).transfer(TAU * where_);
            prop_assert!((both - Complex::from(1.0)).norm() < 1e-12);
        }
    }

    #[test]
    fn an_all_pass_lets_all_pass(frequency in 10.0f64..200.0, q in 0.3f64..8.0, where_ in 5.0f64..500.0) {
        for q in [None, Some(q)] {
            let all_pass = at(&Filter::AllPass { frequency, q }, where_);
            prop_assert!((all_pass.norm() - 1.0).abs() < 1e-12);
        }
    }

    #[test]
    fn a_delay_is_the_slope_of_the_phase(
        order in 1u32..=8, frequency in 20.0f64..120.0, where_ in 10.0f64..300.0, delay in 0.0f64..0.02,
    ) {
        for side in [Pass::Low, Pass::High] {
            let filter = chain(&pass(side, Alignment::Butterworth, order, frequency)).then(chain(&Filter::Delay(delay)));
            let step = 1e-5;
            let [below, above] = [-step, step].map(|part| filter.transfer(TAU * where_ * (1.0 + part)));
            let slope = -(above / below).arg() / (2.0 * step * TAU * where_);
            prop_assert!((filter.group_delay(TAU * where_) - slope).abs() < 1e-5 * (1.0 + slope.abs()));
        }
    }
}
