//! Passive parts: textbook values to begin with, and the values that are sold. What they really do is solved with the whole circuit.

use std::f64::consts::SQRT_2;

/// A series of preferred values (IEC 60063).
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Series {
    /// 12 a decade.
    E12,
    /// 24 a decade.
    E24,
    /// 96 a decade.
    E96,
}

/// IEC 60063, E24; every second one is E12.
const E24: [f64; 24] = [
    1.0, 1.1, 1.2, 1.3, 1.5, 1.6, 1.8, 2.0, 2.2, 2.4, 2.7, 3.0, 3.3, 3.6, 3.9, 4.3, 4.7, 5.1, 5.6, 6.2, 6.8,
    7.5, 8.2, 9.1,
];

impl Series {
    /// Values of one decade, from 1 up.
    pub fn decade(self) -> Vec<f64> {
        match self {
            Self::E12 => E24.iter().step_by(2).copied().collect(),
            Self::E24 => E24.to_vec(),
            // Three digits of the even steps; unlike E24, the series keeps to them.
            Self::E96 => (0..96).map(|k| (10f64.powf(f64::from(k) / 96.0) * 100.0).round() / 100.0).collect(),
        }
    }

    /// The value nearest by ratio, over all decades, of one above zero.
    pub fn nearest(self, wanted: f64) -> f64 {
        let decade = wanted.log10().floor();
        let base = 10f64.powf(decade);
        let off = |value: f64| (value / wanted).ln().abs();
        let mut values = self.decade();
        values.push(10.0);
        values.iter().map(|value| value * base).min_by(|a, b| off(*a).total_cmp(&off(*b))).unwrap_or(wanted)
    }
}

/// A coil (H) and a capacitor (F).
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct CoilAndCapacitor {
    /// H.
    pub inductance: f64,
    /// F.
    pub capacitance: f64,
}

/// First order before a plain resistance (ohm) at a corner (rad/s): `L = R/w`, `C = 1/(w R)`.
pub fn first_order(resistance: f64, omega: f64) -> CoilAndCapacitor {
    CoilAndCapacitor { inductance: resistance / omega, capacitance: (omega * resistance).recip() }
}

/// Second-order Butterworth before a plain resistance: `L = sqrt(2) R/w`, `C = 1/(sqrt(2) w R)`.
pub fn butterworth(resistance: f64, omega: f64) -> CoilAndCapacitor {
    CoilAndCapacitor {
        inductance: SQRT_2 * resistance / omega,
        capacitance: (SQRT_2 * omega * resistance).recip(),
    }
}

/// Linkwitz-Riley of second order before a plain resistance: `L = 2 R/w`, `C = 1/(2 w R)`.
pub fn linkwitz_riley(resistance: f64, omega: f64) -> CoilAndCapacitor {
    CoilAndCapacitor { inductance: 2.0 * resistance / omega, capacitance: (2.0 * omega * resistance).recip() }
}

/// A resistor (ohm) and a capacitor (F) across the driver that take away the rise of its inductance: `R = 1.25 Re`, `C = Le/Re^2`
/// (common practice; `R` between Re and that).
pub fn impedance_equaliser(re: f64, le: f64) -> (f64, f64) {
    (1.25 * re, le / (re * re))
}

/// What takes away the resonance of a sealed box: a resistor, a coil and a capacitor one behind the other across its driver.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Notch {
    /// With the resistance of the coil's wire, ohm.
    pub resistance: f64,
    /// H.
    pub inductance: f64,
    /// F.
    pub capacitance: f64,
}

/// Exact where the coil of the driver has no inductance: `R = Re (1 + Qec/Qmc)`, `L = Re Qec/wc`, `C = 1/(wc Re Qec)`, of the box
/// (Qec and Qmc of the driver in it, wc its resonance in rad/s).
pub fn resonance_equaliser(re: f64, qec: f64, qmc: f64, omega: f64) -> Notch {
    Notch {
        resistance: re * (1.0 + qec / qmc),
        inductance: re * qec / omega,
        capacitance: (omega * re * qec).recip(),
    }
}

/// Series and shunt resistance (ohm) that make a load (ohm) softer by so many dB and leave the amplifier the same load:
/// `Z (1 - k)` and `Z k/(1 - k)`, `k = 10^(-a/20)`.
pub fn l_pad(load: f64, decibels: f64) -> [f64; 2] {
    let k = 10f64.powf(-decibels / 20.0);
    [load * (1.0 - k), load * k / (1.0 - k)]
}
