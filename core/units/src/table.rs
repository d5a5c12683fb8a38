//! The one table of units. The front end gets its copy generated from here.

use crate::Dimension;

/// A unit: `si = number * factor`.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Unit {
    /// What it measures.
    pub dimension: Dimension,
    /// How it is written back.
    pub symbol: &'static str,
    /// Other spellings that are understood; compared without regard to case, except where only case
    /// tells two units apart (`mW` and `MW` are both left out for that reason).
    pub aliases: &'static [&'static str],
    /// SI value of one unit.
    pub factor: f64,
}

const fn unit(
    dimension: Dimension,
    symbol: &'static str,
    aliases: &'static [&'static str],
    factor: f64,
) -> Unit {
    Unit { dimension, symbol, aliases, factor }
}

const INCH: f64 = 0.0254;
const FOOT: f64 = 0.3048;
const POUND: f64 = 0.453_592_37;

/// Every unit that is understood; the first of each dimension is its usual one on screen.
/// Inch, foot and pound: the international definitions (exact).
pub static UNITS: &[Unit] = &[
    unit(Dimension::Frequency, "Hz", &["hertz"], 1.0),
    unit(Dimension::Frequency, "kHz", &["kilohertz"], 1e3),
    unit(Dimension::Length, "mm", &["millimetre", "millimetres", "millimeter", "millimeters"], 1e-3),
    unit(Dimension::Length, "cm", &["centimetre", "centimetres", "centimeter", "centimeters"], 1e-2),
    unit(Dimension::Length, "m", &["metre", "metres", "meter", "meters"], 1.0),
    unit(Dimension::Length, "in", &["inch", "inches", "\"", "″", "''"], INCH),
    unit(Dimension::Length, "ft", &["foot", "feet", "'", "′"], FOOT),
    unit(Dimension::Area, "cm2", &["cm²", "cm^2", "sq cm", "sqcm"], 1e-4),
    unit(Dimension::Area, "mm2", &["mm²", "mm^2"], 1e-6),
    unit(Dimension::Area, "m2", &["m²", "m^2", "sq m"], 1.0),
    unit(Dimension::Area, "in2", &["in²", "in^2", "sq in", "sqin"], INCH * INCH),
    unit(Dimension::Volume, "l", &["litre", "litres", "liter", "liters", "ltr", "dm3", "dm³"], 1e-3),
    unit(
        Dimension::Volume,
        "cuft",
        &["cu ft", "cu.ft", "cu. ft.", "ft3", "ft³", "ft^3", "cubic foot", "cubic feet"],
        FOOT * FOOT * FOOT,
    ),
    unit(
        Dimension::Volume,
        "cuin",
        &["cu in", "in3", "in³", "in^3", "cubic inch", "cubic inches"],
        INCH * INCH * INCH,
    ),
    unit(Dimension::Volume, "cm3", &["cm³", "cm^3", "cc", "ml"], 1e-6),
    unit(Dimension::Volume, "m3", &["m³", "m^3", "cubic metre", "cubic metres"], 1.0),
    unit(Dimension::Mass, "g", &["gram", "grams"], 1e-3),
    unit(Dimension::Mass, "kg", &["kilogram", "kilograms"], 1.0),
    unit(Dimension::Mass, "oz", &["ounce", "ounces"], POUND / 16.0),
    unit(Dimension::Mass, "lb", &["lbs", "pound", "pounds"], POUND),
    unit(Dimension::Resistance, "ohm", &["ohms", "\u{3a9}", "\u{2126}", "r"], 1.0),
    unit(Dimension::Resistance, "kohm", &["k\u{3a9}", "k\u{2126}", "kilohm"], 1e3),
    unit(Dimension::Inductance, "mH", &["millihenry"], 1e-3),
    unit(Dimension::Inductance, "uH", &["\u{b5}H", "\u{3bc}H"], 1e-6),
    unit(Dimension::Inductance, "H", &["henry"], 1.0),
    unit(Dimension::Power, "W", &["watt", "watts"], 1.0),
    unit(Dimension::Power, "kW", &["kilowatt"], 1e3),
    unit(Dimension::Voltage, "V", &["volt", "volts"], 1.0),
    unit(Dimension::Compliance, "mm/N", &[], 1e-3),
    unit(Dimension::Compliance, "um/N", &["\u{b5}m/N", "\u{3bc}m/N"], 1e-6),
    unit(Dimension::Compliance, "m/N", &[], 1.0),
    unit(Dimension::ForceFactor, "T m", &["Tm", "T·m", "N/A"], 1.0),
    unit(Dimension::Temperature, "degC", &["°C", "C", "celsius"], 1.0),
    unit(Dimension::Pressure, "kPa", &[], 1e3),
    unit(Dimension::Pressure, "hPa", &["mbar"], 1e2),
    unit(Dimension::Pressure, "Pa", &["pascal"], 1.0),
    unit(Dimension::Fraction, "%", &["percent", "per cent"], 1e-2),
    unit(Dimension::Current, "A", &["ampere", "amperes", "amp", "amps"], 1.0),
    unit(Dimension::Speed, "m/s", &[], 1.0),
    unit(Dimension::Speed, "ft/s", &[], FOOT),
    unit(Dimension::Density, "kg/m3", &["kg/m³", "g/l"], 1.0),
    unit(Dimension::Density, "lb/cuft", &["lb/ft3", "lb/ft³"], POUND / (FOOT * FOOT * FOOT)),
    unit(Dimension::FlowResistivity, "Pa s/m2", &["Pa s/m²", "Pa·s/m²", "rayl/m"], 1.0),
    unit(Dimension::AcousticResistance, "Pa s/m3", &["Pa s/m³", "Pa·s/m³"], 1.0),
    unit(Dimension::MechanicalResistance, "kg/s", &["N s/m", "N·s/m"], 1.0),
    unit(Dimension::Level, "dB", &["dbspl", "db spl"], 1.0),
    unit(Dimension::Time, "ms", &["millisecond", "milliseconds"], 1e-3),
    unit(Dimension::Time, "s", &["second", "seconds", "sec"], 1.0),
    unit(Dimension::Time, "min", &["minute", "minutes"], 60.0),
    unit(Dimension::Time, "h", &["hour", "hours"], 3600.0),
    unit(Dimension::Capacitance, "uF", &["\u{b5}F", "\u{3bc}F", "microfarad"], 1e-6),
    unit(Dimension::Capacitance, "nF", &["nanofarad"], 1e-9),
    unit(Dimension::Energy, "Wh", &["watt hour", "watt hours"], 3600.0),
    unit(Dimension::Energy, "kWh", &[], 3.6e6),
    unit(Dimension::SurfaceDensity, "kg/m2", &["kg/m²", "kg/m^2"], 1.0),
    unit(Dimension::SurfaceDensity, "lb/sqft", &["lb/ft2", "lb/ft²"], POUND / (FOOT * FOOT)),
    unit(Dimension::Angle, "deg", &["°", "degree", "degrees"], std::f64::consts::PI / 180.0),
];

/// The units of one dimension, the usual one first.
pub fn units_of(dimension: Dimension) -> impl Iterator<Item = &'static Unit> {
    UNITS.iter().filter(move |unit| unit.dimension == dimension)
}

/// Finds a unit by symbol or alias, of whatever dimension.
///
/// An exact spelling wins over one that differs in case.
pub fn unit_named(name: &str) -> Option<&'static Unit> {
    let spellings = |unit: &'static Unit| std::iter::once(&unit.symbol).chain(unit.aliases);
    UNITS.iter().find(|unit| spellings(unit).any(|s| *s == name)).or_else(|| {
        let lower = name.to_lowercase();
        UNITS.iter().find(|unit| spellings(unit).any(|s| s.to_lowercase() == lower))
    })
}
