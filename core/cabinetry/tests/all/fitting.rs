//! Boxes around their contents: sizes solved, ledgers added up, nothing in the same place.

use crate::support::{any_shape, body, build, contents, panel, slot, tube};
use approx::assert_relative_eq;
use oak_acoustics::medium::CrossSection;
use oak_cabinetry::geometry::{Axis, EnclosureShape, Face};
use oak_cabinetry::place::overlap;
use oak_cabinetry::{Brace, Finding, Item, ItemBlock, PartKind, Piece, Place, PortBuild, PortSize, Washers};
use proptest::prelude::*;

#[test]
fn a_usual_ten_inch_driver_takes_two_litres() {
    // Common practice.
    let volume = contents(1.0).drivers.volume(0.0);
    assert!((1.7e-3..2.4e-3).contains(&volume), "{volume}");
}

#[test]
fn the_free_size_is_solved_for_what_is_left_after_everything() {
    let mut wish = body(EnclosureShape::Rectangular);
    wish.sizes = [Some(0.4), Some(0.5), None];
    wish.braces.push(Brace { axis: Axis::Y, at: Some(0.25), thickness: 0.018, open: 0.6 });
    wish.strips = 0.02;
    wish.items.push(Item { name: "Amplifier".to_owned(), volume: 2e-3, block: None });
    let mut contents = contents(40.0);
    contents.ports[0].push(tube(0.1, 0.2));
    let cabinet = wish.build(&contents).expect("a box");
    let ledger = &cabinet.chambers[0].ledger;
    assert_relative_eq!(ledger.net(), 0.040, max_relative = 1e-9);
    assert_eq!(cabinet.solved, [false, false, true]);
    let depth = cabinet.sizes[2];
    let inside = [0.364, 0.464, depth - 0.036];
    assert_relative_eq!(ledger.gross, inside.iter().product::<f64>(), max_relative = 1e-9);
    let named = |name: &str| ledger.entries.iter().find(|entry| entry.what == name).map(|entry| entry.volume);
    let port = std::f64::consts::PI / 4.0 * 0.108 * 0.108 * (0.2 - 0.018);
    assert_relative_eq!(named("Port").expect("entered"), port, max_relative = 1e-9);
    let brace = inside[0] * inside[2] * 0.018 * 0.4;
    assert_relative_eq!(named("Brace").expect("entered"), brace, max_relative = 1e-9);
    // Three meet in each corner, and the brace stands between four.
    let strips = (4.0 * inside.iter().sum::<f64>() - 16.0 * 0.02 - 4.0 * 0.018) * 0.02 * 0.02;
    assert_relative_eq!(named("Corner strips").expect("entered"), strips, max_relative = 1e-9);
}

#[test]
fn three_free_sizes_keep_their_proportions() {
    let cabinet = body(EnclosureShape::Rectangular).build(&contents(60.0)).expect("a box");
    assert_relative_eq!(cabinet.sizes[1] / cabinet.sizes[0], 1.26, max_relative = 1e-9);
    assert_relative_eq!(cabinet.sizes[2] / cabinet.sizes[0], 0.79, max_relative = 1e-9);
    assert_relative_eq!(cabinet.chambers[0].ledger.net(), 0.060, max_relative = 1e-9);
}

#[test]
fn a_shape_that_holds_too_much_at_its_smallest_is_refused() {
    // A step 0.2 m deep leaves no depth for a few litres.
    let mut wish = body(EnclosureShape::Step { height: 0.1, depth: 0.2 });
    wish.sizes = [Some(0.5), Some(1.0), None];
    assert!(matches!(wish.build(&contents(5.0)), Err(oak_cabinetry::BuildError::NoSize { .. })));
    assert!(wish.build(&contents(150.0)).is_ok());
}

#[test]
fn a_partition_without_a_place_is_refused() {
    let mut contents = contents(30.0);
    contents.wanted[1] = Some(0.05);
    let mut wish = body(EnclosureShape::Rectangular);
    wish.sizes = [Some(0.5), Some(0.5), Some(0.4)];
    wish.items.push(Item { name: "Stones".to_owned(), volume: 0.5, block: None });
    assert!(matches!(wish.build(&contents), Err(oak_cabinetry::BuildError::NoPartition)));
}

#[test]
fn a_partition_stands_where_both_chambers_have_what_they_need() {
    let mut contents = contents(30.0);
    contents.wanted[1] = Some(0.05);
    contents.ports[1].push(tube(0.1, 0.06));
    let cabinet = body(EnclosureShape::Rectangular).build(&contents).expect("a box");
    let [rear, front] = cabinet.chambers.as_slice() else { panic!("two chambers") };
    assert_relative_eq!(rear.ledger.net(), 0.030, max_relative = 1e-6);
    assert_relative_eq!(front.ledger.net(), 0.050, max_relative = 1e-6);
    assert!(cabinet.parts.iter().any(|part| part.kind == PartKind::Partition));
    assert!(cabinet.findings.iter().all(|finding| !finding.forbids()), "{:?}", cabinet.findings);
    let pyramid = body(EnclosureShape::Pyramid { top_width: 0.2, top_depth: 0.2 }).build(&contents);
    assert!(pyramid.is_ok(), "cut across its own axis");
}

#[test]
fn a_port_longer_than_the_box_is_deep_does_not_fit_and_turns() {
    let mut wish = body(EnclosureShape::Rectangular);
    wish.sizes = [Some(0.4), Some(0.6), Some(0.35)];
    let mut contents = contents(50.0);
    contents.ports[0].push(tube(0.1, 0.5));
    let straight = wish.build(&contents).expect("a box");
    let found = straight.findings.iter().find_map(|finding| match finding {
        Finding::PortTooLong { needs, has, .. } => Some((*needs, *has)),
        _ => None,
    });
    let (needs, has) = found.expect("too long");
    assert_relative_eq!(has, 0.35 - 0.036, max_relative = 1e-3);
    assert_relative_eq!(needs, 0.5 - 0.018 + 0.1, max_relative = 1e-9);

    contents.ports[0][0] = slot(0.364, 0.03, 0.6, 3);
    wish.ports.push(build(1));
    let turned = wish.build(&contents).expect("a box");
    let port = turned.parts.iter().find(|part| part.kind == PartKind::Port).expect("a port");
    assert_eq!(port.path.len(), 3, "it turns once");
    let length: f64 = port
        .path
        .windows(2)
        .map(|leg| (0..3).map(|k| (leg[1][k] - leg[0][k]).powi(2)).sum::<f64>().sqrt())
        .sum();
    assert_relative_eq!(length, 0.6, max_relative = 1e-9);
    assert!(!turned.findings.iter().any(|finding| matches!(finding, Finding::PortTooLong { .. })));
}

#[test]
fn a_short_port_that_turns_ends_in_its_turn() {
    // A passage hardly longer than two turns are high has nothing left for a third leg.
    let mut wish = body(EnclosureShape::Rectangular);
    wish.sizes = [Some(0.4), Some(0.6), Some(0.35)];
    wish.ports.push(build(2));
    let mut contents = contents(50.0);
    let (height, wall, panel) = (0.1, wish.ports[0].wall, 0.018);
    let first = 0.35 - 2.0 * panel - height / 2.0;
    contents.ports[0].push(slot(0.364, height, panel + first + (height + wall) / 2.0, 3));
    let cabinet = wish.build(&contents).expect("a box");
    let port = cabinet.parts.iter().find(|part| part.kind == PartKind::Port).expect("a port");
    assert_eq!(port.path.len(), 3, "{:?}", port.path);
    for leg in port.path.windows(2) {
        assert!((0..3).any(|k| (leg[1][k] - leg[0][k]).abs() > 1e-3), "no leg without a length: {leg:?}");
    }
}

#[test]
fn a_brace_across_the_driver_touches_it_unless_its_window_lets_it_through() {
    let mut wish = body(EnclosureShape::Rectangular);
    wish.sizes = [Some(0.4), Some(0.6), Some(0.35)];
    for (open, touches) in [(0.1, true), (0.8, false)] {
        wish.braces = vec![Brace { axis: Axis::Z, at: Some(0.26), thickness: 0.018, open }];
        let cabinet = wish.build(&contents(50.0)).expect("a box");
        let found = cabinet.findings.iter().any(|finding| matches!(finding, Finding::Touches { .. }));
        assert_eq!(found, touches, "{open}: {:?}", cabinet.findings);
    }
}

#[test]
fn a_box_too_small_for_its_driver_says_by_how_much() {
    let mut wish = body(EnclosureShape::Rectangular);
    wish.sizes = [Some(0.2), Some(0.2), Some(0.09)];
    let cabinet = wish.build(&contents(5.0)).expect("a box");
    assert!(cabinet.findings.iter().any(|finding| matches!(finding, Finding::FaceTooSmall { .. })));
    assert!(cabinet.chambers[0].ledger.net() < 5e-3);
}

#[test]
fn a_doubled_front_takes_its_second_layer_off_the_room() {
    let mut wish = body(EnclosureShape::Rectangular);
    wish.sizes = [Some(0.4), Some(0.5), Some(0.3)];
    let single = wish.build(&contents(30.0)).expect("a box");
    wish.panels.push((Face::Front, oak_cabinetry::Panel { layers: 2, ..panel() }));
    let double = wish.build(&contents(30.0)).expect("a box");
    let less = single.chambers[0].ledger.gross - double.chambers[0].ledger.gross;
    assert_relative_eq!(less, 0.364 * 0.464 * 0.018, max_relative = 1e-9);
}

proptest! {
    #![proptest_config(ProptestConfig::with_cases(64))]
    #[test]
    fn what_is_said_to_fit_is_nowhere_in_the_same_place(
        shape in any_shape(),
        litres in 15.0..120.0_f64,
        diameter in 0.05..0.12,
        length in 0.05..0.8,
        turns in 0_u32..=2,
        brace in 0.1..0.9,
        open in 0.0..0.8,
        flat in any::<bool>(),
    ) {
        let mut wish = body(shape);
        if let EnclosureShape::Cylinder { lying: false } = shape {
            wish.drivers.face = Face::Top;
        }
        wish.ports.push(build(turns));
        wish.braces.push(Brace { axis: Axis::Y, at: Some(brace * 0.4), thickness: 0.018, open });
        let mut contents = contents(litres);
        contents.ports[0].push(if flat { slot(0.2, 0.03, length, 2) } else { tube(diameter, length) });
        let Ok(cabinet) = wish.build(&contents) else { return Ok(()) };
        let ledger = &cabinet.chambers[0].ledger;
        let overfull = cabinet.findings.iter().any(|finding| matches!(finding, Finding::Overfull { .. }));
        prop_assert_eq!(ledger.net() <= 0.0, overfull);
        if cabinet.findings.iter().any(Finding::forbids) {
            return Ok(());
        }
        for (index, part) in cabinet.parts.iter().enumerate() {
            for other in &cabinet.parts[..index] {
                for (a, b) in part.pieces.iter().flat_map(|a| other.pieces.iter().map(move |b| (a, b))) {
                    let both = part.kind == PartKind::Brace && other.kind == PartKind::Brace;
                    prop_assert!(both || overlap(a, b) > -2e-5, "{} {}", part.name(), other.name());
                }
            }
            if part.kind != PartKind::Brace {
                for piece in &part.pieces {
                    let [low, high] = piece.bounds();
                    let middle = [0, 1, 2].map(|k| f64::midpoint(low[k], high[k]));
                    prop_assert!(cabinet.interior.holds(middle), "{} {middle:?}", part.name());
                }
            }
        }
    }
}

#[test]
fn a_part_with_a_size_has_its_place_and_is_in_the_way() {
    let mut wish = body(EnclosureShape::Rectangular);
    wish.sizes = [Some(0.4), Some(0.5), Some(0.4)];
    let place = Place { face: Face::Back, across: None, up: Some(0.1) };
    let block = ItemBlock { place, size: [0.2, 0.12, 0.1], opening: None };
    wish.items.push(Item { name: "Amplifier".to_owned(), volume: 2.4e-3, block: Some(block) });
    let cabinet = wish.build(&contents(40.0)).expect("a box");
    let part = cabinet.parts.iter().find(|part| part.kind == PartKind::Item).expect("placed");
    let [low, high] = part.pieces[0].bounds();
    // In the left corner of the back as nobody said where, and 100 mm up.
    assert_relative_eq!(low[0], -0.2 + 0.018, epsilon = 1e-9);
    assert_relative_eq!(low[2], 0.018, epsilon = 1e-9);
    assert_relative_eq!(high[2], 0.118, epsilon = 1e-9);
    assert_relative_eq!(f64::midpoint(low[1], high[1]), 0.1, epsilon = 1e-9);
    assert!(cabinet.findings.is_empty(), "{:?}", cabinet.findings);
    // As deep as the room it meets the driver.
    wish.items[0].block = Some(ItemBlock {
        place: Place { up: Some(0.25), across: Some(0.2), ..place },
        size: [0.2, 0.2, 0.33],
        opening: None,
    });
    let crowded = wish.build(&contents(40.0)).expect("a box");
    let touches = |finding: &Finding| matches!(finding, Finding::Touches { part, other } if part == "driver" && other == "amplifier");
    assert!(crowded.findings.iter().any(touches), "{:?}", crowded.findings);
}

#[test]
fn a_flared_port_is_longer_from_end_to_end_and_needs_its_flange() {
    let port = tube(0.1, 0.25);
    let flares = [0.02, 0.03];
    let [profile, half] = port.straight(&flares);
    // Half of each flare is the rule of thumb; the profile counts less, as the air spreads in it.
    assert_relative_eq!(half, 0.25 - 0.025, max_relative = 1e-12);
    assert!(profile > half && profile < 0.25, "{profile}");
    assert_relative_eq!(port.built(&flares), profile + 0.05, max_relative = 1e-12);
    assert_relative_eq!(port.built(&[0.0; 2]), 0.25, max_relative = 1e-12);
    let mut wish = body(EnclosureShape::Rectangular);
    wish.ports.push(PortBuild { flares, flange: Some(0.18), ..build(0) });
    assert_relative_eq!(port.seen(&wish.ports[0])[0], 0.18, max_relative = 1e-12);
    let mut contents = contents(40.0);
    contents.ports[0].push(port);
    let cabinet = wish.build(&contents).expect("a box");
    let part = cabinet.parts.iter().find(|part| part.kind == PartKind::Port).expect("a port");
    // The bell at its inner end.
    let Some(Piece::Rod { radii: [_, radius], .. }) = part.pieces.last() else { panic!("a bell") };
    assert_relative_eq!(*radius, 0.05 + 0.03 + 0.004, max_relative = 1e-12);
}

#[test]
fn whole_washers_come_as_near_as_half_of_one() {
    let washers = |added: f64| Washers { each: 0.010, bolt: 0.025, added }.nearest();
    assert_eq!(washers(0.0), (0, 0.0));
    assert_eq!(washers(0.010), (0, 0.0), "less than half a bolt is better left off");
    assert_eq!(washers(0.027), (0, 0.025));
    let (count, built) = washers(0.118);
    assert_eq!(count, 9);
    assert_relative_eq!(built, 0.115, max_relative = 1e-12);
}

#[test]
fn a_port_in_a_corner_takes_half_its_square_and_lies_on_two_walls() {
    let section = CrossSection::Corner { side: 0.12 };
    assert_relative_eq!(section.area(), 0.0072, max_relative = 1e-12);
    let port = PortSize { section, count: 2, ..slot(0.1, 0.1, 0.3, 2) };
    // Panel and all, as a triangle of its outside.
    let outside = 0.12 + 2.0_f64.sqrt() * 0.018;
    assert_relative_eq!(
        port.volume(&PortBuild { wall: 0.018, ..build(0) }, 0.2),
        outside * outside / 2.0 * 0.2,
        max_relative = 1e-12
    );
    let mut wish = body(EnclosureShape::Rectangular);
    wish.sizes = [Some(0.5), Some(0.5), Some(0.45)];
    wish.ports.push(PortBuild { wall: 0.018, ..build(0) });
    let mut contents = contents(60.0);
    contents.ports[0].push(port);
    let cabinet = wish.build(&contents).expect("a box");
    assert!(cabinet.findings.iter().all(|finding| !finding.forbids()), "{:?}", cabinet.findings);
    let ports: Vec<_> = cabinet.parts.iter().filter(|part| part.kind == PartKind::Port).collect();
    // One in each lower corner, against floor and side.
    let [floor, ceiling] = cabinet.interior.bounds();
    for (part, side) in ports.iter().zip([0, 1]) {
        let [low, high] = part.pieces[0].bounds();
        assert_relative_eq!(low[1], floor[1], epsilon = 1e-9);
        let wall = [low[0] - floor[0], ceiling[0] - high[0]][side];
        assert_relative_eq!(wall, 0.0, epsilon = 1e-9);
        let mouth = cabinet.mouth(part, &contents).expect("a mouth");
        assert_relative_eq!(mouth.area(), 0.0072, max_relative = 1e-12);
        assert_eq!(mouth.corner, Some([1.0, -1.0][side]));
    }
    assert_eq!(ports.len(), 2);
    // Through a partition it lies in a corner too, half as large as its square.
    contents.wanted = [Some(0.04), Some(0.03)];
    contents.through = true;
    let cabinet = wish.build(&contents).expect("a box");
    let part = cabinet.parts.iter().find(|part| part.kind == PartKind::Port).expect("a port");
    let mouth = cabinet.mouth(part, &contents).expect("a mouth");
    assert_relative_eq!(mouth.area(), 0.0072, max_relative = 1e-12);
    let (low, floor) = (part.pieces[0].bounds()[0], cabinet.interior.bounds()[0]);
    assert_relative_eq!(low[0], floor[0], epsilon = 1e-9);
    assert_relative_eq!(low[1], floor[1], epsilon = 1e-9);
}
