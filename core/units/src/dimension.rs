//! What a quantity measures.

use std::fmt;

/// What a quantity measures. Values of one dimension share one SI unit.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash)]
pub enum Dimension {
    /// Plain number (Q values, counts); has no unit.
    Number,
    /// Hz.
    Frequency,
    /// m.
    Length,
    /// m2.
    Area,
    /// m3.
    Volume,
    /// kg.
    Mass,
    /// ohm.
    Resistance,
    /// H.
    Inductance,
    /// W.
    Power,
    /// V.
    Voltage,
    /// m/N.
    Compliance,
    /// T m (the same as N/A).
    ForceFactor,
    /// degC; the one unit that is not SI, because air is only ever stated so.
    Temperature,
    /// Pa.
    Pressure,
    /// 0 to 1, typed in percent.
    Fraction,
    /// A.
    Current,
    /// m/s.
    Speed,
    /// kg/m3.
    Density,
    /// Pa s/m2.
    FlowResistivity,
    /// Pa s/m3.
    AcousticResistance,
    /// kg/s.
    MechanicalResistance,
    /// dB re 20 uPa; a difference of levels is dB too.
    Level,
    /// s.
    Time,
    /// F.
    Capacitance,
    /// J.
    Energy,
    /// kg/m2.
    SurfaceDensity,
    /// rad.
    Angle,
}

impl Dimension {
    /// The word used for this dimension in messages.
    pub fn noun(self) -> &'static str {
        match self {
            Self::Number => "plain number",
            Self::Frequency => "frequency",
            Self::Length => "length",
            Self::Area => "area",
            Self::Volume => "volume",
            Self::Mass => "mass",
            Self::Resistance => "resistance",
            Self::Inductance => "inductance",
            Self::Power => "power",
            Self::Voltage => "voltage",
            Self::Compliance => "compliance",
            Self::ForceFactor => "force factor",
            Self::Temperature => "temperature",
            Self::Pressure => "pressure",
            Self::Fraction => "percentage",
            Self::Current => "current",
            Self::Speed => "speed",
            Self::Density => "density",
            Self::FlowResistivity => "flow resistivity",
            Self::AcousticResistance => "acoustic resistance",
            Self::MechanicalResistance => "mechanical resistance",
            Self::Level => "level",
            Self::Time => "time",
            Self::Capacitance => "capacitance",
            Self::Energy => "energy",
            Self::SurfaceDensity => "mass per area",
            Self::Angle => "angle",
        }
    }
}

impl fmt::Display for Dimension {
    fn fmt(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
        f.write_str(self.noun())
    }
}
