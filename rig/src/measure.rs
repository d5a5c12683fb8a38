//! What is connected, and what a sweep of it gives.

use rand::SeedableRng;
use rand_chacha::ChaCha8Rng;

use crate::scenario::Bench;
use crate::{Complex, Driver};

/// What is connected.
#[derive(Debug, Clone, Copy, PartialEq)]
pub enum Wired {
    /// The electrical chain alone.
    Loopback,
    /// A driver in free air, with a mass on its cone, kg.
    Free(f64),
    /// The box, with its ports open or shut.
    Boxed(bool),
    /// A microphone at a cone.
    Cone,
    /// A microphone in a port.
    Port,
    /// A microphone where somebody listens, so many metres away.
    Seat(f64),
}

impl Wired {
    /// By the name that a command gives it, with a mass (kg).
    pub fn named(name: &str, mass: f64) -> Option<Self> {
        Some(match name {
            "loopback" => Self::Loopback,
            "impedance_free" => Self::Free(0.0),
            "impedance_mass" => Self::Free(mass),
            "impedance_box" => Self::Boxed(false),
            "impedance_blocked" => Self::Boxed(true),
            "nearfield_cone" => Self::Cone,
            "nearfield_port" => Self::Port,
            "seat" => Self::Seat(3.0),
            _ => return None,
        })
    }

    /// Whether ohms are measured, else decibels.
    pub fn is_impedance(self) -> bool {
        matches!(self, Self::Free(_) | Self::Boxed(_))
    }
}

/// A volt makes this many decibels of a near field over what the chain gives: an ordinary microphone's.
const SENSITIVE: f64 = 94.0;
/// Of the usual level, what the mains add.
const HUM: f64 = 0.02;

impl Bench {
    /// What stands between generator and trace at a frequency (Hz), without noise: ohm, or pascals and volts.
    pub fn value(&self, wired: Wired, frequency: f64) -> Complex {
        let (cabinet, chain) = (&self.cabinet, &self.chain);
        let flows = |shut: bool| cabinet.flows(frequency, shut, 0.0);
        match wired {
            Wired::Loopback => 0.7 * chain.electrical(frequency),
            Wired::Free(mass) => {
                let driver: Driver = cabinet.driver;
                driver.free(frequency, mass) * chain.jig
            }
            Wired::Boxed(shut) => flows(shut).impedance * chain.jig,
            Wired::Cone => {
                let flows = flows(false);
                chain.near(cabinet, frequency, flows.cone, cabinet.driver.sd, flows.ports)
            }
            Wired::Port => {
                let flows = flows(false);
                let Some(port) = &cabinet.port else { return Complex::from(0.0) };
                let area = std::f64::consts::PI * port.radius * port.radius;
                chain.near(cabinet, frequency, flows.ports / port.count, area, flows.cones)
            }
            Wired::Seat(distance) => {
                let flows = flows(false);
                let omega = std::f64::consts::TAU * frequency;
                let far =
                    Complex::i() * omega * cabinet.air.density / (2.0 * std::f64::consts::PI * distance);
                far * (flows.cones + flows.ports) * chain.microphone.0 * chain.electrical(frequency)
            }
        }
    }

    /// A sweep of so many points between two frequencies (Hz), with noise and hum: frequency, ohm or dB, degrees.
    pub fn sweep(&self, wired: Wired, [low, high]: [f64; 2], points: u32, seed: u64) -> Vec<[f64; 3]> {
        let mut random = ChaCha8Rng::seed_from_u64(seed);
        let frequencies: Vec<f64> = (0..points)
            .map(|k| low * (high / low).powf(f64::from(k) / f64::from(points.max(2) - 1)))
            .collect();
        let usual = frequencies.iter().map(|f| self.value(wired, *f).norm()).fold(0.0, f64::max);
        let hums = matches!(wired, Wired::Cone | Wired::Port | Wired::Seat(_));
        let at = |frequency: f64| {
            let mut value = self.chain.noisy(self.value(wired, frequency), &mut random);
            if hums {
                value += self.chain.hum(frequency, HUM * usual);
            }
            let size = match wired {
                _ if wired.is_impedance() => value.norm(),
                Wired::Loopback => 20.0 * value.norm().log10(),
                _ => SENSITIVE + 20.0 * value.norm().log10(),
            };
            [frequency, size, value.arg().to_degrees()]
        };
        frequencies.into_iter().map(at).collect()
    }
}
