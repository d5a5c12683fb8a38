//! Moist air.

/// Molar gas constant, J/(mol K), exact since the 2019 SI.
const GAS_CONSTANT: f64 = 8.314_462_618;
/// Molar mass of dry air, kg/mol (CIPM-2007; Picard et al. 2008).
const MOLAR_DRY: f64 = 28.965_46e-3;
/// Molar mass of water, kg/mol.
const MOLAR_WATER: f64 = 18.015_28e-3;
/// 0 degC in K.
const ICE_POINT: f64 = 273.15;

/// Properties of the air a design works in, all SI.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Air {
    /// Density, kg/m3.
    pub density: f64,
    /// Speed of sound, m/s.
    pub speed: f64,
    /// Static pressure, Pa.
    pub pressure: f64,
    /// Dynamic viscosity, Pa s.
    pub viscosity: f64,
    /// Thermal conductivity, W/(m K).
    pub conductivity: f64,
    /// Specific heat at constant pressure, J/(kg K).
    pub specific_heat: f64,
    /// Ratio of specific heats.
    pub gamma: f64,
}

impl Air {
    /// Air at a temperature (degC), a static pressure (Pa) and a relative humidity (0 to 1).
    ///
    /// Ideal mixture of dry air and water vapour; saturation pressure after ISO 9613-1:1993,
    /// annex B; viscosity and conductivity of dry air by Sutherland's law with the constants of
    /// White, Viscous Fluid Flow (2006), tables 1-2 and 1-3 (from memory; the tests check them
    /// against handbook values). Valid for -20 to 50 degC.
    pub fn new(celsius: f64, pressure: f64, humidity: f64) -> Self {
        let kelvin = celsius + ICE_POINT;
        let water = humidity * saturation_pressure(kelvin) / pressure;
        let dry = 1.0 - water;
        let molar = MOLAR_DRY * dry + MOLAR_WATER * water;
        // Molar heat capacities in units of R: diatomic 7/2, water vapour 4.
        let heat_pressure = 3.5 * dry + 4.0 * water;
        let gamma = heat_pressure / (heat_pressure - 1.0);
        let density = pressure * molar / (GAS_CONSTANT * kelvin);
        Self {
            density,
            speed: (gamma * pressure / density).sqrt(),
            pressure,
            viscosity: sutherland(1.716e-5, 110.4, kelvin),
            conductivity: sutherland(0.0241, 194.0, kelvin),
            specific_heat: heat_pressure * GAS_CONSTANT / molar,
            gamma,
        }
    }

    /// 20 degC, 101.325 kPa, dry: what data sheets are read with.
    pub fn reference() -> Self {
        Self::new(20.0, 101_325.0, 0.0)
    }

    /// Bulk modulus of adiabatic compression, Pa: `rho c^2`.
    pub fn bulk_modulus(&self) -> f64 {
        self.density * self.speed * self.speed
    }

    /// Acoustic compliance of a volume (m3), m3/Pa: `V/(rho c^2)`.
    pub fn compliance(&self, volume: f64) -> f64 {
        volume / self.bulk_modulus()
    }
}

fn sutherland(at_ice_point: f64, constant: f64, kelvin: f64) -> f64 {
    let ratio = kelvin / ICE_POINT;
    at_ice_point * ratio.powf(1.5) * (ICE_POINT + constant) / (kelvin + constant)
}

/// Saturation vapour pressure, Pa (ISO 9613-1:1993, equations B.2 and B.3).
fn saturation_pressure(kelvin: f64) -> f64 {
    101_325.0 * 10f64.powf(-6.8346 * (273.16 / kelvin).powf(1.261) + 4.6151)
}

#[cfg(test)]
mod tests {
    use super::*;
    use approx::assert_relative_eq;

    #[test]
    fn dry_air_at_20_degrees_has_the_handbook_values() {
        let air = Air::reference();
        assert_relative_eq!(air.density, 1.204, max_relative = 5e-4);
        assert_relative_eq!(air.speed, 343.2, max_relative = 5e-4);
        // CRC Handbook: 18.2 uPa s, 25.6 to 25.9 mW/(m K), 1.005 to 1.007 kJ/(kg K) near 20 degC.
        assert_relative_eq!(air.viscosity, 18.2e-6, max_relative = 0.01);
        assert_relative_eq!(air.conductivity, 25.7e-3, max_relative = 0.01);
        assert_relative_eq!(air.specific_heat, 1006.0, max_relative = 0.003);
    }

    #[test]
    fn moisture_makes_air_lighter_and_sound_faster() {
        let dry = Air::reference();
        let moist = Air::new(20.0, 101_325.0, 1.0);
        // Saturation pressure at 20 degC is 2.34 kPa (steam tables), so saturated air is lighter
        // by 0.0231 (1 - 18.015/28.965) = 0.87 %.
        assert_relative_eq!(moist.density / dry.density, 1.0 - 0.00873, max_relative = 2e-4);
        assert!(moist.speed > dry.speed + 0.8 && moist.speed < dry.speed + 1.6);
    }
}
