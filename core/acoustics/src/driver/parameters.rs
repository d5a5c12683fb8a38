//! A complete driver and what follows from it.

use std::f64::consts::PI;

use super::Inductance;
use crate::lanes::Real;
use crate::medium::Air;
use crate::{Complex, inverse};

/// Reference pressure of levels, Pa.
pub const REFERENCE_PRESSURE: f64 = 20e-6;

/// A complete small-signal driver with its large-signal limits, SI.
///
/// Mms holds the air load of a baffled cone, as data sheets state it.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Driver {
    /// DC resistance of the coil, ohm.
    pub re: f64,
    /// Inductive part of the coil.
    pub inductance: Inductance,
    /// Force factor, T m.
    pub bl: f64,
    /// Moving mass with air load, kg.
    pub mms: f64,
    /// Compliance of the suspension, m/N.
    pub cms: f64,
    /// Mechanical resistance, kg/s.
    pub rms: f64,
    /// Effective cone area, m2.
    pub sd: f64,
    /// One-way linear excursion, m.
    pub xmax: Option<f64>,
    /// Continuous electrical power, W.
    pub pe: Option<f64>,
    /// Nominal impedance, ohm.
    pub nominal: f64,
    /// A second coil that is not driven and brakes the cone.
    pub shorted_coil: Option<ShortedCoil>,
}

/// A coil that is shorted or closed by a resistor. Its mutual inductance with the driven one is left out.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct ShortedCoil {
    /// Force factor, T m.
    pub bl: f64,
    /// Resistance of the coil and of what closes it, ohm.
    pub resistance: f64,
    /// Inductive part of the coil.
    pub inductance: Inductance,
}

impl Driver {
    /// Resonance angular frequency, rad/s: `1/sqrt(Cms Mms)`.
    pub fn omega_s(&self) -> f64 {
        1.0 / (self.cms * self.mms).sqrt()
    }

    /// Resonance frequency in free air, Hz.
    pub fn fs(&self) -> f64 {
        self.omega_s() / (2.0 * PI)
    }

    /// Blocked electrical impedance at an angular frequency (rad/s), ohm.
    #[inline(always)]
    pub fn blocked_impedance<T: Real>(&self, omega: T) -> Complex<T> {
        self.inductance.impedance(omega) + T::of(self.re)
    }

    /// Mechanical impedance of the moving parts with a braking coil, kg/s.
    #[inline(always)]
    pub fn mechanical_impedance<T: Real>(&self, omega: T) -> Complex<T> {
        let reactance = omega * T::of(self.mms) - (omega * T::of(self.cms)).reciprocal();
        let moving = Complex::new(T::of(self.rms), reactance);
        match self.shorted_coil {
            None => moving,
            Some(shorted_coil) => {
                let circuit = shorted_coil.inductance.impedance(omega) + T::of(shorted_coil.resistance);
                moving + inverse(circuit) * T::of(shorted_coil.bl * shorted_coil.bl)
            }
        }
    }

    /// Mechanical Q at Fs: `ws Mms/Rms` (Small 1972, eq. 7), a braking coil counted with the friction.
    pub fn qms(&self) -> f64 {
        let omega = self.omega_s();
        omega * self.mms / self.mechanical_impedance(omega).re
    }

    /// Electrical Q at Fs: `ws Mms Re/Bl^2` (Small 1972, eq. 8).
    pub fn qes(&self) -> f64 {
        self.omega_s() * self.mms * self.re / (self.bl * self.bl)
    }

    /// Total Q at Fs.
    pub fn qts(&self) -> f64 {
        1.0 / (1.0 / self.qms() + 1.0 / self.qes())
    }

    /// Volume of air as stiff as the suspension, m3: `rho c^2 Sd^2 Cms`.
    pub fn vas(&self, air: &Air) -> f64 {
        air.bulk_modulus() * self.sd * self.sd * self.cms
    }

    /// Half-space reference efficiency: `4 pi^2/c^3 Fs^3 Vas/Qes` (Small 1972, eq. 24).
    pub fn eta0(&self, air: &Air) -> f64 {
        4.0 * PI * PI / air.speed.powi(3) * self.fs().powi(3) * self.vas(air) / self.qes()
    }

    /// Piston-band pressure at 1 m in half space for a drive voltage (V RMS), Pa RMS:
    /// `rho E Bl Sd/(2 pi Re Mms)`, the same as the eta0 route at `E^2/Re`.
    pub fn reference_pressure(&self, volts: f64, air: &Air) -> f64 {
        air.density * volts * self.bl * self.sd / (2.0 * PI * self.re * self.mms)
    }

    /// Level of [`Self::reference_pressure`], dB re 20 uPa.
    pub fn reference_level(&self, volts: f64, air: &Air) -> f64 {
        20.0 * (self.reference_pressure(volts, air) / REFERENCE_PRESSURE).log10()
    }

    /// Efficiency-bandwidth product, Hz: `Fs/Qes`.
    pub fn ebp(&self) -> f64 {
        self.fs() / self.qes()
    }

    /// Peak displacement volume, m3: `Sd Xmax`.
    pub fn vd(&self) -> Option<f64> {
        self.xmax.map(|xmax| xmax * self.sd)
    }
}
