//! Printed pages, read back.

use lopdf::content::Content;
use lopdf::{Document, Object};
use oak_book::{Chapter, book, templates};
use oak_cabinetry::cut::HoleKind;
use oak_design::conditions::{RawConditions, RawQuestion};
use oak_design::file::{RawBody, RawBuild, RawDesign, RawPaper, RawProgress, RawWorkshop, Typed, open_build};
use oak_planning::build_plan::{RawPlanQuestion, build_plan};

const BUILDS: &str = concat!(env!("CARGO_MANIFEST_DIR"), "/../../demo/builds");
const POINTS: f64 = 72.0 / 25.4;

fn demo_builds() -> Vec<RawBuild> {
    let mut paths: Vec<_> =
        std::fs::read_dir(BUILDS).expect("demo").map(|entry| entry.expect("entry").path()).collect();
    paths.sort();
    paths.iter().map(|path| open_build(&std::fs::read(path).expect("file")).expect("a build")).collect()
}

fn question(build: &RawBuild, design: &RawDesign, paper: RawPaper) -> RawPlanQuestion {
    let workshop = Some(RawWorkshop { paper, ..RawWorkshop::default() });
    let conditions = RawConditions { workshop, ..RawConditions::default() };
    let question = RawQuestion { brief: build.brief.clone(), conditions, ..RawQuestion::of(design.clone()) };
    RawPlanQuestion { question, progress: RawProgress::default(), today: "2026-05-01".to_owned() }
}

/// The text of a page, glyphs read by the fonts' own tables.
fn text(document: &Document, page: u32) -> String {
    document.extract_text(&[page]).expect("text").replace('\n', " ")
}

/// Width and height of the paper of every page, points.
fn papers(document: &Document) -> Vec<[f64; 2]> {
    let sides = |id| -> [f64; 2] {
        let page = document.get_dictionary(id).expect("a page");
        let sides = page.get(b"MediaBox").and_then(Object::as_array).expect("a size");
        let side = |at: usize| f64::from(sides[at].as_float().expect("a number"));
        [side(2) - side(0), side(3) - side(1)]
    };
    document.get_pages().into_values().map(sides).collect()
}

/// Closed outlines of a page that are made of curves: lowest and highest corner, points.
fn circles(document: &Document, page: u32) -> Vec<[[f64; 2]; 2]> {
    let id = document.get_pages()[&page];
    let content = Content::decode(&document.get_page_content(id)).expect("operations");
    let mut found = Vec::new();
    let mut open: Option<[[f64; 2]; 2]> = None;
    for operation in content.operations {
        let numbers: Vec<f64> =
            operation.operands.iter().filter_map(|one| one.as_float().ok()).map(f64::from).collect();
        let end = [numbers.len().wrapping_sub(2), numbers.len().wrapping_sub(1)];
        match operation.operator.as_str() {
            "m" => open = None,
            "c" => {
                let at = end.map(|at| numbers[at]);
                let [low, high] = open.unwrap_or([at; 2]);
                open = Some([[0, 1].map(|k| low[k].min(at[k])), [0, 1].map(|k| high[k].max(at[k]))]);
            }
            "h" => found.extend(open.take()),
            _ => {}
        }
    }
    found
}

#[test]
fn every_demo_design_has_a_whole_book() {
    let mut books = 0;
    for build in demo_builds() {
        for design in &build.variants {
            let asked = question(&build, design, RawPaper::A4);
            let Some(bytes) = book(&asked, &Chapter::ALL, &mut |_, _| ()).expect("it can be built") else {
                continue;
            };
            let document = Document::load_mem(&bytes).expect("a PDF");
            let pages = document.get_pages().len();
            assert!((8..60).contains(&pages), "{}: {pages}", design.name);
            for [width, height] in papers(&document) {
                assert!((width - 210.0 * POINTS).abs() < 0.1 && (height - 297.0 * POINTS).abs() < 0.1);
            }
            // What the plan says stands in the book: every board, part and step.
            let plan = build_plan(&asked).expect("whole").expect("a box");
            let all: String = (1..=pages as u32).map(|page| text(&document, page) + " ").collect();
            let squeezed = |words: &str| words.split_whitespace().collect::<String>();
            let all = squeezed(&all);
            for step in &plan.steps {
                assert!(all.contains(&squeezed(&step.title)), "{}: no step {}", design.name, step.title);
            }
            for item in &plan.items {
                let name = squeezed(&item.item.name);
                let begins: String = name.chars().take(12).collect();
                assert!(all.contains(&begins), "{}: no part {}", design.name, item.item.name);
            }
            let cost = plan.cost.map_or_else(String::new, |cost| format!("{cost:.0}"));
            assert!(all.contains(&format!("Together{cost}")), "{}: cost {cost}", design.name);
            books += 1;
        }
    }
    assert!(books > 10, "{books}");
}

#[test]
fn templates_are_at_full_size() {
    let build = demo_builds().into_iter().find(|build| build.name == "Pit organ").expect("in the demo");
    for paper in [RawPaper::A4, RawPaper::Letter] {
        let mut design = build.variants[0].clone();
        design.body.get_or_insert_with(RawBody::default).recess = Some(Typed::from("6 mm"));
        let asked = question(&build, &design, paper);
        let plan = build_plan(&asked).expect("whole").expect("a box");
        let bytes = templates(&asked).expect("whole").expect("it has holes");
        let document = Document::load_mem(&bytes).expect("a PDF");
        let wide = if paper == RawPaper::A4 { 210.0 } else { 215.9 };
        assert!(papers(&document).iter().all(|[width, _]| (width - wide * POINTS).abs() < 0.1));
        let mut found: Vec<f64> = Vec::new();
        for page in 1..=document.get_pages().len() as u32 {
            let words = text(&document, page);
            assert!(words.contains("100 mm: print at 100 %"), "{words}");
            found.extend(
                circles(&document, page).iter().map(|[low, high]| (high[0] - low[0]) / POINTS * 1e-3),
            );
        }
        for plan in plan.holes.iter().filter(|plan| plan.hole.round && plan.hole.kind != HoleKind::Bolt) {
            let hole = &plan.hole;
            let near = found.iter().any(|diameter| (diameter - hole.size[0]).abs() < 2e-4);
            assert!(near, "{}: {} mm of {found:?}", hole.what, hole.size[0] * 1e3);
            let opening = plan.template.expect("it is routed")[0];
            let routed =
                hole.depth.is_some() || found.iter().any(|diameter| (diameter - opening).abs() < 2e-4);
            assert!(routed, "{}: {opening}", hole.what);
        }
    }
}

#[test]
fn one_part_of_the_book_is_printed_alone_and_progress_is_told() {
    let build = demo_builds().into_iter().next().expect("a build");
    let asked = question(&build, &build.variants[0], RawPaper::Letter);
    let mut told = Vec::new();
    let two = [Chapter::Parts, Chapter::Steps];
    let bytes = book(&asked, &two, &mut |done, of| told.push((done, of))).expect("whole").expect("a box");
    assert_eq!(told, [(1, 2), (2, 2)]);
    let document = Document::load_mem(&bytes).expect("a PDF");
    assert!(text(&document, 1).contains("Parts"));
    assert!(papers(&document).iter().all(|[width, _]| (width - 612.0).abs() < 0.1));
    let ids: Vec<&str> = Chapter::ALL.iter().map(|chapter| chapter.id()).collect();
    assert_eq!(ids.len(), ids.iter().collect::<std::collections::HashSet<_>>().len());
    // Names that the typefaces have no letters for are printed all the same.
    let mut odd = asked.clone();
    odd.question.design.name = "低音 → 4 Ω ≤ Älg".to_owned();
    let bytes = book(&odd, &[Chapter::Design], &mut |_, _| ()).expect("whole").expect("a box");
    let words = text(&Document::load_mem(&bytes).expect("a PDF"), 1);
    assert!(words.contains("?? to 4 ohm at most Älg"), "{words}");
}
