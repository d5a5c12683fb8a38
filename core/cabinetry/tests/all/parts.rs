//! Sizes of what is mounted, and where it goes when nobody says.

use std::f64::consts::{PI, SQRT_2};

use crate::support::{body, build, contents, slot, tube};
use approx::assert_relative_eq;
use oak_acoustics::medium::CrossSection;
use oak_cabinetry::geometry::{Axis, EnclosureShape, Face};
use oak_cabinetry::{
    Body, Brace, Contents, DriverSize, Finding, PIPES, Pair, Part, PartKind, Piece, Pipe, PortBuild,
    PortSize, RadiatorSize,
};
use proptest::prelude::*;

fn of(parts: &[Part], kind: PartKind) -> Vec<&Part> {
    parts.iter().filter(|part| part.kind == kind).collect()
}

#[test]
fn what_a_sheet_leaves_out_is_usual_for_its_cone() {
    // Two thirds of a frame's area move (common practice): 346 cm2 are a 250 mm driver.
    let size = DriverSize::of(0.0346, [None; 4], None);
    assert!((0.25..0.265).contains(&size.frame), "{}", size.frame);
    assert_eq!(size.usual, [true; 4]);
    assert!(size.cutout < size.frame && size.cutout >= size.cone);
    let stated = DriverSize::of(0.0346, [Some(0.26), Some(0.23), Some(0.12), Some(0.15)], Some(3e-3));
    for (size, said) in
        [(stated.frame, 0.26), (stated.cutout, 0.23), (stated.depth, 0.12), (stated.magnet, 0.15)]
    {
        assert_relative_eq!(size, said, max_relative = 1e-12);
    }
    assert_eq!(stated.usual, [false; 4]);
    assert_relative_eq!(stated.volume(0.018), 3e-3, max_relative = 1e-12);
    // Without a displacement it is that of its basket and magnet: less than the cylinder around them.
    let whole = DriverSize { displacement: None, ..stated };
    let sum = whole.volume(0.0);
    assert!(sum < PI / 4.0 * 0.23 * 0.23 * 0.12 && sum > PI / 4.0 * 0.15 * 0.15 * 0.12, "{sum}");
    // What lies in a thick board takes nothing of the room; behind one as thick as it is deep there is nothing left.
    assert!(whole.volume(0.018) < sum && whole.volume(0.036) < whole.volume(0.018));
    assert_relative_eq!(whole.volume(0.12), 0.0, epsilon = 1e-15);
}

#[test]
fn a_slot_needs_as_many_boards_as_walls_leave_open() {
    // 300 x 30 mm with boards of 12 mm: in the middle of the air four, on the floor three, in a corner two, across the whole width one.
    let needs = |walls: u32| slot(0.3, 0.03, 0.4, walls).outside(0.012);
    for (walls, width, height) in [(0, 0.324, 0.054), (1, 0.324, 0.042), (2, 0.312, 0.042), (3, 0.3, 0.042)] {
        let outside = needs(walls);
        assert_relative_eq!(outside[0], width, max_relative = 1e-12);
        assert_relative_eq!(outside[1], height, max_relative = 1e-12);
        assert_relative_eq!(
            slot(0.3, 0.03, 0.4, walls).volume(&PortBuild { wall: 0.012, ..build(0) }, 0.1),
            width * height * 0.1,
            max_relative = 1e-12
        );
    }
    // What narrows it to half in the middle fills a quarter of its passage with wood.
    let wood = |waist: f64| {
        PortSize { waist, ..slot(0.3, 0.03, 0.4, 1) }.wood(&PortBuild { wall: 0.012, ..build(0) })
    };
    assert_relative_eq!(wood(0.5) - wood(1.0), 0.25 * 0.3 * 0.03 * 0.4, max_relative = 1e-9);
    let round = tube(0.1, 0.2);
    assert_relative_eq!(round.volume(&build(0), 0.1), PI / 4.0 * 0.108 * 0.108 * 0.1, max_relative = 1e-12);
    assert_relative_eq!(round.diameter(), 0.1, max_relative = 1e-12);
    let corner = PortSize { section: CrossSection::Corner { side: 0.12 }, ..slot(0.1, 0.1, 0.3, 2) };
    assert_relative_eq!(corner.outside(0.012)[0], 0.12 + SQRT_2 * 0.012, max_relative = 1e-12);
    assert_relative_eq!(corner.height(), 0.12 / SQRT_2, max_relative = 1e-12);
    assert_relative_eq!(PI / 4.0 * corner.diameter().powi(2), 0.0072, max_relative = 1e-12);
}

#[test]
fn pipes_have_walls_and_kits_flanges_as_wide_as_their_flares() {
    for Pipe { name, outside, inside, flare, flange, fittings } in PIPES {
        let wall = (outside - inside) / 2.0;
        assert!((0.0015..0.0125).contains(&wall), "{name}: {wall}");
        assert_eq!(*flange > 0.0, *flare > 0.0, "{name}");
        assert!(*flange == 0.0 || *flange > inside + 2.0 * flare, "{name}");
        // A pipe goes into its socket, and a coupling around both.
        assert!(fittings.coupling > *outside && fittings.elbow > outside / 2.0, "{name}");
        assert!(fittings.cap > fittings.socket && fittings.socket > 0.0, "{name}");
        // The size in its name: of drain and pressure pipes outside, of kits inside.
        if let Some(size) = name.strip_prefix("DN ") {
            assert_eq!(size, format!("{:.0}", outside * 1e3));
        }
    }
    // Pressure pipes are thicker than drain pipes, and what is sold by the inch has about that much room.
    let wall = |name: &str| {
        let found = PIPES.iter().find(|pipe| pipe.name == name).expect("in the list");
        (found.outside - found.inside) / 2.0
    };
    assert!(wall("PN 10, 110 mm") > 1.2 * wall("DN 110"));
    for inches in [2.0, 3.0, 4.0, 6.0, 8.0, 10.0, 12.0] {
        let name = format!("Schedule 40, {inches} in");
        let found = PIPES.iter().find(|pipe| pipe.name == name).expect("in the list");
        assert!((found.inside / (inches * 0.0254) - 1.0).abs() < 0.05, "{name}");
    }
}

#[test]
fn a_cabinet_of_drain_pipe_is_warned_of_and_one_of_pressure_pipe_is_not() {
    for (wall, warned) in [(0.0077, true), (0.0121, false)] {
        let mut wish = body(EnclosureShape::Cylinder { lying: true });
        wish.sizes = [Some(0.315), None, None];
        for panel in wish.panels.iter_mut().map(|(_, panel)| panel).chain([&mut wish.panel]) {
            panel.thickness = wall;
        }
        let mut inside = contents(30.0);
        inside.drivers.frame = 0.2;
        let cabinet = wish.build(&inside).expect("a box");
        let thin = cabinet.findings.iter().find(|finding| matches!(finding, Finding::ThinPipe { .. }));
        assert_eq!(thin.is_some(), warned, "{wall}");
        assert!(thin.is_none_or(|thin| !thin.forbids() && thin.to_string().contains("11 mm")), "{thin:?}");
    }
}

#[test]
fn four_drivers_stand_evenly_about_the_middle_of_their_board() {
    let mut wish = body(EnclosureShape::Rectangular);
    wish.sizes = [Some(0.6), Some(0.7), Some(0.4)];
    let mut inside = contents(100.0);
    inside.drivers.count = 4;
    let cabinet = wish.build(&inside).expect("a box");
    let drivers = of(&cabinet.parts, PartKind::Driver);
    assert_eq!(drivers.len(), 4);
    let mean = |k: usize| drivers.iter().map(|part| part.at[k]).sum::<f64>() / 4.0;
    assert_relative_eq!(mean(0), 0.3, max_relative = 1e-9);
    assert_relative_eq!(mean(1), 0.35, max_relative = 1e-9);
    for (index, one) in drivers.iter().enumerate() {
        for other in &drivers[index + 1..] {
            let apart = (one.at[0] - other.at[0]).hypot(one.at[1] - other.at[1]);
            assert!(apart > inside.drivers.frame, "{apart}");
        }
    }
    assert!(cabinet.findings.is_empty(), "{:?}", cabinet.findings);
}

#[test]
fn a_second_driver_behind_the_first_has_its_own_room() {
    let mut wish = body(EnclosureShape::Rectangular);
    wish.sizes = [Some(0.4), Some(0.4), Some(0.5)];
    let mut inside = contents(30.0);
    inside.drivers.pair = Some(Pair::Behind(0.15));
    assert_eq!(inside.drivers.in_all(), 2);
    let cabinet = wish.build(&inside).expect("a box");
    let [driver] = of(&cabinet.parts, PartKind::Driver)[..] else { panic!("one place on the baffle") };
    // Two baskets and two magnets, the last as far in as both are deep.
    assert_eq!(driver.pieces.len(), 4);
    let back = driver.pieces.iter().map(|piece| piece.bounds()[0][2]).fold(f64::INFINITY, f64::min);
    assert_relative_eq!(back, 0.5 - 0.15 - inside.drivers.depth, max_relative = 1e-9);
    let alone = DriverSize { pair: None, ..inside.drivers };
    assert_relative_eq!(
        alone.volume(0.018) + alone.volume(0.0),
        cabinet.chambers[0].ledger.entries.iter().map(|entry| entry.volume).sum::<f64>(),
        max_relative = 1e-9
    );
}

#[test]
fn of_two_face_to_face_one_is_outside() {
    let mut wish = body(EnclosureShape::Rectangular);
    wish.sizes = [Some(0.4), Some(0.4), Some(0.5)];
    let mut inside = contents(30.0);
    let alone = wish.build(&inside).expect("a box");
    inside.drivers.pair = Some(Pair::Before(0.01));
    let cabinet = wish.build(&inside).expect("a box");
    // Inside there is but one.
    assert_eq!(cabinet.chambers[0].ledger, alone.chambers[0].ledger);
    assert_eq!((inside.drivers.in_all(), inside.drivers.inside()), (2, 1));
    // Outside it stands as far before the board as it is deep.
    let [low, high] = cabinet.standing(&wish, &inside);
    assert_relative_eq!(high[2] - low[2], 0.5 + 0.01 + inside.drivers.depth, max_relative = 1e-9);
}

#[test]
fn a_frame_stands_proud_of_its_board_unless_it_is_let_in() {
    let mut wish = body(EnclosureShape::Rectangular);
    wish.sizes = [Some(0.4), Some(0.4), Some(0.5)];
    let inside = contents(30.0);
    let deep = |wish: &oak_cabinetry::Body| {
        let [low, high] = wish.build(&inside).expect("a box").standing(wish, &inside);
        high[2] - low[2]
    };
    assert_relative_eq!(deep(&wish), 0.5 + inside.drivers.rim, max_relative = 1e-9);
    wish.recess = 0.004;
    assert_relative_eq!(deep(&wish), 0.5 + inside.drivers.rim - 0.004, max_relative = 1e-9);
    wish.recess = 0.01;
    assert_relative_eq!(deep(&wish), 0.5, max_relative = 1e-9);
}

#[test]
fn ports_of_each_chamber_stand_by_themselves() {
    let mut wish = body(EnclosureShape::Rectangular);
    wish.sizes = [Some(0.5), Some(0.5), Some(0.7)];
    let aside = PortBuild { face: Some(Face::Left), ..build(0) };
    (wish.ports, wish.front_ports) = (vec![aside], vec![aside, aside]);
    let mut inside = Contents { wanted: [Some(0.06), Some(0.06)], ..contents(60.0) };
    inside.ports = [vec![tube(0.08, 0.1)], vec![tube(0.06, 0.1), tube(0.06, 0.1)]];
    let cabinet = wish.build(&inside).expect("a box");
    for (chamber, count) in [(0, 1.0), (1, 2.0)] {
        let [low, high] = cabinet.chambers[chamber].interior.bounds();
        let ports =
            cabinet.parts.iter().filter(|part| part.kind == PartKind::Port && part.chamber == chamber);
        let middle = ports.map(|part| part.path[0][2]).sum::<f64>() / count;
        assert_relative_eq!(middle, f64::midpoint(low[2], high[2]), epsilon = 1e-9);
    }
}

#[test]
fn radiators_stand_opposite_each_other() {
    let mut wish = body(EnclosureShape::Rectangular);
    wish.sizes = [Some(0.4), Some(0.7), Some(0.4)];
    let mut inside = contents(60.0);
    let radiators = RadiatorSize { cone: 0.2, count: 4 };
    inside.radiators = Some(radiators);
    let cabinet = wish.build(&inside).expect("a box");
    let mounted = of(&cabinet.parts, PartKind::Radiator);
    let places = |face: Face| -> Vec<[f64; 3]> {
        let here = mounted.iter().filter(|part| part.face == Some(face));
        here.map(|part| cabinet.mouth(part, &inside).expect("a mouth").outer).collect()
    };
    let (left, right) = (places(Face::Left), places(Face::Right));
    assert_eq!([left.len(), right.len()], [2, 2]);
    for one in &left {
        // Across the box from every one there is another.
        assert!(
            right.iter().any(|other| {
                (one[0] + other[0]).abs() < 1e-9 && (1..3).all(|k| (one[k] - other[k]).abs() < 1e-9)
            }),
            "{left:?} {right:?}"
        );
    }
    // A frustum half as wide inside, a quarter of the frame deep.
    let (wide, deep) = (0.1_f64, radiators.frame() / 4.0);
    let frustum = PI * deep / 3.0 * (wide * wide + wide * wide / 2.0 + wide * wide / 4.0);
    assert_relative_eq!(radiators.volume(0.0), frustum, max_relative = 1e-12);
}

#[test]
fn ports_go_below_the_driver_or_where_that_is_too_low_beside_it() {
    let mut inside = contents(40.0);
    inside.ports[0].push(PortSize { count: 2, ..tube(0.08, 0.12) });
    let place = |width: f64, height: f64| {
        let mut wish = body(EnclosureShape::Rectangular);
        wish.sizes = [Some(width), Some(height), Some(0.4)];
        let cabinet = wish.build(&inside).expect("a box");
        assert!(cabinet.findings.iter().all(|finding| !finding.forbids()), "{:?}", cabinet.findings);
        let driver = of(&cabinet.parts, PartKind::Driver)[0].at;
        (driver, of(&cabinet.parts, PartKind::Port).iter().map(|port| port.at).collect::<Vec<_>>())
    };
    let (driver, ports) = place(0.4, 0.6);
    assert!(ports.iter().all(|port| port[1] < driver[1] - 0.15), "{driver:?} {ports:?}");
    assert_relative_eq!(ports[0][0] + ports[1][0], 0.4, max_relative = 1e-9);
    let (driver, ports) = place(0.7, 0.32);
    assert!(ports.iter().all(|port| port[0] < driver[0] - 0.15), "{driver:?} {ports:?}");
    assert_relative_eq!(ports[0][1], driver[1], max_relative = 1e-9);
}

#[test]
fn a_slot_turns_up_behind_and_back_over_itself() {
    let mut wish = body(EnclosureShape::Rectangular);
    wish.sizes = [Some(0.4), Some(0.6), Some(0.4)];
    wish.ports.push(PortBuild { wall: 0.018, ..build(2) });
    let mut inside = contents(60.0);
    inside.ports[0].push(slot(0.364, 0.04, 0.6, 3));
    let cabinet = wish.build(&inside).expect("a box");
    let [port] = of(&cabinet.parts, PartKind::Port)[..] else { panic!("one") };
    let legs: Vec<[f64; 3]> =
        port.path.windows(2).map(|leg| [0, 1, 2].map(|k| leg[1][k] - leg[0][k])).collect();
    let [back, up, forth] = legs[..] else { panic!("{legs:?}") };
    assert!(back[2] < 0.0 && up[1] > 0.0 && forth[2] > 0.0, "{legs:?}");
    // Back over the first leg with its board between.
    assert_relative_eq!(up[1], 0.04 + 0.018, max_relative = 1e-9);
    let length: f64 = legs.iter().flatten().map(|step| step.abs()).sum();
    assert_relative_eq!(length, 0.6, max_relative = 1e-9);
    // As its middle line is long: area times length, within what square corners add.
    let wood: f64 = port
        .pieces
        .iter()
        .map(|piece| {
            let [low, high] = piece.bounds();
            (0..3).map(|k| high[k] - low[k]).product::<f64>()
        })
        .sum();
    assert!(wood > 0.364 * 0.04 * (0.6 - 0.018) && wood < 2.0 * 0.364 * 0.04 * 0.6, "{wood}");
}

#[test]
fn a_tube_turned_looks_the_way_it_ends() {
    let mut wish = body(EnclosureShape::Rectangular);
    wish.sizes = [Some(0.4), Some(0.7), Some(0.35)];
    wish.ports.push(PortBuild { across: Some(0.2), up: Some(0.1), ..build(1) });
    let mut inside = contents(50.0);
    inside.ports[0].push(tube(0.08, 0.45));
    let cabinet = wish.build(&inside).expect("a box");
    let [port] = of(&cabinet.parts, PartKind::Port)[..] else { panic!("one") };
    let mouth = cabinet.mouth(port, &inside).expect("a mouth");
    assert_relative_eq!(mouth.normal[2], 1.0, max_relative = 1e-12);
    assert!(
        mouth.direction[1] > 0.0 && mouth.direction[2].abs() < 1e-9,
        "up, where there is most room: {:?}",
        mouth.direction
    );
    let end = port.path.last().expect("an end");
    assert!((0..3).all(|k| (mouth.inner[k] - end[k]).abs() < 1e-12));
    assert_relative_eq!(mouth.area(), PI / 4.0 * 0.08 * 0.08, max_relative = 1e-12);
}

#[test]
fn a_brace_is_a_frame_around_its_window() {
    let mut wish = body(EnclosureShape::Rectangular);
    wish.sizes = [Some(0.4), Some(0.6), Some(0.35)];
    wish.braces.push(Brace { axis: Axis::Y, at: Some(0.1), thickness: 0.018, open: 0.64 });
    let cabinet = wish.build(&contents(50.0)).expect("a box");
    let [brace] = of(&cabinet.parts, PartKind::Brace)[..] else { panic!("one") };
    let rails: f64 = brace
        .pieces
        .iter()
        .map(|piece| {
            let Piece::Block { low, high } = piece else { panic!("rails are blocks") };
            (0..3).map(|k| high[k] - low[k]).product::<f64>()
        })
        .sum();
    assert_relative_eq!(rails, wish.braces[0].volume(&cabinet.interior), max_relative = 1e-9);
    // 0.8 of either side is open.
    let window = 0.364 * 0.8;
    let free = brace.pieces.iter().all(|piece| {
        let [low, high] = piece.bounds();
        high[0] <= -window / 2.0 + 1e-9 || low[0] >= window / 2.0 - 1e-9 || high[2] - low[2] < 0.314 * 0.11
    });
    assert!(free, "{:?}", brace.pieces);
}

/// A drawer of parts over sizes that fit most of them.
fn any_wish() -> impl Strategy<Value = (Body, u32, u32, bool)> {
    let sizes = (0.35..0.9, 0.35..0.9, 0.35..0.9);
    (sizes, 1_u32..=4, 0_u32..=3, any::<bool>()).prop_map(
        |((width, height, depth), drivers, ports, slots)| {
            let mut wish = body(EnclosureShape::Rectangular);
            wish.sizes = [Some(width), Some(height), Some(depth)];
            (wish, drivers, ports, slots)
        },
    )
}

proptest! {
    #![proptest_config(ProptestConfig::with_cases(64))]

    #[test]
    fn the_ledger_counts_just_what_is_mounted((wish, drivers, ports, slots) in any_wish()) {
        let mut inside = contents(20.0);
        inside.drivers.count = drivers;
        if ports > 0 {
            let one = if slots { slot(0.2, 0.03, 0.15, 0) } else { tube(0.07, 0.15) };
            inside.ports[0].push(PortSize { count: ports, ..one });
        }
        let cabinet = wish.build(&inside).expect("a box");
        prop_assert_eq!(of(&cabinet.parts, PartKind::Driver).len(), drivers as usize);
        prop_assert_eq!(of(&cabinet.parts, PartKind::Port).len(), ports as usize);
        let ledger = &cabinet.chambers[0].ledger;
        let taken: f64 = ledger.entries.iter().map(|entry| entry.volume).sum();
        prop_assert!((ledger.gross - taken - ledger.net()).abs() < 1e-12);
        let port = inside.ports[0].first();
        let each = port.map_or(0.0, |port| f64::from(port.count) * port.volume(&build(0), 0.15 - 0.018));
        let expected = f64::from(drivers) * inside.drivers.volume(0.018) + each;
        prop_assert!((taken - expected).abs() < 1e-9, "{taken} {expected} {:?}", ledger.entries);
    }
}
