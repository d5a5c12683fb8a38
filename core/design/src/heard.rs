//! What arrives where a build is listened to.

use oak_acoustics::Complex;
use oak_acoustics::response::SoundSource;
use oak_signal::in_place::{Stand, in_room, in_the_open, source_points};
use oak_signal::room::{NEAREST, Room};

use crate::built::Built;
use crate::resolve::{ListeningPlace, Standing};

/// What arrives at each seat.
#[derive(Debug, Clone, PartialEq)]
pub struct Heard {
    /// Hz, rising.
    pub frequency: Vec<f64>,
    /// Pressure at each seat, Pa RMS, `[seats][n]`.
    pub seats: Vec<Vec<Complex>>,
    /// Whether each seat is nearer to something that sounds than the sum over modes can say.
    pub near: Vec<bool>,
}

/// Between what frequencies a place is looked at, Hz: above, a room is no matter of single modes, nor of a subwoofer.
pub const SPAN: [f64; 2] = [10.0, 200.0];
/// Larger rooms than this (m3) have too many modes for a quick answer above [`HALL_TOP`].
const HALL: f64 = 500.0;
/// Hz.
const HALL_TOP: f64 = 120.0;
/// Reference of sound pressure, Pa.
const REFERENCE: f64 = 2e-5;
/// Height of a cone whose box is not drawn, m.
const USUAL_CONE: f64 = 0.3;

impl Heard {
    /// What arrives of a built cabinet that is driven as its design says, at those of some frequencies (Hz) that a place is looked at; `None`
    /// where there are no cabinets, no seats or no frequencies.
    pub fn of(built: &Built, place: &ListeningPlace, frequencies: &[f64]) -> Option<Self> {
        let air = built.design.air;
        let room = place.room.map(|room| Room { air, ..room });
        let [low, high] = span(room.as_ref());
        let frequency: Vec<f64> =
            frequencies.iter().copied().filter(|frequency| (low..=high).contains(frequency)).collect();
        if frequency.is_empty() || place.seats.is_empty() || place.stands.is_empty() {
            return None;
        }
        let sources = SoundSource::all(&built.compiled.network, &frequency, built.design.drive.volts);
        let stands = stands(built, &place.stands);
        let at: Vec<[f64; 3]> = place.seats.iter().map(|seat| seat.at).collect();
        let points: Vec<[f64; 3]> = stands.iter().flat_map(|stand| source_points(stand, &sources)).collect();
        let distance =
            |a: &[f64; 3], b: &[f64; 3]| a.iter().zip(b).map(|(a, b)| (a - b).powi(2)).sum::<f64>().sqrt();
        let near = at.iter().map(|seat| points.iter().any(|point| distance(seat, point) < NEAREST)).collect();
        let seats = match &room {
            Some(room) => in_room(room, &stands, &sources, &at, &frequency),
            None => in_the_open(&stands, &sources, &at, &frequency, &air),
        };
        Some(Self { frequency, seats, near })
    }

    /// Level at each seat, dB, `[seats][n]`.
    pub fn levels(&self) -> Vec<Vec<f64>> {
        self.seats.iter().map(|seat| seat.iter().map(|p| decibels(p.norm_sqr())).collect()).collect()
    }

    /// Mean of the power at all seats, dB, `[n]`.
    pub fn mean(&self) -> Vec<f64> {
        let mean = |k: usize| {
            let power: f64 = self.seats.iter().map(|seat| seat[k].norm_sqr()).sum();
            decibels(power / self.seats.len() as f64)
        };
        (0..self.frequency.len()).map(mean).collect()
    }
}

fn decibels(square: f64) -> f64 {
    10.0 * (square.max(1e-30) / REFERENCE.powi(2)).log10()
}

/// Between what frequencies a room is looked at, Hz; in the open as a small one.
pub fn span(room: Option<&Room>) -> [f64; 2] {
    let [low, high] = SPAN;
    [low, if room.is_some_and(|room| room.volume() > HALL) { HALL_TOP } else { high }]
}

/// Cabinets where they stand: the middle of the underside of each box over the place that is given.
pub fn stands(built: &Built, standing: &[Standing]) -> Vec<Stand> {
    let middle = built.boxed.as_ref().map_or([0.0, -USUAL_CONE, 0.0], |boxed| {
        let [low, high] = boxed.cabinet.outer.bounds();
        [(low[0] + high[0]) / 2.0, low[1], (low[2] + high[2]) / 2.0]
    });
    let stand = |standing: &Standing| {
        let Standing { at, turned, gain, delay } = *standing;
        let moved = Stand { place: [0.0; 3], turned, gain, delay }.point(middle);
        Stand { place: [0, 1, 2].map(|axis| at[axis] - moved[axis]), turned, gain, delay }
    };
    standing.iter().map(stand).collect()
}

/// Where the first thing that sounds of a box is, over the middle of its underside: across, up and forward, m.
pub fn cone(built: &Built) -> [f64; 3] {
    match (&built.boxed, built.compiled.network.places.first()) {
        (Some(boxed), Some((_, at))) => {
            let [low, high] = boxed.cabinet.outer.bounds();
            [at[0] - (low[0] + high[0]) / 2.0, at[1] - low[1], at[2] - (low[2] + high[2]) / 2.0]
        }
        _ => [0.0, USUAL_CONE, 0.0],
    }
}
