//! What is cut, of the demo builds.

use approx::assert_relative_eq;
use oak_cabinetry::cut::HoleKind;
use oak_design::conditions::RawQuestion;
use oak_design::file::{RawBody, RawBrief, RawDesign, RawOverlap, Typed};
use oak_design::report::CutReport;
use oak_planning::cut::{cut, cut_list};

use crate::support::{demo_build, demo_builds};

fn report(design: &RawDesign, brief: Option<&RawBrief>) -> Option<CutReport> {
    let question = RawQuestion { brief: brief.cloned(), ..RawQuestion::of(design.clone()) };
    cut(&question).expect("it can be built")
}

fn with(design: &RawDesign, overlap: RawOverlap) -> RawDesign {
    let mut design = design.clone();
    design.body.get_or_insert_with(RawBody::default).overlap = overlap;
    design
}

#[test]
fn every_demo_box_is_cut_and_its_boards_weigh_what_they_fill() {
    let mut cuts = 0;
    for build in demo_builds() {
        for design in &build.variants {
            let built =
                RawQuestion::of(design.clone()).resolve().expect("whole").design.built().expect("builds");
            let Some(boxed) = &built.boxed else { continue };
            let found = report(design, None).expect("it has a box");
            assert!(
                found.panels.iter().zip(1..).all(|(panel, number)| panel.number == number),
                "{}",
                design.name
            );
            assert!(found.panels.len() >= 6, "{}", design.name);
            // Only a fold has something that is cut by eye.
            assert!(found.notes.len() <= usize::from(boxed.cabinet.fold.is_some()), "{}", design.name);
            if let Some(laid) = &boxed.cabinet.fold {
                let left = found.panels.iter().find(|panel| panel.name == "left").expect("a left");
                let folds = left.stands.iter().filter(|stand| stand.what.starts_with("fold board"));
                assert_eq!(folds.count(), laid.panels.len(), "{}", design.name);
            }
            // What is mounted in a board, outside or inside, has its hole there, and nothing else has one.
            let cabinet = &boxed.cabinet;
            let mounted = cabinet.parts.iter().filter(|part| cabinet.hole(part, &boxed.contents).is_some());
            // Once a board, however many layers it is of.
            let boards = found.panels.iter().filter(|panel| panel.layer.is_none_or(|[layer, _]| layer == 1));
            let holes = boards.flat_map(|panel| &panel.holes);
            let through = holes.filter(|hole| hole.depth.is_none() && hole.kind != HoleKind::Bolt);
            assert_eq!(mounted.count(), through.count(), "{}", design.name);
            for part in cabinet.parts.iter().filter(|part| cabinet.hole(part, &boxed.contents).is_some()) {
                let Some(face) = part.face else { continue };
                let panel = found
                    .panels
                    .iter()
                    .find(|panel| panel.name.split(',').next() == Some(face.name().as_str()))
                    .expect("its board");
                assert!(panel.holes.iter().any(|hole| hole.what == part.name()), "{}", design.name);
            }
            assert!(found.panels.iter().all(|panel| panel.mass > 0.0));
            // As large as the box is outside, whichever boards reach over.
            let outside = built.outside().expect("a box");
            let front = |overlap| {
                let found = report(&with(design, overlap), None).expect("it has a box");
                found.panels.into_iter().find(|panel| panel.name.starts_with("front")).expect("a front").size
            };
            assert_relative_eq!(front(RawOverlap::FrontAndBack)[0], outside[0], epsilon = 1e-6);
            assert_relative_eq!(front(RawOverlap::Mitred)[0], outside[0], epsilon = 1e-6);
            assert!(front(RawOverlap::TopAndBottom)[0] < outside[0]);
            cuts += 1;
        }
    }
    assert!(cuts > 10, "{cuts}");
}

#[test]
fn equal_cabinets_multiply_what_is_cut_and_a_baffle_is_none() {
    let build = demo_build("Narrowboat nook");
    let one = report(&build.variants[0], None).expect("a box");
    let pair = RawBrief { cabinets: Some(Typed::Number(2.0)), ..RawBrief::default() };
    let two = report(&build.variants[0], Some(&pair)).expect("a box");
    assert_eq!((one.cabinets, two.cabinets), (1, 2));
    for (one, two) in one.panels.iter().zip(&two.panels) {
        assert_eq!(2 * one.count, two.count);
        assert_eq!(one.outer.len(), two.outer.len());
    }
    let area = |report: &CutReport| -> f64 {
        report.panels.iter().map(|panel| panel.size[0] * panel.size[1] * f64::from(panel.count)).sum()
    };
    assert_relative_eq!(2.0 * area(&one), area(&two), max_relative = 1e-12);
    let mut baffle = build.variants[0].clone();
    baffle.enclosure.family = oak_design::file::RawFamily::InfiniteBaffle;
    assert_eq!(report(&baffle, None), None);
}

#[test]
fn the_cut_list_is_a_table_of_the_same_boards() {
    let design = &demo_build("Narrowboat nook").variants[0];
    let found = report(design, None).expect("a box");
    let table = cut_list(&found);
    let mut reader = csv::Reader::from_reader(table.as_bytes());
    let rows: Vec<csv::StringRecord> = reader.records().collect::<Result<_, _>>().expect("rows");
    assert_eq!(rows.len(), found.panels.len());
    for (row, panel) in rows.iter().zip(&found.panels) {
        assert_eq!(&row[1], panel.name.as_str());
        let width: f64 = row[3].parse().expect("a number");
        assert!((width - panel.size[0] * 1e3).abs() < 0.051);
    }
    let front = rows.iter().find(|row| &row[1] == "front").expect("a front");
    assert!(front[8].starts_with("driver dia "), "{}", &front[8]);
}
