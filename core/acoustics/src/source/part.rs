//! Passive parts: resistors, coils and capacitors between amplifier and drivers.

use crate::Complex;

/// A resistance, an inductance and a capacitance one behind the other; what is absent is a plain wire.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Branch {
    /// With that of the coil's wire and of the capacitor, ohm.
    pub resistance: f64,
    /// H.
    pub inductance: f64,
    /// F.
    pub capacitance: Option<f64>,
}

impl Branch {
    /// Impedance at an angular frequency (rad/s), ohm.
    pub fn impedance(&self, omega: f64) -> Complex {
        let elastance = self.capacitance.map_or(0.0, |capacitance| (omega * capacitance).recip());
        Complex::new(self.resistance, omega * self.inductance - elastance)
    }
}

/// What stands at one place of the circuit.
#[derive(Debug, Clone, Copy, PartialEq)]
pub enum PartForm {
    /// One behind the other.
    Chain(Branch),
    /// A coil with the resistance of its wire, a capacitor and, where there is one, a resistor, all side by side: a trap.
    Trap {
        /// H.
        inductance: f64,
        /// Resistance of the coil's wire, ohm.
        coil_resistance: f64,
        /// F.
        capacitance: f64,
        /// Equivalent series resistance of the capacitor, ohm.
        capacitor_resistance: f64,
        /// ohm.
        resistance: Option<f64>,
    },
}

impl PartForm {
    /// The branches that stand side by side.
    pub fn branches(&self) -> impl Iterator<Item = Branch> + use<> {
        let branches = match *self {
            Self::Chain(branch) => [Some(branch), None, None],
            Self::Trap { inductance, coil_resistance, capacitance, capacitor_resistance, resistance } => [
                Some(Branch { resistance: coil_resistance, inductance, capacitance: None }),
                Some(Branch {
                    resistance: capacitor_resistance,
                    inductance: 0.0,
                    capacitance: Some(capacitance),
                }),
                resistance.map(|resistance| Branch { resistance, inductance: 0.0, capacitance: None }),
            ],
        };
        branches.into_iter().flatten()
    }
}

/// A part and how it is wired.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Part {
    /// In the live lead, towards the drivers; else from that lead to the return.
    pub in_series: bool,
    /// What it is.
    pub form: PartForm,
}
