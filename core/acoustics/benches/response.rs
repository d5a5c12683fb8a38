//! Time of a 600-point response on one core: `cargo bench -p oak-acoustics --bench response`.

use criterion::{Criterion, criterion_group, criterion_main};
use oak_acoustics::driver::Sheet;
use oak_acoustics::element::End;
use oak_acoustics::enclosure::{Enclosure, Fidelity, Losses, Port, Ported, Sealed, Setting};
use oak_acoustics::medium::{Air, CrossSection};
use oak_acoustics::response::{Figures, FrequencyGrid, Response};

fn responses(criterion: &mut Criterion) {
    let air = Air::reference();
    let sheet = Sheet {
        re: Some(3.4),
        le: Some(1e-3),
        fs: Some(26.0),
        qms: Some(5.0),
        qes: Some(0.42),
        vas: Some(0.09),
        sd: Some(0.035),
        xmax: Some(0.0095),
        ..Sheet::default()
    };
    let (driver, _) = sheet.complete(&air).expect("complete");
    let losses = Losses { ql: Some(7.0), qa: Some(100.0) };
    let section = CrossSection::Round { radius: 0.05 };
    let port =
        Port { section, length: Some(0.3), count: 1, inner: End::Free, outer: End::Flanged, path: 0.0 };
    let ported = Enclosure::Ported(Ported { volume: 0.06, losses, ports: vec![port], tuning: None });
    let sealed = Enclosure::Sealed(Sealed { volume: 0.03, losses });
    let grid = FrequencyGrid::logarithmic(10.0, 500.0, 600).expect("grid");
    let cases = [
        ("sealed", &sealed, Fidelity::FULL),
        ("ported, port as lossy duct", &ported, Fidelity::FULL),
        ("ported, port as mass", &ported, Fidelity::TEXTBOOK),
    ];
    for (name, enclosure, fidelity) in cases {
        let network = enclosure.compile(&Setting::new(driver, air).with(fidelity)).expect("compiles").network;
        criterion.bench_function(&format!("600 points: {name}"), |b| {
            b.iter(|| Response::of(&network, &grid, 20.0));
        });
    }
    let network = ported.compile(&Setting::new(driver, air).with(Fidelity::FULL)).expect("compiles").network;
    criterion.bench_function("all figures: ported", |b| {
        b.iter(|| Figures::of(&network, 20.0));
    });
}

criterion_group!(benches, responses);
criterion_main!(benches);
