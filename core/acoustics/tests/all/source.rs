//! What comes before the drivers: filters, the amplifier's resistance, passive parts.

use std::f64::consts::{PI, TAU};

use crate::support::{any_driver_array, any_enclosure, any_source, woofer};
use approx::assert_relative_eq;
use oak_acoustics::Complex;
use oak_acoustics::driver::{Driver, Inductance};
use oak_acoustics::enclosure::{Enclosure, Fidelity, Losses, Sealed, Setting};
use oak_acoustics::medium::Air;
use oak_acoustics::network::Network;
use oak_acoustics::response::{
    Allowance, Excitation, Figures, FrequencyGrid, Limit, MaxOutput, Response, SoundSource, Transient,
};
use oak_acoustics::source::{Branch, Chain, Part, PartForm, Section, Source};
use proptest::prelude::*;

fn grid(from: f64, to: f64, points: usize) -> FrequencyGrid {
    FrequencyGrid::logarithmic(from, to, points).expect("grid")
}

fn sealed(volume: f64, source: Source) -> Network {
    let setting = Setting { source, ..Setting::new(plain(), Air::reference()).with(Fidelity::TEXTBOOK) };
    Enclosure::Sealed(Sealed { volume, losses: Losses::default() })
        .compile(&setting)
        .expect("compiles")
        .network
}

/// A woofer whose coil has no inductance.
fn plain() -> Driver {
    Driver { inductance: Inductance::Plain { le: 0.0 }, ..woofer() }
}

/// Fc, Qec and Qmc of that woofer in a closed box.
fn in_box(volume: f64) -> (f64, f64, f64) {
    let (driver, air) = (plain(), Air::reference());
    let stiffness = 1.0 / driver.cms + driver.sd * driver.sd / air.compliance(volume);
    let omega = (stiffness / driver.mms).sqrt();
    (omega / TAU, omega * driver.mms * driver.re / driver.bl.powi(2), omega * driver.mms / driver.rms)
}

fn filters(sections: Vec<Section>) -> Source {
    Source { chain: Chain { sections, ..Chain::default() }, ..Source::default() }
}

proptest! {
    #![proptest_config(ProptestConfig::with_cases(64))]

    /// Filters multiply everything that sounds, moves and flows, and change neither the load nor what limits.
    #[test]
    fn filters_multiply_everything_and_change_no_load(
        driver_array in any_driver_array(), enclosure in any_enclosure(), source in any_source(),
    ) {
        let network = |source: &Source| {
            let setting = Setting { source: source.clone(), ..Setting::new(driver_array, Air::reference()) };
            enclosure.compile(&setting).expect("compiles").network
        };
        let bare = Source { chain: Chain::default(), ..source.clone() };
        let (with, without) = (network(&source), network(&bare));
        let grid = grid(10.0, 400.0, 13);
        let [with_filters, free] = [&with, &without].map(|network| Response::of(network, &grid, 5.0));
        let same = |a: Complex, b: Complex| (a - b).norm() <= 1e-9 * b.norm();
        for (k, frequency) in grid.frequencies().iter().enumerate() {
            let h = source.chain.transfer(TAU * frequency);
            prop_assert!(same(with_filters.drive[k], h * 5.0));
            prop_assert!(same(with_filters.pressure[k], free.pressure[k] * h));
            prop_assert!(same(with_filters.current[k], free.current[k] * h));
            prop_assert!(same(with_filters.impedance[k], free.impedance[k]));
            for (moved, still) in with_filters.cone_velocity.iter().zip(&free.cone_velocity) {
                prop_assert!(same(moved[k], still[k] * h));
            }
            for (moved, still) in with_filters.opening_velocity.iter().zip(&free.opening_velocity) {
                prop_assert!(same(moved[k], still[k] * h));
            }
            let added = with_filters.group_delay[k] - free.group_delay[k] - source.chain.group_delay(TAU * frequency);
            prop_assert!(added.abs() < 1e-9, "{added} s at {frequency} Hz");
        }
        let allowance = Allowance {
            volts: Some(30.0), amperes: Some(20.0), heat: Some(100.0), crest: 10.0, xmax: Some(6e-3), air_speed: 17.0,
        };
        let [most, same_most] = [(&with, &with_filters), (&without, &free)]
            .map(|(network, response)| MaxOutput::of(network, response, &allowance));
        for k in 0..13 {
            prop_assert!((most.level[k] - same_most.level[k]).abs() < 1e-9);
            prop_assert!((most.volts[k] / same_most.volts[k] - 1.0).abs() < 1e-9);
            prop_assert_eq!(most.limit[k], same_most.limit[k]);
            prop_assert!(most.limit[k] != Some(Limit::Voltage) || (most.volts[k] - 30.0).abs() < 1e-9);
        }
    }
}

/// H = (s2 + s w0/Q0 + w0^2)/(s2 + s wp/Qp + wp^2) before a sealed box with the corner f0, Q0 is a box with the corner fp, Qp.
#[test]
fn the_linkwitz_transform_makes_one_sealed_box_another() {
    let (own, qec, qmc) = in_box(0.02);
    let own_q = qec * qmc / (qec + qmc);
    let (wanted, wanted_q) = (0.5 * own, 0.6);
    let up = own / wanted;
    let section = Section {
        frequency: wanted,
        numerator: [up * up, up / own_q, 1.0],
        denominator: [1.0, 1.0 / wanted_q, 1.0],
    };
    let network = sealed(0.02, filters(vec![section]));
    let top = network.piston_level(2.83);
    let response = Response::of(&network, &grid(5.0, 1000.0, 41), 2.83);
    for (level, frequency) in response.level().zip(&response.frequency) {
        let x = frequency / wanted;
        let expected = x * x / ((1.0 - x * x).powi(2) + (x / wanted_q).powi(2)).sqrt();
        assert!((level - top - 20.0 * expected.log10()).abs() < 1e-9, "{frequency} Hz: {level} dB");
    }
    // Its corner is read off with the same reference as without it.
    let x: f64 = wanted_q.recip().powi(2) - 2.0;
    let f3 = wanted * ((x + (x * x + 4.0).sqrt()) / 2.0).sqrt();
    assert_relative_eq!(Figures::of(&network, 2.83).f3.expect("a corner"), f3, max_relative = 3e-3);
}

/// A resistor, a coil and a capacitor across a sealed woofer leave the amplifier nothing but Re (derived from the motional impedance of
/// the box, Small 1972).
#[test]
fn a_resonance_equaliser_leaves_a_plain_resistance() {
    let (own, qec, qmc) = in_box(0.03);
    let (re, omega) = (plain().re, TAU * own);
    let branch = Branch {
        resistance: re * (1.0 + qec / qmc),
        inductance: re * qec / omega,
        capacitance: Some(1.0 / (omega * re * qec)),
    };
    let parts = vec![Part { in_series: false, form: PartForm::Chain(branch) }];
    let network = sealed(0.03, Source { parts, output_resistance: 0.7, ..Source::default() });
    for z in Response::of(&network, &grid(5.0, 1000.0, 41), 1.0).impedance {
        assert!((z - re).norm() < 1e-9 * re, "{z}");
    }
}

#[test]
fn a_gain_moves_the_reference_with_the_level_and_no_corner() {
    let gain = |gain| Source { chain: Chain { gain, ..Chain::default() }, ..Source::default() };
    let [plain, softer, turned] =
        [1.0, 0.25, -1.0].map(|factor| Figures::of(&sealed(0.03, gain(factor)), 10.0));
    assert_relative_eq!(plain.reference_level - softer.reference_level, 12.0412, max_relative = 1e-4);
    for other in [softer, turned] {
        assert_relative_eq!(other.f3.expect("a corner"), plain.f3.expect("a corner"), max_relative = 1e-6);
    }
}

/// What the reference of F3 counts of the way to the drivers is what reaches them where the parts let most through.
#[test]
fn the_reference_counts_what_parts_let_through() {
    let driver = plain();
    let level = |source: Source| sealed(0.03, source).piston_level(10.0);
    let bare = level(Source::default());
    let series = |branch| vec![Part { in_series: true, form: PartForm::Chain(branch) }];
    // A plain resistor costs what a cable of that resistance does.
    let resistor = Branch { resistance: 2.0, inductance: 0.0, capacitance: None };
    let lost = 20.0 * (driver.re / (driver.re + 2.0)).log10();
    let with_resistor = Source { parts: series(resistor), ..Source::default() };
    assert_relative_eq!(level(with_resistor) - bare, lost, max_relative = 1e-9);
    let amplifier = Source { output_resistance: 2.0, ..Source::default() };
    assert_relative_eq!(level(amplifier) - bare, lost, max_relative = 1e-9);
    // Both together, and nothing is counted twice.
    let lost = 20.0 * (driver.re / (driver.re + 4.0)).log10();
    let both = Source { output_resistance: 2.0, parts: series(resistor), ..Source::default() };
    assert_relative_eq!(level(both) - bare, lost, max_relative = 1e-9);
    // A coil lets the lowest notes through but for its wire.
    let coil = Branch { resistance: 0.4, inductance: 8e-3, capacitance: None };
    let lost = 20.0 * (driver.re / (driver.re + 0.4)).log10();
    let with_coil = Source { parts: series(coil), ..Source::default() };
    assert_relative_eq!(level(with_coil) - bare, lost, epsilon = 0.05);
}

/// A delay in the chain comes later by itself, in what is heard over time too.
#[test]
fn a_delay_comes_later() {
    let late = Source { chain: Chain { delay: 40.0 / 4096.0, ..Chain::default() }, ..Source::default() };
    let [now, later] = [Source::default(), late]
        .map(|source| Transient::of(&sealed(0.03, source), Excitation::Step, 2.0).pressure);
    let peak = now.iter().fold(0.0f64, |peak, value| peak.max(value.abs()));
    for (k, value) in now.iter().take(1500).enumerate() {
        assert!((value - later[k + 40]).abs() < 2e-3 * peak, "sample {k}");
    }
}

/// The difference that gives the group delay is right to a hundredth of a millisecond on the lanes' own grid.
#[test]
fn group_delay_by_difference_is_right_to_a_hundredth_of_a_millisecond() {
    let network = sealed(0.02, Source::default());
    let (own, qec, qmc) = in_box(0.02);
    let q = qec * qmc / (qec + qmc);
    let response = Response::of(&network, &grid(5.0, 1000.0, 600), 1.0);
    for (delay, frequency) in response.group_delay.iter().zip(&response.frequency) {
        // Of s^2/(s^2 + s/Q + 1).
        let x = frequency / own;
        let exact = (1.0 + x * x) / q / ((1.0 - x * x).powi(2) + (x / q).powi(2)) / (2.0 * PI * own);
        assert!((delay - exact).abs() < 1e-5, "{frequency} Hz: {delay} s, {exact} s");
    }
}

proptest! {
    #![proptest_config(ProptestConfig::with_cases(48))]

    /// What is heard is everything that sounds, each with its own way to the listener.
    #[test]
    fn what_sounds_adds_up_to_what_is_heard(driver_array in any_driver_array(), enclosure in any_enclosure()) {
        let air = Air::reference();
        let network = enclosure.compile(&Setting::new(driver_array, air)).expect("compiles").network;
        let grid = grid(10.0, 400.0, 9);
        let response = Response::of(&network, &grid, 3.0);
        let sources = SoundSource::all(&network, grid.frequencies(), 3.0);
        for (k, frequency) in grid.frequencies().iter().enumerate() {
            let omega = TAU * frequency;
            let heard: Complex = sources
                .iter()
                .map(|source| source.flow[k] * Complex::from_polar(1.0, -omega / air.speed * source.extra_path))
                .sum();
            let pressure = Complex::new(0.0, omega * air.density / TAU) * heard;
            prop_assert!((pressure - response.pressure[k]).norm() < 1e-9 * pressure.norm() + 1e-15);
        }
    }
}
