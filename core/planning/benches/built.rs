//! Every demo design settled with its box: `cargo bench --workspace --profile dev --bench built`.

use criterion::{Criterion, criterion_group, criterion_main};
use oak_design::file::{RawBuild, open_build};
use oak_design::resolve::resolve_design;

const DEMO: [&str; 4] = [
    include_str!("../../../demo/builds/barn-dance.json"),
    include_str!("../../../demo/builds/buskers-upright.json"),
    include_str!("../../../demo/builds/narrowboat-nook.json"),
    include_str!("../../../demo/builds/pit-organ.json"),
];

fn settled(criterion: &mut Criterion) {
    for text in DEMO {
        let build: RawBuild = open_build(text.as_bytes()).expect("a build");
        for raw in &build.variants {
            let design = resolve_design(raw).expect("whole");
            criterion.bench_function(&format!("{}, {}", build.name, raw.name), |b| b.iter(|| design.built()));
        }
    }
}

criterion_group! {
    name = benches;
    config = Criterion::default().sample_size(20);
    targets = settled
}
criterion_main!(benches);
