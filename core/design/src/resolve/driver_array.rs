//! What is done to the driver, and how several work together.

use oak_acoustics::driver::{
    Change, Coils, Driver, DriverArray, DualCoil, Isobaric, SheetCoils, Wiring, cable_resistance,
};

use super::driver::resolve_driver;
use super::reading::Reading;
use crate::field;
use crate::file::{RawArrangement, RawCoils, RawDriver, RawDriverArray, RawIsobaric, RawSheetCoils};
use crate::problem::{Problem, ProblemKind};

/// Temperature at which a sheet's Re is taken, degC.
const SHEET_TEMPERATURE: f64 = 20.0;
/// Depth of a driver over its effective diameter where the sheet does not say, common practice.
const USUAL_DEPTH: f64 = 0.48;
/// Core of a cable where nothing is said, m2: 2.5 mm2, common practice.
const USUAL_CORE: f64 = 2.5e-6;
/// Clearance between the parts of a pair, m.
const CLEARANCE: f64 = 5e-3;

/// Resolves what is done to a driver, and how several work together; as one driver where nothing is said.
///
/// # Errors
/// Every problem, with places as in the design file.
pub fn resolve_driver_array(
    driver: &RawDriver,
    raw: Option<&RawDriverArray>,
) -> Result<DriverArray, Vec<Problem>> {
    let within = |problem: Problem| problem.within("driver");
    let one = resolve_driver(driver).map_err(|found| found.into_iter().map(within).collect::<Vec<_>>())?;
    let mut reading = Reading::default();
    driver_array(raw, driver, Some(one.driver), &mut reading).ok_or(reading.problems)
}

/// Resolves the motor; `None` where a value has a problem.
pub(super) fn driver_array(
    raw: Option<&RawDriverArray>,
    sheet: &RawDriver,
    driver: Option<Driver>,
    reading: &mut Reading,
) -> Option<DriverArray> {
    let usual = RawDriverArray::default();
    let raw = raw.unwrap_or(&usual);
    let coils = coils(raw, sheet, reading);
    let mut zero = |name: &str, field, typed| {
        reading.optional(&format!("driver_array.{name}"), field, typed).unwrap_or(0.0)
    };
    let added_mass = zero("added_mass", &field::ADDED_MASS, &raw.added_mass);
    let softening = zero("break_in", &field::BREAK_IN, &raw.break_in);
    let series_resistance = zero("series_resistance", &field::SERIES_RESISTANCE, &raw.series_resistance);
    let series_resistance = series_resistance + cable(raw, reading);
    let temperature =
        reading.optional("driver_array.coil_temperature", &field::COIL_TEMPERATURE, &raw.coil_temperature);
    let coil_heat = temperature.map_or(0.0, |temperature| temperature - SHEET_TEMPERATURE);
    let mut count = |name: &str, field, typed| reading.count(&format!("driver_array.{name}"), field, typed);
    let wiring = Wiring {
        series: count("series", &field::SERIES, &raw.series)?,
        parallel: count("parallel", &field::PARALLEL, &raw.parallel)?,
    };
    let trapped = raw
        .isobaric
        .as_ref()
        .map(|pair| (pair, reading.optional("driver_array.isobaric.volume", &field::TRAPPED, &pair.volume)));
    let driver = Change { added_mass, softening, coil_heat, coils: coils? }.apply(&driver?);
    let isobaric = trapped.map(|(pair, volume)| isobaric(pair, volume, sheet, &driver));
    Some(DriverArray { driver, wiring, isobaric, series_resistance })
}

fn cable(raw: &RawDriverArray, reading: &mut Reading) -> f64 {
    let length = reading.optional("driver_array.cable_length", &field::CABLE_LENGTH, &raw.cable_length);
    let area = reading.optional("driver_array.cable_area", &field::CABLE_AREA, &raw.cable_area);
    length.map_or(0.0, |length| cable_resistance(length, area.unwrap_or(USUAL_CORE)))
}

fn coils(raw: &RawDriverArray, sheet: &RawDriver, reading: &mut Reading) -> Option<DualCoil> {
    let resistance = reading.optional(
        "driver_array.idle_coil_resistance",
        &field::BRAKE_RESISTANCE,
        &raw.idle_coil_resistance,
    );
    let Some(used) = raw.coils else { return Some(DualCoil::AsStated) };
    let stated = match sheet.coils {
        Some(RawSheetCoils::DualSeries) => SheetCoils::Series,
        Some(RawSheetCoils::DualParallel | RawSheetCoils::DualEach) => SheetCoils::Parallel,
        Some(RawSheetCoils::Single) | None => {
            reading.note("driver_array.coils", ProblemKind::NotDual);
            return None;
        }
    };
    let used = match used {
        RawCoils::Series => Coils::Series,
        RawCoils::Parallel => Coils::Parallel,
        RawCoils::One => Coils::One,
        RawCoils::OneShorted => Coils::OneLoaded { resistance: 0.0 },
        RawCoils::OneLoaded => Coils::OneLoaded { resistance: resistance.unwrap_or(0.0) },
    };
    Some(DualCoil::Rewired { stated, used })
}

fn isobaric(raw: &RawIsobaric, volume: Option<f64>, sheet: &RawDriver, driver: &Driver) -> Isobaric {
    let trapped = (!raw.ideal).then(|| volume.unwrap_or_else(|| usual_air(raw.arrangement, sheet, driver)));
    Isobaric { in_series: raw.coils_in_series, trapped }
}

/// Air between the cones of a pair of a usual build. The cones of two that face each other enclose their own
/// depth, a third of a cone each; in line the second needs room for its magnet; back to back for both.
fn usual_air(arrangement: RawArrangement, sheet: &RawDriver, driver: &Driver) -> f64 {
    let diameter = (4.0 * driver.sd / std::f64::consts::PI).sqrt();
    let stated = Reading::default().optional("", &field::DEPTH, &sheet.depth);
    let depth = stated.unwrap_or(USUAL_DEPTH * diameter);
    let travel = 2.0 * driver.xmax.unwrap_or(CLEARANCE);
    let spacing = match arrangement {
        RawArrangement::FaceToFace => 2.0 * depth / 6.0 + travel,
        RawArrangement::InLine => depth + travel + CLEARANCE,
        RawArrangement::BackToBack => 2.0 * depth + CLEARANCE,
    };
    // The magnets themselves take up part of what they need.
    let air = match arrangement {
        RawArrangement::FaceToFace => 1.0,
        RawArrangement::InLine | RawArrangement::BackToBack => 0.75,
    };
    driver.sd * spacing * air
}
