//! The room or cabin itself: its modes, how long they last, and how a car lifts the bottom.

use oak_design::file::RawListening;
use oak_signal::cabin::{SimpleLift, crossing, pressure_zone};
use oak_signal::room::{Mode, ModeKind, Room};
use serde::Serialize;
use utoipa::ToSchema;

use super::scene::Scene;

/// A room or cabin.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct RoomReport {
    /// Inside, m.
    pub size: [f64; 3],
    /// m3.
    pub volume: f64,
    /// Time in which sound falls by 60 dB, after Sabine, s.
    pub reverberation: f64,
    /// Above it modes overlap and single ones no longer matter: `2000 sqrt(T/V)` (Schroeder 1954; from memory), Hz.
    pub schroeder: f64,
    /// Its modes, from low to high.
    pub modes: Vec<ModeReport>,
    /// What a cabin does to the bottom; nothing of a room.
    pub lift: Option<LiftReport>,
    /// What is to be known of it.
    pub words: String,
}

/// One mode.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct ModeReport {
    /// Half waves across, along and up.
    pub order: [u32; 3],
    /// Hz.
    pub frequency: f64,
    /// Between how many pairs of walls it stands.
    pub kind: ModeKind,
    /// Time in which it falls by 60 dB, s.
    pub decay: f64,
    /// How much of it each cabinet drives, from 0, in its null, to 1.
    pub cabinets: Vec<f64>,
    /// How much of it each seat hears, from 0, in its null, to 1.
    pub seats: Vec<f64>,
}

/// How a cabin lifts the bottom.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct LiftReport {
    /// `c/(2 L)` with the longest inside length: the rule of thumb lifts below it, Hz.
    pub upper: f64,
    /// Corner of the leak, Hz: below it the lift ends.
    pub leak: f64,
    /// Where the sealed cabin is as loud as 1 m in the open, Hz.
    pub crossing: f64,
    /// Hz; dB by the rule of thumb, by the pressure of the leaking cabin alone, and at the seats by all modes.
    pub rows: Vec<[f64; 4]>,
}

/// Modes up to this many, and up to this frequency (Hz).
const MOST: usize = 30;
const UP_TO: f64 = 150.0;
/// Where the lift of a cabin is told, Hz.
const TOLD: [f64; 5] = [20.0, 30.0, 40.0, 60.0, 80.0];

pub(super) fn report(scene: &Scene<'_>) -> Option<RoomReport> {
    let room = scene.room?;
    let reverberation = room.reverberation();
    let schroeder = 2000.0 * (reverberation / room.volume()).sqrt();
    let (cones, seats) = (scene.cones(), scene.seats());
    let mode = |mode: &Mode| ModeReport {
        order: mode.order,
        frequency: mode.frequency,
        kind: mode.kind(),
        decay: mode.decay(),
        cabinets: cones.iter().map(|(at, _, _)| mode.shape(&room, *at).abs()).collect(),
        seats: seats.iter().map(|at| mode.shape(&room, *at).abs()).collect(),
    };
    // That of the whole room is no standing wave.
    let standing = room.modes(UP_TO).into_iter().filter(|mode| mode.order != [0; 3]);
    let modes: Vec<ModeReport> = standing.take(MOST).map(|found| mode(&found)).collect();
    let car = scene.place.kind == RawListening::Car;
    let lift = car.then(|| lift(scene, &room));
    let lowest = modes.first().map(|mode| mode.frequency);
    let words = match (car, lowest) {
        (true, _) => "The cabin as the nearest rectangular one. Below its first standing wave it is a pressure chamber, which lifts the bottom down to its leak.".to_owned(),
        (_, Some(lowest)) => format!(
            "The room as the nearest rectangular one. Below its first standing wave at {lowest:.0} Hz it is a pressure chamber; up to {schroeder:.0} Hz single waves decide, which differ from seat to seat.",
        ),
        (_, None) => "The room as the nearest rectangular one, too small for standing waves below 150 Hz.".to_owned(),
    };
    Some(RoomReport { size: room.size, volume: room.volume(), reverberation, schroeder, modes, lift, words })
}

fn lift(scene: &Scene<'_>, room: &Room) -> LiftReport {
    let longest = room.size.into_iter().fold(0.0, f64::max);
    let rule = SimpleLift::of(longest, room.leak.max(1.0), &room.air);
    let decibels = |factor: f64| 20.0 * factor.log10();
    let response = &scene.computed.response;
    let mean = scene.heard.as_ref().map(|heard| (&heard.frequency, heard.mean()));
    let row = |frequency: f64| {
        let heard = mean.as_ref().map_or(f64::NAN, |(heard, mean)| {
            let k = heard.partition_point(|at| *at < frequency).min(heard.len() - 1);
            let free = response.frequency.partition_point(|at| *at < frequency).min(scene.free.len() - 1);
            mean[k] - scene.free[free]
        });
        let pressure = pressure_zone(room.volume(), room.leak, frequency, &room.air).norm();
        [frequency, decibels(rule.at(frequency).norm()), decibels(pressure), heard]
    };
    let rows = TOLD.into_iter().map(row).filter(|row| row[3].is_finite()).collect();
    LiftReport { upper: rule.upper, leak: room.leak, crossing: crossing(room.volume(), &room.air), rows }
}
