//! What must hold for every driver in every box.

use crate::support::{any_driver, any_enclosure, woofer};
use oak_acoustics::driver::{Driver, Missing, Quantity, Sheet};
use oak_acoustics::element::End;
use oak_acoustics::enclosure::{CompileError, Enclosure, Losses, Port, Ported, Setting};
use oak_acoustics::medium::{Air, CrossSection};
use oak_acoustics::response::{Figures, FrequencyGrid, GridError, Response};
use proptest::prelude::*;

fn simple_ported(volume: f64, radius: f64, length: Option<f64>, tuning: Option<f64>) -> Ported {
    let port = Port {
        section: CrossSection::Round { radius },
        length,
        count: 1,
        inner: End::Free,
        outer: End::Flanged,
        path: 0.0,
        waist: 1.0,
        extra: 0.0,
    };
    Ported { volume, losses: Losses::default(), ports: vec![port], tuning }
}

proptest! {
    /// A passive load never gives energy back, and every result is a number.
    #[test]
    fn the_impedance_is_passive_and_every_figure_is_a_number(driver in any_driver(), enclosure in any_enclosure()) {
        let network = enclosure.compile(&Setting::new(driver, Air::reference())).expect("compiles").network;
        let grid = FrequencyGrid::logarithmic(5.0, 2000.0, 80).expect("grid");
        let response = Response::of(&network, &grid, 10.0);
        for (index, z) in response.impedance.iter().enumerate() {
            prop_assert!(z.re > 0.0, "{} ohm at {} Hz", z, response.frequency[index]);
            prop_assert!(z.re >= driver.re * (1.0 - 1e-9), "motion can only add resistance");
            prop_assert!(response.group_delay[index].is_finite());
        }
        prop_assert!(response.level().chain(response.excursion()).all(f64::is_finite));
        let figures = Figures::of(&network, 10.0);
        prop_assert!(figures.impedance_minimum.value >= driver.re * (1.0 - 1e-3));
        prop_assert!(figures.level_peak.value.is_finite());
    }

    /// Doubling the voltage is 6 dB, twice the travel and the same impedance.
    #[test]
    fn the_network_is_linear(driver in any_driver(), enclosure in any_enclosure()) {
        let network = enclosure.compile(&Setting::new(driver, Air::reference())).expect("compiles").network;
        let grid = FrequencyGrid::logarithmic(10.0, 500.0, 9).expect("grid");
        let (one, two) = (Response::of(&network, &grid, 1.0), Response::of(&network, &grid, 2.0));
        for k in 0..9 {
            prop_assert!((two.pressure[k] / one.pressure[k] - 2.0).norm() < 1e-9);
            prop_assert!((two.impedance[k] / one.impedance[k] - 1.0).norm() < 1e-9);
        }
    }

    /// A longer port tunes lower, a larger box tunes lower.
    #[test]
    fn tuning_falls_with_length_and_volume(
        volume in 0.01f64..0.3, radius in 0.015f64..0.1, length in 0.02f64..1.0, grow in 1.02f64..1.5,
    ) {
        let driver = Sheet {
            re: Some(6.0), fs: Some(30.0), qms: Some(4.0), qes: Some(0.4), vas: Some(0.1), sd: Some(0.03),
            ..Sheet::default()
        }.complete(&Air::reference()).expect("complete").driver;
        let tuned = |volume, length| {
            Enclosure::Ported(simple_ported(volume, radius, Some(length), None))
                .compile(&Setting::new(driver, Air::reference())).expect("compiles")
                .port_tuning.expect("ported").reactance
        };
        let here = tuned(volume, length);
        prop_assert!(tuned(volume, length * grow) < here);
        prop_assert!(tuned(volume * grow, length) < here);
    }

    /// The length found for a tuning gives that tuning.
    #[test]
    fn length_and_tuning_are_inverse(driver in any_driver(), volume in 0.01f64..0.3, radius in 0.02f64..0.08, tuning in 18.0f64..70.0) {
        let air = Air::reference();
        match Enclosure::Ported(simple_ported(volume, radius, None, Some(tuning))).compile(&Setting::new(driver, air)) {
            Ok(compiled) => {
                let length = compiled.port_tuning.expect("ported").ports[0].length;
                let back = Enclosure::Ported(simple_ported(volume, radius, Some(length), None))
                    .compile(&Setting::new(driver, air)).expect("compiles").port_tuning.expect("ported");
                prop_assert!((back.reactance / tuning - 1.0).abs() < 1e-6);
            }
            Err(CompileError::TuningTooHigh { highest, .. }) => prop_assert!(highest < tuning),
            Err(other) => prop_assert!(false, "{other}"),
        }
    }

    /// Every set of stated values that determines a driver completes to that driver, whichever it is; every other set says
    /// what is missing. Which sets do, follows from the rank of the relations between the logarithms.
    #[test]
    fn every_sufficient_set_completes_the_same_driver(driver in any_driver(), set in 0u32..1024) {
        let air = Air::reference();
        let sheet = sheet_of(&driver, &air, set);
        match sheet.complete(&air) {
            Ok(completed) => {
                let same = completed.driver;
                for (a, b) in [
                    (same.fs(), driver.fs()), (same.re, driver.re), (same.sd, driver.sd), (same.mms, driver.mms),
                    (same.cms, driver.cms), (same.bl, driver.bl), (same.rms, driver.rms),
                ] {
                    prop_assert!((a / b - 1.0).abs() < 1e-6, "{sheet:?}: {a} and not {b}");
                }
                prop_assert!(sufficient(set), "{sheet:?}");
                prop_assert!(sheet.doubts(&completed, &air).is_empty());
                prop_assert!(sheet.reconciling(&air).expect("complete").is_empty());
            }
            Err(missing) => prop_assert!(!missing.is_empty() && !sufficient(set), "{sheet:?}"),
        }
    }

    /// One value that is off by a fifth is found by what it contradicts, and taking it out mends everything.
    #[test]
    fn the_value_that_is_off_is_among_those_that_mend(driver in any_driver(), which in 0usize..8) {
        let air = Air::reference();
        let mut sheet = sheet_of(&driver, &air, 0b11_1111_1111);
        let quantity = [
            Quantity::Fs, Quantity::Sd, Quantity::Qes, Quantity::Vas, Quantity::Cms, Quantity::Mms, Quantity::Bl, Quantity::Re,
        ][which];
        let right = sheet.stated(quantity).expect("all are stated");
        let slot = match quantity {
            Quantity::Fs => &mut sheet.fs,
            Quantity::Sd => &mut sheet.sd,
            Quantity::Qes => &mut sheet.qes,
            Quantity::Vas => &mut sheet.vas,
            Quantity::Cms => &mut sheet.cms,
            Quantity::Mms => &mut sheet.mms,
            Quantity::Bl => &mut sheet.bl,
            _ => &mut sheet.re,
        };
        *slot = Some(right * 1.25);
        let mending = sheet.reconciling(&air).expect("complete");
        let found = mending.iter().find(|(mends, _)| *mends == quantity);
        prop_assert!(found.is_some_and(|(_, value)| (value / right - 1.0).abs() < 1e-6), "{quantity:?}: {mending:?}");
    }
}

/// A sheet that states the quantities whose bits are set, in the order of [`Quantity::ALL`].
fn sheet_of(driver: &Driver, air: &Air, set: u32) -> Sheet {
    let full = Sheet {
        fs: Some(driver.fs()),
        re: Some(driver.re),
        sd: Some(driver.sd),
        qms: Some(driver.qms()),
        qes: Some(driver.qes()),
        vas: Some(driver.vas(air)),
        cms: Some(driver.cms),
        mms: Some(driver.mms),
        bl: Some(driver.bl),
        qts: Some(driver.qts()),
        ..Sheet::default()
    };
    let left_out = Quantity::ALL.into_iter().enumerate().filter(|(bit, _)| set >> bit & 1 == 0);
    left_out.fold(full, |sheet, (_, quantity)| sheet.without(quantity))
}

/// Whether a set determines fs, re, sd, qms, qes, mms, cms and bl: six free values, so six independent ones are needed. The
/// Jacobian of the ten quantities by six free logarithms (fs, re, sd, qms, mms, bl) must have full rank on the set.
fn sufficient(set: u32) -> bool {
    // Qts depends on Qms and Qes with weights that add up to 1; any fixed ones keep the rank.
    let (m, e) = (0.3, 0.7);
    let qes = [1.0, 1.0, 0.0, 0.0, 1.0, -2.0];
    let cms = [-2.0, 0.0, 0.0, 0.0, -1.0, 0.0];
    let rows = [
        [1.0, 0.0, 0.0, 0.0, 0.0, 0.0],
        [0.0, 1.0, 0.0, 0.0, 0.0, 0.0],
        [0.0, 0.0, 1.0, 0.0, 0.0, 0.0],
        [0.0, 0.0, 0.0, 1.0, 0.0, 0.0],
        qes,
        [-2.0, 0.0, 2.0, 0.0, -1.0, 0.0],
        cms,
        [0.0, 0.0, 0.0, 0.0, 1.0, 0.0],
        [0.0, 0.0, 0.0, 0.0, 0.0, 1.0],
        [e * qes[0], e * qes[1], 0.0, m, e * qes[4], e * qes[5]],
    ];
    let mut stated: Vec<[f64; 6]> =
        rows.into_iter().enumerate().filter(|(bit, _)| set >> bit & 1 == 1).map(|(_, row)| row).collect();
    let mut rank = 0;
    for column in 0..6 {
        let Some(pivot) = (rank..stated.len()).find(|row| stated[*row][column].abs() > 1e-9) else {
            continue;
        };
        stated.swap(rank, pivot);
        let lead = stated[rank];
        for row in stated.iter_mut().skip(rank + 1) {
            let factor = row[column] / lead[column];
            row.iter_mut().zip(lead).for_each(|(entry, lead)| *entry -= factor * lead);
        }
        rank += 1;
    }
    rank == 6
}

#[test]
fn an_empty_sheet_says_everything_that_is_missing() {
    let missing = Sheet::default().complete(&Air::reference()).expect_err("nothing is known");
    assert_eq!(missing, [Missing::Re, Missing::Fs, Missing::Sd, Missing::TwoOfTheQs, Missing::Suspension]);
}

#[test]
fn a_total_q_above_its_parts_is_refused() {
    let sheet = Sheet { qms: Some(3.0), qts: Some(3.5), ..Sheet::default() };
    let missing = sheet.complete(&Air::reference()).expect_err("impossible");
    assert!(missing.contains(&Missing::QtsNotBelow { qts: 3.5, other: 3.0 }));
}

#[test]
fn a_tuning_no_port_can_reach_names_the_highest_that_can_be() {
    let driver = Sheet {
        re: Some(6.0),
        fs: Some(30.0),
        qms: Some(4.0),
        qes: Some(0.4),
        vas: Some(0.1),
        sd: Some(0.03),
        ..Sheet::default()
    };
    let driver = driver.complete(&Air::reference()).expect("complete").driver;
    let compile = |tuning| {
        Enclosure::Ported(simple_ported(0.2, 0.02, None, Some(tuning)))
            .compile(&Setting::new(driver, Air::reference()))
    };
    let Err(CompileError::TuningTooHigh { highest, .. }) = compile(120.0) else { panic!("must be refused") };
    assert!(compile(highest * 0.99).is_ok() && compile(highest * 1.01).is_err());
}

/// Two tubes, one of a known length: 100 mm wide and 120 mm long beside one of 70 mm, on 50 l.
fn beside(length: Option<f64>, tuning: Option<f64>) -> Ported {
    let known = simple_ported(0.05, 0.05, Some(0.12), None);
    let other = simple_ported(0.05, 0.035, length, tuning);
    Ported { ports: vec![known.ports[0], other.ports[0]], ..other }
}

#[test]
fn a_tuning_that_no_length_reaches_is_refused_with_the_lowest() {
    let setting = Setting::new(woofer(), Air::reference());
    let compile = |ported: Ported| Enclosure::Ported(ported).compile(&setting);
    let alone =
        compile(simple_ported(0.05, 0.05, Some(0.12), None)).expect("compiles").port_tuning.expect("ported");
    let Err(CompileError::TuningTooLow { lowest, .. }) = compile(beside(None, Some(30.0))) else {
        panic!("must be refused")
    };
    assert!((lowest - alone.reactance).abs() < 1e-9, "{lowest}");
    assert!(compile(beside(None, Some(lowest * 0.99))).is_err());
    let reached = compile(beside(None, Some(60.0))).expect("compiles").port_tuning.expect("ported");
    assert!((reached.reactance - 60.0).abs() < 1e-6);
    // A pipe that is longer than a quarter wave there tunes nothing lower; the first balance is above its own quarter wave.
    let long = compile(beside(Some(2.86), None)).expect("compiles").port_tuning.expect("ported");
    assert!((long.reactance - 46.5).abs() < 0.1, "{}", long.reactance);
}

#[test]
fn a_grid_that_makes_no_sense_is_refused() {
    assert_eq!(
        FrequencyGrid::logarithmic(100.0, 10.0, 5),
        Err(GridError::Reversed { from: 100.0, to: 10.0 })
    );
    assert_eq!(FrequencyGrid::logarithmic(0.0, 10.0, 5), Err(GridError::OutOfRange(0.0)));
    assert_eq!(FrequencyGrid::logarithmic(10.0, 100.0, 1), Err(GridError::Points(1)));
    assert!(FrequencyGrid::logarithmic(f64::NAN, 100.0, 10).is_err());
}

#[test]
fn the_slot_made_narrower_tunes_lower() {
    // Common practice. The slit's friction adds to the narrowing of the area.
    let driver = Sheet {
        re: Some(6.0),
        fs: Some(30.0),
        qms: Some(4.0),
        qes: Some(0.4),
        vas: Some(0.1),
        sd: Some(0.03),
        ..Sheet::default()
    };
    let driver = driver.complete(&Air::reference()).expect("complete").driver;
    let tuned = |height| {
        let section = CrossSection::Slot { width: 0.3, height };
        let port = Port {
            section,
            length: Some(0.3),
            count: 1,
            inner: End::Walls(2),
            outer: End::Flanged,
            path: 0.0,
            waist: 1.0,
            extra: 0.0,
        };
        let ported = Ported { volume: 0.05, losses: Losses::default(), ports: vec![port], tuning: None };
        let compiled =
            Enclosure::Ported(ported).compile(&Setting::new(driver, Air::reference())).expect("compiles");
        let tuning = compiled.port_tuning.expect("ported");
        (tuning.reactance, tuning.helmholtz)
    };
    let (wide, narrow, crack) = (tuned(0.03), tuned(0.015), tuned(0.003));
    assert!(wide.0 > narrow.0 && narrow.0 > crack.0);
    assert!(crack.0 / crack.1 < 0.97 * wide.0 / wide.1, "friction must lower it beyond the plain formula");
}
