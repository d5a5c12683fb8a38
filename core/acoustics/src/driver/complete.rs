//! From a data sheet to a complete driver.

use std::f64::consts::PI;

use super::{Driver, Inductance};
use crate::medium::Air;

/// What a data sheet states, SI; absent values are derived where the rest determines them.
#[derive(Debug, Clone, Copy, Default, PartialEq)]
pub struct Sheet {
    /// DC resistance, ohm.
    pub re: Option<f64>,
    /// Coil inductance, H; taken as 0 where absent.
    pub le: Option<f64>,
    /// Second inductance in series with the first, H; counts only with `r2`.
    pub l2: Option<f64>,
    /// Resistance across the second inductance, ohm.
    pub r2: Option<f64>,
    /// Exponent of a power law through the reactance that `le` has at 1 kHz, instead of `l2` and `r2`.
    pub inductance_exponent: Option<f64>,
    /// Free-air resonance, Hz.
    pub fs: Option<f64>,
    /// Mechanical Q.
    pub qms: Option<f64>,
    /// Electrical Q.
    pub qes: Option<f64>,
    /// Total Q.
    pub qts: Option<f64>,
    /// Equivalent volume, m3.
    pub vas: Option<f64>,
    /// Suspension compliance, m/N.
    pub cms: Option<f64>,
    /// Moving mass with air load, kg.
    pub mms: Option<f64>,
    /// Force factor, T m.
    pub bl: Option<f64>,
    /// Cone area, m2.
    pub sd: Option<f64>,
    /// One-way linear excursion, m.
    pub xmax: Option<f64>,
    /// Continuous power, W.
    pub pe: Option<f64>,
    /// Nominal impedance, ohm.
    pub nominal: Option<f64>,
}

/// What a sheet lacks.
#[derive(Debug, Clone, Copy, PartialEq)]
pub enum Missing {
    /// No DC resistance.
    Re,
    /// No resonance frequency.
    Fs,
    /// No cone area.
    Sd,
    /// Fewer than two of Qms, Qes and Qts.
    TwoOfTheQs,
    /// Qts is not below both others, so the third Q would not be positive.
    QtsNotBelow {
        /// The Qts that was stated.
        qts: f64,
        /// The Q it must be below.
        other: f64,
    },
    /// None of Vas, Cms, Mms and Bl.
    Suspension,
}

/// Which stated value the suspension was taken from.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum SuspensionFrom {
    /// `Cms = Vas/(rho c^2 Sd^2)`.
    Vas,
    /// As stated.
    Cms,
    /// `Cms = 1/(ws^2 Mms)`.
    Mms,
    /// `Mms = Bl^2 Qes/(ws Re)`.
    Bl,
}

/// Nominal impedances that makers print.
const NOMINALS: [f64; 4] = [2.0, 4.0, 8.0, 16.0];

impl Sheet {
    /// Completes the driver in the given air and says where the suspension came from.
    ///
    /// Fs, Re, Sd, two of the Qs and one of Vas, Cms, Mms, Bl determine everything else; where
    /// several of the latter are stated the first in that order is used. Qts is only used where Qms
    /// or Qes is absent. A nominal impedance that is not stated is the smallest of 2, 4, 8 and 16 ohm
    /// that is not below Re (common practice).
    ///
    /// # Errors
    /// Everything that is missing, not only the first.
    pub fn complete(&self, air: &Air) -> Result<(Driver, SuspensionFrom), Vec<Missing>> {
        let mut missing = Vec::new();
        let mut need = |value: Option<f64>, kind| {
            value.unwrap_or_else(|| {
                missing.push(kind);
                f64::NAN
            })
        };
        let (re, fs, sd) =
            (need(self.re, Missing::Re), need(self.fs, Missing::Fs), need(self.sd, Missing::Sd));
        let qs = self.two_qs();
        if let Err(kind) = qs {
            missing.push(kind);
        }
        let from = self.suspension_from();
        if from.is_none() {
            missing.push(Missing::Suspension);
        }
        let (Ok((qms, qes)), Some(from), true) = (qs, from, missing.is_empty()) else {
            return Err(missing);
        };
        let omega = 2.0 * PI * fs;
        let by_mass = |mms: f64| 1.0 / (omega * omega * mms);
        let cms = match (from, self.vas, self.cms, self.mms, self.bl) {
            (SuspensionFrom::Vas, Some(vas), ..) => vas / (air.bulk_modulus() * sd * sd),
            (SuspensionFrom::Cms, _, Some(cms), ..) => cms,
            (SuspensionFrom::Mms, _, _, Some(mms), _) => by_mass(mms),
            (_, _, _, _, bl) => by_mass(bl.unwrap_or(f64::NAN).powi(2) * qes / (omega * re)),
        };
        let mms = by_mass(cms);
        let driver = Driver {
            re,
            inductance: self.inductance(),
            bl: (omega * mms * re / qes).sqrt(),
            mms,
            cms,
            rms: omega * mms / qms,
            sd,
            xmax: self.xmax,
            pe: self.pe,
            nominal: self.nominal.unwrap_or_else(|| usual_nominal(re)),
            brake: None,
        };
        Ok((driver, from))
    }

    fn inductance(&self) -> Inductance {
        let le = self.le.unwrap_or(0.0);
        match (self.inductance_exponent, self.l2, self.r2) {
            (Some(n), ..) => {
                let omega = 2000.0 * PI;
                Inductance::PowerLaw { k: le * omega.powf(1.0 - n) / (n * PI / 2.0).sin(), n }
            }
            (None, Some(l2), Some(r2)) => Inductance::Shunted { le, l2, r2 },
            _ => Inductance::Plain { le },
        }
    }

    fn suspension_from(&self) -> Option<SuspensionFrom> {
        [
            (self.vas, SuspensionFrom::Vas),
            (self.cms, SuspensionFrom::Cms),
            (self.mms, SuspensionFrom::Mms),
            (self.bl, SuspensionFrom::Bl),
        ]
        .into_iter()
        .find_map(|(value, from)| value.map(|_| from))
    }

    /// Qms and Qes.
    fn two_qs(&self) -> Result<(f64, f64), Missing> {
        let third = |known: f64, qts: f64| {
            if qts < known {
                Ok(1.0 / (1.0 / qts - 1.0 / known))
            } else {
                Err(Missing::QtsNotBelow { qts, other: known })
            }
        };
        match (self.qms, self.qes, self.qts) {
            (Some(qms), Some(qes), _) => Ok((qms, qes)),
            (Some(qms), None, Some(qts)) => Ok((qms, third(qms, qts)?)),
            (None, Some(qes), Some(qts)) => Ok((third(qes, qts)?, qes)),
            _ => Err(Missing::TwoOfTheQs),
        }
    }
}

fn usual_nominal(re: f64) -> f64 {
    NOMINALS.into_iter().find(|nominal| *nominal >= re).unwrap_or(re)
}
