//! What does not fit is found, belongs to its part, and says in millimetres what it needs and what there is.

use crate::support::{body, build, contents, slot, tube};
use approx::assert_relative_eq;
use oak_acoustics::medium::CrossSection;
use oak_cabinetry::geometry::{Axis, EnclosureShape, Face};
use oak_cabinetry::{
    Body, Brace, Cabinet, Contents, Finding, Item, ItemBlock, Place, PortBuild, PortSize, RadiatorSize,
};

fn sized(width: f64, height: f64, depth: f64) -> Body {
    Body { sizes: [Some(width), Some(height), Some(depth)], ..body(EnclosureShape::Rectangular) }
}

fn built(wish: &Body, contents: &Contents) -> Cabinet {
    wish.build(contents).expect("a box")
}

/// The one finding of a kind, its words and whether it forbids.
fn only(cabinet: &Cabinet, of: fn(&Finding) -> bool) -> (Finding, String, bool) {
    let mut found = cabinet.findings.iter().filter(|finding| of(finding));
    let finding = found.next().unwrap_or_else(|| panic!("found nothing but {:?}", cabinet.findings)).clone();
    assert!(found.next().is_none(), "once: {:?}", cabinet.findings);
    (finding.clone(), finding.to_string(), finding.forbids())
}

#[test]
fn more_than_there_is_room_for() {
    let mut wish = sized(0.4, 0.4, 0.3);
    wish.items.push(Item { name: "Stones".to_owned(), volume: 0.05, block: None });
    let cabinet = built(&wish, &contents(30.0));
    let (finding, words, forbids) = only(&cabinet, |finding| matches!(finding, Finding::Overfull { .. }));
    let Finding::Overfull { chamber: 0, by } = finding else { panic!("{finding:?}") };
    assert_relative_eq!(by, -cabinet.chambers[0].ledger.net(), max_relative = 1e-12);
    assert!(words.contains(&format!("needs {:.1} l more", by * 1e3)), "{words}");
    assert!(forbids && finding.part().is_none());
    // As much again beside it fits.
    wish.sizes[2] = Some(0.6);
    assert!(built(&wish, &contents(30.0)).findings.iter().all(|finding| !finding.forbids()));
}

#[test]
fn a_part_in_a_side_that_the_shape_has_not() {
    let mut wish = body(EnclosureShape::Cylinder { lying: false });
    wish.sizes = [Some(0.4), Some(0.6), None];
    // A standing pipe has no flat front.
    let mut inside = contents(30.0);
    let (finding, words, forbids) =
        only(&built(&wish, &inside), |finding| matches!(finding, Finding::NoFace { .. }));
    assert_eq!(finding.part(), Some("driver"));
    assert_eq!(words, "The driver is set to go into the front, but this shape has no flat board there.");
    assert!(forbids);
    wish.drivers.face = Face::Top;
    assert!(built(&wish, &inside).findings.is_empty());
    inside.radiators = Some(RadiatorSize { cone: 0.2, count: 1 });
    let (finding, ..) = only(&built(&wish, &inside), |finding| matches!(finding, Finding::NoFace { .. }));
    assert_eq!(finding.part(), Some("radiator"));
    wish.radiators.face = Face::Bottom;
    assert!(built(&wish, &inside).findings.is_empty());
}

#[test]
fn a_board_too_small_for_what_goes_into_it() {
    let inside = contents(15.0);
    let (finding, words, forbids) = only(&built(&sized(0.24, 0.5, 0.4), &inside), |finding| {
        matches!(finding, Finding::FaceTooSmall { .. })
    });
    let Finding::FaceTooSmall { face: Face::Front, needs, has, .. } = finding else { panic!("{finding:?}") };
    assert_relative_eq!(needs[0], 0.25, max_relative = 1e-12);
    assert_relative_eq!(has[0], 0.24 - 0.036, max_relative = 1e-12);
    assert!(words.contains("takes 250 mm by 250 mm, and 204 mm by 464 mm are free inside"), "{words}");
    assert!(forbids);
    // The frame lies on the boards beside: only the hole has to be within.
    let just = inside.drivers.cutout + 0.037;
    assert!(built(&sized(just, 0.5, 0.4), &inside).findings.is_empty());
}

#[test]
fn a_radiator_wider_than_its_side() {
    let mut inside = contents(15.0);
    inside.radiators = Some(RadiatorSize { cone: 0.3, count: 2 });
    let cabinet = built(&sized(0.4, 0.5, 0.3), &inside);
    let sides: Vec<_> = cabinet
        .findings
        .iter()
        .filter_map(|finding| match finding {
            Finding::FaceTooSmall { face, part, .. } if part == "radiator" => Some(*face),
            _ => None,
        })
        .collect();
    assert_eq!(sides, [Face::Left, Face::Right], "one in each of two opposite sides");
}

#[test]
fn a_port_that_ends_too_near_a_wall() {
    let mut wish = sized(0.4, 0.5, 0.35);
    wish.ports.push(build(0));
    let mut inside = contents(40.0);
    inside.ports[0].push(tube(0.1, 0.3));
    let (finding, words, forbids) =
        only(&built(&wish, &inside), |finding| matches!(finding, Finding::PortTooLong { .. }));
    let Finding::PortTooLong { needs, has, gap, turns: 0, .. } = finding else { panic!("{finding:?}") };
    // From the inner side of its board, with a diameter of air before its end.
    assert_relative_eq!(gap, 0.1, max_relative = 1e-12);
    assert_relative_eq!(needs, 0.3 - 0.018 + 0.1, max_relative = 1e-12);
    assert_relative_eq!(has, 0.35 - 0.036, max_relative = 1e-4);
    assert!(words.starts_with("The port does not fit: with 100 mm of clear air"), "{words}");
    assert!(forbids && !words.contains("turn"));
    // Just what there is does.
    inside.ports[0][0].length = has - gap + 0.018;
    assert!(built(&wish, &inside).findings.iter().all(|finding| !finding.forbids()));
    // Longer than box and turn it says that the turn was counted.
    inside.ports[0][0].length = 0.8;
    wish.ports[0].turns = 1;
    let (_, words, _) =
        only(&built(&wish, &inside), |finding| matches!(finding, Finding::PortTooLong { .. }));
    assert!(words.contains("even with its turn:"), "{words}");
}

#[test]
fn a_slot_in_a_board_that_leans() {
    let mut wish = body(EnclosureShape::Wedge { top_depth: Some(0.2), back_height: None, lean: 0.0 });
    wish.sizes = [Some(0.5), Some(0.5), Some(0.4)];
    wish.drivers.face = Face::Bottom;
    wish.ports.push(PortBuild { face: Some(Face::Back), ..build(0) });
    let mut inside = contents(40.0);
    inside.ports[0].push(slot(0.3, 0.03, 0.1, 0));
    let (finding, words, _) =
        only(&built(&wish, &inside), |finding| matches!(finding, Finding::Slanting { .. }));
    assert_eq!(finding.part(), Some("port"));
    assert!(words.ends_with("A tube would do."), "{words}");
    wish.ports[0].face = Some(Face::Front);
    let upright = built(&wish, &inside);
    assert!(!upright.findings.iter().any(|finding| matches!(finding, Finding::Slanting { .. })));
}

#[test]
fn parts_in_the_same_place_and_parts_too_near() {
    let mut wish = sized(0.4, 0.6, 0.35);
    let at = |across: f64, up: f64| PortBuild { across: Some(across), up: Some(up), ..build(0) };
    let mut inside = contents(50.0);
    inside.ports[0].push(tube(0.1, 0.15));
    let reach = inside.drivers.cutout / 2.0 + 0.05 + 0.004;
    wish.drivers.up = Some(0.4);
    // Its wall cuts into the basket, then keeps 2 mm from it, then enough.
    for (beside, touches, near) in [(-0.01, true, false), (0.002, false, true), (0.01, false, false)] {
        wish.ports = vec![at(0.2, 0.4 - reach - beside)];
        let cabinet = built(&wish, &inside);
        let touching = cabinet.findings.iter().find(|finding| matches!(finding, Finding::Touches { .. }));
        let close = cabinet.findings.iter().find(|finding| matches!(finding, Finding::Close { .. }));
        assert_eq!(
            (touching.is_some(), close.is_some()),
            (touches, near),
            "{beside}: {:?}",
            cabinet.findings
        );
        if let Some(finding) = touching {
            assert_eq!(finding.to_string(), "The driver and the port are in the same place.");
            assert!(finding.forbids());
        }
        if let Some(finding) = close {
            assert_eq!(
                finding.to_string(),
                "There is only 2 mm between the driver and the port; the air needs 5 mm."
            );
            assert!(!finding.forbids());
        }
    }
    wish.ports = vec![at(0.03, 0.1)];
    let (finding, words, _) =
        only(&built(&wish, &inside), |finding| matches!(finding, Finding::Outside { .. }));
    assert_eq!((finding.part(), words.as_str()), (Some("port"), "The port reaches into a wall."));
}

#[test]
fn a_magnet_with_its_back_to_the_wall() {
    let inside = contents(8.0);
    let deep = inside.drivers.depth + 0.018;
    for (air, near) in [(0.01, true), (0.021, false)] {
        let cabinet = built(&sized(0.4, 0.5, deep + air), &inside);
        assert_eq!(!cabinet.findings.is_empty(), near, "{:?}", cabinet.findings);
        if near {
            let (finding, words, forbids) = only(&cabinet, |_| true);
            assert!(matches!(finding, Finding::Close { .. }) && !forbids);
            assert_eq!(
                words,
                "There is only 10 mm between the driver and the wall behind it; the air needs 20 mm."
            );
        }
    }
}

#[test]
fn a_brace_that_stands_in_a_wall() {
    let mut wish = sized(0.4, 0.5, 0.35);
    wish.braces.push(Brace { axis: Axis::Y, at: Some(0.47), thickness: 0.018, open: 0.7 });
    let (finding, words, forbids) =
        only(&built(&wish, &contents(40.0)), |finding| matches!(finding, Finding::Beyond { .. }));
    assert_eq!(finding.part(), Some("brace"));
    assert!(words.ends_with("which is 464 mm long there."), "{words}");
    assert!(forbids);
}

#[test]
fn something_against_a_board_that_is_not_there() {
    let mut wish = body(EnclosureShape::Cylinder { lying: true });
    wish.sizes = [Some(0.4), None, Some(0.6)];
    let block = ItemBlock {
        place: Place { face: Face::Left, across: None, up: None },
        size: [0.1; 3],
        opening: None,
    };
    wish.items.push(Item { name: "Amplifier".to_owned(), volume: 1e-3, block: Some(block) });
    let cabinet = built(&wish, &contents(40.0));
    let (finding, words, _) = only(&cabinet, |finding| matches!(finding, Finding::NoFace { .. }));
    assert_eq!(finding.part(), Some("Amplifier"));
    assert!(words.contains("into the left"), "{words}");
}

#[test]
fn two_triangles_in_one_corner_and_three_in_two() {
    let mut wish = sized(0.5, 0.5, 0.45);
    wish.ports.push(PortBuild { wall: 0.018, ..build(0) });
    let mut inside = contents(60.0);
    let section = CrossSection::Corner { side: 0.1 };
    inside.ports[0].push(PortSize { section, ..slot(0.1, 0.1, 0.25, 2) });
    inside.ports[0][0].count = 2;
    assert!(built(&wish, &inside).findings.iter().all(|finding| !finding.forbids()));
    // A board has two lower corners.
    inside.ports[0][0].count = 3;
    let cabinet = built(&wish, &inside);
    let (finding, ..) = only(&cabinet, |finding| matches!(finding, Finding::Touches { .. }));
    assert_eq!(finding.part(), Some("port"));
}

#[test]
fn a_brace_cannot_stand_where_the_partition_does() {
    let inside = Contents { wanted: [Some(0.03), Some(0.03)], ..contents(30.0) };
    let mut wish = Body { sizes: [Some(0.4), Some(0.4), Some(0.5)], ..body(EnclosureShape::Rectangular) };
    let plain = built(&wish, &inside);
    let [low, high] = [0, 1].map(|k| plain.chambers[k].interior.bounds());
    let middle = f64::midpoint(low[1][2], high[0][2]) - 0.018;
    let crossing = |finding: &Finding| matches!(finding, Finding::Touches { part, other } if part == "brace" && other == "partition");
    for (at, crosses) in [(middle, true), (middle - 0.06, false)] {
        wish.braces = vec![Brace { axis: Axis::Z, at: Some(at), thickness: 0.018, open: 0.5 }];
        let found = built(&wish, &inside).findings;
        assert_eq!(found.iter().any(crossing), crosses, "{at}: {found:?}");
    }
}

#[test]
fn a_port_for_a_corner_needs_a_square_one() {
    let inside = |port: PortSize| {
        let mut inside = contents(60.0);
        inside.ports[0] = vec![port];
        inside
    };
    let section = CrossSection::Corner { side: 0.08 };
    for port in [slot(0.12, 0.03, 0.2, 2), PortSize { section, ..slot(0.1, 0.1, 0.2, 2) }] {
        for (shape, has) in [
            (EnclosureShape::Rectangular, true),
            (EnclosureShape::Rounded { radius: 0.04 }, false),
            (EnclosureShape::Prism { sides: 6 }, false),
        ] {
            let wish = Body { shape, ..sized(0.5, 0.6, 0.45) };
            let missing = |finding: &Finding| matches!(finding, Finding::NoCorner { .. });
            let found = built(&wish, &inside(port)).findings;
            assert_eq!(found.iter().any(missing), !has, "{shape:?} {port:?} {found:?}");
        }
    }
    // Along one wall it has boards of its own on both sides.
    let wish = Body { shape: EnclosureShape::Rounded { radius: 0.04 }, ..sized(0.5, 0.6, 0.45) };
    assert!(built(&wish, &inside(slot(0.12, 0.03, 0.2, 1))).findings.iter().all(|one| !one.forbids()));
}

#[test]
fn a_brace_in_the_clear_air_before_a_port_is_said_and_one_beyond_it_is_not() {
    let mut wish = sized(0.4, 0.5, 0.7);
    let mut inside = contents(60.0);
    inside.ports[0] = vec![tube(0.1, 0.2)];
    // 200 mm of tube from the front leave 500 mm; a closed board stands so far from the back of the room.
    let end = 0.7 - 0.2 - 0.018;
    let with_brace = |wish: &mut Body, gap: f64| {
        let at = Some(end - gap - 0.009);
        wish.braces = vec![Brace { axis: Axis::Z, at, thickness: 0.018, open: 0.0 }];
        built(wish, &inside)
    };
    let blocked = |finding: &Finding| matches!(finding, Finding::Blocked { .. });
    let near = with_brace(&mut wish, 0.04);
    let (finding, words, forbids) = only(&near, blocked);
    let Finding::Blocked { distance, wanted, .. } = &finding else { panic!("{finding:?}") };
    assert!((distance - 0.04).abs() < 2e-3, "{distance}");
    assert!((wanted - 0.108).abs() < 1e-3, "{wanted}");
    assert!(forbids && finding.part() == Some("port"), "{words}");
    assert!(words.contains("brace"), "{words}");
    assert!(!with_brace(&mut wish, 0.15).findings.iter().any(blocked));
}

#[test]
fn braces_and_strips_of_a_divided_box_count_in_the_chamber_where_they_are() {
    let inside = Contents { wanted: [Some(0.03), Some(0.03)], ..contents(30.0) };
    let mut wish = Body { sizes: [Some(0.4), Some(0.4), None], ..body(EnclosureShape::Rectangular) };
    let depth = built(&wish, &inside).sizes[2];
    wish.sizes[2] = Some(depth);
    wish.strips = 0.02;
    // Square to the depth, near the front: in the chamber before the drivers alone.
    let at = Some(depth - 0.036 - 0.06);
    wish.braces = vec![Brace { axis: Axis::Z, at, thickness: 0.018, open: 0.5 }];
    let taken = |cabinet: &Cabinet, what: &str| -> Vec<f64> {
        let of = |chamber: &oak_cabinetry::Chamber| {
            chamber.ledger.entries.iter().filter(|entry| entry.what == what).map(|entry| entry.volume).sum()
        };
        cabinet.chambers.iter().map(of).collect()
    };
    let cabinet = built(&wish, &inside);
    let area = (0.4 - 0.036) * (0.4 - 0.036);
    let braces = taken(&cabinet, "Brace");
    assert!(braces[0].abs() < 1e-12, "{braces:?}");
    assert_relative_eq!(braces[1], area * 0.018 * 0.5, max_relative = 1e-9);
    // Along the sides it is in both, by their depth; all strips but those along the partition are there.
    wish.braces = vec![Brace { axis: Axis::X, at: None, thickness: 0.018, open: 0.0 }];
    let cabinet = built(&wish, &inside);
    let deep: Vec<f64> = cabinet
        .chambers
        .iter()
        .map(|chamber| {
            let [low, high] = chamber.interior.bounds();
            high[2] - low[2]
        })
        .collect();
    for (found, deep) in taken(&cabinet, "Brace").iter().zip(&deep) {
        assert_relative_eq!(*found, 0.364 * deep * 0.018, max_relative = 1e-9);
    }
    for (found, deep) in taken(&cabinet, "Corner strips").iter().zip(&deep) {
        // Those along the width go through, cut by the brace; the others end at them.
        let edges = 4.0 * (deep - 0.02) + 2.0 * (0.364 - 0.04) + 2.0 * (0.364 - 0.018);
        assert_relative_eq!(*found, 0.02 * 0.02 * edges, max_relative = 1e-9);
    }
}
