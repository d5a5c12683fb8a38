//! Drivers by their mechanics, and what an instrument would write down of them.

use std::f64::consts::TAU;

use oak_metering::Complex;
use oak_metering::trace::Impedance;
use rand::Rng;
use rand_chacha::ChaCha8Rng;

/// A driver by what it is made of.
#[derive(Debug, Clone, Copy)]
pub struct Truth {
    pub re: f64,
    pub bl: f64,
    pub mms: f64,
    pub cms: f64,
    pub rms: f64,
    /// The coil: H, and above how many Hz its field no longer fills the iron: `j w L tanh(x)/x`, `x = sqrt(j f/fe)`, another law than the fit has.
    pub coil: [f64; 2],
    /// Share by which compliance falls in a decade.
    pub creep: f64,
}

impl Truth {
    pub fn any(random: &mut ChaCha8Rng, creep: f64) -> Self {
        let fs: f64 = random.random_range(20.0..60.0);
        let mms: f64 = random.random_range(0.03..0.2);
        let re: f64 = random.random_range(2.8..7.0);
        let (qms, qes): (f64, f64) = (random.random_range(3.0..12.0), random.random_range(0.3..0.8));
        let resonance = TAU * fs * mms;
        let inductance = random.random_range(0.05e-3..0.25e-3) * re;
        Self {
            re,
            bl: (resonance * re / qes).sqrt(),
            mms,
            cms: ((TAU * fs).powi(2) * mms).recip(),
            rms: resonance / qms,
            coil: [1.5 * inductance, random.random_range(50.0..400.0)],
            creep,
        }
    }

    pub fn fs(&self) -> f64 {
        (self.mms * self.cms).sqrt().recip() / TAU
    }

    pub fn qes(&self) -> f64 {
        TAU * self.fs() * self.mms * self.re / self.bl.powi(2)
    }

    pub fn qms(&self) -> f64 {
        TAU * self.fs() * self.mms / self.rms
    }

    /// With a mass on its cone, kg.
    pub fn impedance(&self, frequency: f64, added: f64) -> Complex {
        let omega = TAU * frequency;
        let [inductance, edge] = self.coil;
        let x = Complex::new(0.0, frequency / edge).sqrt();
        let coil = Complex::new(0.0, omega * inductance) * x.tanh() / x;
        let gives = self.cms * (1.0 - self.creep * (frequency / self.fs()).log10());
        let mechanical = Complex::new(self.rms, omega * (self.mms + added) - 1.0 / (omega * gives));
        self.re + coil + self.bl * self.bl / mechanical
    }

    /// A sweep of 400 points from 10 Hz to 1 kHz with so much noise under the signal, dB, through a jig whose resistor is off by a share.
    pub fn measured(&self, added: f64, noise: f64, jig: f64, random: &mut ChaCha8Rng) -> Impedance {
        let share = 10f64.powf(-noise / 20.0);
        let mut value = Vec::new();
        let frequency: Vec<f64> = (0..400).map(|k| 10.0 * 100f64.powf(f64::from(k) / 399.0)).collect();
        for frequency in &frequency {
            let clean = self.impedance(*frequency, added) * (1.0 + jig);
            let error = Complex::new(normal(random), normal(random)) * (share * clean.norm() / 2f64.sqrt());
            value.push(clean + error);
        }
        Impedance { frequency, value, phased: true, notes: Vec::new() }
    }
}

/// Of mean 0 and deviation 1 (Box and Muller).
pub fn normal(random: &mut ChaCha8Rng) -> f64 {
    let (u, v): (f64, f64) = (random.random_range(1e-12..1.0), random.random_range(0.0..1.0));
    (-2.0 * u.ln()).sqrt() * (TAU * v).cos()
}
