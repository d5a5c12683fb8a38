//! What a builder does to a driver: mass on the cone, breaking in, heat, the second coil.

use super::{Driver, ShortedCoil};

/// Resistance of copper rises by this share per kelvin (IEC 60028, at 20 degC).
const COPPER: f64 = 3.93e-3;

/// Changes to one driver; the default changes nothing.
#[derive(Debug, Clone, Copy, PartialEq, Default)]
pub struct Change {
    /// Mass glued to the cone, kg.
    pub added_mass: f64,
    /// Share by which the suspension has softened: 0.15 makes Cms 1.15 times.
    pub softening: f64,
    /// How much warmer the coil is than when it was measured, K.
    pub coil_heat: f64,
    /// Which coils are driven.
    pub coils: DualCoil,
}

/// The coils of a driver and how they are used.
#[derive(Debug, Clone, Copy, PartialEq, Default)]
pub enum DualCoil {
    /// One coil only, or both as the sheet has them.
    #[default]
    AsStated,
    /// Two equal coils, connected otherwise than the sheet has them.
    Rewired {
        /// How the sheet's values were taken.
        stated: SheetCoils,
        /// How the coils are used.
        used: Coils,
    },
}

/// How the values of a driver with two coils were taken.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum SheetCoils {
    /// Both in series.
    Series,
    /// Both in parallel.
    Parallel,
}

/// How two equal coils are used.
#[derive(Debug, Clone, Copy, PartialEq)]
pub enum Coils {
    /// Both in series.
    Series,
    /// Both in parallel.
    Parallel,
    /// One driven, the other open.
    One,
    /// One driven, the other closed by a resistance; 0 is a short.
    OneLoaded {
        /// ohm.
        resistance: f64,
    },
}

impl Change {
    /// The driver after the changes. Added mass leaves Cms, Rms and Bl; heat leaves all but Re.
    pub fn apply(&self, driver: &Driver) -> Driver {
        let mut changed = *driver;
        if let DualCoil::Rewired { stated, used } = self.coils {
            changed = rewired(&changed, stated, used);
        }
        changed.mms += self.added_mass;
        changed.cms *= 1.0 + self.softening;
        let warmth = 1.0 + COPPER * self.coil_heat;
        changed.re *= warmth;
        if let Some(shorted_coil) = &mut changed.shorted_coil {
            shorted_coil.resistance += (warmth - 1.0) * changed.re / warmth;
        }
        changed
    }
}

/// Both coils sit on one former, so their inductances couple fully: in series four times that of one, in
/// parallel as one. Each coil carries half the power.
fn rewired(driver: &Driver, stated: SheetCoils, used: Coils) -> Driver {
    // Series counts resistance twice and turns twice; parallel halves the resistance.
    let one = match stated {
        SheetCoils::Series => scaled(driver, 0.5, 0.5, 0.25),
        SheetCoils::Parallel => scaled(driver, 2.0, 1.0, 1.0),
    };
    match used {
        Coils::Series => scaled(&one, 2.0, 2.0, 4.0),
        Coils::Parallel => scaled(&one, 0.5, 1.0, 1.0),
        Coils::One | Coils::OneLoaded { .. } => {
            let pe = one.pe.map(|pe| pe / 2.0);
            let shorted_coil = match used {
                Coils::OneLoaded { resistance } => Some(ShortedCoil {
                    bl: one.bl,
                    resistance: one.re + resistance,
                    inductance: one.inductance,
                }),
                _ => None,
            };
            Driver { pe, shorted_coil, ..one }
        }
    }
}

fn scaled(driver: &Driver, resistance: f64, force: f64, inductance: f64) -> Driver {
    Driver {
        re: driver.re * resistance,
        nominal: driver.nominal * resistance,
        bl: driver.bl * force,
        inductance: driver.inductance.scaled(inductance),
        ..*driver
    }
}
