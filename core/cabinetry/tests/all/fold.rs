//! Ways folded into boxes: as long, as wide and as large as they were asked for.

use crate::support::{body, contents, panel};
use approx::assert_relative_eq;
use oak_cabinetry::drawing::{Line, View, view};
use oak_cabinetry::geometry::{Axis, EnclosureShape, Face};
use oak_cabinetry::{BuildError, Cabinet, Contents, Corner, DuctPath, Finding, PartKind, Seat};
use proptest::prelude::*;

/// A way of so many metres from one area to another, m2.
fn path(length: f64, start: f64, end: f64, seat: Seat) -> DuctPath {
    let areas = (0..=64)
        .map(|step| {
            let part = f64::from(step) / 64.0;
            [length * part, start + (end - start) * part]
        })
        .collect();
    DuctPath { areas, seat, apart: Vec::new() }
}

fn only(path: DuctPath) -> Contents {
    Contents { wanted: [Some(path.volume()), None], path: Some(path), ..contents(1.0) }
}

fn length(cabinet: &Cabinet) -> f64 {
    cabinet.fold.as_ref().expect("a fold").length()
}

#[test]
fn an_even_pipe_folded_once_is_twice_its_run_and_a_board() {
    // By hand: two runs that each stop a gap before the wall, two corners of a gap along their middle, and the board's own thickness.
    let mut wish = body(EnclosureShape::Rectangular);
    wish.fold.folds = Some(1);
    let contents = only(path(2.5, 0.05, 0.05, Seat::Along(0.5)));
    let cabinet = wish.build(&contents).expect("a box");
    let laid = cabinet.fold.as_ref().expect("a fold");
    assert_relative_eq!(2.0 * laid.plan.run + 0.018, 2.5, max_relative = 1e-4);
    // The driver stands in the way, which is that much wider all along.
    let driver = contents.drivers.volume(0.018);
    for stretch in &laid.stretches {
        assert_relative_eq!(stretch.areas[0], (0.125 + driver) / 2.5, max_relative = 1e-3);
        assert_relative_eq!(stretch.areas[1], (0.125 + driver) / 2.5, max_relative = 1e-3);
    }
    assert_relative_eq!(cabinet.chambers[0].ledger.net(), 0.125, max_relative = 1e-3);
}

#[test]
fn a_closing_board_that_slants_is_as_thick_as_the_others() {
    // A way that grows in its last channel leaves a wedge of dead space behind a board.
    let asked = path(2.4, 0.01, 0.05, Seat::Along(0.0));
    let mut wish = body(EnclosureShape::Rectangular);
    wish.fold.folds = Some(2);
    let cabinet = wish.build(&only(asked)).expect("it is folded");
    let closing = cabinet.fold.as_ref().and_then(|laid| laid.closing.clone()).expect("a closing board");
    let [a, b, c, d] = closing.corners;
    let long = (b[0] - a[0]).hypot(b[1] - a[1]);
    assert!((b[1] - a[1]).abs() > 0.02, "it slants: {:?}", closing.corners);
    let square =
        |point: [f64; 2]| ((b[0] - a[0]) * (point[1] - a[1]) - (b[1] - a[1]) * (point[0] - a[0])) / long;
    for corner in [c, d] {
        assert_relative_eq!(square(corner), 0.018, epsilon = 2e-4);
    }
}

#[test]
fn corners_are_as_long_as_their_middle_lines() {
    // Of equal widths: in and out, half a diagonal twice, a quarter of a circle.
    assert_relative_eq!(Corner::Square.length(0.1, 0.1), 0.1, max_relative = 1e-12);
    let quarter = std::f64::consts::PI / 4.0 * 0.1;
    assert_relative_eq!(Corner::Curved.length(0.1, 0.1), quarter, max_relative = 2e-3);
    let mitred = Corner::Mitred.length(0.1, 0.1);
    assert!((0.0707..quarter).contains(&mitred), "{mitred}");
    // What is left of a mitred corner is as wide on its diagonal as the passage.
    let [outer, one, other] = Corner::Mitred.outline(0.1, 0.1)[..] else { panic!("a triangle") };
    assert!(outer.iter().all(|at| (at - 0.1).abs() < 1e-12));
    let middle = [0, 1].map(|k| f64::midpoint(one[k], other[k]));
    assert_relative_eq!(middle[0].hypot(middle[1]), 0.1, max_relative = 1e-9);
}

#[test]
fn folds_are_found_for_the_proportions_asked_for() {
    // An even way comes out right with any number of folds: only the proportions tell them apart.
    let contents = only(path(2.6, 0.1, 0.1, Seat::Along(0.3)));
    let mut wish = body(EnclosureShape::Rectangular);
    let found = wish.build(&contents).expect("a box");
    let folds = found.fold.as_ref().expect("a fold").panels.len();
    assert!(folds >= 1, "{folds} folds of 2.6 m");
    let far = |cabinet: &Cabinet| {
        let [width, height, depth] = cabinet.sizes;
        (height / width / 1.26).ln().abs().max((depth / width / 0.79).ln().abs())
    };
    for other in [folds - 1, folds + 1] {
        wish.fold.folds = Some(u32::try_from(other).expect("few"));
        let cabinet = wish.build(&contents).expect("a box");
        assert_relative_eq!(length(&cabinet), 2.6, max_relative = 1e-4);
        assert!(far(&cabinet) > far(&found), "{other} folds come nearer than {folds}");
    }
}

#[test]
fn a_board_moved_by_hand_gives_to_one_channel_what_it_takes_from_the_other() {
    let contents = only(path(3.0, 0.06, 0.06, Seat::Along(0.5)));
    let mut wish = body(EnclosureShape::Rectangular);
    wish.fold.folds = Some(2);
    let before = wish.build(&contents).expect("a box");
    let laid = before.fold.as_ref().expect("a fold");
    let middle = laid.panels[0].middle;
    wish.sizes = before.sizes.map(Some);
    wish.fold.panels = vec![Some(middle + 0.02)];
    let after = wish.build(&contents).expect("a box");
    let moved = after.fold.as_ref().expect("a fold");
    assert_relative_eq!(moved.panels[0].middle, middle + 0.02, max_relative = 1e-9);
    assert_relative_eq!(moved.panels[1].middle, laid.panels[1].middle, max_relative = 1e-9);
    let height = |laid: &oak_cabinetry::Laid, channel: usize| {
        let run = laid.stretches.iter().find(|stretch| !stretch.turn && stretch.channel == channel);
        run.expect("a run").areas[0] / laid.plan.width
    };
    assert_relative_eq!(height(moved, 0), height(laid, 0) + 0.02, max_relative = 1e-6);
    assert_relative_eq!(height(moved, 1), height(laid, 1) - 0.02, max_relative = 1e-6);
    assert_relative_eq!(height(moved, 2), height(laid, 2), max_relative = 1e-6);
}

#[test]
fn a_chamber_stands_where_the_way_begins_and_drivers_look_into_it() {
    let mut wish = body(EnclosureShape::Rectangular);
    for (stack, axis) in [(Axis::Y, 1), (Axis::Z, 2)] {
        wish.fold.stack = stack;
        let horn = path(2.4, 0.02, 0.15, Seat::Throat);
        let contents =
            Contents { wanted: [Some(0.03), Some(horn.volume())], path: Some(horn), ..contents(1.0) };
        let cabinet = wish.build(&contents).expect("a box");
        let [chamber, fold] = cabinet.chambers.as_slice() else { panic!("two chambers") };
        assert!(chamber.interior.bounds()[0][axis] > fold.interior.bounds()[1][axis]);
        for (ledger, wanted) in [(&chamber.ledger, 0.03), (&fold.ledger, contents.wanted[1].expect("a way"))]
        {
            assert_relative_eq!(ledger.net(), wanted, max_relative = 0.01);
        }
        let driver = cabinet.parts.iter().find(|part| part.kind == PartKind::Driver).expect("a driver");
        let mouth = cabinet.mouth(driver, &contents).expect("a cone");
        assert!(mouth.normal[axis] < -0.99, "its front looks into the way: {:?}", mouth.normal);
        assert_eq!(driver.chamber, 0, "its magnet is in the chamber");
    }
}

#[test]
fn drivers_sit_where_the_way_has_them() {
    let mut wish = body(EnclosureShape::Rectangular);
    wish.sizes[0] = Some(0.35);
    wish.fold.folds = Some(2);
    let line = only(path(2.6, 0.07, 0.05, Seat::Along(0.5)));
    // The first channel lies on top, so there is a board for the driver.
    let cabinet = wish.build(&line).expect("a box");
    let driver = cabinet.parts.iter().find(|part| part.kind == PartKind::Driver).expect("a driver");
    assert_eq!(driver.face, Some(Face::Top));
    let run = driver.at[1] - 0.018;
    let laid = cabinet.fold.as_ref().expect("a fold");
    let from_back = laid.stretches[0].line[0][0];
    assert_relative_eq!((run - from_back).abs(), 0.5, max_relative = 0.02);
    // In the second it can only be seen from a side.
    let contents = only(path(2.6, 0.07, 0.05, Seat::Along(1.3)));
    let cabinet = wish.build(&contents).expect("a box");
    let driver = cabinet.parts.iter().find(|part| part.kind == PartKind::Driver).expect("a driver");
    assert_eq!(driver.face, Some(Face::Left));
    // A tapped horn's sits between two channels, its magnet in the higher one: of a widening horn the second, which lies below.
    for (areas, looks) in [([0.05, 0.2], 1.0), ([0.2, 0.05], -1.0)] {
        let contents = only(path(3.0, areas[0], areas[1], Seat::Between([0.6, 1.4])));
        let cabinet = wish.build(&contents).expect("a box");
        let driver = cabinet.parts.iter().find(|part| part.kind == PartKind::Driver).expect("a driver");
        assert!(driver.face.is_none());
        assert!(looks * cabinet.mouth(driver, &contents).expect("a cone").normal[1] > 0.99);
    }
    // Over the free end of that board it cannot hang, and without a fold there is none.
    let contents = only(path(3.0, 0.05, 0.2, Seat::Between([0.85, 1.1])));
    let cabinet = wish.build(&contents).expect("a box");
    assert!(cabinet.findings.iter().any(|finding| matches!(finding, Finding::PanelTooSmall { .. })));
    wish.fold.folds = Some(0);
    let cabinet = wish.build(&contents).expect("a box");
    assert!(cabinet.findings.contains(&Finding::NoSeat));
}

/// A tapped horn's driver sits in one fold board; no other may stand in its magnet.
#[test]
fn a_magnet_may_not_pierce_the_next_fold_board() {
    let mut wish = body(EnclosureShape::Rectangular);
    wish.sizes[0] = Some(0.35);
    wish.fold.folds = Some(2);
    let mut contents = only(path(3.0, 0.08, 0.08, Seat::Between([1.5, 2.5])));
    let touches = |contents: &Contents| {
        let cabinet = wish.build(contents).expect("a box");
        let board = |finding: &Finding| matches!(finding, Finding::Touches { part, other } if part == "driver" && other.contains("fold board"));
        cabinet.findings.iter().any(board)
    };
    contents.drivers.depth = 0.1;
    assert!(!touches(&contents));
    contents.drivers.depth = 0.3;
    assert!(touches(&contents));
}

#[test]
fn only_a_plain_box_is_folded_and_its_boards_need_room() {
    let contents = only(path(2.5, 0.05, 0.05, Seat::Along(0.5)));
    assert_eq!(body(EnclosureShape::Prism { sides: 6 }).build(&contents), Err(BuildError::NotFoldable));
    let mut wish = body(EnclosureShape::Rectangular);
    wish.sizes = [Some(0.3), Some(0.2), Some(0.5)];
    wish.fold.folds = Some(8);
    assert_eq!(wish.build(&contents), Err(BuildError::NoFold));
}

#[test]
fn the_section_shows_boards_mouth_and_the_middle_of_the_way() {
    let mut wish = body(EnclosureShape::Rectangular);
    wish.fold.folds = Some(2);
    wish.fold.corner = Corner::Mitred;
    let contents = only(path(2.6, 0.07, 0.05, Seat::Along(0.5)));
    let cabinet = wish.build(&contents).expect("a box");
    let drawn = view(View::Side, &wish, &contents, &cabinet);
    let of = |part: &str| drawn.strokes.iter().filter(|stroke| stroke.part == part).count();
    assert_eq!([of("fold board 1"), of("fold board 2"), of("mouth"), of("way")], [3, 3, 1, 1]);
    let line = drawn.strokes.iter().find(|stroke| stroke.part == "way").expect("a line");
    assert_eq!((line.line, line.closed), (Line::Middle, false));
    let drawn: f64 =
        line.points.windows(2).map(|pair| (pair[1][0] - pair[0][0]).hypot(pair[1][1] - pair[0][1])).sum();
    assert_relative_eq!(drawn, length(&cabinet), max_relative = 1e-6);
    // In front the mouth is as wide as the room.
    let front = view(View::Front, &wish, &contents, &cabinet);
    let mouth = front.strokes.iter().find(|stroke| stroke.part == "mouth").expect("a mouth");
    let width = mouth.points.iter().map(|point| point[0]).fold(0.0, f64::max) * 2.0;
    assert_relative_eq!(width, cabinet.sizes[0] - 2.0 * panel().thickness, max_relative = 1e-9);
}

proptest! {
    #![proptest_config(ProptestConfig { cases: 48, failure_persistence: None, ..ProptestConfig::default() })]

    /// Whatever is folded is as long as asked and holds what the ledger says; together with its boards it fills its room.
    #[test]
    fn what_is_laid_is_what_was_asked_for(
        long in 1.5..6.0_f64,
        start in 0.02..0.08_f64,
        widens in 0.6..3.0_f64,
        folds in 1..5_u32,
        upright in any::<bool>(),
        corner in prop_oneof![Just(Corner::Square), Just(Corner::Mitred), Just(Corner::Curved)],
    ) {
        let mut wish = body(EnclosureShape::Rectangular);
        wish.fold.folds = Some(folds);
        wish.fold.corner = corner;
        wish.fold.stack = if upright { Axis::Z } else { Axis::Y };
        let asked = path(long, start, start * widens, Seat::Along(0.2 * long));
        let contents = only(asked.clone());
        let Ok(cabinet) = wish.build(&contents) else { return Ok(()) };
        let laid = cabinet.fold.as_ref().expect("a fold");
        prop_assert!((laid.length() / long - 1.0).abs() < 1e-3, "{} for {long}", laid.length());
        let block = laid.plan.width * laid.plan.run * laid.plan.stack;
        prop_assert!(((laid.volume() + laid.taken()) / block - 1.0).abs() < 0.02);
        prop_assert!((cabinet.chambers[0].ledger.net() / asked.volume() - 1.0).abs() < 0.02);
        // The heights of all channels together are what the room gives; each lies near its own, where channels are longer than wide.
        let slender = laid.panels.iter().all(|panel| panel.gap < 0.3 * laid.plan.run);
        for step in (1..20).filter(|_| slender) {
            let at = f64::from(step) / 20.0;
            let (built, wanted) = (laid.area(at * laid.length()), asked.area(at * long));
            prop_assert!((built / wanted).ln().abs() < 0.3, "{built} for {wanted} at {at}");
        }
        for piece in cabinet.parts.iter().filter(|part| part.kind == PartKind::Fold).flat_map(|part| &part.pieces) {
            let ([low, high], [floor, ceiling]) = (piece.bounds(), cabinet.interior.bounds());
            for k in 0..3 {
                prop_assert!(low[k] > floor[k] - 1e-6 && high[k] < ceiling[k] + 1e-6);
            }
        }
    }

    /// Only some numbers of folds are tried; trying all finds none that suits better.
    #[test]
    fn no_other_number_of_folds_suits_better(
        long in 1.0..4.5_f64,
        start in 0.015..0.075_f64,
        widens in 0.5..4.5_f64,
        seat in 0.0..0.2_f64,
    ) {
        let asked = path(long, start, start * widens, Seat::Along(seat * long));
        let contents = only(asked.clone());
        let wish = body(EnclosureShape::Rectangular);
        // What does not fit comes last; else what the way misses counts four times what the sizes do.
        let off = |cabinet: &Cabinet| {
            let laid = cabinet.fold.as_ref().expect("a fold");
            let missed = (laid.length() / long).ln().abs() + laid.worst(&asked)[0].ln_1p().abs();
            let spread = [0, 1, 2].map(|k| (cabinet.sizes[k] / wish.proportions[k]).ln());
            let mean = spread.iter().sum::<f64>() / 3.0;
            let forbidden = cabinet.findings.iter().any(Finding::forbids);
            f64::from(u8::from(forbidden)) * 100.0
                + 4.0 * missed
                + spread.map(|size| (size - mean).abs()).iter().sum::<f64>()
        };
        let Ok(found) = wish.build(&contents) else { return Ok(()) };
        for folds in 0..=6 {
            let mut other = wish.clone();
            other.fold.folds = Some(folds);
            let Ok(cabinet) = other.build(&contents) else { continue };
            prop_assert!(off(&cabinet) > off(&found) - 1e-6, "{folds} folds of {long} m");
        }
    }
}
