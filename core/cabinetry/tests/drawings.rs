//! Drawings show the sizes that were built, and files say the same.

mod support;

use approx::assert_relative_eq;
use oak_cabinetry::drawing::{Drawing, Line, View, view, write_dxf, write_svg};
use oak_cabinetry::geometry::{Axis, Shape, area};
use oak_cabinetry::{Brace, Cabinet, Contents};
use proptest::prelude::*;
use support::{any_shape, body, build, contents, tube};

fn drawn(shape: Shape, wanted: View) -> (Cabinet, Contents, Drawing) {
    let mut wish = body(shape);
    wish.sizes = [Some(0.5), Some(0.6), Some(0.4)];
    wish.ports.push(build(0));
    wish.braces.push(Brace { axis: Axis::Y, at: Some(0.1), thickness: 0.018, open: 0.5 });
    let mut contents = contents(70.0);
    contents.ports[0].push(tube(0.1, 0.2));
    let cabinet = wish.build(&contents).expect("builds");
    let drawing = view(wanted, &wish, &contents, &cabinet);
    (cabinet, contents, drawing)
}

fn polygon<'a>(drawing: &'a Drawing, part: &str) -> &'a [[f64; 2]] {
    &drawing.strokes.iter().find(|stroke| stroke.part == part).expect("drawn").points
}

#[test]
fn the_section_cuts_as_much_wood_as_the_boards_are_thick() {
    let (cabinet, _, drawing) = drawn(Shape::Rectangular, View::Side);
    assert_relative_eq!(area(polygon(&drawing, "boards")).abs(), 0.6 * 0.4, max_relative = 1e-9);
    assert_relative_eq!(area(polygon(&drawing, "room")).abs(), 0.564 * 0.364, max_relative = 1e-9);
    let measured: Vec<f64> =
        drawing.measures.iter().map(|measure| measure.between[1] - measure.between[0]).collect();
    assert!(measured.iter().any(|size| (size - 0.4).abs() < 1e-9), "depth");
    assert!(measured.iter().any(|size| (size - 0.6).abs() < 1e-9), "height");
    assert!(drawing.strokes.iter().any(|stroke| stroke.line == Line::Air && stroke.part == "port"));
    assert_relative_eq!(cabinet.outer.bounds()[1][1], 0.6, max_relative = 1e-12);
}

#[test]
fn the_front_shows_driver_and_port_at_their_size_and_place() {
    let (cabinet, contents, drawing) = drawn(Shape::Rectangular, View::Front);
    let rings: Vec<_> = drawing.rings.iter().filter(|ring| ring.part == "driver").collect();
    assert_relative_eq!(rings[0].radius, contents.drivers.frame / 2.0, max_relative = 1e-9);
    let port = drawing.rings.iter().find(|ring| ring.part == "port").expect("drawn");
    assert_relative_eq!(port.radius, 0.05, max_relative = 1e-9);
    let built = cabinet.parts.iter().find(|part| part.name() == "port").expect("built");
    assert_relative_eq!(port.middle[1], built.path[0][1], max_relative = 1e-9);
    assert!(port.middle[1] < rings[0].middle[1], "the port goes below the driver");
}

#[test]
fn a_dxf_says_in_millimetres_what_the_drawing_says_in_metres() {
    let (_, _, drawing) = drawn(Shape::Rectangular, View::Front);
    let bytes = write_dxf(&drawing).expect("written");
    let file = dxf::Drawing::load(&mut bytes.as_slice()).expect("a reader of the same library opens it");
    let circles: Vec<(f64, String)> = file
        .entities()
        .filter_map(|entity| match &entity.specific {
            dxf::entities::EntityType::Circle(circle) => Some((circle.radius, entity.common.layer.clone())),
            _ => None,
        })
        .collect();
    assert_eq!(circles.len(), drawing.rings.len());
    for ((radius, layer), ring) in circles.iter().zip(&drawing.rings) {
        assert_relative_eq!(*radius, ring.radius * 1e3, max_relative = 1e-9);
        assert_eq!(layer, ring.line.name());
    }
    let widest = file
        .entities()
        .filter_map(|entity| match &entity.specific {
            dxf::entities::EntityType::LwPolyline(line) => {
                Some(line.vertices.iter().map(|vertex| vertex.x).fold(f64::NEG_INFINITY, f64::max))
            }
            _ => None,
        })
        .fold(f64::NEG_INFINITY, f64::max);
    assert_relative_eq!(widest, 250.0, max_relative = 1e-9);
}

#[test]
fn an_svg_has_every_line_and_its_title_cannot_break_it() {
    let (_, _, drawing) = drawn(Shape::Rectangular, View::Side);
    let text = write_svg(&drawing, "Tom & \"Jerry\" <script>");
    assert_eq!(text.matches("<polygon").count(), drawing.strokes.len());
    assert!(!text.contains("<script>"), "{}", &text[..300]);
    assert!(text.contains(">600<") || text.contains("\n600\n"), "the height in mm");
}

proptest! {
    #![proptest_config(ProptestConfig::with_cases(40))]
    #[test]
    fn every_shape_is_drawn_whole_from_everywhere(shape in any_shape()) {
        for wanted in View::ALL {
            let mut wish = body(shape);
            if let Shape::Cylinder { lying: false } = shape {
                wish.drivers.face = oak_cabinetry::geometry::Face::Top;
            }
            wish.sizes = [Some(0.5), Some(0.6), Some(0.4)];
            let Ok(cabinet) = wish.build(&contents(30.0)) else { return Ok(()) };
            let drawing = view(wanted, &wish, &contents(30.0), &cabinet);
            let [low, high] = drawing.extent;
            prop_assert!(low.iter().chain(&high).all(|at| at.is_finite()), "{wanted:?}");
            if wanted == View::Side {
                // What the section cuts lies within the body that it cuts.
                let [from, to] = cabinet.outer.bounds();
                let boards = polygon(&drawing, "boards");
                prop_assert!(boards.len() >= 3);
                for point in boards {
                    prop_assert!((from[2] - 1e-9..=to[2] + 1e-9).contains(&point[0]));
                    prop_assert!((from[1] - 1e-9..=to[1] + 1e-9).contains(&point[1]));
                }
                let room = area(polygon(&drawing, "room")).abs();
                prop_assert!(room < area(boards).abs());
            }
        }
    }
}
