//! Every quantity a file can hold: its name, unit, range and meaning, in one table.
//!
//! Range checks, error texts, the table import and the front end's editors are all made from it.

use oak_units::{Dimension, Unit, unit_named};

/// One quantity.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Field {
    /// Place in a design file, without list positions: `enclosure.ports.diameter`.
    pub path: &'static str,
    /// The field's own symbol: `Vas`.
    pub symbol: &'static str,
    /// What it measures.
    pub dimension: Dimension,
    /// Unit it is usually written in; empty for plain numbers.
    pub unit: &'static str,
    /// Smallest allowed value, SI.
    pub min: f64,
    /// Largest allowed value, SI.
    pub max: f64,
    /// One plain sentence for people who meet it first.
    pub meaning: &'static str,
}

impl Field {
    /// Last part of the path.
    pub fn name(&self) -> &'static str {
        self.path.rsplit('.').next().unwrap_or(self.path)
    }

    /// The unit it is usually written in.
    pub fn usual_unit(&self) -> Option<&'static Unit> {
        unit_named(self.unit).filter(|unit| unit.dimension == self.dimension)
    }
}

macro_rules! fields {
    ($($constant:ident = $path:literal, $symbol:literal, $dimension:ident, $unit:literal, $min:expr, $max:expr, $meaning:literal;)*) => {
        $(
            #[doc = $meaning]
            pub static $constant: Field = Field {
                path: $path,
                symbol: $symbol,
                dimension: Dimension::$dimension,
                unit: $unit,
                min: $min,
                max: $max,
                meaning: $meaning,
            };
        )*
        /// All of them.
        pub static FIELDS: &[&Field] = &[$(&$constant),*];
    };
}

fields! {
    SIZE = "driver.size", "Size", Length, "mm", 0.02, 1.0, "Nominal size of the driver's frame.";
    NOMINAL = "driver.nominal", "Z", Resistance, "ohm", 0.5, 64.0, "Impedance printed on the driver. Power is stated into it.";
    RE = "driver.re", "Re", Resistance, "ohm", 0.1, 100.0, "Resistance of the coil measured with direct current.";
    LE = "driver.le", "Le", Inductance, "mH", 0.0, 0.1, "Inductance of the coil. It takes level away at the top of the range.";
    FS = "driver.fs", "Fs", Frequency, "Hz", 5.0, 2000.0, "Resonance of the bare driver in free air. Not a limit of how low it plays: the box decides that.";
    QMS = "driver.qms", "Qms", Number, "", 0.1, 100.0, "How freely the cone rings by itself; high means little friction.";
    QES = "driver.qes", "Qes", Number, "", 0.05, 20.0, "How firmly the motor brakes the cone; low means a strong motor.";
    QTS = "driver.qts", "Qts", Number, "", 0.05, 20.0, "Both brakes together. Low asks for a port or horn, high for a sealed box.";
    VAS = "driver.vas", "Vas", Volume, "l", 1e-5, 5.0, "The volume of air that is just as springy as the cone's suspension.";
    CMS = "driver.cms", "Cms", Compliance, "mm/N", 1e-6, 0.1, "Softness of the suspension.";
    MMS = "driver.mms", "Mms", Mass, "g", 1e-4, 5.0, "Everything that moves, with the air that moves along.";
    BL = "driver.bl", "Bl", ForceFactor, "T m", 0.05, 500.0, "Strength of the motor: force per ampere.";
    SD = "driver.sd", "Sd", Area, "cm2", 1e-4, 0.5, "Area of the cone that pushes air, with half the surround.";
    XMAX = "driver.xmax", "Xmax", Length, "mm", 1e-4, 0.1, "How far the cone moves one way before the motor lets go.";
    PE = "driver.pe", "Pe", Power, "W", 0.1, 20_000.0, "Power the coil can turn to heat all day.";
    VOLUME = "enclosure.volume", "Vb", Volume, "l", 1e-4, 10.0, "Air in the box, without what driver, port and braces take.";
    QL = "enclosure.ql", "QL", Number, "", 1.0, 1000.0, "How tight the box is. 7 is a usual ported box, 3 leaks badly, 20 is very tight.";
    QA = "enclosure.qa", "QA", Number, "", 1.0, 1000.0, "How little the air and its filling absorb. 100 is an empty box, 20 a lined one.";
    TUNING = "enclosure.tuning", "Fb", Frequency, "Hz", 5.0, 500.0, "Where the port does the work and the cone nearly stands still.";
    DIAMETER = "enclosure.ports.diameter", "Diameter", Length, "mm", 5e-3, 1.0, "Inside diameter of the port.";
    WIDTH = "enclosure.ports.width", "Width", Length, "mm", 5e-3, 2.0, "Inside width of the slot.";
    HEIGHT = "enclosure.ports.height", "Height", Length, "mm", 1e-3, 1.0, "Inside height of the slot.";
    LENGTH = "enclosure.ports.length", "Length", Length, "mm", 1e-3, 10.0, "Length of the port. Longer tunes lower.";
    COUNT = "enclosure.ports.count", "Ports", Number, "", 1.0, 16.0, "How many equal ports. More move the air slower and must be longer.";
    POWER = "drive.power", "Drive", Power, "W", 1e-3, 20_000.0, "Amplifier power into the driver's nominal impedance.";
    VOLTAGE = "drive.voltage", "Drive", Voltage, "V", 1e-3, 500.0, "Voltage at the driver's terminals.";
    TEMPERATURE = "air.temperature", "Temperature", Temperature, "degC", -20.0, 50.0, "Temperature of the air.";
    PRESSURE = "air.pressure", "Pressure", Pressure, "kPa", 5e4, 1.1e5, "Pressure of the air.";
    HUMIDITY = "air.humidity", "Humidity", Fraction, "%", 0.0, 1.0, "Relative humidity of the air.";
}

/// The driver's fields.
pub fn driver_fields() -> impl Iterator<Item = &'static Field> {
    FIELDS.iter().copied().filter(|field| field.path.starts_with("driver."))
}
