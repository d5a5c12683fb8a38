//! Drivers in free air, alone and with a mass on the cone.

use oak_metering::driver::{Bench, Measured, measure, points};
use oak_rig::{Coil, Driver};
use rand::SeedableRng;
use rand_chacha::ChaCha8Rng;

use crate::support::{any, measured};

/// Drivers, with what was measured of each: true values and found ones with their errors, Fs, Qes, compliance.
fn tried(count: u64, creep: f64, noise: f64) -> Vec<[(f64, (f64, f64)); 3]> {
    let one = |seed: u64| {
        let mut random = ChaCha8Rng::seed_from_u64(seed);
        let truth = any(&mut random, creep);
        let mass = 0.25 * truth.mms;
        let [free, loaded] = [0.0, mass].map(|added| measured(&truth, added, noise, &mut random));
        let found = measure(&Bench { free: &free, loaded: Some((&loaded, mass)) }).expect("a resonance");
        [(truth.fs(), found.fs), (truth.qes(), found.qes), (truth.cms, found.cms.expect("a mass"))]
    };
    (0..count).map(one).collect()
}

/// Share of 95 % that is nearest to what it should be, and shares within one and two stated errors.
fn told(all: &[[(f64, (f64, f64)); 3]], which: usize) -> (f64, f64, f64) {
    let mut off: Vec<f64> = all.iter().map(|one| (one[which].1.0 / one[which].0 - 1.0).abs()).collect();
    off.sort_by(f64::total_cmp);
    let within = |times: f64| {
        let inside = |one: &&[(f64, (f64, f64)); 3]| {
            let (truth, (value, error)) = one[which];
            (value - truth).abs() <= times * error
        };
        all.iter().filter(inside).count() as f64 / all.len() as f64
    };
    (off[off.len() * 95 / 100], within(1.0), within(2.0))
}

#[test]
fn fs_qes_and_compliance_are_found_in_noise_with_honest_errors() {
    // Of 95 % of drivers; the compliance is the part of Vas that a trace tells.
    for (noise, most) in [(40.0, [0.001, 0.01, 0.015]), (25.0, [0.005, 0.03, 0.03])] {
        let all = tried(16, 0.0, noise);
        for (which, most) in most.into_iter().enumerate() {
            let (worst, one, two) = told(&all, which);
            assert!(worst < most, "{which} at {noise} dB: {worst}");
            assert!(one > 0.55 && two > 0.88, "{which} at {noise} dB: {one} {two}");
        }
    }
}

#[test]
fn a_suspension_that_creeps_spoils_neither_fs_nor_qes() {
    for creep in [0.03, 0.12] {
        let all = tried(8, creep, 40.0);
        for (which, most) in [(0, 0.005), (1, 0.02), (2, 0.03)] {
            let (worst, ..) = told(&all, which);
            assert!(worst < most, "{which} with {creep}: {worst}");
        }
    }
}

#[test]
fn the_fit_agrees_with_the_closed_way_by_three_points_on_clean_data() {
    for seed in 0..10 {
        let mut random = ChaCha8Rng::seed_from_u64(seed);
        let truth = Driver { coil: Coil::Core { inductance: 0.0, edge: 100.0 }, ..any(&mut random, 0.0) };
        let free = measured(&truth, 0.0, 200.0, &mut random);
        let found = measure(&Bench { free: &free, loaded: None }).expect("a resonance");
        let by_hand = points(&free, Some(truth.re)).expect("a peak");
        for (name, fit, hand, truth) in [
            ("Fs", found.fs.0, by_hand.fs, truth.fs()),
            ("Qms", found.qms.0, by_hand.qms, truth.qms()),
            ("Qes", found.qes.0, by_hand.qes, truth.qes()),
        ] {
            assert!((fit / truth - 1.0).abs() < 1e-3, "{seed}: {name} {fit}, truly {truth}");
            assert!((hand / truth - 1.0).abs() < 1e-2, "{seed}: {name} by hand {hand}, truly {truth}");
        }
    }
}

#[test]
fn without_a_mass_no_mass_is_told_and_without_a_resonance_nothing() {
    let mut random = ChaCha8Rng::seed_from_u64(4);
    let truth = any(&mut random, 0.0);
    let free = measured(&truth, 0.0, 40.0, &mut random);
    let Measured { mms, cms, bl, .. } = measure(&Bench { free: &free, loaded: None }).expect("a resonance");
    assert_eq!((mms, cms, bl), (None, None, None));
    let held = Driver { cms: 1e-9, ..truth };
    let free = measured(&held, 0.0, 60.0, &mut random);
    assert!(
        measure(&Bench { free: &free, loaded: None })
            .is_none_or(|found| found.left > 0.0 && found.fs.1 > 0.02 * found.fs.0)
    );
}

#[test]
fn a_magnitude_without_phase_is_fitted_too() {
    let mut random = ChaCha8Rng::seed_from_u64(11);
    let truth = any(&mut random, 0.0);
    let mut free = measured(&truth, 0.0, 46.0, &mut random);
    free.phased = false;
    free.value.iter_mut().for_each(|value| *value = value.norm().into());
    let found = measure(&Bench { free: &free, loaded: None }).expect("a resonance");
    assert!((found.fs.0 / truth.fs() - 1.0).abs() < 0.01, "{:?} {}", found.fs, truth.fs());
    assert!((found.qes.0 / truth.qes() - 1.0).abs() < 0.03, "{:?} {}", found.qes, truth.qes());
}
