//! Volumes of shapes against independent integration.

use crate::support::{any_shape, enclosed};
use approx::assert_relative_eq;
use oak_cabinetry::geometry::{Axis, EnclosureShape, Face, Frame, Measured};
use proptest::prelude::*;

const SIZES: [f64; 3] = [0.5, 0.6, 0.4];

/// A fixed sequence without pattern in three dimensions: the fractions of multiples of powers of the plastic number.
fn scattered(index: u32) -> [f64; 3] {
    let plastic = 1.220_744_084_605_76_f64;
    [1, 2, 3].map(|power| (0.5 + f64::from(index) / plastic.powi(power)).fract())
}

#[test]
fn a_box_of_18_mm_boards_is_as_wide_inside_as_a_ruler_says() {
    let [outer, interior] =
        EnclosureShape::Rectangular.build(SIZES, Measured::Outside, |_| 0.018).expect("a box");
    assert_relative_eq!(outer.volume(), 0.12, max_relative = 1e-12);
    assert_relative_eq!(interior.volume(), 0.464 * 0.564 * 0.364, max_relative = 1e-12);
    let [outer, interior] =
        EnclosureShape::Rectangular.build(SIZES, Measured::Inside, |_| 0.018).expect("a box");
    assert_relative_eq!(interior.volume(), 0.12, max_relative = 1e-12);
    assert_relative_eq!(outer.volume(), 0.536 * 0.636 * 0.436, max_relative = 1e-12);
}

#[test]
fn a_wedge_has_the_area_of_its_trapezoid_times_its_width() {
    let wedge = EnclosureShape::Wedge { top_depth: Some(0.2), back_height: None, lean: 0.0 };
    let solid = wedge.solid(SIZES).expect("a wedge");
    assert_relative_eq!(solid.volume(), 0.5 * 0.6 * (0.4 + 0.2) / 2.0, max_relative = 1e-12);
}

#[test]
fn a_pipe_has_the_area_of_its_circle_inside_too() {
    for lying in [false, true] {
        let [outer, interior] =
            EnclosureShape::Cylinder { lying }.build(SIZES, Measured::Outside, |_| 0.01).expect("a pipe");
        let (radius, length) = (0.25_f64, if lying { 0.4 } else { 0.6 });
        let full = std::f64::consts::PI * length;
        assert_relative_eq!(outer.volume(), full * radius * radius, max_relative = 1e-12);
        let inside = std::f64::consts::PI * (length - 0.02) * 0.24 * 0.24;
        assert_relative_eq!(interior.volume(), inside, max_relative = 1e-4);
    }
}

#[test]
fn a_pyramid_without_its_top_follows_the_handbook() {
    // V = h/3 (A1 + A2 + sqrt(A1 A2)) holds where both ends are alike: Bronstein, section 3.3.
    let solid = EnclosureShape::Pyramid { top_width: 0.25, top_depth: 0.2 }.solid(SIZES).expect("a pyramid");
    let (below, above): (f64, f64) = (0.2, 0.05);
    let expected = 0.6 / 3.0 * (below + above + (below * above).sqrt());
    assert_relative_eq!(solid.volume(), expected, max_relative = 1e-12);
}

#[test]
fn corners_rounded_within_the_board_leave_the_room_square() {
    let shape = EnclosureShape::Rounded { radius: 0.015 };
    let [outer, interior] = shape.build(SIZES, Measured::Outside, |_| 0.018).expect("a box");
    assert_relative_eq!(interior.volume(), 0.464 * 0.564 * 0.364, max_relative = 1e-12);
    let lost = 0.6 * (4.0 - std::f64::consts::PI) * 0.015 * 0.015;
    assert_relative_eq!(outer.volume(), 0.12 - lost, max_relative = 2e-5);
}

#[test]
fn boards_thicker_than_the_box_leave_no_room() {
    assert!(EnclosureShape::Rectangular.build(SIZES, Measured::Outside, |_| 0.21).is_err());
}

#[test]
fn places_on_a_slanting_board_are_measured_along_it() {
    let wedge = EnclosureShape::Wedge { top_depth: Some(0.1), back_height: None, lean: 0.0 };
    let solid = wedge.solid(SIZES).expect("a wedge");
    let frame = Frame::of(&solid, Face::Back).expect("flat");
    assert!(frame.axis().is_none());
    assert_relative_eq!(frame.size[1], 0.6_f64.hypot(0.3), max_relative = 1e-12);
    let top = frame.point([0.0, frame.size[1]], 0.0);
    for (found, expected) in top.iter().zip([-0.25, 0.6, 0.3]) {
        assert_relative_eq!(*found, expected, epsilon = 1e-12);
    }
    let front = Frame::of(&solid, Face::Front).expect("flat");
    assert_eq!(front.axis(), Some(Axis::Z));
}

proptest! {
    #[test]
    fn volumes_agree_with_the_surface_and_with_counted_points(shape in any_shape()) {
        let [outer, interior] = shape.build(SIZES, Measured::Outside, |_| 0.012).expect("a shape");
        for solid in [&outer, &interior] {
            let volume = solid.volume();
            prop_assert!((enclosed(solid) / volume - 1.0).abs() < 1e-9, "{} {volume}", enclosed(solid));
            let [low, high] = solid.bounds();
            let size: Vec<_> = (0..3).map(|k| high[k] - low[k]).collect();
            const POINTS: u32 = 20_000;
            let inside = (0..POINTS).map(scattered).filter(|part| {
                solid.holds([0, 1, 2].map(|k| low[k] + part[k] * size[k]))
            });
            let counted = f64::from(inside.count() as u32) / f64::from(POINTS) * size.iter().product::<f64>();
            prop_assert!((counted / volume - 1.0).abs() < 0.02, "{counted} {volume}");
        }
        // Every board is everywhere as thick as it says: a ball of that radius around any corner of the room stays within the outside.
        for corner in interior.facets().iter().flat_map(|facet| &facet.corners) {
            for direction in (1..64).map(|k| scattered(k).map(|part| part - 0.5)) {
                let length = direction.iter().map(|part| part * part).sum::<f64>().sqrt();
                let at = |far: f64| [0, 1, 2].map(|k| corner[k] + far / length * direction[k]);
                prop_assert!(outer.holds(at(0.012 * (1.0 - 1e-6))), "{corner:?} {direction:?}");
            }
        }
    }

    #[test]
    fn cuts_along_an_axis_add_up_to_the_whole(shape in any_shape(), part in 0.1..0.9) {
        let solid = shape.solid(SIZES).expect("a shape");
        for axis in Axis::ALL {
            let [low, high] = solid.bounds().map(|point| point[axis.index()]);
            const CUTS: usize = 400;
            let step = (high - low) / CUTS as f64;
            let sum: f64 = (0..CUTS).map(|cut| solid.area_at(axis, low + (cut as f64 + 0.5) * step) * step).sum();
            prop_assert!((sum / solid.volume() - 1.0).abs() < 5e-3, "{axis:?}: {sum} {}", solid.volume());
            let at = low + part * (high - low);
            if let (Some(below), Some(above)) = (solid.below(axis, at), solid.above(axis, at)) {
                let both = below.volume() + above.volume();
                prop_assert!((both / solid.volume() - 1.0).abs() < 1e-9);
            }
        }
    }
}
