//! Boxes with passive radiators.

use super::ported::flat_box;
use super::{Ask, Refusal, Start, StartingPoint, litres};
use crate::driver::Driver;
use crate::enclosure::{Enclosure, Losses, PassiveRadiator, Radiator};
use crate::medium::Air;

/// Starting points of boxes with passive radiators.
pub static PASSIVE_RADIATOR: &[StartingPoint] = &[
    StartingPoint { id: "flat", name: "Flat, opposed pair", start: |ask| pair(ask, 1.0, 1.0) },
    StartingPoint { id: "low", name: "Lower, opposed pair", start: |ask| pair(ask, 1.3, 0.8) },
];

/// Radiators over the driver's moved volume, common practice: twice at least.
const VOLUME_RATIO: f64 = 2.0;
/// Mechanical Q at their own resonance, common practice.
const Q: f64 = 8.0;

/// Equal radiators with twice the drivers' area in all, on suspensions like theirs, whose mass tunes a box (m3) to a
/// frequency (Hz) and that together can move twice the drivers' volume.
pub fn opposed(driver: &Driver, air: &Air, volume: f64, tuning: f64, count: u32) -> Radiator {
    let share = 2.0 / f64::from(count);
    let (area, compliance) = (driver.sd * share, driver.cms / share);
    let total = 2.0 * driver.sd;
    let stiffness = compliance.recip() + area * total / air.compliance(volume);
    let mass = stiffness / (std::f64::consts::TAU * tuning).powi(2);
    let resistance = (mass / compliance).sqrt() / Q;
    let xmax = driver.vd().map(|vd| VOLUME_RATIO * vd / total);
    Radiator { mass, compliance, resistance, area, count, xmax }
}

fn pair(ask: &Ask, larger: f64, lower: f64) -> Result<Start, Refusal> {
    let (volume, tuning, name) = flat_box(ask)?;
    let (volume, cut) = ask.within(larger * volume);
    let tuning = lower * tuning;
    let radiator = opposed(&ask.driver, &ask.setting.air, volume, tuning, 2);
    let mass = radiator.mass;
    let reason = format!(
        "As the {name} ported box, {} at {tuning:.0} Hz, with two radiators of the driver's area and {:.0} g each. Together they move twice the driver's volume; opposed they keep the box from walking (Small 1974).{cut}",
        litres(volume),
        mass * 1e3
    );
    let enclosure = Enclosure::PassiveRadiator(PassiveRadiator { volume, losses: Losses::USUAL, radiator });
    Ok(Start { enclosure, reason })
}
