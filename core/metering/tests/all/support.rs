//! Drivers by their mechanics, and what an instrument would write down of them.

use std::f64::consts::TAU;

use oak_design::file::{RawMeasurement, RawTraceKind, RawTraceSource};
use oak_metering::Complex;
use oak_metering::trace::Impedance;
use oak_rig::{Coil, Driver, normal};
use rand::Rng;
use rand_chacha::ChaCha8Rng;

/// Any driver, with a coil of another law than the fit has.
pub fn any(random: &mut ChaCha8Rng, creep: f64) -> Driver {
    let fs: f64 = random.random_range(20.0..60.0);
    let mms: f64 = random.random_range(0.03..0.2);
    let re: f64 = random.random_range(2.8..7.0);
    let (qms, qes): (f64, f64) = (random.random_range(3.0..12.0), random.random_range(0.3..0.8));
    let resonance = TAU * fs * mms;
    let inductance = random.random_range(0.05e-3..0.25e-3) * re;
    Driver {
        re,
        bl: (resonance * re / qes).sqrt(),
        mms,
        cms: ((TAU * fs).powi(2) * mms).recip(),
        rms: resonance / qms,
        sd: 0.05,
        coil: Coil::Core { inductance: 1.5 * inductance, edge: random.random_range(50.0..400.0) },
        creep: (creep, false),
    }
}

/// A sweep of 400 points from 10 Hz to 1 kHz with a mass (kg) on the cone and so much noise under the signal, dB.
pub fn measured(driver: &Driver, added: f64, noise: f64, random: &mut ChaCha8Rng) -> Impedance {
    swept(noise, random, |frequency| driver.free(frequency, added))
}

/// The same of anything.
pub fn swept(noise: f64, random: &mut ChaCha8Rng, of: impl Fn(f64) -> Complex) -> Impedance {
    let share = 10f64.powf(-noise / 20.0) / 2f64.sqrt();
    let frequency: Vec<f64> = (0..400).map(|k| 10.0 * 100f64.powf(f64::from(k) / 399.0)).collect();
    let value = frequency.iter().map(|frequency| {
        let clean = of(*frequency);
        clean + Complex::new(normal(random), normal(random)) * (share * clean.norm())
    });
    Impedance { value: value.collect(), frequency, phased: true, notes: Vec::new() }
}

/// A measurement with nothing said of it but its points.
pub fn trace(of: RawTraceKind, points: Vec<[f64; 3]>) -> RawMeasurement {
    RawMeasurement {
        of,
        source: RawTraceSource::Text,
        at: "2026-05-01T18:30:00Z".to_owned(),
        variant: None,
        driver: None,
        added_mass: None,
        distance: None,
        angle: None,
        drive: None,
        room_temperature: None,
        file: String::new(),
        raw: None,
        photo: None,
        calibration: String::new(),
        left_out: false,
        sweep_level: None,
        harmonics: Vec::new(),
        phased: true,
        points,
        remarks: Vec::new(),
        notes: String::new(),
    }
}
