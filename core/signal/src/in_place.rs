//! What of built cabinets arrives at seats: in a room, or in the open.

use std::f64::consts::TAU;

use oak_acoustics::Complex;
use oak_acoustics::medium::Air;
use oak_acoustics::response::SoundSource;

use crate::room::Room;

/// A cabinet where it stands, and how it is played.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Stand {
    /// Of the origin of its box, m: across and along the floor, and up.
    pub place: [f64; 3],
    /// Which way its front looks: 0 along the second axis, turning to the left, rad.
    pub turned: f64,
    /// Factor; negative where its polarity is reversed.
    pub gain: f64,
    /// How much later it plays, s.
    pub delay: f64,
}

impl Stand {
    /// Where a point of its box (across to the right as seen from the front, up, forward; m) is, m.
    pub fn point(&self, [across, up, forward]: [f64; 3]) -> [f64; 3] {
        let (sine, cosine) = self.turned.sin_cos();
        [
            self.place[0] - across * cosine - forward * sine,
            self.place[1] - across * sine + forward * cosine,
            self.place[2] + up,
        ]
    }

    /// What its own gain and delay do at an angular frequency, rad/s.
    fn factor(&self, omega: f64) -> Complex {
        Complex::from_polar(self.gain, -omega * self.delay)
    }
}

/// Where things that sound are, m, those without a place of their own where the first with one is.
pub fn source_points(stand: &Stand, sources: &[SoundSource]) -> Vec<[f64; 3]> {
    let usual = sources.iter().find_map(|source| source.place).unwrap_or([0.0; 3]);
    sources.iter().map(|source| stand.point(source.place.unwrap_or(usual))).collect()
}

/// Pressure at 1 m in half space of a flow (m3/s RMS), Pa RMS: `j w rho U/(2 pi 1 m)`.
fn reference(flow: Complex, omega: f64, air: &Air) -> Complex {
    Complex::new(0.0, omega * air.density / TAU) * flow
}

/// Pressure at seats (m) in a room, Pa RMS, `[seats][n]`: of every cone and opening of every cabinet, `sources` being those of one.
pub fn in_room(
    room: &Room,
    stands: &[Stand],
    sources: &[SoundSource],
    seats: &[[f64; 3]],
    frequencies: &[f64],
) -> Vec<Vec<Complex>> {
    let places: Vec<[f64; 3]> = stands.iter().flat_map(|stand| source_points(stand, sources)).collect();
    let transfers = room.transfers(&places, seats, frequencies).values;
    let at = |seat: usize, k: usize| {
        let omega = TAU * frequencies[k];
        let each = stands.iter().enumerate().flat_map(|(which, stand)| {
            let first = which * sources.len();
            let transfers = &transfers;
            sources.iter().enumerate().map(move |(index, source)| {
                stand.factor(omega)
                    * reference(source.flow[k], omega, &room.air)
                    * transfers[first + index][seat][k]
            })
        });
        each.sum::<Complex>()
    };
    (0..seats.len()).map(|seat| (0..frequencies.len()).map(|k| at(seat, k)).collect()).collect()
}

/// Every cone and opening of every cabinet as a source: where it is, m, and its pressure at 1 m in half space, Pa RMS, at one frequency (Hz), the only one
/// of its flow.
fn strengths(
    stands: &[Stand],
    sources: &[SoundSource],
    frequency: f64,
    air: &Air,
) -> Vec<([f64; 3], Complex)> {
    let omega = TAU * frequency;
    let of = |stand: &Stand| {
        let (factor, places) = (stand.factor(omega), source_points(stand, sources));
        let each = sources.iter().zip(places);
        each.map(move |(source, place)| (place, factor * reference(source.flow[0], omega, air)))
            .collect::<Vec<_>>()
    };
    stands.iter().flat_map(of).collect()
}

/// Pressure on a level plane in a room, Pa RMS, `[along][across]`: see [`Room::plane`]. The flow of the sources is that at one frequency (Hz).
pub fn plane_in_room(
    room: &Room,
    stands: &[Stand],
    sources: &[SoundSource],
    places: [&[f64]; 2],
    up: f64,
    frequency: f64,
) -> Vec<Vec<Complex>> {
    room.plane(&strengths(stands, sources, frequency, &room.air), places, up, frequency)
}

/// The same on the ground in the open, where nothing but distance comes between: `exp(-j k r)/r`.
pub fn in_the_open(
    stands: &[Stand],
    sources: &[SoundSource],
    seats: &[[f64; 3]],
    frequencies: &[f64],
    air: &Air,
) -> Vec<Vec<Complex>> {
    let at = |seat: &[f64; 3], k: usize| {
        let omega = TAU * frequencies[k];
        let each = stands.iter().flat_map(|stand| {
            let places = source_points(stand, sources);
            sources.iter().zip(places).map(move |(source, place)| {
                let distance =
                    place.iter().zip(seat).map(|(a, b)| (a - b).powi(2)).sum::<f64>().sqrt().max(0.1);
                let spread = Complex::from_polar(distance.recip(), -omega / air.speed * distance);
                stand.factor(omega) * reference(source.flow[k], omega, air) * spread
            })
        });
        each.sum::<Complex>()
    };
    seats.iter().map(|seat| (0..frequencies.len()).map(|k| at(seat, k)).collect()).collect()
}
