//! Lines over frequency: what lanes draw, tables list and files hold.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// What a trace is of, and its unit.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Quantity {
    /// Sound pressure level, dB re 20 uPa at 1 m in the space of the design; its phase is without the travel time.
    Level,
    /// Sound pressure level where it is listened to, dB re 20 uPa: without a label the mean of the power at all seats.
    SeatLevel,
    /// Excursion of the cone that moves farthest, one-way peak, mm.
    Excursion,
    /// Air speed in a port, throat or mouth, peak, m/s.
    AirSpeed,
    /// Travel of a kind of radiator, one-way peak, mm.
    RadiatorTravel,
    /// Pressure in a chamber, Pa RMS.
    ChamberPressure,
    /// Magnitude of the impedance that the amplifier sees, ohm.
    Impedance,
    /// Group delay without the travel time, ms.
    GroupDelay,
    /// Voltage of the amplifier, V RMS.
    Drive,
    /// Current of the amplifier, A RMS.
    Current,
    /// Real power that the amplifier gives, W.
    Power,
    /// Apparent power, VA.
    ApparentPower,
    /// Share of the real power that leaves as sound, %.
    Efficiency,
}

/// Where a trace is from.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum TraceOrigin {
    /// Computed from a design.
    Simulated,
    /// As a microphone or a jig found it.
    Measured,
    /// What is aimed at.
    Target,
    /// Where the first limit is just met.
    Limit,
}

/// One line over frequencies of its own; every list is as long as `frequency`.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct Trace {
    /// What it is of.
    pub quantity: Quantity,
    /// Where it is from.
    pub origin: TraceOrigin,
    /// Which opening, radiator or chamber, where a design may have several.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub label: Option<String>,
    /// Hz, rising.
    pub frequency: Vec<f32>,
    /// In the unit of the quantity, with the seven digits of single precision; null where there is none.
    pub values: Vec<Option<f32>>,
    /// Degrees.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub phase: Option<Vec<f32>>,
}

impl Quantity {
    /// Whether the lanes of the interface draw it.
    pub fn is_drawn(self) -> bool {
        match self {
            Self::Level
            | Self::SeatLevel
            | Self::Excursion
            | Self::AirSpeed
            | Self::RadiatorTravel
            | Self::ChamberPressure
            | Self::Impedance
            | Self::Drive
            | Self::GroupDelay => true,
            Self::Current | Self::Power | Self::ApparentPower | Self::Efficiency => false,
        }
    }
}

impl Trace {
    /// Whether it is more than one number.
    pub fn varies(&self) -> bool {
        self.values.iter().any(|value| *value != self.values[0])
    }

    /// A line over some frequencies (Hz); what is not finite has no value.
    pub fn new(quantity: Quantity, origin: TraceOrigin, frequency: &[f64], values: &[f64]) -> Self {
        Self {
            quantity,
            origin,
            label: None,
            frequency: single(frequency),
            values: values.iter().map(|value| value.is_finite().then_some(*value as f32)).collect(),
            phase: None,
        }
    }

    /// With the name of what it is of.
    pub fn labelled(mut self, label: impl Into<String>) -> Self {
        self.label = Some(label.into());
        self
    }

    /// With a phase (degrees).
    pub fn with_phase(mut self, degrees: &[f64]) -> Self {
        self.phase = Some(single(degrees));
        self
    }
}

fn single(values: &[f64]) -> Vec<f32> {
    values.iter().map(|value| *value as f32).collect()
}
