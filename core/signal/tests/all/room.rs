//! Rooms and cabins against closed forms, finite elements and themselves.

use std::f64::consts::{PI, TAU};

use approx::assert_relative_eq;
use oak_acoustics::medium::Air;
use oak_acoustics::{Complex, Stop};
use oak_signal::best_place::{Area, candidates, frequencies, judge, search};
use oak_signal::boundary::{over_direct, power_gain};
use oak_signal::cabin::{SimpleLift, crossing, hole_resonance, pressure_zone};
use oak_signal::room::{ModeKind, Room};
use proptest::prelude::*;
use serde_json::Value;

const FOLDER: &str = concat!(env!("CARGO_MANIFEST_DIR"), "/../../reference/room");

fn three(value: &Value) -> [f64; 3] {
    [0, 1, 2].map(|k| value[k].as_f64().expect("a number"))
}

fn places(value: &Value) -> Vec<[f64; 3]> {
    value.as_array().expect("places").iter().map(three).collect()
}

fn decibels(value: Complex) -> f64 {
    20.0 * value.norm().log10()
}

fn usual() -> Room {
    Room::even([5.0, 4.0, 2.5], 0.12, Air::reference())
}

#[test]
fn modes_have_their_closed_forms() {
    let room = usual();
    let c = room.air.speed;
    assert_relative_eq!(room.mode([1, 0, 0]).frequency, c / 10.0, max_relative = 1e-12);
    let expected = c / 2.0 * (0.04f64 + 0.0625 + 0.16).sqrt();
    assert_relative_eq!(room.mode([1, 1, 1]).frequency, expected, max_relative = 1e-12);
    // Even walls: an oblique mode dies away by Sabine's formula, an axial one takes longer.
    let oblique = room.mode([2, 1, 3]);
    assert_relative_eq!(
        oblique.damping,
        c * room.surface() * 0.12 / (8.0 * room.volume()),
        max_relative = 1e-12
    );
    assert_relative_eq!(oblique.decay(), room.reverberation(), max_relative = 1e-9);
    assert_relative_eq!(room.reverberation(), 55.3 * 50.0 / (c * room.absorbing_area()), max_relative = 1e-3);
    assert!(room.mode([3, 0, 0]).decay() > oblique.decay());
    let modes = room.modes(200.0);
    assert!(modes.windows(2).all(|pair| pair[0].frequency <= pair[1].frequency));
    assert_eq!(modes[0].kind(), ModeKind::Pressure);
    assert_eq!(modes[1].order, [1, 0, 0]);
    // As many as there are, counted one by one.
    let all = (0..30u32).flat_map(|l| (0..30u32).flat_map(move |m| (0..30u32).map(move |n| [l, m, n])));
    let count = all.filter(|order| room.mode(*order).frequency <= 200.0).count();
    assert_eq!(modes.len(), count);
}

#[test]
fn a_room_sounds_as_finite_elements_say() {
    let plan: Value =
        serde_json::from_str(&std::fs::read_to_string(format!("{FOLDER}/cases.json")).expect("cases"))
            .expect("JSON");
    let number = |value: &Value| value.as_f64().expect("a number");
    let air = Air {
        density: number(&plan["air"]["density"]),
        speed: number(&plan["air"]["speed"]),
        ..Air::reference()
    };
    let mut reader = csv::Reader::from_path(format!("{FOLDER}/results.csv")).expect("results");
    let rows: Vec<(String, usize, usize, f64, f64, f64)> =
        reader.deserialize().map(|row| row.expect("a row")).collect();
    for case in plan["cases"].as_array().expect("cases") {
        let name = case["name"].as_str().expect("a name");
        let absorption =
            [0, 1, 2].map(|k| [number(&case["absorption"][k][0]), number(&case["absorption"][k][1])]);
        let room = Room { size: three(&case["size"]), absorption, leak: 0.0, air };
        let most = absorption.iter().flatten().copied().fold(0.0, f64::max);
        let allowed = if most <= 0.1 { 0.5 } else { 1.0 };
        let (sources, seats) = (places(&case["sources"]), places(&case["seats"]));
        let theirs = |source, seat| {
            rows.iter().filter(move |row| (row.0.as_str(), row.1, row.2) == (name, source, seat))
        };
        for source in 0..sources.len() {
            for seat in 0..seats.len() {
                let frequencies: Vec<f64> = theirs(source, seat).map(|row| row.3).collect();
                assert_eq!(frequencies.len(), 41);
                let ours = &room
                    .transfers(&sources[source..=source], &seats[seat..=seat], &frequencies)
                    .values[0][0];
                let theirs: Vec<Complex> =
                    theirs(source, seat).map(|row| Complex::new(row.4, row.5)).collect();
                let top = theirs.iter().map(|value| value.norm()).fold(0.0, f64::max);
                let heard = ours
                    .iter()
                    .zip(&theirs)
                    .zip(&frequencies)
                    .filter(|((_, theirs), _)| theirs.norm() > 0.1 * top);
                let off = heard.map(|((ours, theirs), frequency)| (decibels(ours / theirs).abs(), frequency));
                let (most, at) = off.max_by(|a, b| a.0.total_cmp(&b.0)).expect("some are heard");
                assert!(most < allowed, "{name} {source} {seat}, {at} Hz: {most} dB");
            }
        }
    }
}

/// The sum as it is written, mode by mode to a high frequency.
fn plain_sum(room: &Room, source: [f64; 3], seat: [f64; 3], frequency: f64, up_to: f64) -> Complex {
    let omega = TAU * frequency;
    let part = |mode: &oak_signal::room::Mode| {
        let shape = mode.shape(room, source) * mode.shape(room, seat) * mode.weight();
        Complex::from(shape) / Complex::new(mode.omega().powi(2) - omega * omega, 2.0 * omega * mode.damping)
    };
    room.modes(up_to).iter().map(part).sum::<Complex>() * (TAU * room.air.speed.powi(2) / room.volume())
}

#[test]
fn the_quick_sum_is_the_plain_one() {
    let room = Room::even([3.4, 2.8, 2.3], 0.08, Air::reference());
    let (source, seat) = ([0.4, 0.5, 0.3], [2.3, 1.9, 1.1]);
    let frequencies: Vec<f64> = (0..40).map(|k| 20.0 + 2.5 * f64::from(k)).collect();
    let quick = &room.transfers(&[source], &[seat], &frequencies).values[0][0];
    let plain: Vec<Complex> =
        frequencies.iter().map(|frequency| plain_sum(&room, source, seat, *frequency, 2400.0)).collect();
    let top = plain.iter().map(|value| value.norm()).fold(0.0, f64::max);
    let (mut difference, mut size) = (0.0, 0.0);
    for (quick, plain) in quick.iter().zip(&plain) {
        difference += (quick - plain).norm_sqr();
        size += plain.norm_sqr();
        if plain.norm() > 0.1 * top {
            assert!(decibels(quick / plain).abs() < 0.1);
        }
    }
    assert!((difference / size).sqrt() < 0.02);
}

#[test]
fn a_small_closed_room_is_a_pressure_zone() {
    // 2.2 m3, hard as nothing is; far below its first mode the pressure is U rho c2/(j w V).
    let room = Room::even([1.8, 1.2, 1.0], 1e-6, Air::reference());
    let frequencies = [2.0, 4.0, 6.0];
    let heard = &room.transfers(&[[0.3, 0.3, 0.3]], &[[1.5, 0.6, 0.8]], &frequencies).values[0][0];
    for (heard, frequency) in heard.iter().zip(frequencies) {
        let closed = pressure_zone(room.volume(), 0.0, frequency, &room.air);
        assert!(decibels(heard / closed).abs() < 0.1, "{frequency} Hz");
    }
    let even = crossing(room.volume(), &room.air);
    assert_relative_eq!(pressure_zone(room.volume(), 0.0, even, &room.air).norm(), 1.0, max_relative = 1e-12);
    // With a leak 6 dB an octave below its corner, and the sum says the same.
    let leaky = Room { leak: 12.0, ..room };
    let heard = &leaky.transfers(&[[0.3, 0.3, 0.3]], &[[1.5, 0.6, 0.8]], &frequencies).values[0][0];
    for (heard, frequency) in heard.iter().zip(frequencies) {
        let closed = pressure_zone(room.volume(), 12.0, frequency, &room.air);
        assert!(decibels(heard / closed).abs() < 0.1, "{frequency} Hz");
    }
    let slope = |a: f64, b: f64| {
        decibels(pressure_zone(2.0, 12.0, a, &room.air) / pressure_zone(2.0, 12.0, b, &room.air))
    };
    assert_relative_eq!(slope(0.1, 0.2), 6.02, epsilon = 0.01);
    // c sqrt(S/(V l))/2 pi by hand: 0.02 m2 through 0.1 m and 2.5 m3 is 15.4 Hz.
    assert_relative_eq!(hole_resonance(0.02, 0.1, 2.5, &room.air), 15.45, epsilon = 0.03);
}

#[test]
fn the_simple_lift_is_flat_above_and_twelve_decibels_an_octave_between() {
    let air = Air::reference();
    let lift = SimpleLift::of(2.8, 5.0, &air);
    assert_relative_eq!(lift.upper, air.speed / 5.6, max_relative = 1e-12);
    assert!(decibels(lift.at(2000.0)).abs() < 0.02);
    assert_relative_eq!(decibels(lift.at(0.01)), 40.0 * (lift.upper / 5.0).log10(), epsilon = 1e-3);
    // Raised by 40 lg(fV/fc), it lies within 3 dB of the sum between twice the leak and half the upper corner.
    let room = Room { leak: 5.0, ..Room::even([2.8, 1.4, 1.1], 0.02, air) };
    let raised = 40.0 * (crossing(room.volume(), &air) / lift.upper).log10();
    let frequencies: Vec<f64> = (0..12).map(|k| 10.0 + 1.7 * f64::from(k)).collect();
    let heard = &room.transfers(&[[0.2, 0.4, 0.3]], &[[1.9, 0.5, 0.9]], &frequencies).values[0][0];
    for (heard, frequency) in heard.iter().zip(&frequencies) {
        let off = decibels(*heard) - decibels(lift.at(*frequency)) - raised;
        assert!(off.abs() < 3.0, "{frequency} Hz: {off} dB");
    }
}

/// Over many places in a large room: the direct sound and the reverberant field above it (Kuttruff, Room Acoustics, ch. 5; from memory).
#[test]
fn at_high_frequencies_the_mean_is_that_of_a_diffuse_field() {
    let room = Room::even([7.1, 5.3, 2.9], 0.15, Air::reference());
    let random = |seed: u32, axis: usize| {
        let turned = f64::from(seed) * [0.618_034, 0.754_878, 0.569_84][axis] + 0.1 * axis as f64;
        0.4 + turned.fract() * (room.size[axis] - 0.8)
    };
    let place = |seed: u32| [0, 1, 2].map(|axis| random(seed, axis));
    let frequencies: Vec<f64> = (0..60).map(|k| 250.0 + 2.5 * f64::from(k)).collect();
    let (mut found, mut expected) = (0.0, 0.0);
    for seed in 0..40 {
        let (source, seat) = (place(2 * seed), place(2 * seed + 1));
        let distance = (0..3).map(|axis| (source[axis] - seat[axis]).powi(2)).sum::<f64>().sqrt();
        if distance < 1.0 {
            continue;
        }
        let heard = &room.transfers(&[source], &[seat], &frequencies).values[0][0];
        found += heard.iter().map(|value| value.norm_sqr()).sum::<f64>() / 60.0;
        expected += 1.0 / (4.0 * distance * distance) + 4.0 * PI / room.absorbing_area();
    }
    assert!((10.0 * (found / expected).log10()).abs() < 2.0, "{}", 10.0 * (found / expected).log10());
}

#[test]
fn the_best_place_is_that_of_trying_all() {
    let room = Room::even([4.0, 3.2, 2.4], 0.1, Air::reference());
    let seats = [[2.8, 1.6, 1.1], [2.8, 2.2, 1.1]];
    let candidates = candidates(&room, &[Area::floor(&room, 0.25)], &seats);
    assert_eq!(candidates.len(), 14 * 11);
    let stop = Stop::default();
    let all = 0..candidates.len();
    let (found, judged) = search(&room, &seats, &candidates, 1, all.clone(), 5, &stop).expect("not stopped");
    assert_eq!(judged, candidates.len());
    // In pieces it is the same, and judged alone.
    let (half, _) = search(&room, &seats, &candidates, 1, 0..70, 5, &stop).expect("not stopped");
    let (rest, _) =
        search(&room, &seats, &candidates, 1, 70..candidates.len(), 5, &stop).expect("not stopped");
    assert!([&half[0], &rest[0]].contains(&&found[0]));
    let alone = judge(&room, &[(found[0].places[0], 1.0, 0.0)], &seats).expect("somebody listens");
    assert_relative_eq!(alone.cost, found[0].cost, max_relative = 1e-9);
    assert!(judge(&room, &[], &seats).is_none());
    // Recomputed from the sum as it is written.
    let cost = |place: [f64; 3]| {
        let levels: Vec<f64> = seats
            .iter()
            .flat_map(|seat| {
                frequencies().into_iter().map(|f| decibels(plain_sum(&room, place, *seat, f, 1500.0)))
            })
            .collect();
        let mean = levels.iter().sum::<f64>() / 64.0;
        (levels.iter().map(|level| (level - mean).powi(2)).sum::<f64>() / 64.0).sqrt()
    };
    let tried = candidates.iter().step_by(7).map(|place| cost(*place)).fold(f64::MAX, f64::min);
    assert!(found[0].cost <= tried + 0.1);
    assert_relative_eq!(found[0].cost, cost(found[0].places[0]), epsilon = 0.1);
    // Two are more even than one, and are the best of all pairs of a few.
    let few: Vec<_> = candidates.iter().copied().step_by(11).collect();
    let (pairs, tried) = search(&room, &seats, &few, 2, 0..few.len(), 3, &stop).expect("not stopped");
    let (singles, _) = search(&room, &seats, &few, 1, 0..few.len(), 3, &stop).expect("not stopped");
    assert_eq!(tried, few.len() * (few.len() - 1) / 2);
    assert!(pairs[0].cost < singles[0].cost);
    let both: Vec<_> = pairs[0].places.iter().map(|place| (*place, 1.0, 0.0)).collect();
    assert_relative_eq!(
        judge(&room, &both, &seats).expect("somebody listens").cost,
        pairs[0].cost,
        max_relative = 1e-9
    );
    stop.stop();
    assert!(search(&room, &seats, &candidates, 1, all, 5, &stop).is_none());
}

#[test]
fn walls_lift_as_their_images_add_up() {
    // On the floor against nothing else: twice the pressure far away; in a corner eight images.
    let far = over_direct([0.0, 0.0, 0.0], [3.0, 2.0, 1.0], [true; 3], 0.4);
    assert_relative_eq!(far.norm(), 8.0, max_relative = 1e-9);
    assert_relative_eq!(power_gain([Some(0.0), None, None], 1.0), 2.0, max_relative = 1e-9);
    assert_relative_eq!(power_gain([Some(0.0); 3], 1.0), 8.0, max_relative = 1e-9);
    // Far from every wall nothing is lifted.
    assert_relative_eq!(power_gain([Some(80.0), Some(60.0), Some(90.0)], 1.0), 1.0, epsilon = 0.02);
}

proptest! {
    #![proptest_config(ProptestConfig::with_cases(24))]

    /// Source and seat may change places.
    #[test]
    fn a_room_is_reciprocal(
        size in proptest::array::uniform3(1.5f64..6.0), at in proptest::array::uniform6(0.05f64..0.95), alpha in 0.02f64..0.3,
    ) {
        let room = Room::even(size, alpha, Air::reference());
        let place = |from: usize| [0, 1, 2].map(|axis| at[from + axis] * size[axis]);
        let frequencies = [21.0, 47.0, 110.0];
        let [there, back] = [[place(0), place(3)], [place(3), place(0)]]
            .map(|[source, seat]| room.transfers(&[source], &[seat], &frequencies).values[0][0].clone());
        for (there, back) in there.iter().zip(&back) {
            prop_assert!((there - back).norm() < 1e-9 * there.norm());
        }
    }
}
