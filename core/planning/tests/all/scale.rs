//! Plans made larger and smaller.

use approx::assert_relative_eq;
use oak_design::file::{RawBrief, RawFamily};
use oak_planning::scale::{RawScale, scale};

use crate::support::{demo_build, demo_builds};

#[test]
fn a_box_of_half_the_lengths_holds_an_eighth_and_plays_an_octave_higher() {
    let design = demo_build("Narrowboat nook").variants[0].clone();
    let ask = RawScale { design: design.clone(), brief: None, factor: Some(0.5) };
    let found = scale(&ask).expect("scales");
    assert_relative_eq!(found.after.air, found.before.air / 8.0, max_relative = 2e-3);
    let tuned = |outcome: &oak_planning::scale::ScaleOutcome| outcome.tuning.expect("ported");
    assert_relative_eq!(tuned(&found.after), 2.0 * tuned(&found.before), max_relative = 0.02);
    assert_eq!(found.design.driver, design.driver);
    let thickness =
        |design: &oak_design::file::RawDesign| design.body.as_ref().and_then(|body| body.thickness.clone());
    assert_eq!(thickness(&found.design), thickness(&design));
    // There and back again is the same design, but for what rounding to four digits makes.
    let back = scale(&RawScale { design: found.design, brief: None, factor: Some(2.0) }).expect("scales");
    assert_relative_eq!(back.after.air, found.before.air, max_relative = 2e-3);
}

#[test]
fn every_design_of_the_demo_is_scaled_or_told_why_not() {
    for build in demo_builds() {
        for design in &build.variants {
            let ask = RawScale { design: design.clone(), brief: build.brief.clone(), factor: Some(1.1) };
            let found = scale(&ask).unwrap_or_else(|problems| panic!("{}: {problems:?}", design.name));
            let air = found.after.air / found.before.air;
            let boxed =
                ![RawFamily::OpenBaffle, RawFamily::InfiniteBaffle].contains(&design.enclosure.family);
            assert!(!boxed || (1.25..1.42).contains(&air), "{}: {air}", design.name);
        }
    }
}

#[test]
fn a_plan_is_made_to_fit_its_place_and_no_smaller() {
    let build = demo_build("Pit organ");
    let brief = RawBrief {
        width: Some("400 mm".into()),
        height: Some("600 mm".into()),
        depth: Some("450 mm".into()),
        ..RawBrief::default()
    };
    let design = build.variants[0].clone();
    let found =
        scale(&RawScale { design: design.clone(), brief: Some(brief.clone()), factor: None }).expect("fits");
    let larger = RawScale { design: design.clone(), brief: Some(brief), factor: Some(found.factor * 1.02) };
    let limit = 0.4 * 0.6 * 0.45;
    assert!(found.after.outside.expect("a box") <= limit * 1.001);
    assert!(scale(&larger).expect("scales").after.outside > found.after.outside);
    let nowhere =
        scale(&RawScale { design: design.clone(), brief: None, factor: None }).expect_err("no place");
    assert_eq!(nowhere[0].field, "brief.width");
    let far = scale(&RawScale { design, brief: None, factor: Some(9.0) }).expect_err("too far");
    assert_eq!(far[0].field, "factor");
}
