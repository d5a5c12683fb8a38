//! The air in the ports stays quiet at the asked level.

use oak_acoustics::network::OpeningKind;

use super::{Check, Verdict};
use crate::Case;

pub(super) fn judge(case: &Case<'_>) -> Option<Check> {
    let allowed = case.brief.air_speed?;
    let drive = case.drive();
    let (response, network) = (&case.computed.response, &case.computed.built.compiled.network);
    let ports = network.openings.iter().enumerate().filter(|(_, opening)| opening.kind == OpeningKind::Port);
    let fastest = ports
        .flat_map(|(opening, _)| {
            let speeds: Vec<f64> = response.air_speed(opening).collect();
            let scaled = case.band.clone().zip(&drive).map(move |(k, drive)| (k, speeds[k] * drive));
            scaled.collect::<Vec<_>>()
        })
        .max_by(|a, b| a.1.total_cmp(&b.1))?;
    let (at, speed) = fastest;
    let frequency = response.frequency[at];
    let met = speed <= allowed * 1.001;
    Some(Check {
        id: "air",
        name: "Air at asked SPL",
        reached: format!("{speed:.1} m/s"),
        words: if met {
            format!("asked: {allowed:.0} m/s")
        } else {
            format!("{:.1} m/s too fast", speed - allowed)
        },
        verdict: Verdict::of(met),
        ratio: allowed / speed,
        why: format!(
            "At the asked level the air is fastest at {frequency:.0} Hz. Builders differ: 10 m/s is never heard, 17 m/s is usual for \
             straight edges, 34 m/s for generous flares. A larger port is slower and must be longer; a passive radiator has no air \
             noise at all."
        ),
    })
}
