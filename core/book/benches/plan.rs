//! The plan, the book and a long search of the first design of every demo build: `cargo bench --workspace --profile dev --bench plan`.

use criterion::{Criterion, criterion_group, criterion_main};
use oak_acoustics::Stop;
use oak_book::{Chapter, book};
use oak_design::conditions::RawQuestion;
use oak_design::file::{RawBuild, open_build};
use oak_planning::build_plan::{RawPlanQuestion, build_plan, search_layouts};

const DEMO: [&str; 4] = [
    include_str!("../../../demo/builds/barn-dance.json"),
    include_str!("../../../demo/builds/buskers-upright.json"),
    include_str!("../../../demo/builds/narrowboat-nook.json"),
    include_str!("../../../demo/builds/pit-organ.json"),
];
/// As many as the server tries for a longer search.
const ROUNDS: u32 = 4000;

fn plans(criterion: &mut Criterion) {
    for text in DEMO {
        let build: RawBuild = open_build(text.as_bytes()).expect("a build");
        let mut question = RawQuestion::of(build.variants[0].clone());
        question.brief = build.brief.clone();
        question.conditions.workshop = build.workshop.clone();
        let asked = RawPlanQuestion {
            question,
            progress: build.progress.clone().unwrap_or_default(),
            today: "2026-12-01".to_owned(),
        };
        criterion.bench_function(&format!("plan, {}", build.name), |b| b.iter(|| build_plan(&asked)));
        criterion.bench_function(&format!("book, {}", build.name), |b| {
            b.iter(|| book(&asked, &Chapter::ALL, &mut |_, _| ()));
        });
        criterion.bench_function(&format!("search of {ROUNDS} layouts, {}", build.name), |b| {
            b.iter(|| search_layouts(&asked.question, ROUNDS, &mut |_, _| (), &Stop::default()));
        });
    }
}

criterion_group! {
    name = benches;
    config = Criterion::default().sample_size(10);
    targets = plans
}
criterion_main!(benches);
