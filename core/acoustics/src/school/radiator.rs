//! Boxes with passive radiators.

use super::ported::flat_box;
use super::{Ask, Refusal, School, Start, USUAL, litres};
use crate::enclosure::{Enclosure, PassiveRadiator, Radiator};

/// Schools of boxes with passive radiators.
pub static PASSIVE_RADIATOR: &[School] = &[
    School { id: "flat", name: "Flat, opposed pair", start: |ask| pair(ask, 1.0, 1.0) },
    School { id: "low", name: "Lower, opposed pair", start: |ask| pair(ask, 1.3, 0.8) },
];

/// Radiators over the driver's moved volume, common practice: twice at least.
const VOLUME_RATIO: f64 = 2.0;
/// Mechanical Q at their own resonance, common practice.
const Q: f64 = 8.0;

fn pair(ask: &Ask, larger: f64, lower: f64) -> Result<Start, Refusal> {
    let (volume, tuning, name) = flat_box(ask)?;
    let (volume, cut) = ask.within(larger * volume);
    let tuning = lower * tuning;
    let driver = &ask.driver;
    let (count, area, compliance) = (2, driver.sd, driver.cms);
    let total = 2.0 * area;
    let stiffness = compliance.recip() + area * total / ask.setting.air.compliance(volume);
    let mass = stiffness / (std::f64::consts::TAU * tuning).powi(2);
    let resistance = (mass / compliance).sqrt() / Q;
    let xmax = driver.vd().map(|vd| VOLUME_RATIO * vd / total);
    let radiator = Radiator { mass, compliance, resistance, area, count, xmax };
    let reason = format!(
        "As the {name} ported box, {} at {tuning:.0} Hz, with two radiators of the driver's area and {:.0} g each. Together they move twice the driver's volume; opposed they keep the box from walking (Small 1974).{cut}",
        litres(volume),
        mass * 1e3
    );
    let enclosure = Enclosure::PassiveRadiator(PassiveRadiator { volume, losses: USUAL, radiator });
    Ok(Start { enclosure, reason })
}
