//! Boards as they are cut.

use approx::assert_relative_eq;
use oak_cabinetry::cut::{EdgeJoint, FlatPart, Joinery, Joints, Overlap, flat_parts};
use oak_cabinetry::geometry::{Axis, EnclosureShape, Face};
use oak_cabinetry::{Body, Brace, Cabinet, Panel};
use proptest::prelude::*;

use crate::support::{body, contents, panel};

const OVERLAPS: [Overlap; 4] =
    [Overlap::FrontAndBack, Overlap::Sides, Overlap::TopAndBottom, Overlap::Mitred];

fn built(body: &Body) -> Cabinet {
    body.build(&contents(40.0)).expect("it can be built")
}

fn parts(body: &Body, overlap: Overlap) -> Vec<FlatPart> {
    flat_parts(body, &contents(40.0), &built(body), &Joints { overlap, ..Joints::default() })
}

fn find<'a>(parts: &'a [FlatPart], name: &str) -> &'a FlatPart {
    parts.iter().find(|part| part.name == name).unwrap_or_else(|| panic!("no {name}"))
}

fn box_of(sizes: [f64; 3]) -> Body {
    Body { sizes: sizes.map(Some), ..body(EnclosureShape::Rectangular) }
}

fn sides(part: &FlatPart) -> [f64; 2] {
    part.size()
}

#[test]
fn a_box_is_cut_as_its_overlaps_say() {
    let body = box_of([0.4, 0.5, 0.3]);
    let near = |found: [f64; 2], expected: [f64; 2]| {
        for (found, expected) in found.iter().zip(expected) {
            assert_relative_eq!(*found, expected, epsilon = 1e-9);
        }
    };
    let front = parts(&body, Overlap::FrontAndBack);
    near(sides(find(&front, "front")), [0.4, 0.5]);
    near(sides(find(&front, "top")), [0.4, 0.264]);
    near(sides(find(&front, "left")), [0.264, 0.464]);
    let over = parts(&body, Overlap::TopAndBottom);
    near(sides(find(&over, "top")), [0.4, 0.3]);
    near(sides(find(&over, "left")), [0.3, 0.464]);
    near(sides(find(&over, "front")), [0.364, 0.464]);
    let mitred = parts(&body, Overlap::Mitred);
    near(sides(find(&mitred, "front")), [0.4, 0.5]);
    for edge in &find(&mitred, "front").edges {
        assert_eq!(edge.joint, EdgeJoint::Mitre);
        assert_relative_eq!(edge.bevel.to_degrees(), 45.0, epsilon = 1e-9);
    }
    assert!(front.iter().all(FlatPart::is_square));
    // The driver's hole is where it is mounted: in the middle of the front.
    let hole = &find(&front, "front").holes[0];
    near(hole.at, [0.2, 0.25]);
    assert!(hole.round && hole.depth.is_none());
}

#[test]
fn a_front_that_is_set_back_stands_between_its_neighbours() {
    let back = Panel { inset: 0.01, ..panel() };
    let body = Body { panels: vec![(Face::Front, back)], ..box_of([0.4, 0.5, 0.3]) };
    let found = parts(&body, Overlap::FrontAndBack);
    let front = find(&found, "front");
    assert_relative_eq!(front.size()[0], 0.364, epsilon = 1e-9);
    assert_relative_eq!(front.size()[1], 0.464, epsilon = 1e-9);
    assert!(front.edges.iter().all(|edge| edge.joint == EdgeJoint::Under));
}

#[test]
fn polygons_and_pyramids_have_the_angles_of_their_closed_forms() {
    // A regular prism of n sides is mitred at 180/n degrees.
    for sides in [3u8, 6, 8] {
        let shape = EnclosureShape::Prism { sides };
        let body = Body { sizes: [Some(0.4), Some(0.6), None], ..body(shape) };
        let found = parts(&body, Overlap::FrontAndBack);
        let side = find(&found, "side 2");
        let mitred: Vec<f64> = side
            .edges
            .iter()
            .filter(|edge| edge.joint == EdgeJoint::Mitre)
            .map(|edge| edge.bevel.to_degrees())
            .collect();
        assert_eq!(mitred.len(), 2, "{sides}");
        for angle in mitred {
            assert_relative_eq!(angle, 180.0 / f64::from(sides), epsilon = 1e-6);
        }
    }
    // A square pyramid with sides that lean by t from upright: a mitre of asin(cos t sin 45 deg) (the usual compound mitre's tilt).
    let shape = EnclosureShape::Pyramid { top_width: 0.2, top_depth: 0.2 };
    let body = Body { sizes: [Some(0.4), Some(0.5), Some(0.4)], ..body(shape) };
    let found = parts(&body, Overlap::Mitred);
    let lean = (0.1f64 / 0.5).atan();
    let expected = (lean.cos() * std::f64::consts::FRAC_1_SQRT_2).asin().to_degrees();
    let tilt =
        find(&found, "left").edges.iter().filter(|edge| matches!(edge.meets, Some(Face::Front | Face::Back)));
    let tilts: Vec<f64> = tilt.map(|edge| edge.bevel.to_degrees()).collect();
    assert_eq!(tilts.len(), 2);
    for tilt in tilts {
        assert_relative_eq!(tilt, expected, epsilon = 1e-6);
    }
}

#[test]
fn a_brace_has_its_window_and_equal_ones_are_counted() {
    let brace = |at: f64| Brace { axis: Axis::Y, at: Some(at), thickness: 0.012, open: 0.5 };
    let body = Body { braces: vec![brace(0.15), brace(0.33)], ..box_of([0.4, 0.5, 0.3]) };
    let found = parts(&body, Overlap::FrontAndBack);
    let braces: Vec<_> = found.iter().filter(|part| part.name.starts_with("brace")).collect();
    assert_eq!(braces.len(), 2);
    let open = oak_cabinetry::geometry::area(braces[0].window.as_ref().expect("a window"));
    let [width, height] = braces[0].size();
    assert_relative_eq!(open / (width * height), 0.5, epsilon = 1e-9);
    assert_relative_eq!(braces[0].volume, (width * height - open) * 0.012, epsilon = 1e-12);
}

fn any_shape() -> impl Strategy<Value = EnclosureShape> {
    prop_oneof![
        Just(EnclosureShape::Rectangular),
        (0.12f64..0.28, 0.0f64..0.05).prop_map(|(top, lean)| EnclosureShape::Wedge {
            top_depth: Some(top),
            back_height: None,
            lean
        }),
        (0.3f64..0.5).prop_map(|back| EnclosureShape::Wedge {
            top_depth: None,
            back_height: Some(back),
            lean: 0.0
        }),
        (3u8..9).prop_map(|sides| EnclosureShape::Prism { sides }),
        (0.2f64..0.38, 0.2f64..0.33)
            .prop_map(|(top_width, top_depth)| EnclosureShape::Pyramid { top_width, top_depth }),
        (0.1f64..0.2, 0.08f64..0.15).prop_map(|(height, depth)| EnclosureShape::Step { height, depth }),
    ]
}

const JOINERIES: [Joinery; 4] = [Joinery::Butt, Joinery::Dowels, Joinery::Rabbet, Joinery::Tongue];

/// What is left of a board around its rabbets, grooves and tongues, m3.
fn milled(part: &FlatPart) -> f64 {
    let area = |outline: &[[f64; 2]]| oak_cabinetry::geometry::area(outline);
    part.volume - part.grooves.iter().map(|groove| area(&groove.outline) * groove.depth).sum::<f64>()
}

fn joined(body: &Body, joints: &Joints) -> Vec<FlatPart> {
    flat_parts(body, &contents(40.0), &built(body), joints)
}

#[test]
fn a_rabbet_makes_the_board_longer_that_stands_in_it_and_the_box_no_larger() {
    let body = box_of([0.4, 0.5, 0.3]);
    let joints = Joints { usual: Joinery::Rabbet, ..Joints::default() };
    let found = joined(&body, &joints);
    // Rabbets are half of 18 mm deep: the top reaches 9 mm into front and back, a side as far into those and into top and bottom.
    assert_relative_eq!(find(&found, "top").size()[1], 0.264 + 0.018, epsilon = 1e-9);
    assert_relative_eq!(find(&found, "left").size()[0], 0.264 + 0.018, epsilon = 1e-9);
    assert_relative_eq!(find(&found, "left").size()[1], 0.464 + 0.018, epsilon = 1e-9);
    let front = find(&found, "front");
    assert_eq!(front.grooves.len(), 4);
    for groove in &front.grooves {
        assert_relative_eq!(groove.depth, 0.009, epsilon = 1e-12);
    }
    // One edge of them mitred instead, which front and back allow and top and left do not ask to be asked.
    let pairs = vec![([Face::Top, Face::Left], Joinery::Mitre)];
    let found = joined(&body, &Joints { pairs, ..Joints::default() });
    let mitred = |name: &str| {
        let edges = find(&found, name).edges.iter();
        edges.filter(|edge| edge.joint == EdgeJoint::Mitre).count()
    };
    assert_eq!([mitred("top"), mitred("left"), mitred("right")], [1, 1, 0]);
    // A front that reaches over all others cannot be mitred with one of them alone: a corner would stay open.
    let pairs = vec![([Face::Front, Face::Left], Joinery::Mitre)];
    let found = joined(&body, &Joints { pairs, ..Joints::default() });
    assert!(find(&found, "front").edges.iter().all(|edge| edge.joint == EdgeJoint::Over));
}

#[test]
fn dowels_stand_in_both_boards_at_the_same_places() {
    let found = joined(&box_of([0.4, 0.5, 0.3]), &Joints { usual: Joinery::Dowels, ..Joints::default() });
    let (front, left) = (find(&found, "front"), find(&found, "left"));
    let edge = left.edges.iter().find(|edge| edge.meets == Some(Face::Front)).expect("it meets the front");
    // 464 mm: 50 mm from either end and no more than 200 mm apart.
    assert_eq!(edge.dowels.len(), 3);
    let holes: Vec<f64> =
        front.holes.iter().filter(|hole| hole.what == "dowel to the left").map(|hole| hole.at[1]).collect();
    assert_eq!(holes.len(), 3);
    for at in &edge.dowels {
        // Whichever way its edge runs, seen from below it is the same row; the side begins where the floor ends.
        let up = holes.iter().any(|up| (up - 0.018 - at).abs() < 1e-9);
        let down = holes.iter().any(|up| (up - 0.018 - (0.464 - at)).abs() < 1e-9);
        assert!(up || down, "{at} {holes:?}");
    }
    assert!(
        front
            .holes
            .iter()
            .filter(|hole| hole.what.starts_with("dowel"))
            .all(|hole| hole.depth.is_some_and(|depth| (depth - 0.012).abs() < 1e-9))
    );
}

#[test]
fn a_brace_in_dadoes_is_longer_by_what_they_are_deep() {
    let brace = Brace { axis: Axis::Y, at: Some(0.15), thickness: 0.012, open: 0.5 };
    let body = Body { braces: vec![brace], ..box_of([0.4, 0.5, 0.3]) };
    let plain = parts(&body, Overlap::FrontAndBack);
    let found = joined(&body, &Joints { housed: true, ..Joints::default() });
    assert_relative_eq!(
        find(&found, "brace").size()[0],
        find(&plain, "brace").size()[0] + 0.012,
        epsilon = 1e-9
    );
    for name in ["left", "right"] {
        let groove = &find(&found, name).grooves[0];
        assert_relative_eq!(groove.depth, 0.006, epsilon = 1e-12);
        assert_relative_eq!(oak_cabinetry::geometry::area(&groove.outline), 0.264 * 0.012, epsilon = 1e-9);
    }
    let total = |parts: &[FlatPart]| parts.iter().map(milled).sum::<f64>();
    assert_relative_eq!(total(&plain), total(&found), epsilon = 1e-12);
}

#[test]
fn where_a_brace_stands_is_marked_on_the_boards_around_it() {
    let brace = Brace { axis: Axis::Y, at: Some(0.15), thickness: 0.012, open: 0.5 };
    let body = Body { braces: vec![brace], ..box_of([0.4, 0.5, 0.3]) };
    let found = parts(&body, Overlap::FrontAndBack);
    for (name, wide) in [("left", 0.264), ("right", 0.264), ("front", 0.364), ("back", 0.364)] {
        let [stand] = find(&found, name).stands.as_slice() else { panic!("one on the {name}") };
        assert_eq!(stand.what, "brace");
        assert_relative_eq!(oak_cabinetry::geometry::area(&stand.outline), wide * 0.012, epsilon = 1e-9);
        // Its lower side is 144 mm above the floor inside, and a side begins there.
        let below = stand.outline.iter().map(|point| point[1]).fold(f64::INFINITY, f64::min);
        let floor = if ["front", "back"].contains(&name) { 0.018 } else { 0.0 };
        assert_relative_eq!(below, floor + 0.144, epsilon = 1e-9);
    }
    assert!(find(&found, "top").stands.is_empty());
}

#[test]
fn a_brace_in_a_room_that_is_no_box_is_cut_to_its_outline() {
    let shapes = [
        EnclosureShape::Wedge { top_depth: Some(0.2), back_height: None, lean: 0.0 },
        EnclosureShape::Prism { sides: 8 },
        EnclosureShape::Pyramid { top_width: 0.3, top_depth: 0.25 },
    ];
    for shape in shapes {
        for axis in [Axis::X, Axis::Y, Axis::Z] {
            let brace = Brace { axis, at: Some(0.12), thickness: 0.012, open: 0.5 };
            let sizes = [Some(0.42), Some(0.55), Some(0.35)];
            let body = Body {
                braces: vec![brace],
                sizes: [0, 1, 2].map(|k| sizes[k].filter(|_| shape.free()[k])),
                ..body(shape)
            };
            let cabinet = built(&body);
            let part =
                cabinet.parts.iter().find(|part| part.kind == oak_cabinetry::PartKind::Brace).expect("one");
            for piece in &part.pieces {
                let oak_cabinetry::Piece::Prism { near, far } = piece else { panic!("{shape:?}: {piece:?}") };
                // Towards its own middle by a hair it is in the room.
                let all: Vec<_> = near.iter().chain(far).collect();
                let middle =
                    [0, 1, 2].map(|k| all.iter().map(|point| point[k]).sum::<f64>() / all.len() as f64);
                for point in all {
                    let at = [0, 1, 2].map(|k| point[k] + 1e-6 * (middle[k] - point[k]));
                    assert!(cabinet.interior.holds(at), "{shape:?} {axis:?} {point:?}");
                }
            }
            let flat = flat_parts(&body, &contents(40.0), &cabinet, &Joints::default());
            let flat = find(&flat, "brace");
            let entry = cabinet.chambers[0]
                .ledger
                .entries
                .iter()
                .find(|entry| entry.what == "Brace")
                .expect("counted");
            assert_relative_eq!(flat.volume, entry.volume, max_relative = 2e-3);
            let window = oak_cabinetry::geometry::area(flat.window.as_ref().expect("a window"));
            assert_relative_eq!(
                window / oak_cabinetry::geometry::area(&flat.outer),
                0.5,
                max_relative = 1e-9
            );
        }
    }
}

#[test]
fn a_double_front_is_two_boards_and_a_deep_recess_goes_through_the_first() {
    let doubled = Panel { layers: 2, thickness: 0.012, ..panel() };
    let wish = Body { panels: vec![(Face::Front, doubled)], recess: 0.012, ..box_of([0.4, 0.5, 0.3]) };
    let found = parts(&wish, Overlap::Mitred);
    let layers = [find(&found, "front, layer 1 of 2"), find(&found, "front, layer 2 of 2")];
    // Mitred against sides of 18 mm: each layer is smaller by its part of that.
    assert_relative_eq!(layers[0].size()[0], 0.4, epsilon = 1e-9);
    assert_relative_eq!(layers[1].size()[0], 0.4 - 0.018, epsilon = 1e-9);
    let wide = layers.map(|layer| layer.holes[0].size[0]);
    assert_relative_eq!(wide[0], 0.25, epsilon = 1e-9);
    assert_relative_eq!(wide[1], 0.23, epsilon = 1e-9);
    assert!(layers.iter().all(|layer| layer.holes.iter().all(|hole| hole.depth.is_none())));
}

#[test]
fn a_recess_is_a_ring_around_the_hole() {
    let body = Body { recess: 0.006, ..box_of([0.4, 0.5, 0.3]) };
    let found = parts(&body, Overlap::FrontAndBack);
    let front = find(&found, "front");
    let quarter = std::f64::consts::FRAC_PI_4;
    let gone = quarter * 0.23f64.powi(2) * 0.018 + quarter * (0.25f64.powi(2) - 0.23f64.powi(2)) * 0.006;
    assert_relative_eq!(front.wood(), 0.4 * 0.5 * 0.018 - gone, epsilon = 1e-12);
}

proptest! {
    #![proptest_config(ProptestConfig::with_cases(96))]

    /// The boards together are what stands between outside and room, whatever the shape and its joints.
    #[test]
    fn the_boards_fill_what_the_cabinet_has_of_boards(
        shape in any_shape(),
        overlap in proptest::sample::select(OVERLAPS.to_vec()),
        thick in 0.009f64..0.025,
        front in 1u32..3,
        joinery in proptest::sample::select(JOINERIES.to_vec()),
    ) {
        let doubled = Panel { layers: front, thickness: thick, ..panel() };
        let sizes = [Some(0.42), Some(0.55), Some(0.35)];
        let body = Body {
            panel: Panel { thickness: thick, ..panel() },
            panels: vec![(Face::Front, doubled)],
            sizes: [0, 1, 2].map(|k| sizes[k].filter(|_| shape.free()[k])),
            ..body(shape)
        };
        let Ok(cabinet) = body.build(&contents(40.0)) else { return Ok(()) };
        let joints = Joints { overlap, usual: joinery, ..Joints::default() };
        let found = flat_parts(&body, &contents(40.0), &cabinet, &joints);
        let boards: f64 = found.iter().map(milled).sum();
        let shell = cabinet.outer.volume() - cabinet.interior.volume();
        prop_assert!((boards - shell).abs() < 1e-9 + 1e-7 * shell, "{boards} {shell}");
        // Rabbets lie within their board.
        for part in &found {
            let [low, high] = [0, 1].map(|k| {
                let all = part.outer.iter().chain(&part.inner).map(|point| point[k]);
                all.fold([f64::INFINITY, f64::NEG_INFINITY], |[low, high], at| [low.min(at), high.max(at)])
            });
            for point in part.grooves.iter().flat_map(|groove| &groove.outline) {
                let within = |k: usize, [from, to]: [f64; 2]| point[k] > from - 1e-7 && point[k] < to + 1e-7;
                prop_assert!(within(0, low) && within(1, high), "{}: {point:?}", part.name);
            }
        }
        for part in &found {
            prop_assert!(part.outer.len() == part.edges.len() && part.volume > 0.0);
            // Nothing is cut from less than nothing: outlines run round one way.
            let turn: f64 = oak_cabinetry::geometry::area(&part.outer);
            prop_assert!(turn > 0.0, "{} {turn}", part.name);
        }
    }
}
