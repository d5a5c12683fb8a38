//! Boxes filled with points: what is drawn is what is counted.

use crate::support::{any_shape, body, build, contents, slot, tube};
use oak_acoustics::medium::CrossSection;
use oak_cabinetry::geometry::{Axis, EnclosureShape, Point, Solid};
use oak_cabinetry::panel::{Location, walls};
use oak_cabinetry::{
    Body, Brace, Cabinet, Contents, DuctPath, Finding, PartKind, Piece, PortBuild, PortSize, RadiatorSize,
    Seat,
};
use proptest::prelude::*;

fn minus(a: Point, b: Point) -> Point {
    [0, 1, 2].map(|k| a[k] - b[k])
}

fn dot(a: Point, b: Point) -> f64 {
    (0..3).map(|k| a[k] * b[k]).sum()
}

fn cross(a: Point, b: Point) -> Point {
    [a[1] * b[2] - a[2] * b[1], a[2] * b[0] - a[0] * b[2], a[0] * b[1] - a[1] * b[0]]
}

/// Whether a point lies in a piece.
fn holds(piece: &Piece, at: Point) -> bool {
    match piece {
        Piece::Block { low, high } => (0..3).all(|k| (low[k]..=high[k]).contains(&at[k])),
        Piece::Rod { from, to, radii } => {
            let axis = minus(*to, *from);
            let far = minus(at, *from);
            let part = dot(far, axis) / dot(axis, axis);
            let aside = [0, 1, 2].map(|k| far[k] - part * axis[k]);
            let radius = radii[0] + part * (radii[1] - radii[0]);
            (0.0..=1.0).contains(&part) && dot(aside, aside) <= radius * radius
        }
        Piece::Prism { near, far } => {
            let normal = cross(minus(near[1], near[0]), minus(near[2], near[0]));
            let along = minus(far[0], near[0]);
            let part = dot(minus(at, near[0]), normal) / dot(along, normal);
            if !(0.0..=1.0).contains(&part) {
                return false;
            }
            let foot = [0, 1, 2].map(|k| at[k] - part * along[k]);
            // Convex outlines, run round either way.
            let sides = (0..near.len()).map(|index| {
                let (a, b) = (near[index], near[(index + 1) % near.len()]);
                dot(cross(minus(b, a), minus(foot, a)), normal)
            });
            let sides: Vec<f64> = sides.collect();
            sides.iter().all(|side| *side >= 0.0) || sides.iter().all(|side| *side <= 0.0)
        }
    }
}

/// Points of a grid in a room, each anywhere in its cell: a cell and what of it.
struct Counted {
    /// m3.
    air: f64,
    /// The largest part of it that hangs together, m3.
    joined: f64,
    /// What two parts share, m3.
    shared: f64,
}

/// Side of a cell, m.
const CELL: f64 = 6e-3;

fn counted(interior: &Solid, cabinet: &Cabinet) -> Counted {
    let [low, high] = interior.bounds();
    let counts = [0, 1, 2].map(|k| ((high[k] - low[k]) / CELL).ceil() as usize);
    let sides = [0, 1, 2].map(|k| (high[k] - low[k]) / counts[k] as f64);
    let pieces: Vec<(usize, &Piece, [Point; 2])> = cabinet
        .parts
        .iter()
        .enumerate()
        .flat_map(|(part, found)| found.pieces.iter().map(move |piece| (part, piece, piece.bounds())))
        .collect();
    let mut seed = 1_u64;
    let mut anywhere = || {
        seed = seed.wrapping_mul(6_364_136_223_846_793_005).wrapping_add(1_442_695_040_888_963_407);
        (seed >> 11) as f64 / (1_u64 << 53) as f64
    };
    let index = |[i, j, k]: [usize; 3]| (i * counts[1] + j) * counts[2] + k;
    let mut air = vec![false; counts.iter().product()];
    let mut shared = 0_usize;
    for i in 0..counts[0] {
        for j in 0..counts[1] {
            for k in 0..counts[2] {
                let cell = [i, j, k];
                let at = [0, 1, 2].map(|k| low[k] + sides[k] * (cell[k] as f64 + anywhere()));
                if !interior.holds(at) {
                    continue;
                }
                let near = |[from, to]: &[Point; 2]| (0..3).all(|k| (from[k]..=to[k]).contains(&at[k]));
                let mut found: Vec<usize> = pieces
                    .iter()
                    .filter(|(_, piece, bounds)| near(bounds) && holds(piece, at))
                    .map(|(part, ..)| *part)
                    .collect();
                found.dedup();
                air[index(cell)] = found.is_empty();
                shared += usize::from(found.len() > 1);
            }
        }
    }
    let cell = sides.iter().product::<f64>();
    let whole = air.iter().filter(|air| **air).count();
    Counted {
        air: whole as f64 * cell,
        joined: largest(&mut air, counts) as f64 * cell,
        shared: shared as f64 * cell,
    }
}

/// Cells of the largest part that hangs together by its sides.
fn largest(air: &mut [bool], counts: [usize; 3]) -> usize {
    let mut most = 0;
    let steps = [counts[1] * counts[2], counts[2], 1];
    for start in 0..air.len() {
        let mut open = vec![start];
        let mut size = 0;
        while let Some(at) = open.pop() {
            if !std::mem::take(&mut air[at]) {
                continue;
            }
            size += 1;
            for k in 0..3 {
                let place = at / steps[k] % counts[k];
                if place > 0 {
                    open.push(at - steps[k]);
                }
                if place + 1 < counts[k] {
                    open.push(at + steps[k]);
                }
            }
        }
        most = most.max(size);
    }
    most
}

/// Compares a box that can be built with its points.
fn check(name: &str, cabinet: &Cabinet) {
    for chamber in &cabinet.chambers {
        let Counted { air, joined, shared } = counted(&chamber.interior, cabinet);
        let net = chamber.ledger.net();
        // As many points as there are leave a chance of a few thousandths.
        assert!(
            (air / net - 1.0).abs() < 0.01,
            "{name}: {air} counted, {net} in the ledger {:?}",
            chamber.ledger
        );
        assert!(joined > 0.99 * air, "{name}: only {joined} of {air} hang together");
        assert!(shared < 1e-3 * net, "{name}: {shared} in two parts at once");
    }
}

fn sized(shape: EnclosureShape) -> Body {
    Body { sizes: [Some(0.44), Some(0.56), Some(0.48)], ..body(shape) }
}

fn built(wish: &Body, inside: &Contents) -> Cabinet {
    let cabinet = wish.build(inside).expect("a box");
    assert!(cabinet.findings.iter().all(|finding| !finding.forbids()), "{:?}", cabinet.findings);
    cabinet
}

#[test]
fn a_box_with_strips_braces_radiators_and_a_flared_port_holds_what_it_says() {
    let mut wish = sized(EnclosureShape::Rectangular);
    wish.sizes[1] = Some(0.7);
    wish.strips = 0.02;
    (wish.drivers.up, wish.radiators.up) = (Some(0.52), Some(0.45));
    wish.braces = vec![
        Brace { axis: Axis::Y, at: Some(0.12), thickness: 0.018, open: 0.6 },
        Brace { axis: Axis::Z, at: Some(0.07), thickness: 0.018, open: 0.5 },
    ];
    wish.ports = vec![PortBuild { flares: [0.015, 0.015], across: Some(0.22), up: Some(0.27), ..build(0) }];
    let mut inside = contents(60.0);
    inside.ports[0] = vec![tube(0.09, 0.16)];
    inside.radiators = Some(RadiatorSize { cone: 0.15, count: 2 });
    check("furnished", &built(&wish, &inside));
    // A maker's own figure of what the driver takes is drawn as well.
    inside.drivers.displacement = Some(1.6e-3);
    check("stated displacement", &built(&wish, &inside));
}

#[test]
fn slots_along_walls_hold_their_boards_straight_and_turned() {
    let wide = 0.44 - 0.036;
    for (walls, width, turns, length) in [
        (0, 0.2, 0, 0.3),
        (1, 0.2, 0, 0.3),
        (2, 0.2, 0, 0.3),
        (3, wide, 0, 0.3),
        (2, 0.2, 1, 0.55),
        (3, wide, 1, 0.62),
        (3, wide, 2, 0.8),
    ] {
        let mut wish = sized(EnclosureShape::Rectangular);
        wish.ports = vec![PortBuild { wall: 0.018, ..build(turns) }];
        let mut inside = contents(60.0);
        inside.ports[0] = vec![slot(width, 0.03, length, walls)];
        check(&format!("{walls} walls, {turns} turns"), &built(&wish, &inside));
    }
}

#[test]
fn a_divided_box_holds_in_each_chamber_what_it_says() {
    let mut wish = sized(EnclosureShape::Rectangular);
    wish.sizes[2] = Some(0.62);
    wish.strips = 0.02;
    let mut inside = Contents { wanted: [Some(0.05), Some(0.05)], ..contents(50.0) };
    inside.ports[1] = vec![tube(0.1, 0.12)];
    check("bandpass", &built(&wish, &inside));
    // Through the partition: along its floor, in its corner, between both sides.
    for (walls, width) in [(1, 0.15), (2, 0.15), (3, 0.44 - 0.036)] {
        let series = Contents {
            ports: [vec![slot(width, 0.03, 0.12, walls)], Vec::new()],
            through: true,
            ..inside.clone()
        };
        let wish = Body { ports: vec![PortBuild { wall: 0.018, ..build(0) }], strips: 0.0, ..wish.clone() };
        let cabinet = built(&wish, &series);
        check(&format!("series, {walls} walls"), &cabinet);
        let port = cabinet.parts.iter().find(|part| part.name() == "port").expect("there");
        let [low, _] = port.pieces[0].bounds();
        assert!((low[1] - 0.018).abs() < 1e-9, "{walls}: it lies on the floor, {low:?}");
    }
    // A brace that crosses the partition is a frame in either chamber.
    let at = Some(0.08);
    for shape in [EnclosureShape::Rectangular, EnclosureShape::Prism { sides: 6 }] {
        let braced = Body {
            shape,
            sizes: [Some(0.5), Some(0.6), Some(0.62)],
            braces: vec![Brace { axis: Axis::X, at, thickness: 0.018, open: 0.5 }],
            ..wish.clone()
        };
        let cabinet = built(&braced, &Contents { ports: [Vec::new(), Vec::new()], ..inside.clone() });
        check(&format!("{shape:?}"), &cabinet);
        let frames = cabinet.parts.iter().filter(|part| part.kind == PartKind::Brace);
        assert_eq!(frames.count(), 2);
    }
}

/// A horn's chamber that would be too low for its driver is as high as that needs and ends before the wall; what lies beyond is closed off.
#[test]
fn a_small_chamber_of_a_horn_holds_its_driver_and_what_it_says() {
    let mut ended = 0;
    for (seat, stack) in
        [(Seat::Throat, Axis::Y), (Seat::Throat, Axis::Z), (Seat::Chamber, Axis::Y), (Seat::Chamber, Axis::Z)]
    {
        let mut wish = body(EnclosureShape::Rectangular);
        wish.sizes[0] = Some(0.35);
        wish.fold.stack = stack;
        let horn = DuctPath { areas: vec![[0.0, 0.02], [2.4, 0.15]], seat, apart: Vec::new() };
        let wanted = [Some(0.014), Some(horn.volume())];
        let inside = Contents { wanted, path: Some(horn), ..contents(1.0) };
        let cabinet = wish.build(&inside).expect("a box");
        assert!(
            !cabinet.findings.iter().any(Finding::forbids),
            "{seat:?}, {stack:?}: {:?}",
            cabinet.findings
        );
        let Some(unused) = &cabinet.unused else { continue };
        ended += 1;
        let [chamber, way] = cabinet.chambers.as_slice() else { panic!("two chambers") };
        for (room, wanted) in [chamber, way].into_iter().zip(wanted) {
            assert!((room.ledger.net() / wanted.expect("said") - 1.0).abs() < 2e-3, "{seat:?}, {stack:?}");
        }
        let Counted { air, joined, shared } = counted(&chamber.interior, &cabinet);
        assert!((air / chamber.ledger.net() - 1.0).abs() < 0.02, "{seat:?}: {air} counted");
        assert!(joined > 0.99 * air && shared < 1e-3 * air, "{seat:?}: {joined}, {shared}");
        // Nothing is mounted in what is closed off, and with its board it is all that the chamber leaves of the room beside the way.
        assert!((counted(unused, &cabinet).air / unused.volume() - 1.0).abs() < 1e-9);
        let board = |kind: PartKind| {
            let part = cabinet.parts.iter().find(|part| part.kind == kind).expect("a board");
            let [low, high] = part.pieces[0].bounds();
            (0..3).map(|k| high[k] - low[k]).product::<f64>()
        };
        let rooms = [&chamber.interior, &way.interior, unused].map(Solid::volume).iter().sum::<f64>();
        let across = cabinet.interior.volume() - rooms - board(PartKind::ChamberEnd);
        // The partition leaves the throat open.
        assert!(across >= board(PartKind::Partition) - 1e-9, "{seat:?}, {stack:?}");
        let walls = walls(&wish, &inside, &cabinet);
        assert!(walls.iter().any(|wall| wall.location == Location::ChamberEnd && wall.mass > 0.1));
    }
    assert!(ended >= 3, "{ended}");
}

#[test]
fn strips_stand_in_the_corners_of_a_stepped_box_not_at_its_nose() {
    for (height, depth) in [(0.15, 0.2), (0.34, 0.24), (0.1, 0.29)] {
        let mut wish = Body { strips: 0.022, ..body(EnclosureShape::Step { height, depth }) };
        wish.sizes = [Some(0.5), Some(0.6), Some(0.4)];
        let cabinet = built(&wish, &contents(60.0));
        check(&format!("{height} down, {depth} deep"), &cabinet);
        let strips = cabinet.parts.iter().find(|part| part.kind == PartKind::Strip).expect("there");
        for piece in &strips.pieces {
            let [low, high] = piece.bounds();
            let middle = [0, 1, 2].map(|k| f64::midpoint(low[k], high[k]));
            assert!(
                cabinet.interior.holds(middle),
                "{height} down, {depth} deep: {piece:?} stands in the wood"
            );
        }
    }
}

/// Ports that any box of the test holds.
fn any_port() -> impl Strategy<Value = Option<PortSize>> {
    prop_oneof![
        Just(None),
        (0.05..0.09, 0.08..0.2).prop_map(|(across, long)| Some(tube(across, long))),
        (0.02..0.04, 0.08..0.2).prop_map(|(tall, long)| Some(slot(0.12, tall, long, 1))),
        (0.06..0.1, 0.08..0.2).prop_map(|(side, long)| {
            Some(PortSize { section: CrossSection::Corner { side }, ..slot(0.1, 0.1, long, 2) })
        }),
    ]
}

proptest! {
    #![proptest_config(ProptestConfig::with_cases(10))]

    #[test]
    fn any_box_that_can_be_built_holds_what_it_says(
        shape in any_shape(),
        port in any_port(),
        strips in prop_oneof![Just(0.0), 0.012..0.024],
        layers in 1_u32..=2,
    ) {
        let mut wish = body(shape);
        wish.sizes = [Some(0.5), Some(0.6), Some(0.4)];
        wish.strips = strips;
        wish.panel.layers = layers;
        let mut inside = contents(60.0);
        inside.drivers.frame = 0.2;
        inside.ports[0].extend(port);
        if let Ok(cabinet) = wish.build(&inside)
            && cabinet.findings.iter().all(|finding| !finding.forbids())
        {
            check(&format!("{shape:?} {port:?} {strips} {layers}"), &cabinet);
        }
    }
}
