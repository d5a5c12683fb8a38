//! A 600-point response of every family.
//!
//! `circuit: NAME` are the textbook circuits of `reference/ngspice/cases.json`, the same that NumPy and ngspice solve in
//! `reference/speed/compare.py`; `full: NAME` have everything in them.

use criterion::{Criterion, criterion_group, criterion_main};
use oak_acoustics::enclosure::{Fidelity, Setting};
use oak_acoustics::medium::Air;
use oak_acoustics::response::{Figures, FrequencyGrid, Response};
use oak_acoustics::source::{Chain, Section, Source};
use oak_acoustics::starting_point::{Ask, Wishes};

#[path = "../tests/all/circuits/mod.rs"]
mod circuits;
#[path = "../tests/all/support/mod.rs"]
mod support;

fn grid() -> FrequencyGrid {
    FrequencyGrid::logarithmic(10.0, 1000.0, 600).expect("grid")
}

fn circuits(criterion: &mut Criterion) {
    let grid = grid();
    let plan = circuits::plan();
    let air = circuits::air(&plan);
    for case in plan["cases"].as_array().expect("cases") {
        let name = case["name"].as_str().expect("name");
        let setting = Setting::new(circuits::driver_array(case), air).with(Fidelity::TEXTBOOK);
        let network = circuits::enclosure(case).compile(&setting).expect("compiles").network;
        criterion.bench_function(&format!("circuit: {name}"), |b| {
            b.iter(|| Response::of(&network, &grid, 20.0));
        });
    }
}

fn full(criterion: &mut Criterion) {
    let grid = grid();
    let setting = Setting::new(support::woofer(), Air::reference());
    let ask = Ask::new(setting.clone(), Wishes::default());
    for (name, starting_points) in support::every_family() {
        // No open baffle for so strong a motor.
        let Ok(start) = (starting_points[0].start)(&ask) else { continue };
        let network = start.enclosure.compile(&setting).expect("compiles").network;
        criterion
            .bench_function(&format!("full: {name}"), |b| b.iter(|| Response::of(&network, &grid, 20.0)));
        if ["ported", "line"].contains(&name) {
            criterion
                .bench_function(&format!("all figures: {name}"), |b| b.iter(|| Figures::of(&network, 20.0)));
        }
    }
}

fn long_line(criterion: &mut Criterion) {
    let grid = grid();
    let network = circuits::tapered_line(64).compile(&Setting::new(support::woofer(), Air::reference()));
    let network = network.expect("compiles").network;
    criterion.bench_function("full: tapered line of 64 slices", |b| {
        b.iter(|| Response::of(&network, &grid, 20.0));
    });
}

/// Twelve sections of second order, as ten filters have them: two of fourth order and eight bands.
fn chain(criterion: &mut Criterion) {
    let grid = grid();
    let setting = Setting::new(support::woofer(), Air::reference());
    let ask = Ask::new(setting.clone(), Wishes::default());
    let (_, starting_points) =
        support::every_family().into_iter().find(|(name, _)| *name == "ported").expect("a family");
    let start = (starting_points[0].start)(&ask).expect("it suits");
    let section = |k: u32| Section {
        frequency: 20.0 + 9.0 * f64::from(k),
        numerator: [1.0, 0.8, 1.0],
        denominator: [1.0, 1.4, 1.0],
    };
    let chain = Chain { sections: (0..12).map(section).collect(), ..Chain::default() };
    let with = Setting { source: Source { chain, ..Source::default() }, ..setting.clone() };
    for (name, setting) in [("without filters", setting), ("with 10 filters", with)] {
        let network = start.enclosure.compile(&setting).expect("compiles").network;
        criterion.bench_function(&format!("ported {name}"), |b| {
            b.iter(|| Response::without_delay(&network, &grid, 20.0));
        });
    }
}

criterion_group!(benches, circuits, full, long_line, chain);
criterion_main!(benches);
