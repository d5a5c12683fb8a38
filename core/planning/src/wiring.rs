//! Every way to wire equal drivers, and what the amplifier sees of it.

use oak_acoustics::driver::{Driver, DriverArray, Wiring};
use oak_design::Problem;
use oak_design::file::{RawCoils, RawDriver, RawDriverArray, RawSheetCoils};
use oak_design::resolve::resolve_driver_array;
use serde::Serialize;
use utoipa::ToSchema;

/// Most drivers that are wired together here.
pub const MOST: u32 = 8;

/// One way to wire.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct WiringOption {
    /// How both coils of each driver are used; absent for drivers with one coil.
    pub coils: Option<RawCoils>,
    /// Drivers in series in each group.
    pub series: u32,
    /// Groups in parallel.
    pub parallel: u32,
    /// Nominal load, ohm.
    pub load: f64,
    /// DC resistance, what a meter reads, ohm.
    pub resistance: f64,
    /// Level against one driver as its sheet has it, at the same voltage, dB.
    pub gain: f64,
    /// What it means for the amplifier and the drivers; empty where there is nothing to say.
    pub reason: String,
}

/// All ways to wire `count` equal drivers whose nominal load lies from `least` to `most` (ohm), the best first: what takes most
/// from an amplifier that stands the minimum load, then what has fewest drivers in series.
///
/// # Errors
/// What is wrong with the driver.
pub fn wiring_options(
    driver: &RawDriver,
    count: u32,
    least: f64,
    most: f64,
) -> Result<Vec<WiringOption>, Vec<Problem>> {
    let dual = driver.coils.is_some_and(|coils| coils != RawSheetCoils::Single);
    let coils: &[Option<RawCoils>] =
        if dual { &[Some(RawCoils::Parallel), Some(RawCoils::Series)] } else { &[None] };
    let sheet = resolve_driver_array(driver, None)?.equivalent();
    let mut found = Vec::new();
    for used in coils {
        let raw = RawDriverArray { coils: *used, ..RawDriverArray::default() };
        let one = resolve_driver_array(driver, Some(&raw))?.driver;
        for series in (1..=count).filter(|series| count.is_multiple_of(*series)) {
            let wiring = Wiring { series, parallel: count / series };
            let together = DriverArray { wiring, ..DriverArray::from(one) }.equivalent();
            // A rounding of the nominal values must not hide a way.
            if together.nominal >= least * 0.999 && together.nominal <= most * 1.001 {
                found.push(option(*used, wiring, &together, &sheet, least));
            }
        }
    }
    found.sort_by(|a, b| a.load.total_cmp(&b.load).then(a.series.cmp(&b.series)));
    Ok(found)
}

fn option(
    coils: Option<RawCoils>,
    wiring: Wiring,
    together: &Driver,
    sheet: &Driver,
    least: f64,
) -> WiringOption {
    let Wiring { series, parallel } = wiring;
    // At one voltage the level follows force and area over mass and resistance.
    let push = |driver: &Driver| driver.bl * driver.sd / (driver.re * driver.mms);
    let share = least / together.nominal;
    let power = match share {
        _ if least <= 0.0 => None,
        share if share > 0.999 => Some("draws all that the amplifier gives".to_owned()),
        share => Some(format!("draws {:.0} % of what the amplifier gives into {least:.0} Ω", share * 100.0)),
    };
    let even = (series > 1)
        .then(|| "drivers in series share the voltage evenly only while they are equal".to_owned());
    let reason = power.into_iter().chain(even).collect::<Vec<_>>().join("; ");
    WiringOption {
        coils,
        series,
        parallel,
        load: together.nominal,
        resistance: together.re,
        gain: 20.0 * (push(together) / push(sheet)).log10(),
        reason,
    }
}
