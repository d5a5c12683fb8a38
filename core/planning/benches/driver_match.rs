//! One driver of the demo in five families for a brief: `cargo bench --workspace --profile dev --bench driver_match`.

use criterion::{Criterion, criterion_group, criterion_main};
use oak_design::exchange::{ImportAsk, read_drivers};
use oak_design::file::{RawBuild, open_build};
use oak_planning::driver_match::DriverMatch;
use oak_planning::template::templates;

const BUILD: &[u8] = include_bytes!("../../../demo/builds/narrowboat-nook.json");
const DEMO: &[u8] = include_bytes!("../../../demo/drivers.csv");

fn one_driver(criterion: &mut Criterion) {
    let (drivers, _) = read_drivers(DEMO, &ImportAsk::default()).expect("a table");
    let mut brief = templates().remove(0).brief;
    brief.families.clear();
    let build: RawBuild = open_build(BUILD).expect("a build");
    let narrow = build.brief.expect("a brief");
    for (name, brief) in [("anywhere", brief), ("in a narrow place", narrow)] {
        let search = DriverMatch::new(&brief, 1).expect("a search");
        let mut next = drivers.iter().cycle();
        criterion.bench_function(&format!("one driver, five families, {name}"), |b| {
            b.iter(|| search.outcomes(next.next().expect("endless")));
        });
    }
}

criterion_group! {
    name = benches;
    config = Criterion::default().sample_size(30);
    targets = one_driver
}
criterion_main!(benches);
