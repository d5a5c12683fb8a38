//! Where in a room a sub plays most evenly.

use std::ops::Range;

use rayon::prelude::*;

use oak_acoustics::{Complex, Stop};

use crate::room::{NEAREST, Room};

/// From a wall to the nearest candidate, and between candidates, m.
pub const INSET: f64 = 0.30;
/// See [`INSET`].
pub const STEP: f64 = 0.25;

/// Frequencies of the judgement: `20 x 2^(k/12)` Hz, 32 of them.
pub fn frequencies() -> Vec<f64> {
    (0..32).map(|k| 20.0 * (f64::from(k) / 12.0).exp2()).collect()
}

/// A part of the floor plan or a shelf in which a cabinet may stand.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Area {
    /// From, m.
    pub low: [f64; 2],
    /// To, m.
    pub high: [f64; 2],
    /// Height of the cone, m.
    pub height: f64,
}

impl Area {
    /// The whole floor of a room.
    pub fn floor(room: &Room, height: f64) -> Self {
        Self { low: [INSET; 2], high: [room.size[0] - INSET, room.size[1] - INSET], height }
    }

    /// Places on its grid.
    fn places(&self) -> Vec<[f64; 3]> {
        let along = |axis: usize| {
            let steps = ((self.high[axis] - self.low[axis]) / STEP + 1e-9).floor().max(0.0) as i32;
            (0..=steps).map(move |k| self.low[axis] + STEP * f64::from(k))
        };
        along(0).flat_map(|x| along(1).map(move |y| [x, y, self.height])).collect()
    }
}

/// Places of one or two cabinets and how evenly they play.
#[derive(Debug, Clone, PartialEq)]
pub struct Found {
    /// Which of the candidates.
    pub which: Vec<usize>,
    /// Where they stand, m.
    pub places: Vec<[f64; 3]>,
    /// Standard deviation of the level over all seats and frequencies, dB.
    pub cost: f64,
    /// Mean level there against 1 m in half space, dB.
    pub level: f64,
}

/// Every candidate in some areas, inside the room and clear of every seat.
pub fn candidates(room: &Room, areas: &[Area], seats: &[[f64; 3]]) -> Vec<[f64; 3]> {
    let clear = |place: &[f64; 3]| {
        let far = |seat: &[f64; 3]| {
            let square: f64 = seat.iter().zip(place).map(|(a, b)| (a - b).powi(2)).sum();
            square.sqrt() >= NEAREST
        };
        room.holds(*place) && seats.iter().all(far)
    };
    areas.iter().flat_map(Area::places).filter(clear).collect()
}

/// The best places of `count` cabinets (1 or 2) among candidates, the most even first, `keep` of them; ties by the mean level. Only those are
/// judged whose first place is in a range of the candidates, so that a search can be carried out in pieces. Returns how many were judged too;
/// `None` where it was stopped.
pub fn search(
    room: &Room,
    seats: &[[f64; 3]],
    candidates: &[[f64; 3]],
    count: usize,
    first: Range<usize>,
    keep: usize,
    stop: &Stop,
) -> Option<(Vec<Found>, usize)> {
    const AT_ONCE: usize = 128;
    let frequencies = frequencies();
    let needed = if count == 2 { first.start..candidates.len() } else { first.clone() };
    let places = &candidates[needed];
    let mut heard: Vec<Vec<Complex>> = Vec::with_capacity(places.len());
    for some in places.chunks(AT_ONCE) {
        if stop.stopped() {
            return None;
        }
        let transfers = room.transfers(some, seats, &frequencies);
        heard.extend(transfers.values.into_iter().map(|seats| seats.concat()));
    }
    let best = |mut found: Vec<Found>| {
        found.sort_by(|a, b| a.cost.total_cmp(&b.cost).then(b.level.total_cmp(&a.level)));
        found.truncate(keep);
        found
    };
    if count != 2 {
        let found = first
            .zip(heard.iter().zip(places))
            .map(|(which, (heard, place))| judged(heard, vec![which], vec![*place]))
            .collect();
        return Some((best(found), places.len()));
    }
    let (mut found, mut count) = (Vec::new(), 0);
    for one in 0..first.len() {
        if one % 16 == 0 && stop.stopped() {
            return None;
        }
        let rest = heard[one + 1..].par_iter().zip(&places[one + 1..]).enumerate();
        let pairs: Vec<Found> = rest
            .map(|(beyond, (second, place))| {
                let both: Vec<Complex> = heard[one].iter().zip(second).map(|(a, b)| a + b).collect();
                let which = vec![first.start + one, first.start + one + 1 + beyond];
                judged(&both, which, vec![places[one], *place])
            })
            .collect();
        count += pairs.len();
        found.extend(pairs);
        found = best(found);
    }
    Some((found, count))
}

/// How evenly some sources play at seats: their places (m), factors and delays (s), in the same way as a search judges. `None` without
/// sources or seats.
pub fn judge(room: &Room, sources: &[([f64; 3], f64, f64)], seats: &[[f64; 3]]) -> Option<Found> {
    if sources.is_empty() || seats.is_empty() {
        return None;
    }
    let frequencies = frequencies();
    let places: Vec<[f64; 3]> = sources.iter().map(|(place, _, _)| *place).collect();
    let transfers = room.transfers(&places, seats, &frequencies).values;
    let at = |seat: usize, k: usize| -> Complex {
        let each = sources.iter().zip(&transfers).map(|((_, gain, delay), seats)| {
            seats[seat][k] * Complex::from_polar(*gain, -std::f64::consts::TAU * frequencies[k] * delay)
        });
        each.sum()
    };
    let heard: Vec<Complex> = (0..seats.len())
        .flat_map(|seat| (0..frequencies.len()).map(move |k| (seat, k)))
        .map(|(seat, k)| at(seat, k))
        .collect();
    Some(judged(&heard, (0..places.len()).collect(), places))
}

/// Standard deviation and mean of the level.
fn judged(heard: &[Complex], which: Vec<usize>, places: Vec<[f64; 3]>) -> Found {
    let levels: Vec<f64> = heard.iter().map(|value| 10.0 * value.norm_sqr().max(1e-30).log10()).collect();
    let count = levels.len() as f64;
    let level = levels.iter().sum::<f64>() / count;
    let cost = (levels.iter().map(|value| (value - level).powi(2)).sum::<f64>() / count).sqrt();
    Found { which, places, cost, level }
}
