//! How loud a frequency is everywhere in a place.

use oak_acoustics::response::SoundSource;
use oak_design::Problem;
use oak_design::conditions::{Question, RawQuestion};
use oak_design::heard::stands;
use oak_signal::in_place::{in_the_open, plane_in_room};
use oak_signal::room::Room;
use serde::Serialize;
use utoipa::ToSchema;

use super::no_place;

/// Levels over a plan.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct LevelMap {
    /// Hz.
    pub frequency: f64,
    /// Corner at the left below, m.
    pub low: [f64; 2],
    /// Corner at the right above, m.
    pub high: [f64; 2],
    /// Height over the floor, m.
    pub up: f64,
    /// dB at the drive of the design, in rows from below up, each from the left to the right.
    pub levels: Vec<Vec<f32>>,
}

/// Points along the longer side.
const POINTS: usize = 48;
/// Ears where nobody is seated, m.
const EARS: f64 = 1.2;
/// Around what stands in the open, at least, m.
const MARGIN: f64 = 5.0;

/// How loud a frequency (Hz) is everywhere at the height of the ears.
///
/// # Errors
/// Every problem with design, brief or place; that there is no place.
pub fn level_map(question: &RawQuestion, frequency: f64) -> Result<LevelMap, Vec<Problem>> {
    let Question { design, .. } = question.resolve()?;
    let Some(place) = design.playing.place.clone() else {
        return Err(no_place());
    };
    let built = design.built().map_err(|problem| vec![problem])?;
    let air = built.design.air;
    let room = place.room.map(|room| Room { air, ..room });
    let up = place.seats.first().map_or(EARS, |seat| seat.at[2]);
    let [low, high] = match &room {
        Some(room) => [[0.0; 2], [room.size[0], room.size[1]]],
        None => {
            around(place.stands.iter().map(|stand| stand.at).chain(place.seats.iter().map(|seat| seat.at)))
        }
    };
    let size = [high[0] - low[0], high[1] - low[1]];
    let step = size[0].max(size[1]) / POINTS as f64;
    let [columns, rows] = size.map(|side| ((side / step).round() as usize).max(2));
    let at = |axis: usize, k: usize, count: usize| low[axis] + size[axis] * (k as f64 + 0.5) / count as f64;
    let places = [(0, columns), (1, rows)]
        .map(|(axis, count)| (0..count).map(|k| at(axis, k, count)).collect::<Vec<f64>>());
    let sources = SoundSource::all(&built.compiled.network, &[frequency], built.design.drive.volts);
    let stands = stands(&built, &place.stands);
    let [across, along] = &places;
    let heard = match &room {
        Some(room) => plane_in_room(room, &stands, &sources, [across, along], up, frequency),
        None => {
            let points: Vec<[f64; 3]> =
                along.iter().flat_map(|y| across.iter().map(move |x| [*x, *y, up])).collect();
            let heard = in_the_open(&stands, &sources, &points, &[frequency], &air).concat();
            heard.chunks(columns).map(<[_]>::to_vec).collect()
        }
    };
    let level = |pressure: f64| (20.0 * (pressure.max(1e-12) / 2e-5).log10()) as f32;
    let levels =
        heard.iter().map(|row| row.iter().map(|pressure| level(pressure.norm())).collect()).collect();
    Ok(LevelMap { frequency, low, high, up, levels })
}

fn around(points: impl Iterator<Item = [f64; 3]>) -> [[f64; 2]; 2] {
    let points: Vec<[f64; 3]> = points.collect();
    let end = |axis: usize, sign: f64| {
        let most = points.iter().map(|point| sign * point[axis]).fold(f64::MIN, f64::max);
        sign * if points.is_empty() { 0.0 } else { most }
    };
    let middle = [0, 1].map(|axis| (end(axis, 1.0) + end(axis, -1.0)) / 2.0);
    let half =
        [0, 1].map(|axis| (end(axis, 1.0) - end(axis, -1.0)) / 2.0).into_iter().fold(0.0, f64::max) + MARGIN;
    [[middle[0] - half, middle[1] - half], [middle[0] + half, middle[1] + half]]
}
