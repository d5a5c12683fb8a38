//! The largest clean output, efficiency, steps and bursts.

use std::f64::consts::PI;

use crate::support::{any_driver_array, any_enclosure, woofer};
use oak_acoustics::Complex;
use oak_acoustics::driver::{Change, Coils, DriverArray, DualCoil, Isobaric, SheetCoils, Wiring};
use oak_acoustics::element::End;
use oak_acoustics::enclosure::{Enclosure, Fidelity, Losses, Port, Ported, Sealed, Setting};
use oak_acoustics::medium::{Air, CrossSection, Fill, Filled, Frame, Space, Stuffing, fill_materials};
use oak_acoustics::network::Network;
use oak_acoustics::response::{
    Allowance, Burst, Excitation, FrequencyGrid, Limit, MaxOutput, Response, Transient,
};
use proptest::prelude::*;

const NOTHING: Allowance =
    Allowance { volts: None, amperes: None, heat: None, crest: 3.0103, xmax: None, air_speed: 17.0 };

fn sealed(volume: f64) -> Enclosure {
    Enclosure::Sealed(Sealed { volume, losses: Losses::default() })
}

fn network(enclosure: &Enclosure, driver_array: impl Into<DriverArray>) -> Network {
    enclosure.compile(&Setting::new(driver_array, Air::reference())).expect("compiles").network
}

fn grid(from: f64, to: f64, points: usize) -> FrequencyGrid {
    FrequencyGrid::logarithmic(from, to, points).expect("grid")
}

proptest! {
    #![proptest_config(ProptestConfig::with_cases(64))]

    /// At the drive that is named, the limit that is named is just met and no other is passed.
    #[test]
    fn the_named_limit_is_met_and_no_other_is_passed(
        driver_array in any_driver_array(), enclosure in any_enclosure(), volts in 1.0f64..80.0, heat in 5.0f64..500.0,
    ) {
        let allowance = Allowance {
            volts: Some(volts), amperes: Some(20.0), heat: Some(heat), crest: 10.0, xmax: Some(6e-3), air_speed: 17.0,
        };
        let network = network(&enclosure, driver_array);
        let grid = grid(12.0, 300.0, 14);
        let response = Response::of(&network, &grid, 2.0);
        let max_output = MaxOutput::of(&network, &response, &allowance);
        for (k, frequency) in grid.frequencies().iter().enumerate() {
            let drive = max_output.volts[k];
            let there = Response::of(&network, &FrequencyGrid::logarithmic(*frequency, frequency * 1.001, 2).expect("grid"), drive);
            let current = there.current[0].norm();
            let speed = (0..network.openings.len())
                .filter(|at| network.openings[*at].xmax.is_none() && network.openings[*at].kind == oak_acoustics::network::OpeningKind::Port)
                .map(|at| there.air_speed(at).next().expect("a speed"))
                .fold(0.0, f64::max);
            let shares = [
                (Limit::Voltage, drive / volts),
                (Limit::Current, current / 20.0),
                (Limit::Heat, (current * current * network.coil_resistance * 0.2 / heat).sqrt()),
                (Limit::Cone, there.excursion().next().expect("travel") / 6e-3),
                (Limit::Air, speed / 17.0),
            ];
            for (limit, share) in shares {
                prop_assert!(share < 1.0 + 1e-6, "{limit:?} at {frequency} Hz: {share}");
                if Some(limit) == max_output.limit[k] {
                    prop_assert!(share > 1.0 - 1e-6, "{limit:?} at {frequency} Hz: {share}");
                }
            }
            prop_assert!(max_output.limit[k].is_some());
        }
        let least = max_output.level[3..9].iter().copied().fold(f64::INFINITY, f64::min);
        prop_assert!((MaxOutput::least_level(&network, &response, &allowance, 3..9) - least).abs() < 1e-9);
    }

    /// Nothing gives more sound than it takes power.
    #[test]
    fn efficiency_is_a_share(driver_array in any_driver_array(), enclosure in any_enclosure()) {
        let network = network(&enclosure, driver_array);
        let response = Response::of(&network, &grid(10.0, 200.0, 20), 5.0);
        for (share, frequency) in response.efficiency().zip(&response.frequency) {
            prop_assert!((0.0..=1.0 + 1e-9).contains(&share), "{share} at {frequency} Hz");
        }
    }
}

#[test]
fn nothing_given_limits_nothing_in_a_closed_box() {
    let network = network(&sealed(0.03), woofer());
    let response = Response::of(&network, &grid(10.0, 100.0, 4), 1.0);
    let max_output = MaxOutput::of(&network, &response, &NOTHING);
    assert!(MaxOutput::least_level(&network, &response, &NOTHING, 0..4).is_infinite());
    assert!(max_output.limit.iter().all(Option::is_none));
    assert!(max_output.volts.iter().all(|volts| volts.is_infinite()));
}

/// Film has 12 dB of crest: its mean power is 9 dB below that of a sine of the same peak, so the coil stands 9 dB more.
#[test]
fn a_programme_with_more_crest_heats_less() {
    let network = network(&sealed(0.03), woofer());
    let response = Response::of(&network, &grid(40.0, 80.0, 3), 1.0);
    let level = |crest| {
        let allowance = Allowance { heat: Some(100.0), crest, ..NOTHING };
        MaxOutput::of(&network, &response, &allowance).level[1]
    };
    assert!((level(12.0) - level(3.0103) - 8.99).abs() < 0.01);
}

/// Common practice: doubling cone area or power is 3 dB; two drivers in parallel on one voltage 6 dB.
#[test]
fn two_drivers_are_6_db_on_one_voltage_and_3_db_on_one_power() {
    let grid = grid(30.0, 100.0, 5);
    let one = Response::of(&network(&sealed(0.03), woofer()), &grid, 2.83);
    let two = |series, parallel, volts| {
        let driver_array = DriverArray { wiring: Wiring { series, parallel }, ..DriverArray::from(woofer()) };
        let setting = Setting::new(driver_array, Air::reference()).with(Fidelity::TEXTBOOK);
        let compiled = sealed(0.06).compile(&setting).expect("compiles");
        Response::of(&compiled.network, &grid, volts)
    };
    let textbook = sealed(0.03).compile(&Setting::new(woofer(), Air::reference()).with(Fidelity::TEXTBOOK));
    let plain = Response::of(&textbook.expect("compiles").network, &grid, 2.83);
    for k in 0..5 {
        let gain = |of: &Response| 20.0 * (of.pressure[k].norm() / plain.pressure[k].norm()).log10();
        assert!((gain(&two(1, 2, 2.83)) - 6.0206).abs() < 1e-6);
        // Half the load takes twice the power; the same power is 3 dB less voltage.
        assert!((gain(&two(1, 2, 2.83 / 2f64.sqrt())) - 3.0103).abs() < 1e-6);
        assert!(gain(&two(2, 1, 2.83)).abs() < 1e-6);
    }
    assert_eq!(one.impedance.len(), 5);
}

/// Common practice: half the box, the same response, half the sensitivity.
#[test]
fn an_ideal_isobaric_pair_needs_half_the_box() {
    let grid = grid(15.0, 150.0, 12);
    let pair = Isobaric { in_series: false, trapped: None };
    let compile = |volume, driver_array: DriverArray| {
        let setting = Setting::new(driver_array, Air::reference()).with(Fidelity::TEXTBOOK);
        sealed(volume).compile(&setting).expect("compiles").network
    };
    let one = Response::of(&compile(0.04, DriverArray::from(woofer())), &grid, 1.0);
    let driver_array = DriverArray { isobaric: Some(pair), ..DriverArray::from(woofer()) };
    assert!(
        (driver_array.equivalent().vas(&Air::reference()) / woofer().vas(&Air::reference()) - 0.5).abs()
            < 1e-12
    );
    let two = Response::of(&compile(0.02, driver_array), &grid, 1.0);
    for k in 0..12 {
        assert!(
            (two.pressure[k] / one.pressure[k] - 1.0).norm() < 1e-9,
            "the same level on the same voltage"
        );
        assert!((2.0 * two.impedance[k] / one.impedance[k] - 1.0).norm() < 1e-9, "at twice the power");
    }
    // With hardly any air between them the two move as one.
    let tight = DriverArray { isobaric: Some(Isobaric { trapped: Some(1e-5), ..pair }), ..driver_array };
    let real = Response::of(&compile(0.02, tight), &grid, 1.0);
    for k in 0..12 {
        assert!((real.pressure[k] / two.pressure[k] - 1.0).norm() < 5e-3);
    }
}

/// Directions of `trade.md`'s kind, common practice: mass lowers Fs and raises Qts, break-in lowers Fs, heat and cable raise
/// Qes, one coil of two has half the force factor of both in series, a shorted idle coil brakes.
#[test]
fn changes_move_a_driver_the_way_they_are_known_to() {
    let air = Air::reference();
    let plain = woofer();
    let change = |change: Change| change.apply(&plain);
    let heavy = change(Change { added_mass: 0.02, ..Change::default() });
    assert!(heavy.fs() < plain.fs() && heavy.qts() > plain.qts());
    assert!(heavy.eta0(&air) < plain.eta0(&air));
    let loose = change(Change { softening: 0.15, ..Change::default() });
    assert!((loose.fs() / plain.fs() - 1.15f64.powf(-0.5)).abs() < 1e-12);
    // 0.393 % a kelvin (IEC 60028).
    let hot = change(Change { coil_heat: 100.0, ..Change::default() });
    assert!((hot.re / plain.re - 1.393).abs() < 1e-9 && hot.qes() > plain.qes());
    let coils = |used| {
        change(Change { coils: DualCoil::Rewired { stated: SheetCoils::Series, used }, ..Change::default() })
    };
    let (series, parallel, one) = (coils(Coils::Series), coils(Coils::Parallel), coils(Coils::One));
    assert_eq!(series, plain);
    assert!(
        (parallel.re * 4.0 - plain.re).abs() < 1e-12 && (parallel.qes() / plain.qes() - 1.0).abs() < 1e-12
    );
    assert!((one.bl * 2.0 - plain.bl).abs() < 1e-12 && (one.qes() / plain.qes() - 2.0).abs() < 1e-12);
    let shorted = coils(Coils::OneLoaded { resistance: 0.0 });
    assert!(shorted.qms() < one.qms() && (shorted.qes() - one.qes()).abs() < 1e-12);
    // Both coils brake as one would if both were driven.
    assert!((shorted.qts() / plain.qts() - 1.0).abs() < 1e-9);
    let cable = DriverArray { series_resistance: 0.34, ..DriverArray::from(plain) }.as_driven();
    assert!((cable.qes() / plain.qes() - 1.1).abs() < 1e-9);
    // Two drivers of 2 x 4 ohm, coils in series, drivers in parallel: 4 times 4 ohm come to 4 ohm.
    let four = oak_acoustics::driver::Driver { nominal: 8.0, ..plain };
    let pair = DriverArray { wiring: Wiring { series: 1, parallel: 2 }, ..DriverArray::from(four) };
    assert!((pair.equivalent().nominal - 4.0).abs() < 1e-12);
}

#[test]
fn more_fill_seems_larger_and_absorbs_more() {
    let all = [Stuffing::None, Stuffing::Lined, Stuffing::Half, Stuffing::Full, Stuffing::Packed];
    assert!(all.windows(2).all(|two| two[1].gain() > two[0].gain() && two[1].qa() < two[0].qa()));
    // Isothermal air is 1.4 times as soft; nothing can seem larger.
    assert!(all.iter().all(|fill| (1.0..=1.4).contains(&fill.gain())));
}

#[test]
fn fill_by_weight_goes_through_the_amounts_and_a_finer_fill_needs_less() {
    for amount in Stuffing::ALL {
        let found = Filled::of_polyester(amount.density());
        assert!(
            (found.gain - amount.gain()).abs() < 1e-12 && (found.qa - amount.qa()).abs() < 1e-9,
            "{amount:?}"
        );
    }
    let steps: Vec<_> = (0..60).map(|at| Filled::of_polyester(0.5 * f64::from(at))).collect();
    assert!(steps.windows(2).all(|two| two[1].gain >= two[0].gain && two[1].qa <= two[0].qa));
    assert!(steps.iter().all(|filled| filled.gain <= 1.25 && filled.qa >= 5.0));
    for sold in fill_materials() {
        let same = Fill::polyester(sold.as_polyester(sold.fill.bulk_density), Frame::Limp).resistivity;
        assert!((same / sold.fill.resistivity - 1.0).abs() < 1e-9, "{}", sold.id);
        assert!(sold.id.starts_with("polyester") || sold.as_polyester(10.0) > 10.0, "{}", sold.id);
    }
}

/// Each wall doubles the pressure; the power into it is the same resistance spread over less space.
#[test]
fn every_wall_is_6_db() {
    let grid = grid(20.0, 40.0, 3);
    let level = |space| {
        let setting = Setting { space, ..Setting::new(woofer(), Air::reference()).with(Fidelity::TEXTBOOK) };
        let network = sealed(0.04).compile(&setting).expect("compiles").network;
        (Response::levels(&network, &grid, 2.83)[1], network.piston_level(2.83))
    };
    let spaces = [Space::Full, Space::Half, Space::Quarter, Space::Eighth];
    for two in spaces.windows(2) {
        let ((a, reference_a), (b, reference_b)) = (level(two[0]), level(two[1]));
        assert!((b - a - 6.0206).abs() < 1e-3 && (reference_b - reference_a - 6.0206).abs() < 1e-3);
    }
}

/// A closed box answers a step with a jump that decays through zero: its transfer function has no response at 0 Hz, so
/// what is heard adds up to nothing (Small 1972), but for the ringing of the band limit before the step. The jump is the piston-band pressure.
#[test]
fn the_step_of_a_closed_box_jumps_and_rings_at_fc() {
    let enclosure = sealed(0.025);
    let setting = Setting::new(woofer(), Air::reference()).with(Fidelity::TEXTBOOK);
    let compiled = enclosure.compile(&setting).expect("compiles");
    let fc = compiled.closed_box.expect("sealed").fc;
    let transient = Transient::of(&compiled.network, Excitation::Step, 2.83);
    let expected = woofer().reference_pressure(2.83, &Air::reference()) * 2f64.sqrt();
    let peak = transient.pressure.iter().copied().fold(0.0, f64::max);
    assert!((peak / expected - 1.0).abs() < 0.25, "{peak} {expected}");
    let first_zero = transient.pressure.iter().skip(8).position(|p| *p < 0.0).expect("it rings") + 8;
    let quarter = 1.0 / fc / 4.0;
    assert!((0.5..2.0).contains(&(transient.time[first_zero] / quarter)), "{}", transient.time[first_zero]);
    let sum: f64 = transient.pressure.iter().sum();
    let size: f64 = transient.pressure.iter().map(|p| p.abs()).sum();
    assert!(sum.abs() < 0.06 * size, "{sum} {size}");
}

/// In the middle of a long burst the level is that of the steady tone.
#[test]
fn a_long_burst_reaches_the_steady_level() {
    let network = network(&sealed(0.03), woofer());
    let frequency = 80.0;
    let burst = Burst { frequency, cycles: 28.0 };
    let transient = Transient::of(&network, Excitation::Burst(burst), 2.83);
    let steady: Complex = Response::of(&network, &grid(frequency, frequency * 1.01, 2), 2.83).pressure[0];
    let peak = transient.pressure.iter().copied().fold(0.0, f64::max);
    assert!((peak / (steady.norm() * 2f64.sqrt()) - 1.0).abs() < 0.02, "{peak} {}", steady.norm());
    assert!(transient.pressure[2000].abs() < 0.02 * peak, "silence afterwards");
}

/// Two faces far smaller than the wave: in one place they radiate as one, `R |u1 + u2|^2`; apart, each pair by `sin(kd)/(kd)`
/// (Pritchard 1960). Moved away from zero, nothing jumps.
#[test]
fn faces_sound_against_each_other_by_how_far_they_stand_apart() {
    let ported = |path: f64| {
        let section = CrossSection::Round { radius: 0.05 };
        let port = Port { inner: End::Flanged, path, ..Port::new(section, Some(0.2)) };
        let losses = Losses { ql: None, qa: None };
        Enclosure::Ported(Ported { volume: 0.06, losses, ports: vec![port], tuning: None })
    };
    let one = |path: f64, frequency: f64| {
        let network = network(&ported(path), woofer());
        let response = Response::of(&network, &grid(frequency, frequency * 1.001, 2), 2.83);
        let flow = |velocity: &[Complex], area: f64| velocity[0] * area;
        let flows = [
            flow(&response.cone_velocity[0], network.cones[0].area),
            flow(&response.opening_velocity[0], network.openings[0].area),
        ];
        (response.radiated[0], flows)
    };
    let air = Air::reference();
    for frequency in [25.0, 40.0, 80.0] {
        let omega = 2.0 * PI * frequency;
        let small = air.density * omega * omega / (2.0 * PI * air.speed);
        for path in [0.0, 1e-9, 0.3, 2.0, 6.0] {
            let (radiated, [cone, port]) = one(path, frequency);
            let kd = omega / air.speed * path;
            let together = if kd > 1e-6 { kd.sin() / kd } else { 1.0 };
            let expected =
                small * (cone.norm_sqr() + port.norm_sqr() + 2.0 * together * (cone.conj() * port).re);
            assert!(
                (radiated / expected - 1.0).abs() < 0.01,
                "{frequency} Hz, {path} m: {radiated} {expected}"
            );
        }
        assert!((one(0.0, frequency).0 / one(1e-6, frequency).0 - 1.0).abs() < 1e-6);
    }
}
