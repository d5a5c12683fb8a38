//! Built cabinets at seats.

use std::f64::consts::{FRAC_PI_2, PI, TAU};

use approx::assert_relative_eq;
use oak_acoustics::Complex;
use oak_acoustics::medium::Air;
use oak_acoustics::response::SoundSource;
use oak_signal::in_place::{Stand, in_room, in_the_open};
use oak_signal::room::Room;

const FREQUENCIES: [f64; 4] = [22.0, 37.0, 61.0, 94.0];

/// A cone and a port beside each other on a front.
fn sources() -> Vec<SoundSource> {
    let source = |element, place, size: f64, turn: f64| SoundSource {
        element,
        place,
        extra_path: 0.0,
        flow: FREQUENCIES.iter().map(|f| Complex::from_polar(size / f, turn)).collect(),
    };
    vec![
        source(0, Some([0.2, 0.3, 0.4]), 0.04, 0.1),
        source(3, Some([0.4, 0.1, 0.4]), 0.03, -1.2),
        source(5, None, 1e-4, 2.0),
    ]
}

fn stand(place: [f64; 3], turned: f64) -> Stand {
    Stand { place, turned, gain: 1.0, delay: 0.0 }
}

#[test]
fn a_box_is_turned_about_the_upright() {
    let near = |found: [f64; 3], expected: [f64; 3]| {
        for (found, expected) in found.iter().zip(expected) {
            assert_relative_eq!(*found, expected, epsilon = 1e-12);
        }
    };
    // Forward along the second axis; its right, as seen from before it, is then down the first.
    near(stand([3.0, 1.0, 0.0], 0.0).point([0.2, 0.3, 0.5]), [2.8, 1.5, 0.3]);
    near(stand([3.0, 1.0, 0.0], FRAC_PI_2).point([0.2, 0.3, 0.5]), [2.5, 0.8, 0.3]);
    near(stand([3.0, 1.0, 0.0], PI).point([0.2, 0.3, 0.5]), [3.2, 0.5, 0.3]);
}

#[test]
fn with_the_room_taken_away_it_is_the_free_level() {
    // 1 m straight before a single opening, in the open: its half-space pressure and the travel time.
    let (air, one) = (Air::reference(), vec![sources().remove(0)]);
    let cabinet = stand([0.0, 0.0, 0.0], 0.0);
    let [x, y, z] = cabinet.point([0.2, 0.3, 0.4]);
    let heard = in_the_open(&[cabinet], &one, &[[x, y + 1.0, z]], &FREQUENCIES, &air);
    for (k, frequency) in FREQUENCIES.iter().enumerate() {
        let omega = TAU * frequency;
        let free = Complex::new(0.0, omega * air.density / TAU) * one[0].flow[k];
        let late = Complex::from_polar(1.0, -omega / air.speed);
        assert!((heard[0][k] - free * late).norm() < 1e-12 * free.norm());
    }
    // Twice as far is half as loud.
    let far = in_the_open(&[cabinet], &one, &[[x, y + 2.0, z]], &FREQUENCIES, &air);
    assert_relative_eq!(far[0][0].norm(), heard[0][0].norm() / 2.0, max_relative = 1e-12);
}

#[test]
fn every_opening_of_every_cabinet_counts_with_its_gain_and_delay() {
    let room = Room::even([5.0, 4.0, 2.5], 0.1, Air::reference());
    let (sources, seats) = (sources(), [[3.4, 2.6, 1.1], [1.2, 3.0, 1.0]]);
    let left = stand([0.4, 0.3, 0.0], 0.0);
    let right = Stand { gain: -0.7, delay: 4e-3, ..stand([4.3, 0.4, 0.0], 0.6) };
    let alone = |stand: Stand| in_room(&room, &[stand], &sources, &seats, &FREQUENCIES);
    let (one, other, both) =
        (alone(left), alone(right), in_room(&room, &[left, right], &sources, &seats, &FREQUENCIES));
    let plain = alone(Stand { gain: 1.0, delay: 0.0, ..right });
    for seat in 0..2 {
        for (k, frequency) in FREQUENCIES.iter().enumerate() {
            assert!((both[seat][k] - one[seat][k] - other[seat][k]).norm() < 1e-12 * both[seat][k].norm());
            let factor = Complex::from_polar(-0.7, -TAU * frequency * 4e-3);
            assert!((other[seat][k] - plain[seat][k] * factor).norm() < 1e-12 * other[seat][k].norm());
        }
    }
    // The sum is what each opening by itself comes to.
    let apart: Vec<_> = sources
        .iter()
        .map(|source| in_room(&room, &[left], std::slice::from_ref(source), &seats, &FREQUENCIES))
        .collect();
    let known: Complex = apart[..2].iter().map(|heard| heard[0][0]).sum();
    assert!((one[0][0] - known).norm() < 0.02 * known.norm(), "a leak is all that differs");
}
