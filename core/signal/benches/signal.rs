//! Rooms.

use criterion::{Criterion, criterion_group, criterion_main};
use oak_acoustics::Stop;
use oak_acoustics::medium::Air;
use oak_signal::best_place::{Area, candidates, search};
use oak_signal::room::Room;

fn rooms(criterion: &mut Criterion) {
    let air = Air::reference();
    let frequencies: Vec<f64> = (0..300).map(|k| 15.0 * 1.0087f64.powi(k)).collect();
    let places = |room: &Room, count: usize| -> Vec<[f64; 3]> {
        (0..count)
            .map(|k| [0.17, 0.31, 0.13].map(|step| (0.1 + step * k as f64).fract()))
            .map(|part| [0, 1, 2].map(|axis| part[axis] * room.size[axis]))
            .collect()
    };
    for (name, size) in [("100 m3", [7.0, 5.3, 2.7]), ("a hall of 2000 m3", [20.0, 14.0, 7.2])] {
        let room = Room::even(size, 0.1, air);
        let (sources, seats) = (places(&room, 4), places(&room, 8));
        criterion.bench_function(&format!("4 sources, 8 seats, 300 points, {name}"), |b| {
            b.iter(|| room.transfers(&sources, &seats, &frequencies));
        });
    }
    let room = Room::even([14.0, 14.2, 2.6], 0.1, air);
    let seats = [[7.0, 6.0, 1.1], [8.0, 6.0, 1.1], [7.0, 8.0, 1.1]];
    let floor = candidates(&room, &[Area::floor(&room, 0.25)], &seats);
    criterion.bench_function(&format!("the best of {} places for 3 seats", floor.len()), |b| {
        b.iter(|| search(&room, &seats, &floor, 1, 0..floor.len(), 10, &Stop::default()));
    });
}

criterion_group! {
    name = benches;
    config = Criterion::default().sample_size(20);
    targets = rooms
}
criterion_main!(benches);
