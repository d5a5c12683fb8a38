//! How long reading and fitting take: `cargo bench --workspace --bench speed`.

use std::hint::black_box;

use criterion::{Criterion, criterion_group, criterion_main};
use oak_design::file::RawTraceKind;
use oak_metering::driver::{Bench, measure};
use oak_metering::folder::work_out;
use oak_metering::reading::read_trace;
use oak_metering::sweep::{Sweep, deconvolve};
use oak_metering::trace::Impedance;
use oak_rig::{Kind, Setup, draw, folder};

fn speed(criterion: &mut Criterion) {
    let hidden = (0..100)
        .map(|seed| draw(&Setup { kind: Kind::Rough, noise: 40.0, seed }))
        .find(|hidden| hidden.sheet.port.is_some() && hidden.cabinet.reversed == 0 && hidden.sheet.count == 1)
        .expect("a ported box");
    let session = folder(&hidden, 1, &[]);
    let read = |file: &str| Impedance::read(file, &session[file]).expect("a trace");
    let (free, mass) = (read("impedance_free_1.txt"), read("impedance_mass_1.txt"));
    criterion.bench_function("driver, free and with a mass", |bencher| {
        bencher.iter(|| measure(black_box(&Bench { free: &free, loaded: Some((&mass, 0.02)) })));
    });
    criterion.bench_function("ported box, all traces", |bencher| {
        bencher.iter(|| work_out(black_box(&session)).expect("an answer"));
    });
    let sweep = Sweep::new(96_000, 20.0, 5.0, 1000.0).expect("a sweep");
    let samples = sweep.samples();
    criterion.bench_function("deconvolution of 20 s at 96 kHz", |bencher| {
        bencher.iter(|| deconvolve([black_box(samples.as_slice())], &sweep));
    });
    let rows: String =
        (1..=100_000).map(|k| format!("{:.4}\t{:.4}\t{:.2}\n", 0.02 * f64::from(k), 8.0, 3.0)).collect();
    criterion.bench_function("text of 100,000 rows", |bencher| {
        bencher.iter(|| {
            read_trace(RawTraceKind::ImpedanceBox, "a", black_box(rows.as_bytes())).expect("a trace")
        });
    });
}

criterion_group! {
    name = benches;
    config = Criterion::default().sample_size(10).measurement_time(std::time::Duration::from_secs(4));
    targets = speed
}
criterion_main!(benches);
