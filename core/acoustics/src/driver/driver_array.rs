//! One driver or several that drive one cabinet together.

use super::Driver;

/// How equal drivers are wired: groups in series, and these groups in parallel.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct Wiring {
    /// Drivers in series in each group.
    pub series: u32,
    /// Groups in parallel.
    pub parallel: u32,
}

/// Two drivers one behind the other as one.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Isobaric {
    /// Whether the two coils of a pair are in series; else in parallel.
    pub in_series: bool,
    /// Air between the two cones, m3; `None` couples them rigidly.
    pub trapped: Option<f64>,
}

/// Everything that moves one cabinet's air: equal drivers, wired, on a cable.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct DriverArray {
    /// One of the drivers.
    pub driver: Driver,
    /// How the drivers, or the isobaric pairs, side by side are wired.
    pub wiring: Wiring,
    /// Each place holds a pair.
    pub isobaric: Option<Isobaric>,
    /// Cable and amplifier, ohm.
    pub series_resistance: f64,
}

impl From<&Driver> for DriverArray {
    fn from(driver: &Driver) -> Self {
        Self {
            driver: *driver,
            wiring: Wiring { series: 1, parallel: 1 },
            isobaric: None,
            series_resistance: 0.0,
        }
    }
}

impl From<Driver> for DriverArray {
    fn from(driver: Driver) -> Self {
        Self::from(&driver)
    }
}

impl Wiring {
    /// Drivers, or pairs, side by side.
    pub fn count(self) -> u32 {
        self.series * self.parallel
    }

    /// As many equal drivers side by side, as the one that moves alike: areas, masses and stiffnesses
    /// add; a current through `parallel` groups pushes with `series` force factors.
    fn joined(self, one: &Driver) -> Driver {
        let (count, series) = (f64::from(self.count()), f64::from(self.series));
        let electrical = series / f64::from(self.parallel);
        Driver {
            re: one.re * electrical,
            inductance: one.inductance.scaled(electrical),
            bl: one.bl * series,
            mms: one.mms * count,
            cms: one.cms / count,
            rms: one.rms * count,
            sd: one.sd * count,
            xmax: one.xmax,
            pe: one.pe.map(|pe| pe * count),
            nominal: one.nominal * electrical,
            shorted_coil: one.shorted_coil.map(|shorted_coil| super::ShortedCoil {
                bl: shorted_coil.bl * count.sqrt(),
                ..shorted_coil
            }),
        }
    }
}

impl DriverArray {
    /// The drivers that stand side by side in one layer, as one.
    pub fn layer(&self) -> Driver {
        self.wiring.joined(&self.driver)
    }

    /// Everything as one driver behind its cable: what the amplifier drives.
    pub fn as_driven(&self) -> Driver {
        let one = self.equivalent();
        Driver { re: one.re + self.series_resistance, ..one }
    }

    /// Everything as one driver, an isobaric pair as rigidly coupled.
    pub fn equivalent(&self) -> Driver {
        let layer = self.layer();
        let Some(pair) = self.isobaric else { return layer };
        let wiring = if pair.in_series {
            Wiring { series: 2, parallel: 1 }
        } else {
            Wiring { series: 1, parallel: 2 }
        };
        // Two cones one behind the other move the air of one.
        Driver { sd: layer.sd, ..wiring.joined(&layer) }
    }
}
