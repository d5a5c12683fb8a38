//! Kits of boards, typed in as they are labelled. The sizes are invented.

use approx::assert_relative_eq;
use oak_design::exchange::{KitReading, RawKit};
use proptest::prelude::*;

fn kit(text: &str) -> KitReading {
    RawKit { text: text.to_owned() }.read().expect("short enough")
}

fn outside(text: &str) -> [f64; 3] {
    let found = kit(text);
    found.outside.unwrap_or_else(|| panic!("{found:?}"))
}

fn same(found: [f64; 3], wanted: [f64; 3]) {
    for (found, wanted) in found.into_iter().zip(wanted) {
        assert_relative_eq!(found, wanted, max_relative = 1e-6);
    }
}

#[test]
fn one_box_is_found_however_its_boards_meet() {
    let wanted = [0.4, 0.6, 0.35];
    for text in [
        // The front over everything, the top between the sides.
        "Front 400 x 600 x 18\nBack 400 x 600 x 18\nSides (2) 314 x 600 x 18\nTop and bottom 364 x 314 x 18",
        // The top on the sides.
        "Baffle: 400 × 600 × 18 mm\n2x side 314 x 564 x 18\nLid 400 x 314 x 18",
        // Sides over everything, in another order of sizes.
        "top 36.4 x 35 x 1.8 cm\nleft and right 60 x 35 x 1.8 cm\nfront 36.4 x 56.4 x 1.8 cm",
        // Top and bottom over everything.
        "front = 364 x 564 x 18\nside 350 x 564 x 18\nbottom 400 x 350 x 18",
    ] {
        same(outside(text), wanted);
        let room = kit(text).room.expect("room");
        assert_relative_eq!(room, 0.364 * 0.564 * 0.314, max_relative = 1e-6);
    }
}

#[test]
fn inches_and_fractions_other_boards_and_inner_ones_are_read() {
    let found = kit(
        "Front 15 3/4 x 23 5/8 x 3/4 in\nSide (2) 12 1/4 x 23 5/8 x 3/4 in\nTop 14 1/4 x 12 1/4 x 3/4 in\nBrace 14 1/4 x 4 x 3/4 in\nBox of screws",
    );
    same(found.outside.expect("goes together"), [15.75, 23.625, 13.75].map(|inches| inches * 0.0254));
    assert_eq!(found.left, ["Box of screws"]);
    let body = found.body.expect("a box");
    assert_eq!(body.items.len(), 1);
    let thick = kit("Front 400 x 600 x 30\nSides 320 x 600 x 18\nTop 364 x 320 x 18").body.expect("a box");
    let faces: Vec<_> = thick.panels.iter().map(|panel| panel.thickness.clone()).collect();
    assert_eq!(faces.len(), 4, "sides, top and bottom are thinner: {faces:?}");
}

#[test]
fn a_label_is_kept_as_it_is_written() {
    let label = |line: &str| kit(line).boards.first().map(|board| (board.label.clone(), board.count));
    assert_eq!(label("2× Side 314×564×18"), Some(("2× Side".to_owned(), 2)));
    assert_eq!(label("Box front: 400 × 600 × 18 mm"), Some(("Box front".to_owned(), 1)));
    assert_eq!(label("Côté (side) 3 x 4 x 18"), Some(("Côté (side)".to_owned(), 1)));
    assert_eq!(label("Front ××"), None);
}

#[test]
fn what_makes_no_box_is_told() {
    assert!(kit("Front 400 x 600 x 18").words.contains("needs a front"));
    assert!(
        kit("Front 400 x 600 x 18\nSide 300 x 500 x 18\nTop 250 x 310 x 18")
            .words
            .contains("do not go together")
    );
    assert!(kit("Front 30 x 30 x 18\nSide 30 x 30 x 18\nTop 30 x 30 x 18").outside.is_none());
    assert_eq!(kit("hello").left, ["hello"]);
    let long = RawKit { text: "x".repeat(5001) };
    assert_eq!(long.read().expect_err("too long").field, "text");
}

proptest! {
    /// Half-typed and garbled lines are read or left; none ends the reading.
    #[test]
    fn whatever_is_typed_is_read_or_left(line in "[a-zé ×x*:=()\"0-9/.,-]{0,60}", kind in "front|side|lid|brace|") {
        let found = kit(&format!("{kind}{line}\nFront 400 x 600 x 18\nSide 314 x 600 x 18\nTop 364 x 314 x 18"));
        prop_assert!(found.boards.len() + found.left.len() <= 4);
        prop_assert!(found.boards.len() >= 3);
    }

    /// Sizes that fit in more than one way are those of the usual one: upright, the front over everything.
    #[test]
    fn sizes_come_back_whatever_the_box(width in 200u32..900, height in 200u32..900, depth in 200u32..900, t in 9u32..36) {
        let (w, d) = (width - 2 * t, depth - 2 * t);
        let text = format!("Front {width} x {height} x {t}\nSide {d} x {height} x {t}\nTop {w} x {d} x {t}");
        let found = outside(&text);
        let [a, b, c] = [width, height, depth].map(|size| f64::from(size) * 1e-3);
        for (found, wanted) in found.into_iter().zip([a, b, c]) {
            prop_assert!((found - wanted).abs() < 1e-6, "{found} for {wanted}");
        }
    }
}
