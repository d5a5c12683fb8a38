//! From a data sheet to a complete driver.

use std::f64::consts::PI;

use super::relation::{Known, Missing, Quantity, close};
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
    /// Level at 1 m in half space for 1 W into Re, dB; only compared.
    pub level_1w: Option<f64>,
    /// Level at 1 m in half space for 2.83 V, dB; only compared.
    pub level_2v83: Option<f64>,
}

/// A driver with what is known about where it came from.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Completed {
    /// The driver.
    pub driver: Driver,
    /// Which stated values were used; the others only follow, or contradict.
    used: [bool; Quantity::ALL.len()],
}

impl Completed {
    /// Whether the driver was made from a stated value and not only compared with it.
    pub fn uses(&self, quantity: Quantity) -> bool {
        self.used[quantity as usize]
    }
}

/// Nominal impedances that makers print.
const NOMINALS: [f64; 4] = [2.0, 4.0, 8.0, 16.0];

impl Sheet {
    /// What is stated of a quantity.
    pub fn stated(&self, quantity: Quantity) -> Option<f64> {
        match quantity {
            Quantity::Fs => self.fs,
            Quantity::Re => self.re,
            Quantity::Sd => self.sd,
            Quantity::Qms => self.qms,
            Quantity::Qes => self.qes,
            Quantity::Vas => self.vas,
            Quantity::Cms => self.cms,
            Quantity::Mms => self.mms,
            Quantity::Bl => self.bl,
            Quantity::Qts => self.qts,
        }
    }

    /// The same sheet without one quantity.
    #[must_use]
    pub fn without(mut self, quantity: Quantity) -> Self {
        *self.place(quantity) = None;
        self
    }

    fn place(&mut self, quantity: Quantity) -> &mut Option<f64> {
        match quantity {
            Quantity::Fs => &mut self.fs,
            Quantity::Re => &mut self.re,
            Quantity::Sd => &mut self.sd,
            Quantity::Qms => &mut self.qms,
            Quantity::Qes => &mut self.qes,
            Quantity::Vas => &mut self.vas,
            Quantity::Cms => &mut self.cms,
            Quantity::Mms => &mut self.mms,
            Quantity::Bl => &mut self.bl,
            Quantity::Qts => &mut self.qts,
        }
    }

    /// The same sheet with another value of a quantity, SI.
    #[must_use]
    pub fn with(mut self, quantity: Quantity, value: f64) -> Self {
        *self.place(quantity) = Some(value);
        self
    }

    /// Completes the driver in the given air from any sufficient set of stated values.
    ///
    /// Stated values are used in the order of [`Quantity::ALL`], each only where those before it do not determine it
    /// already; Qts comes last, because it is the most rounded one. A nominal impedance that is not stated is the smallest of
    /// 2, 4, 8 and 16 ohm that is not below Re (common practice).
    ///
    /// # Errors
    /// Everything that is missing, not only the first.
    pub fn complete(&self, air: &Air) -> Result<Completed, Vec<Missing>> {
        let mut known = Known::default();
        let mut used = [false; Quantity::ALL.len()];
        for quantity in Quantity::ALL {
            if let (Some(stated), None) = (self.stated(quantity), known.get(quantity)) {
                known.set(quantity, stated);
                used[quantity as usize] = true;
                known = close(known, air).map_err(|missing| vec![missing])?;
            }
        }
        let need = |quantity| known.get(quantity);
        let (Some(re), Some(fs), Some(sd), Some(qms), Some(mms), Some(cms), Some(bl)) = (
            need(Quantity::Re),
            need(Quantity::Fs),
            need(Quantity::Sd),
            need(Quantity::Qms),
            need(Quantity::Mms),
            need(Quantity::Cms),
            need(Quantity::Bl),
        ) else {
            return Err(missing(&known));
        };
        let driver = Driver {
            re,
            inductance: self.inductance(),
            bl,
            mms,
            cms,
            rms: 2.0 * PI * fs * mms / qms,
            sd,
            xmax: self.xmax,
            pe: self.pe,
            nominal: self.nominal.unwrap_or_else(|| usual_nominal(re)),
            shorted_coil: None,
        };
        Ok(Completed { driver, used })
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
}

fn missing(known: &Known) -> Vec<Missing> {
    let lacks = |quantities: &[Quantity], least: usize| {
        quantities.iter().filter(|quantity| known.get(**quantity).is_some()).count() < least
    };
    let suspension = [Quantity::Vas, Quantity::Cms, Quantity::Mms, Quantity::Bl];
    [
        (lacks(&[Quantity::Re], 1), Missing::Re),
        (lacks(&[Quantity::Fs], 1), Missing::Fs),
        (lacks(&[Quantity::Sd], 1), Missing::Sd),
        (lacks(&[Quantity::Qms, Quantity::Qes, Quantity::Qts], 2), Missing::TwoOfTheQs),
        (lacks(&suspension, 1), Missing::Suspension),
    ]
    .into_iter()
    .filter_map(|(lacks, kind)| lacks.then_some(kind))
    .collect()
}

fn usual_nominal(re: f64) -> f64 {
    NOMINALS.into_iter().find(|nominal| *nominal >= re).unwrap_or(re)
}
