//! Resistance of a cable.

/// Resistivity of annealed copper at 20 degC, ohm m (IEC 60028: 100 % IACS).
const COPPER: f64 = 1.7241e-8;

/// Resistance (ohm) of a cable of copper there and back: `2 rho L/A` for a length (m) and a cross-section of one core (m2).
pub fn cable_resistance(length: f64, area: f64) -> f64 {
    2.0 * COPPER * length / area
}
