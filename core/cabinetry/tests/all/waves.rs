//! Standing waves and plates against closed forms and handbooks.

use crate::support::{body, contents, slot};
use approx::assert_relative_eq;
use oak_acoustics::Stop;
use oak_cabinetry::geometry::{Axis, EnclosureShape, Measured};
use oak_cabinetry::modes::{Opening, Spread, coinciding, plain, standing_waves};
use oak_cabinetry::panel::{Location, MATERIALS, Material, Plate, Wall, propose, walls, weakest_of};
use oak_cabinetry::{Body, Brace, Contents};

const SPEED: f64 = 343.2;

fn waves(shape: EnclosureShape, sizes: [f64; 3], highest: f64) -> Vec<oak_cabinetry::modes::Mode> {
    let [_, interior] = shape.build(sizes, Measured::Inside, |_| 0.018).expect("a room");
    standing_waves(&interior, plain(&shape), SPEED, highest)
}

#[test]
fn walls_that_far_apart_ring_as_builders_know() {
    // Common practice: 0.8 m between panels 214 Hz and twice that; 0.924 m 185.6 Hz; 120 Hz at 1.43 m.
    let modes = waves(EnclosureShape::Rectangular, [0.2, 0.8, 0.2], 500.0);
    assert_eq!(modes.len(), 2);
    for (mode, known) in modes.iter().zip([214.0, 428.0]) {
        assert_relative_eq!(mode.frequency, known, max_relative = 3e-3);
    }
    let tall = waves(EnclosureShape::Rectangular, [0.22, 0.924, 0.26], 200.0);
    assert_relative_eq!(tall[0].frequency, 185.6, max_relative = 2e-3);
    let bass = waves(EnclosureShape::Rectangular, [0.3, 1.43, 0.3], 121.0);
    assert_relative_eq!(bass[0].frequency, 120.0, max_relative = 1e-3);
}

#[test]
fn a_cube_rings_three_times_at_once() {
    let modes = waves(EnclosureShape::Rectangular, [0.4; 3], 500.0);
    assert_eq!(coinciding(&modes, 0.05).len(), 3);
    assert!(coinciding(&waves(EnclosureShape::Rectangular, [0.4, 0.5, 0.3], 600.0), 0.05).is_empty());
}

#[test]
fn along_a_pipe_slices_and_cosines_agree() {
    // A pipe's waves along its length are those of a box of that length; across it, J1' gives 1.8412 c/(pi d)
    // (Morse and Ingard), which slices by their area alone overstate.
    let modes = waves(EnclosureShape::Cylinder { lying: false }, [0.25, 1.0, 0.25], 550.0);
    let upright = |mode: &&oak_cabinetry::modes::Mode| mode.order[1] > 0;
    let found: Vec<f64> = modes.iter().filter(upright).map(|mode| mode.frequency).collect();
    for (index, frequency) in found.iter().enumerate() {
        assert_relative_eq!(*frequency, (index as f64 + 1.0) * SPEED / 2.0, max_relative = 3e-3);
    }
    assert_eq!(found.len(), 3);
}

#[test]
fn a_cone_that_is_closed_at_both_ends_rings_where_its_equation_says() {
    // A pyramid's way is a cone of spherical waves between radii a and b: tan(k L) = k L/(1 + k^2 a b)
    // (Morse and Ingard, spherical waves between rigid walls).
    let modes = waves(EnclosureShape::Pyramid { top_width: 0.2, top_depth: 0.2 }, [0.6, 0.8, 0.6], 700.0);
    let upright = modes.iter().find(|mode| mode.order == [0, 1, 0]).expect("one along its height");
    let (far, near) = (0.8 * 0.6 / 0.4, 0.8 * 0.2 / 0.4);
    let closed = |k: f64| (k * 0.8).sin() * (1.0 + k * k * near * far) - k * 0.8 * (k * 0.8).cos();
    let (mut low, mut high) = (2.0, 6.0);
    assert!(closed(low) * closed(high) < 0.0);
    for _ in 0..60 {
        let middle = f64::midpoint(low, high);
        if closed(low) * closed(middle) <= 0.0 { high = middle } else { low = middle }
    }
    assert_relative_eq!(upright.frequency, low * SPEED / (2.0 * std::f64::consts::PI), max_relative = 3e-3);
}

#[test]
fn a_driver_in_the_middle_leaves_odd_waves_alone() {
    let modes = waves(EnclosureShape::Rectangular, [0.3, 1.0, 0.3], 400.0);
    let area = 0.03;
    let in_the_middle = Opening::disc([0.0, 0.5, 0.3], [0.0, 0.0, 1.0], area);
    let at_the_end = Opening::disc([0.0, 0.1, 0.3], [0.0, 0.0, 1.0], area);
    let first = &modes[0];
    assert_eq!(first.order, [0, 1, 0]);
    assert!(first.coupling(&in_the_middle).abs() < 1e-9);
    assert!(first.coupling(&at_the_end).abs() > 0.85);
    assert!(modes[1].coupling(&in_the_middle).abs() > 0.9, "the second one it does drive");
}

#[test]
fn the_mean_over_a_cone_agrees_with_counting() {
    let modes = waves(EnclosureShape::Rectangular, [0.4, 0.7, 0.3], 900.0);
    let cone = Opening::disc([0.05, 0.45, 0.3], [0.0, 0.0, 1.0], 0.05);
    for mode in &modes {
        let Spread::Cosines { .. } = mode.spread else { panic!("a box") };
        let (mut sum, mut count) = (0.0, 0.0);
        for row in -100..=100 {
            for column in -100..=100 {
                let (x, y) = (f64::from(column) / 100.0, f64::from(row) / 100.0);
                if x * x + y * y <= 1.0 {
                    sum += mode.pressure([0.05 + x * cone.radius, 0.45 + y * cone.radius, 0.3]);
                    count += 1.0;
                }
            }
        }
        assert!((mode.coupling(&cone) - sum / count).abs() < 2e-3, "{:?}", mode.order);
    }
}

/// `lambda^2 = 2 pi f a^2 sqrt(rho h/D)` of a plate.
fn lambda_squared(sides: [f64; 2], held: f64, free: bool) -> f64 {
    let material = &Material { poisson: 0.3, ..*Material::named("mdf").expect("known") };
    let material: &'static Material = Box::leak(Box::new(*material));
    let plate = Plate { sides, thickness: 0.018, material, held, free };
    let spring = material.stiffness(0.018) / (material.density * 0.018);
    2.0 * std::f64::consts::PI * plate.resonance() * sides[0] * sides[0] / spring.sqrt()
}

#[test]
fn plates_ring_as_leissa_tabulates() {
    // Leissa 1969, NASA SP-160: hinged is exact, pi^2 (1 + (a/b)^2); clamped from memory of its table for a/b 1, 1.5, 2.5.
    let pi2 = std::f64::consts::PI.powi(2);
    for ratio in [1.0, 1.5, 2.5] {
        assert_relative_eq!(
            lambda_squared([0.5, 0.5 / ratio], 0.0, false),
            pi2 * (1.0 + ratio * ratio),
            max_relative = 1e-9
        );
    }
    for (ratio, clamped) in [(1.0, 35.99), (1.5, 60.77), (2.5, 147.8)] {
        assert_relative_eq!(lambda_squared([0.5, 0.5 / ratio], 1.0, false), clamped, max_relative = 0.01);
    }
}

#[test]
fn plates_with_a_free_edge_ring_as_leissa_tabulates() {
    // Leissa, Journal of Sound and Vibration 31 (1973), squares with Poisson's ratio 0.3, from memory: three edges hinged and one free
    // 11.6845, three clamped and one free 24.020.
    for (held, expected) in [(0.0, 11.6845), (1.0, 24.020)] {
        assert_relative_eq!(lambda_squared([0.5; 2], held, true), expected, max_relative = 0.01);
    }
    // Far out of a narrow passage the free end does not count: a strip held on both sides.
    let strip = |held: f64| lambda_squared([0.1, 5.0], held, true);
    assert_relative_eq!(strip(0.0), std::f64::consts::PI.powi(2), max_relative = 0.01);
    assert_relative_eq!(strip(1.0), 22.373, max_relative = 0.01);
}

#[test]
fn boards_inside_are_plates_too() {
    let mut wish = body(EnclosureShape::Rectangular);
    wish.sizes = [Some(0.5), Some(0.6), Some(0.6)];
    let one = |walls: Vec<Wall>, location: Location| {
        walls.into_iter().find(|wall| wall.location == location).expect("there")
    };
    // A partition across the room, and a brace that halves it.
    let divided = Contents { wanted: [Some(0.05), Some(0.05)], ..contents(50.0) };
    let partition = |wish: &Body| {
        let cabinet = wish.build(&divided).expect("a box");
        let [low, high] = cabinet.interior.bounds();
        (one(walls(wish, &divided, &cabinet), Location::Partition), [high[0] - low[0], high[1] - low[1]])
    };
    let (whole, [wide, tall]) = partition(&wish);
    assert_eq!(whole.fields.len(), 1);
    assert_relative_eq!(whole.fields[0].sides[0], wide, max_relative = 1e-9);
    assert_relative_eq!(whole.mass, wide * tall * 0.018 * 740.0, max_relative = 1e-6);
    wish.braces = vec![Brace { axis: Axis::X, at: Some(wide / 2.0), thickness: 0.018, open: 0.5 }];
    let (halved, _) = partition(&wish);
    assert_eq!(halved.fields.len(), 2);
    let [before, after] = [&whole, &halved].map(|wall| wall.weakest().expect("a field").resonance());
    assert!(after > 1.8 * before, "{before} {after}");
    // The board of a slot between both sides: as wide as the passage, free inside; a strip along its middle halves it.
    wish.braces.clear();
    let mut ported = contents(60.0);
    let width = wish.build(&ported).expect("a box").interior.bounds()[1][0] * 2.0;
    ported.ports[0] = vec![slot(width, 0.03, 0.3, 3)];
    let cabinet = wish.build(&ported).expect("a box");
    let board = one(walls(&wish, &ported, &cabinet), Location::Slot { front: false, index: 0 });
    // Each of several has a name of its own.
    let names =
        [(false, 0), (false, 1), (true, 0)].map(|(front, index)| Location::Slot { front, index }.name());
    assert_eq!(names, ["port's boards", "port 2's boards", "front port's boards"]);
    let field = board.weakest().expect("a field");
    assert!(field.free && (field.sides[0] - width).abs() < 1e-9, "{field:?}");
    assert!((field.sides[1] - 0.3).abs() < 0.02, "{field:?}");
    let held = Plate { free: false, ..*field };
    assert!(field.resonance() < held.resonance());
    assert!(board.supported().expect("a field") > 2.0 * field.resonance());
}

#[test]
fn plates_give_way_as_timoshenko_tabulates() {
    // Volume under the deflection of a square: hinged 0.00406 p a^4/D in the middle, clamped 0.00126 (Timoshenko and
    // Woinowsky-Krieger, from memory), times the mean of the shape over its height.
    let material = &MATERIALS[0];
    for (held, middle, mean) in [(0.0, 0.00406, 0.405), (1.0, 0.00126, 0.25)] {
        let plate = Plate { sides: [0.5; 2], thickness: 0.018, material, held, free: false };
        let expected = middle * mean * 0.5_f64.powi(6) / material.stiffness(0.018);
        assert_relative_eq!(plate.compliance(), expected, max_relative = 0.12);
    }
}

#[test]
fn proposed_braces_raise_the_weakest_board_and_touch_nothing() {
    let mut wish = body(EnclosureShape::Rectangular);
    wish.sizes = [Some(0.5), Some(0.7), Some(0.5)];
    let contents = contents(100.0);
    let before = weakest_of(&wish, &contents, &wish.build(&contents).expect("a box"));
    let braces = propose(&wish, &contents, 400.0, &Stop::default());
    assert!(!braces.is_empty() && braces.len() <= 4);
    wish.braces = braces;
    let cabinet = wish.build(&contents).expect("a box");
    let after = weakest_of(&wish, &contents, &cabinet);
    assert!(after > 1.4 * before, "{before} {after}");
    assert!(cabinet.findings.iter().all(|finding| !finding.forbids()), "{:?}", cabinet.findings);
}

#[test]
fn a_box_weighs_what_its_boards_weigh() {
    let mut wish = body(EnclosureShape::Rectangular);
    wish.sizes = [Some(0.5), Some(0.5), Some(0.5)];
    let contents = contents(60.0);
    let cabinet = wish.build(&contents).expect("a box");
    let walls = walls(&wish, &contents, &cabinet);
    let wood: f64 = walls.iter().map(|panel| panel.wood).sum();
    let exact = cabinet.outer.volume() - cabinet.interior.volume();
    assert_relative_eq!(wood, exact, max_relative = 2e-3);
    let mass: f64 = walls.iter().map(|panel| panel.mass).sum();
    let hole = std::f64::consts::PI / 4.0 * contents.drivers.cutout.powi(2) * wish.panel.total();
    assert_relative_eq!(mass, (exact - hole) * 740.0, max_relative = 2e-3);
}
