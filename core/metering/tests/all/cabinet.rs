//! Finished boxes by their impedance, against mechanics and acoustics that the fit does not know.

use std::f64::consts::TAU;

use oak_acoustics::medium::Air;
use oak_metering::Complex;
use oak_metering::cabinet::{Believed, Boxed, Found, Ports, Seen, measure, trim};
use oak_metering::driver::{Inductive, Model};
use oak_metering::trace::Impedance;
use oak_rig::Driver;
use rand::{Rng, SeedableRng};
use rand_chacha::ChaCha8Rng;

use crate::support::{any, swept};

/// A box behind a driver by what it is made of.
struct Box {
    driver: Driver,
    /// Acoustic compliance, m3/Pa.
    compliance: f64,
    /// Acoustic mass of the port, kg/m4; none of a closed box.
    mass: Option<f64>,
    /// Resistance of the leaks, Pa s/m3.
    leak: f64,
}

impl Box {
    fn any(random: &mut ChaCha8Rng, ported: bool, leaking: bool) -> Self {
        let driver = any(random, 0.0);
        let driver = Driver { sd: random.random_range(0.02..0.08), ..driver };
        let alpha = random.random_range(0.6..3.0);
        let compliance = driver.cms * driver.sd.powi(2) / alpha;
        let tuning = driver.fs() * random.random_range(0.7..1.2);
        let ql = if leaking { random.random_range(1.8..3.2) } else { random.random_range(4.5..20.0) };
        let at = if ported { tuning } else { driver.fs() * (1.0f64 + alpha).sqrt() };
        Self {
            driver,
            compliance,
            mass: ported.then(|| ((TAU * tuning).powi(2) * compliance).recip()),
            leak: ql / (TAU * at * compliance),
        }
    }

    fn tuning(&self) -> f64 {
        match self.mass {
            Some(mass) => (mass * self.compliance).sqrt().recip() / TAU,
            None => self.driver.fs() * (1.0 + self.alpha()).sqrt(),
        }
    }

    fn alpha(&self) -> f64 {
        self.driver.cms * self.driver.sd.powi(2) / self.compliance
    }

    fn ql(&self) -> f64 {
        TAU * self.tuning() * self.compliance * self.leak
    }

    fn impedance(&self, frequency: f64) -> Complex {
        let omega = TAU * frequency;
        let mut admittance =
            Complex::new(omega * self.compliance / 120.0 + 1.0 / self.leak, omega * self.compliance);
        if let Some(mass) = self.mass {
            // Friction at the wall grows with the root of frequency.
            let at = TAU * self.tuning();
            admittance += Complex::new(at * mass / 70.0 * (omega / at).sqrt(), omega * mass).inv();
        }
        let moved = self.driver.mechanical(frequency, 0.0) + self.driver.sd.powi(2) / admittance;
        self.driver.electrical(frequency) + self.driver.bl.powi(2) / moved
    }

    fn measured(&self, noise: f64, random: &mut ChaCha8Rng) -> Impedance {
        swept(noise, random, |frequency| self.impedance(frequency))
    }

    /// As somebody believes it who has a sheet that is off, or has measured the driver.
    fn believed(&self, random: &mut ChaCha8Rng, sheet: f64, spread: [f64; 3]) -> Believed {
        let mut off = || 1.0 + random.random_range(-sheet..=sheet);
        Believed {
            fs: (self.driver.fs() * off(), spread[0]),
            qms: (self.driver.qms() * off(), spread[1]),
            qes: (self.driver.qes() * off(), spread[2]),
            coil: None,
            alpha: self.alpha() * off(),
            wave: 300.0,
            tuning: self
                .mass
                .map(|_| (self.tuning() * off(), Ports::tube(0.05, 0.3, [0.03, 0.04], &Air::reference()))),
            compliance: self.compliance,
            series: false,
            count: 1,
        }
    }
}

const SHEET: [f64; 3] = [0.15, 0.35, 0.15];
const MEASURED: [f64; 3] = [0.02, 0.15, 0.02];

fn tried(
    count: u64,
    ported: bool,
    leaking: bool,
    noise: f64,
    sheet: f64,
    spread: [f64; 3],
) -> Vec<(Box, Found)> {
    let one = |seed: u64| {
        let mut random = ChaCha8Rng::seed_from_u64(900 + seed);
        let truth = Box::any(&mut random, ported, leaking);
        let trace = truth.measured(noise, &mut random);
        let seen = Seen { open: &trace, shut: None, near: &[] };
        let found = measure(&seen, &truth.believed(&mut random, sheet, spread)).expect("a box");
        (truth, found)
    };
    (0..count).map(one).collect()
}

/// What 95 % of some values do not exceed.
fn most(values: impl Iterator<Item = f64>) -> f64 {
    let mut all: Vec<f64> = values.collect();
    all.sort_by(f64::total_cmp);
    all[(all.len() * 95).div_ceil(100) - 1]
}

#[test]
fn the_tuning_and_the_leaks_of_a_box_are_found_from_its_impedance_alone() {
    for (ported, leaking) in [(true, false), (true, true), (false, false)] {
        let all = tried(8, ported, leaking, 40.0, 0.15, SHEET);
        let tuning = most(all.iter().map(|(truth, found)| (found.tuning.0 - truth.tuning()).abs()));
        let ql = most(all.iter().map(|(truth, found)| (found.ql.0 / truth.ql() - 1.0).abs()));
        assert!(tuning < if ported { 0.3 } else { 0.8 }, "{ported} {leaking}: {tuning} Hz");
        // Leaks of a closed box hide behind friction of the suspension that nobody has measured.
        assert!(!ported || ql < 0.2, "{ported} {leaking}: QL {ql}");
        if ported {
            assert!(all.iter().all(|(_, found)| (found.ql.0 < 3.4) == leaking), "{leaking}");
        }
    }
}

#[test]
fn a_driver_that_was_measured_makes_its_box_surer() {
    let [alone, beside] =
        [(0.15, SHEET), (0.002, MEASURED)].map(|(sheet, spread)| tried(8, true, false, 40.0, sheet, spread));
    let tuning =
        |all: &[(Box, Found)]| most(all.iter().map(|(truth, found)| (found.tuning.0 - truth.tuning()).abs()));
    let alpha = |all: &[(Box, Found)]| {
        most(all.iter().map(|(truth, found)| (found.alpha.0 / truth.alpha() - 1.0).abs()))
    };
    assert!(
        tuning(&beside) <= 1.3 * tuning(&alone) && tuning(&beside) < 0.2,
        "{} {}",
        tuning(&beside),
        tuning(&alone)
    );
    assert!(
        alpha(&beside) <= 1.3 * alpha(&alone) && alpha(&beside) < 0.06,
        "{} {}",
        alpha(&beside),
        alpha(&alone)
    );
    let within = |times: f64| {
        let inside = beside
            .iter()
            .filter(|(truth, found)| (found.tuning.0 - truth.tuning()).abs() <= times * found.tuning.1);
        inside.count() as f64 / beside.len() as f64
    };
    assert!(within(1.0) >= 0.5 && within(2.0) > 0.8, "{} {}", within(1.0), within(2.0));
}

/// A box without waves, as a fit would leave it.
fn plain(tuning: f64) -> Boxed {
    let coil = Inductive { le: 1e-3, power: [1e-3, 0.7], eddies: [[1e-4, 1.0]; 2] };
    let driver = Model { re: 6.0, coil, fs: 25.0, qms: 5.0, qes: 0.4, creep: 0.0, rubbed: 0.0 };
    let waves = Vec::new();
    Boxed {
        driver,
        alpha: 1.5,
        tuning: Some(tuning),
        ql: 8.0,
        qa: 80.0,
        rubs: 1.0,
        waves,
        together: 1.0,
        series: false,
    }
}

#[test]
fn a_port_is_cut_by_what_brings_the_tuning_where_it_belongs() {
    // A short, wide tube: its mass goes with its effective length, and that with one over the square of the tuning (Helmholtz).
    let air = Air::reference();
    let (radius, length, ends) = (0.06, 0.2, [0.6 * 0.06, 0.85 * 0.06]);
    let ports = Ports::tube(radius, length, ends, &air);
    let mass = |longer: f64| {
        air.density * (length + longer + ends[0] + ends[1]) / (std::f64::consts::PI * radius * radius)
    };
    let compliance = ((TAU * 30.0).powi(2) * mass(0.0)).recip();
    let low = ((mass(0.02) * compliance).sqrt() * TAU).recip();
    let found = trim(&plain(low), &ports, (low, 0.1), 30.0, (compliance, 0.01)).expect("a length");
    assert!((found.cut.0 - 0.02).abs() < 1e-3, "{found:?}");
    let effective = length + ends[0] + ends[1];
    assert!((found.cut.1 / (effective * 2.0 * 0.1 / low) - 1.0).abs() < 0.15, "{found:?}");
    let high = trim(&plain(31.0), &ports, (31.0, 0.1), 30.0, (compliance, 0.01)).expect("a length");
    assert!(high.cut.0 < 0.0 && high.longer.0 < 0.0, "{high:?}");
    // No tube is that short, and an end of what was looked through is no answer.
    assert!(trim(&plain(90.0), &ports, (90.0, 0.1), 30.0, (compliance, 0.01)).is_none());
}
