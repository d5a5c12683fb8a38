//! Cabinets drawn by lot, of two rigs.

use std::f64::consts::{PI, TAU};

use rand::{Rng, SeedableRng};
use rand_chacha::ChaCha8Rng;

use crate::cabinet::{Coil, Driver, Mode};
use crate::{Air, Cabinet, Chain, Lowpass, Port, normal};

/// Which rig.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Kind {
    /// The circuit of the design with other values, and noise.
    Ideal,
    /// Besides, what no circuit of a design holds.
    Rough,
}

/// What is drawn.
#[derive(Debug, Clone, Copy)]
pub struct Setup {
    /// The lot.
    pub seed: u64,
    /// Which rig.
    pub kind: Kind,
    /// Noise under the signal, dB.
    pub noise: f64,
}

/// What the builder believes.
#[derive(Debug, Clone, Copy)]
pub struct Sheet {
    /// A driver by its data sheet.
    pub driver: Driver,
    /// How many of it, and whether in series.
    pub count: u32,
    /// See above.
    pub series: bool,
    /// Net volume, m3.
    pub volume: f64,
    /// Wanted tuning, Hz, and the port drawn for it.
    pub port: Option<(f64, Port)>,
}

/// A cabinet, what it was thought to be, and how it is measured.
#[derive(Debug, Clone)]
pub struct Hidden {
    /// As believed.
    pub sheet: Sheet,
    /// As it is.
    pub cabinet: Cabinet,
    /// Each driver as it stood on the bench.
    pub bench: Vec<Driver>,
    /// Between it and its traces.
    pub chain: Chain,
    /// By the thermometer, degC.
    pub thermometer: f64,
    /// Warmer coil of each sweep, as a share.
    pub warmth: Vec<f64>,
    /// Nothing is off.
    pub clean: bool,
}

/// The air that a design is computed in.
pub(crate) const DESIGNED: f64 = 20.0;

/// Draws one.
pub fn draw(setup: &Setup) -> Hidden {
    let mut random = ChaCha8Rng::seed_from_u64(setup.seed);
    let rough = setup.kind == Kind::Rough;
    let sheet = sheet(&mut random);
    let clean = random.random_bool(0.3);
    let mut off = |clean_share: f64, share: f64| {
        let most = if clean { clean_share } else { share };
        1.0 + random.random_range(-most..=most)
    };
    let [fs, qes, qms, vas] = [off(0.01, 0.15), off(0.01, 0.15), off(0.01, 0.15), off(0.01, 0.15)];
    let volume = off(0.005, 0.06);
    let ends = off(0.0, 0.15);
    let area = if rough { off(0.0, 0.03) } else { 1.0 };
    let longer = (off(5e-4, 12e-3) - 1.0).clamp(-12e-3, 12e-3);
    let unbroken =
        if !clean && random.random_bool(0.4) { 1.0 - random.random_range(0.05..0.18) } else { 1.0 };
    let day = if rough { random.random_range(12.0..28.0) } else { DESIGNED };
    let air = Air::at(day);
    let driver = {
        let wanted = &sheet.driver;
        let cms = wanted.cms * vas / (area * area);
        let mms = ((TAU * wanted.fs() * fs).powi(2) * cms).recip();
        let cms = cms * unbroken;
        let made = Driver { cms, mms, sd: wanted.sd * area, ..*wanted };
        let resonance = TAU * made.fs() * mms;
        let loss = if unbroken < 1.0 { unbroken.sqrt() } else { 1.0 };
        Driver {
            rms: resonance / (wanted.qms() * qms * loss),
            bl: (resonance * made.re / (wanted.qes() * qes / loss)).sqrt(),
            creep: if rough {
                (random.random_range(0.03..0.12), random.random_bool(0.5))
            } else {
                (0.0, false)
            },
            ..made
        }
    };
    let bench = (0..sheet.count).map(|_| {
        let apart = if rough && sheet.count > 1 { 1.0 + 0.01 * normal(&mut random) } else { 1.0 };
        Driver { cms: driver.cms / (apart * apart), ..driver }
    });
    let bench: Vec<Driver> = bench.collect();
    let leaking = !clean && random.random_bool(0.25);
    let port = sheet.port.map(|(_, port)| Port {
        // Ends that are off by what a clean cabinet may be, no more.
        ends: if clean { port.ends } else { port.ends * ends },
        length: port.length + longer,
        ..port
    });
    // As tall as boxes of such a volume are.
    let high = sheet.volume.cbrt() * random.random_range(1.2..1.7);
    let places = [random.random_range(0.1..0.9), random.random_range(0.1..0.9)];
    let mut modes = Vec::new();
    for number in 1..=2u32 {
        let at = places.map(|place| 2f64.sqrt() * (f64::from(number) * PI * place).cos());
        modes.push(Mode {
            frequency: f64::from(number) * air.speed / (2.0 * high),
            at,
            q: random.random_range(15.0..60.0),
        });
    }
    if rough {
        for _ in 0..2 {
            let across = random.random_range(0.25..0.45);
            let at = [0, 1].map(|_| 0.5 * normal(&mut random));
            modes.push(Mode {
                frequency: air.speed / (2.0 * across),
                at,
                q: random.random_range(15.0..60.0),
            });
        }
    }
    let reversed = u32::from(!clean && sheet.count > 1 && random.random_bool(0.5));
    let cabinet = Cabinet {
        driver,
        count: sheet.count,
        series: sheet.series,
        reversed,
        heavier: if rough { random.random_range(0.0..0.04) } else { 0.0 },
        volume: sheet.volume * volume,
        ql: if leaking { random.random_range(1.4..3.2) } else { random.random_range(4.2..20.0) },
        qa: random.random_range(25.0..140.0),
        port,
        modes,
        air,
    };
    let lowpass = (!clean && random.random_bool(0.3)).then(|| {
        let twice = random.random_bool(0.4);
        let order = if twice { [2, 4, 8][random.random_range(0..3)] } else { random.random_range(1..=4) };
        Lowpass { corner: random.random_range(60.0..160.0), order, twice }
    });
    let room = (0..if rough { 4 } else { 0 }).map(|_| {
        [
            random.random_range(18.0..120.0),
            random.random_range(4.0..15.0),
            0.02 * random.random_range(0.2..1.0),
        ]
    });
    let room = room.collect();
    let sign = if random.random_bool(0.5) { 1.0 } else { -1.0 };
    let chain = Chain {
        lowpass,
        card: random.random_range(1.0..5.0),
        microphone: (sign * 10f64.powf(random.random_range(-1.0..1.0)), random.random_range(0.0..0.5e-3)),
        jig: if rough { 1.0 + 0.005 * normal(&mut random) } else { 1.0 },
        mains: if random.random_bool(0.5) { 50.0 } else { 60.0 },
        room,
        crosstalk: if rough { random.random_range(0.0..0.02) } else { 0.0 },
        noise: setup.noise,
    };
    let warmth = (0..8).map(|_| if rough { random.random_range(0.0..0.015) } else { 0.0 }).collect();
    let thermometer = day + if rough { random.random_range(-1.0..1.0) } else { 0.0 };
    Hidden { sheet, cabinet, bench, chain, thermometer, warmth, clean }
}

/// A data sheet and a box for it as somebody would build it.
fn sheet(random: &mut ChaCha8Rng) -> Sheet {
    let air = Air::at(DESIGNED);
    let radius: f64 = random.random_range(0.065..0.17);
    let sd = PI * radius * radius;
    let fs: f64 = random.random_range(18.0..48.0);
    let mms = sd * random.random_range(1.6..3.2);
    let (qes, qms) = (random.random_range(0.3..0.6), random.random_range(3.0..9.0));
    let re = random.random_range(3.0..6.5);
    let resonance = TAU * fs * mms;
    let power: f64 = random.random_range(0.6..0.8);
    let driver = Driver {
        re,
        coil: Coil::Power { size: random.random_range(0.4..1.2) * re / (TAU * 200.0f64).powf(power), power },
        bl: (resonance * re / qes).sqrt(),
        mms,
        cms: ((TAU * fs).powi(2) * mms).recip(),
        rms: resonance / qms,
        sd,
        creep: (0.0, false),
    };
    let count = if random.random_bool(0.35) { 2 } else { 1 };
    let volume = f64::from(count) * driver.vas(&air) / random.random_range(0.8..2.8);
    let port = random.random_bool(0.7).then(|| {
        let tuning = fs * random.random_range(0.8..1.15);
        let count = if random.random_bool(0.3) { 2.0 } else { 1.0 };
        port(tuning, volume, count, &air, random)
    });
    Sheet { driver, count, series: count == 2 && random.random_bool(0.5), volume, port }
}

/// A port as long as it must be: 120 to 600 mm of wood.
fn port(tuning: f64, volume: f64, count: f64, air: &Air, random: &mut ChaCha8Rng) -> (f64, Port) {
    let long = random.random_range(0.15..0.5);
    let wanted = (TAU * tuning / air.speed).powi(2) * volume;
    // Area over effective length is fixed; with a length its radius follows.
    let mut radius = (wanted * long / PI / count).sqrt();
    for _ in 0..20 {
        radius = (wanted * (long + 1.46 * radius) / PI / count).sqrt();
    }
    // As it is sold, and as long as the tuning then asks for.
    let radius = (radius * 1e3).round() * 1e-3;
    let mut made = Port { count, radius, length: long, ends: 1.46 * radius };
    let compliance = volume / (air.density * air.speed * air.speed);
    let (mut low, mut high) = (0.02, 1.5);
    for _ in 0..60 {
        made.length = f64::midpoint(low, high);
        if made.tuning(compliance, &[], air) > tuning { low = made.length } else { high = made.length }
    }
    (tuning, made)
}
