//! Baffles.

use super::{Ask, Refusal, Start, StartingPoint, refuse};
use crate::enclosure::{Enclosure, OpenBaffle};

/// The starting point of the infinite baffle.
pub static INFINITE_BAFFLE: &[StartingPoint] =
    &[StartingPoint { id: "wall", name: "In a wall", start: wall }];

/// Starting points of open baffles.
pub static OPEN_BAFFLE: &[StartingPoint] = &[
    StartingPoint {
        id: "lowest_note",
        name: "To the lowest note",
        start: |ask| open(ask, ask.lowest_or(1.5 * ask.driver.fs())),
    },
    StartingPoint {
        id: "half_metre",
        name: "Half a metre",
        start: |ask| open(ask, ask.setting.air.speed / (6.0 * 0.5)),
    },
];

fn wall(ask: &Ask) -> Result<Start, Refusal> {
    let (fs, qts) = (ask.driver.fs(), ask.driver.qts());
    let words = match qts {
        qts if qts > 1.2 => "it will boom: give it series damping or an equaliser",
        qts if qts > 0.6 => "just right for a wall",
        _ => "it will roll off early: an equaliser helps",
    };
    let reason = format!("In a wall the driver alone decides: Fs {fs:.0} Hz, Qts {qts:.2}; {words}.");
    Ok(Start { enclosure: Enclosure::InfiniteBaffle, reason })
}

/// A dipole is as loud as one face where the way round is a sixth of a wave.
fn open(ask: &Ask, lowest: f64) -> Result<Start, Refusal> {
    let qts = ask.driver.qts();
    if qts < 0.4 {
        return refuse(format!(
            "A Qts of {qts:.2} leaves no bass on an open baffle: the driver rolls off by itself, and the sound around the edge takes more. Take a Qts of 0.6 or more."
        ));
    }
    let path = (ask.setting.air.speed / (6.0 * lowest)).clamp(0.1, 3.0);
    let reason = format!(
        "An extra path of {path:.2} m makes a dipole as loud as one face at {:.0} Hz, a sixth of a wave; below that it loses 6 dB per octave.",
        ask.setting.air.speed / (6.0 * path)
    );
    Ok(Start { enclosure: Enclosure::OpenBaffle(OpenBaffle { path }), reason })
}
