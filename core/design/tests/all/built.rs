//! A design and its box are one thing: what is simulated, drawn and listed agrees, and of linked values the one set longest ago follows.

use crate::support::demo_builds;
use oak_design::built::Built;
use oak_design::field;
use oak_design::file::{RawBody, RawDesign, RawEnclosureShape, RawLinked, Typed};
use oak_design::report::{BodyReport, Report, compute};
use oak_design::resolve::resolve_design;
use oak_design::response::FrequencyGrid;
use proptest::prelude::*;

fn typed(text: &str) -> Option<Typed> {
    Some(Typed::from(text))
}

/// The ported box of the barn.
fn ported() -> RawDesign {
    let build = demo_builds().into_iter().find(|build| build.name == "Barn dance").expect("in the demo");
    RawDesign { body: None, ..build.variants[0].clone() }
}

fn sized(sizes: [&str; 3]) -> RawDesign {
    let [width, height, depth] = sizes.map(typed);
    RawDesign { body: Some(RawBody { width, height, depth, ..RawBody::default() }), ..ported() }
}

fn built(raw: &RawDesign) -> Built {
    resolve_design(raw).expect("whole").built().expect("settles")
}

fn grid() -> FrequencyGrid {
    FrequencyGrid::logarithmic(10.0, 500.0, 60).expect("a grid")
}

#[test]
fn with_every_size_stated_no_volume_is_needed() {
    let written = sized(["500 mm", "800 mm", "600 mm"]);
    let mut unwritten = written.clone();
    unwritten.enclosure.volume = None;
    let [with, without] = [&written, &unwritten].map(built);
    let net = |built: &Built| built.design.volumes[0].expect("a chamber");
    assert!((net(&with) / net(&without) - 1.0).abs() < 1e-6, "{} {}", net(&with), net(&without));
    let length = |built: &Built| built.compiled.port_tuning.as_ref().expect("ported").ports[0].length;
    assert!((length(&with) - length(&without)).abs() < 1e-5);
    // With a size open the volume leads, so it must be there.
    unwritten.body.as_mut().expect("written").depth = None;
    let problems = resolve_design(&unwritten).expect_err("nothing leads");
    assert!(problems.iter().any(|problem| problem.field == "enclosure.volume"), "{problems:?}");
}

#[test]
fn every_screen_of_a_demo_design_has_the_same_volumes_tuning_and_lengths() {
    for raw in demo_builds().iter().flat_map(|build| &build.variants) {
        let design = resolve_design(raw).expect("whole");
        let computed = compute(&design, &grid()).expect("computes");
        let report = Report::of(&design, &grid()).expect("computes");
        let Some(body) = BodyReport::of(&design, &computed, None).expect("builds") else { continue };
        let name = &raw.name;
        assert_eq!(report.as_built.outside, Some(body.outside), "{name}");
        assert_eq!(report.as_built.forbids.len(), body.findings.iter().filter(|one| one.forbids).count());
        if raw.enclosure.family.is_of_its_volume() {
            let nets: Vec<f64> = body.chambers.iter().map(|chamber| chamber.net).collect();
            let volumes: Vec<f64> = report.as_built.volumes.iter().copied().flatten().collect();
            assert_eq!(volumes, nets, "{name}");
            let tuned = report.figures.fb.or(report.figures.fc);
            assert_eq!(tuned, body.tuning.frequency, "{name}");
        }
        for (cut, port) in
            body.ports.iter().zip(report.figures.rear_ports.iter().chain(&report.figures.ports))
        {
            let flares = cut.straight[0] < cut.overall;
            assert!(flares || (cut.overall - port.length).abs() < 1e-12, "{name}: {cut:?} {port:?}");
        }
    }
}

#[test]
fn with_every_size_stated_the_value_set_longest_ago_follows() {
    let mut raw = sized(["560 mm", "800 mm", "400 mm"]);
    // Nothing is known of the order: the box as drawn leads.
    let drawn = built(&raw);
    assert!(drawn.volume_follows());
    let volume = drawn.design.volumes[0].expect("a chamber");
    assert!(volume < 0.14, "{volume} m3 instead of the 150 l that are typed");
    let tuning = drawn.compiled.port_tuning.as_ref().expect("ported").reactance;
    assert!((tuning - 38.0).abs() < 0.1, "the port is cut for what is left: {tuning} Hz");
    for (set, follows) in [
        (vec![RawLinked::Width, RawLinked::Height, RawLinked::Depth, RawLinked::Volume], Some(0)),
        (vec![RawLinked::Height, RawLinked::Volume, RawLinked::Width, RawLinked::Depth], Some(1)),
        (vec![RawLinked::Volume], Some(2)),
        (vec![RawLinked::Volume, RawLinked::Depth, RawLinked::Height, RawLinked::Width], None),
    ] {
        let body = raw.body.as_mut().expect("written");
        body.order.clear();
        set.iter().for_each(|one| body.lead(*one));
        let found = built(&raw);
        let cabinet = &found.boxed.as_ref().expect("a box").cabinet;
        assert_eq!((0..3).find(|k| cabinet.solved[*k]), follows, "{set:?}");
        assert_eq!(found.volume_follows(), follows.is_none());
        if follows.is_some() {
            assert!((found.design.volumes[0].expect("a chamber") - 0.15).abs() < 1e-6);
        }
    }
}

#[test]
fn a_box_that_cannot_be_built_keeps_its_curves_and_says_why() {
    let mut full = sized(["250 mm", "250 mm", "250 mm"]);
    let design = resolve_design(&full).expect("whole");
    let report = Report::of(&design, &grid()).expect("its curves are there all the same");
    assert_eq!(report.traces[0].values.len(), 60);
    assert!(
        report.as_built.forbids[0].contains("needs more room than there is"),
        "{:?}",
        report.as_built.forbids
    );
    let body = full.body.as_mut().expect("written");
    (body.shape, body.top_depth) = (RawEnclosureShape::Wedge, typed("20 mm"));
    let report = Report::of(&resolve_design(&full).expect("whole"), &grid()).expect("computes");
    assert!(!report.as_built.forbids.is_empty());
}

#[test]
fn a_slot_between_both_sides_is_as_wide_as_the_box_whatever_that_comes_to() {
    let width = |found: &Built| {
        let boxed = found.boxed.as_ref().expect("a box");
        let [low, high] = boxed.cabinet.interior.bounds();
        let tuning = found.compiled.port_tuning.as_ref().expect("ported");
        assert!((tuning.ports[0].width.expect("a slot") - (high[0] - low[0])).abs() < 1e-6);
        let slots =
            |finding: &oak_cabinetry::Finding| matches!(finding, oak_cabinetry::Finding::NotAcross { .. });
        assert!(!boxed.cabinet.findings.iter().any(slots), "{:?}", boxed.cabinet.findings);
        assert!((tuning.reactance - 38.0).abs() < 0.1, "{}", tuning.reactance);
        high[0] - low[0]
    };
    let slotted = |mut raw: RawDesign| {
        raw.enclosure.ports = serde_json::from_value(serde_json::json!([
            { "shape": "slot", "height": "80 mm", "inner_end": "three_walls" }
        ]))
        .expect("a port");
        raw
    };
    let large = || slotted(sized(["700 mm", "800 mm", "500 mm"]));
    let (usual, wide) = (width(&built(&slotted(ported()))), width(&built(&large())));
    assert!((wide - 0.664).abs() < 1e-9 && (usual - wide).abs() > 0.05, "{usual} {wide}");
    // One that is written and leaves a gap, or does not go in, cannot be built so.
    for (written, beside) in [("600 mm", 0.064), ("700 mm", -0.036)] {
        let mut narrow = large();
        narrow.enclosure.ports[0].width = typed(written);
        let found = built(&narrow);
        let gap =
            found.boxed.as_ref().expect("a box").cabinet.findings.iter().find_map(|finding| match finding {
                oak_cabinetry::Finding::NotAcross { beside, .. } => Some(*beside),
                _ => None,
            });
        assert!((gap.expect("said") - beside).abs() < 1e-9, "{gap:?}");
        assert!(!found.forbids().is_empty());
    }
}

#[test]
fn a_brace_across_a_partition_takes_its_wood_once_and_both_chambers_sound_as_drawn() {
    let mut raw = ported();
    raw.enclosure = serde_json::from_value(serde_json::json!({
        "family": "bandpass4", "volume": "60 l",
        "front": { "volume": "50 l", "tuning": "60 Hz", "ports": [{ "shape": "round", "diameter": "120 mm" }] }
    }))
    .expect("a cabinet");
    for shape in [RawEnclosureShape::Box, RawEnclosureShape::Wedge] {
        raw.body = Some(RawBody { shape, top_depth: typed("400 mm"), ..RawBody::default() });
        raw.body.as_mut().expect("written").braces =
            serde_json::from_value(serde_json::json!([{ "along": "width" }])).expect("a brace");
        let found = built(&raw);
        let chambers = &found.boxed.as_ref().expect("a box").cabinet.chambers;
        let nets = [0, 1].map(|k| chambers[k].ledger.net());
        if shape == RawEnclosureShape::Box {
            assert!((nets[0] - 0.06).abs() < 1e-7 && (nets[1] - 0.05).abs() < 1e-7, "{nets:?}");
        }
        assert_eq!(found.design.volumes, nets.map(Some));
        // The network is that of these volumes: the tuning of the port as it is cut.
        let again = found.design.unboxed().expect("computes").compiled.port_tuning.expect("ported").reactance;
        let tuned = found.compiled.port_tuning.as_ref().expect("ported").reactance;
        assert!((again - tuned).abs() < 1e-6, "{again} {tuned}");
    }
}

#[test]
fn what_fill_makes_of_the_air_is_no_air() {
    let mut raw = ported();
    raw.enclosure.fill = Some(oak_design::file::RawStuffing::Full);
    let found = built(&raw);
    let ledger = &found.boxed.as_ref().expect("a box").cabinet.chambers[0].ledger;
    assert!((found.design.air() - ledger.net()).abs() < 1e-12);
    assert!(found.design.enclosure.air() > 1.1 * ledger.net(), "it sounds larger");
}

proptest! {
    #![proptest_config(ProptestConfig::with_cases(40))]
    /// Whatever is set and set again: nothing that was typed is lost, and the box has the volume that is simulated.
    #[test]
    fn linked_values_are_kept_as_typed_and_agree(
        sizes in [400..900u32, 400..900u32, 300..700u32],
        litres in 40..220u32,
        touched in proptest::collection::vec(0..4usize, 0..8),
    ) {
        let texts = sizes.map(|size| format!("{size} mm"));
        let mut raw = sized(texts.each_ref().map(String::as_str));
        raw.enclosure.volume = typed(&format!("{litres} l"));
        let all = [RawLinked::Width, RawLinked::Height, RawLinked::Depth, RawLinked::Volume];
        touched.iter().for_each(|at| raw.body.as_mut().expect("written").lead(all[*at]));
        let Ok(found) = resolve_design(&raw).expect("whole").built() else { return Ok(()) };
        let Some(boxed) = &found.boxed else { return Ok(()) };
        let body = raw.body.as_ref().expect("written");
        let follower = body.follower([true; 3]).expect("all are stated");
        let written = [&body.width, &body.height, &body.depth];
        for k in 0..3 {
            let size = [&field::BODY_WIDTH, &field::BODY_HEIGHT, &field::BODY_DEPTH][k].read(written[k].as_ref());
            let leads = follower != RawLinked::size(k);
            prop_assert!(!leads || (boxed.cabinet.sizes[k] - size.expect("typed")).abs() < 1e-9);
            prop_assert_eq!(boxed.cabinet.solved[k], !leads);
        }
        let net = boxed.cabinet.chambers[0].ledger.net();
        prop_assert!((net - found.design.volumes[0].expect("a chamber")).abs() < 1e-12);
        let leads = follower != RawLinked::Volume;
        prop_assert!(!leads || (net - f64::from(litres) * 1e-3).abs() < 1e-6);
        // The one that follows, set again, has what was typed for it.
        let mut again = raw.clone();
        again.body.as_mut().expect("written").lead(follower);
        prop_assert_eq!(&again.enclosure.volume, &raw.enclosure.volume);
        prop_assert_ne!(again.body.as_ref().expect("written").follower([true; 3]), Some(follower));
    }
}
