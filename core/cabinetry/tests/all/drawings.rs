//! Drawings show the sizes that were built, and files say the same.

use crate::support::{any_shape, body, build, contents, slot, tube};
use approx::assert_relative_eq;
use oak_acoustics::medium::{Fill, Frame};
use oak_cabinetry::drawing::{Drawing, Line, View, view, write_dxf, write_svg};
use oak_cabinetry::geometry::{Axis, EnclosureShape, Face, area};
use oak_cabinetry::{
    Body, BoltCircle, Brace, Cabinet, Contents, DuctPath, Item, ItemBlock, Layer, Place, PortBuild, PortSize,
    RadiatorSize, Seat,
};
use proptest::prelude::*;

fn drawn(shape: EnclosureShape, wanted: View) -> (Cabinet, Contents, Drawing) {
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
    let (cabinet, _, drawing) = drawn(EnclosureShape::Rectangular, View::Side);
    assert_relative_eq!(area(polygon(&drawing, "boards")).abs(), 0.6 * 0.4, max_relative = 1e-9);
    assert_relative_eq!(area(polygon(&drawing, "chamber")).abs(), 0.564 * 0.364, max_relative = 1e-9);
    let measured: Vec<f64> =
        drawing.measures.iter().map(|measure| measure.between[1] - measure.between[0]).collect();
    assert!(measured.iter().any(|size| (size - 0.4).abs() < 1e-9), "depth");
    assert!(measured.iter().any(|size| (size - 0.6).abs() < 1e-9), "height");
    assert!(drawing.strokes.iter().any(|stroke| stroke.line == Line::Air && stroke.part == "port"));
    assert_relative_eq!(cabinet.outer.bounds()[1][1], 0.6, max_relative = 1e-12);
}

#[test]
fn the_front_shows_driver_and_port_at_their_size_and_place() {
    let (cabinet, contents, drawing) = drawn(EnclosureShape::Rectangular, View::Front);
    let rings: Vec<_> = drawing.rings.iter().filter(|ring| ring.part == "driver").collect();
    assert_relative_eq!(rings[0].radius, contents.drivers.frame / 2.0, max_relative = 1e-9);
    let port = drawing.rings.iter().rfind(|ring| ring.part == "port").expect("drawn");
    assert_relative_eq!(port.radius, 0.05, max_relative = 1e-9);
    let built = cabinet.parts.iter().find(|part| part.name() == "port").expect("built");
    assert_relative_eq!(port.middle[1], built.path[0][1], max_relative = 1e-9);
    assert!(port.middle[1] < rings[0].middle[1], "the port goes below the driver");
}

#[test]
fn a_dxf_says_in_millimetres_what_the_drawing_says_in_metres() {
    let (_, _, drawing) = drawn(EnclosureShape::Rectangular, View::Front);
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
    let (_, _, drawing) = drawn(EnclosureShape::Rectangular, View::Side);
    let text = write_svg(&drawing, "Tom & \"Jerry\" <script>");
    assert_eq!(text.matches("<polygon").count(), drawing.strokes.len());
    assert!(!text.contains("<script>"), "{}", &text[..300]);
    assert!(text.contains(">600<") || text.contains("\n600\n"), "the height in mm");
}

#[test]
fn the_front_says_what_has_to_be_cut_into_it() {
    let mut wish = body(EnclosureShape::Rectangular);
    wish.sizes = [Some(0.5), Some(0.6), Some(0.4)];
    wish.ports.push(build(0));
    let mut contents = contents(70.0);
    contents.ports[0].push(tube(0.1, 0.2));
    contents.drivers.bolts = Some(BoltCircle { diameter: 0.24, count: 8, hole: 0.0055 });
    let cabinet = wish.build(&contents).expect("builds");
    let drawing = view(View::Front, &wish, &contents, &cabinet);
    let radii = |part: &str| -> Vec<f64> {
        drawing.rings.iter().filter(|ring| ring.part == part).map(|ring| ring.radius).collect()
    };
    let driver = radii("driver");
    for wanted in [contents.drivers.frame, contents.drivers.cutout, 0.24] {
        assert!(driver.iter().any(|radius| (radius - wanted / 2.0).abs() < 1e-12), "{wanted}: {driver:?}");
    }
    assert_eq!(driver.iter().filter(|radius| (**radius - 0.00275).abs() < 1e-12).count(), 8);
    // The hole of a tube is as wide as the tube is outside.
    assert!(radii("port").iter().any(|radius| (radius - 0.054).abs() < 1e-12));
    let words: Vec<&str> = drawing.labels.iter().map(|(_, words)| words.as_str()).collect();
    assert_eq!(words, ["ø 230, 8 × ø 5.5 on ø 240", "ø 108"]);
    // Every bolt lies in the frame, beside the hole.
    let middle = drawing.rings.iter().find(|ring| ring.part == "driver").expect("drawn").middle;
    for ring in drawing.rings.iter().filter(|ring| (ring.radius - 0.00275).abs() < 1e-12) {
        let far = (ring.middle[0] - middle[0]).hypot(ring.middle[1] - middle[1]);
        assert_relative_eq!(far, 0.12, max_relative = 1e-9);
    }
}

#[test]
fn a_slot_that_narrows_is_drawn_so() {
    let mut wish = body(EnclosureShape::Rectangular);
    wish.sizes = [Some(0.5), Some(0.6), Some(0.4)];
    wish.ports.push(PortBuild { wall: 0.018, ..build(0) });
    let mut contents = contents(70.0);
    contents.ports[0].push(PortSize { waist: 0.4, ..slot(0.3, 0.05, 0.25, 1) });
    let cabinet = wish.build(&contents).expect("builds");
    let drawing = view(View::Side, &wish, &contents, &cabinet);
    let air = drawing.strokes.iter().filter(|stroke| stroke.part == "port" && stroke.line == Line::Air);
    let mut heights: Vec<(f64, f64)> = Vec::new();
    for points in air.map(|stroke| &stroke.points) {
        for pair in [[0, 3], [1, 2]] {
            let [a, b] = pair.map(|k| points[k]);
            heights.push((f64::midpoint(a[0], b[0]), (a[1] - b[1]).abs()));
        }
    }
    heights.sort_by(|a, b| a.0.total_cmp(&b.0));
    let heights: Vec<f64> = heights.into_iter().map(|(_, height)| height).collect();
    for (found, wanted) in heights.iter().zip([0.05, 0.02, 0.02, 0.05]) {
        assert_relative_eq!(*found, wanted, max_relative = 1e-9);
    }
    assert_eq!(heights.len(), 4);
}

#[test]
fn boards_apart_show_their_holes() {
    let (_, contents, drawing) = drawn(EnclosureShape::Rectangular, View::Exploded);
    let holes: Vec<_> = drawing
        .strokes
        .iter()
        .filter(|stroke| stroke.part == "board front" && stroke.line == Line::Air)
        .collect();
    // The front is seen as it is, so its holes are as large as they are.
    let wanted = [contents.drivers.cutout, 0.108].map(|across| std::f64::consts::PI / 4.0 * across * across);
    let mut found: Vec<f64> = holes.iter().map(|hole| area(&hole.points)).collect();
    found.sort_by(|a, b| b.total_cmp(a));
    assert_eq!(found.len(), 2);
    for (found, wanted) in found.iter().zip(wanted) {
        assert_relative_eq!(*found, wanted, max_relative = 0.01);
    }
}

#[test]
fn a_millimetre_of_an_svg_is_a_millimetre() {
    let mut wish = body(EnclosureShape::Rectangular);
    wish.sizes = [Some(0.4123), Some(0.3337), Some(0.3)];
    let contents = contents(20.0);
    let cabinet = wish.build(&contents).expect("builds");
    let text = write_svg(&view(View::Front, &wish, &contents, &cabinet), "Front");
    let value = |name: &str| -> String {
        let from = text.find(&format!("{name}=\"")).expect(name) + name.len() + 2;
        text[from..].split('"').next().expect("ends").to_owned()
    };
    let view_box = value("viewBox");
    let sides: Vec<&str> = view_box.split(' ').skip(2).collect();
    assert_eq!(sides, [value(" width").trim_end_matches("mm"), value(" height").trim_end_matches("mm")]);
}

/// A box with something of every kind in it.
fn furnished() -> (Body, Contents) {
    let mut wish = body(EnclosureShape::Rectangular);
    wish.sizes = [Some(0.6), Some(0.7), Some(0.5)];
    wish.ports = vec![build(0), PortBuild { wall: 0.018, ..build(1) }];
    wish.braces.push(Brace { axis: Axis::X, at: Some(0.1), thickness: 0.018, open: 0.5 });
    let fill = Fill::polyester(15.0, Frame::Rigid);
    wish.fills.push(Layer { face: Face::Back, thickness: 0.05, fill });
    let block = ItemBlock {
        place: Place { face: Face::Right, across: None, up: None },
        size: [0.1, 0.1, 0.08],
        opening: None,
    };
    wish.items.push(Item { name: "Amplifier".to_owned(), volume: 8e-4, block: Some(block) });
    let mut inside = contents(100.0);
    inside.ports[0].push(tube(0.08, 0.2));
    inside.ports[0].push(slot(0.2, 0.03, 0.5, 1));
    inside.radiators = Some(RadiatorSize { cone: 0.16, count: 2 });
    (wish, inside)
}

#[test]
fn everything_mounted_is_in_every_view() {
    let (wish, inside) = furnished();
    let cabinet = wish.build(&inside).expect("a box");
    for wanted in [View::Side, View::Front, View::Plan] {
        let drawing = view(wanted, &wish, &inside, &cabinet);
        for part in &cabinet.parts {
            let name = part.name();
            let drawn = drawing.strokes.iter().any(|stroke| stroke.part == name)
                || drawing.rings.iter().any(|ring| ring.part == name);
            assert!(drawn, "{name} from {wanted:?}");
        }
        let fill = drawing.strokes.iter().any(|stroke| stroke.part == "fill back");
        assert_eq!(fill, wanted != View::Front, "fill shows where the box is cut");
    }
}

#[test]
fn a_turned_slot_shows_its_height_from_the_side_and_its_width_from_above() {
    let (mut wish, mut inside) = furnished();
    wish.ports.remove(0);
    inside.ports[0].remove(0);
    let cabinet = wish.build(&inside).expect("a box");
    let air = |wanted: View| -> Vec<[f64; 2]> {
        let drawing = view(wanted, &wish, &inside, &cabinet);
        let strokes =
            drawing.strokes.iter().filter(|stroke| stroke.part == "port" && stroke.line == Line::Air);
        strokes.map(|stroke| span(&stroke.points)).collect()
    };
    let [along, up] = air(View::Side)[..] else { panic!("two legs") };
    assert_relative_eq!(along[1], 0.03, max_relative = 1e-9);
    assert_relative_eq!(up[0], 0.03, max_relative = 1e-9);
    assert!(air(View::Plan).iter().all(|size| (size[0] - 0.2).abs() < 1e-9), "{:?}", air(View::Plan));
}

/// Width and height of what some points span.
fn span(points: &[[f64; 2]]) -> [f64; 2] {
    [0, 1].map(|k| {
        let all = || points.iter().map(|point| point[k]);
        all().fold(f64::NEG_INFINITY, f64::max) - all().fold(f64::INFINITY, f64::min)
    })
}

#[test]
fn boards_drawn_apart_are_named_once_and_all_there() {
    let (wish, inside) = furnished();
    let cabinet = wish.build(&inside).expect("a box");
    let drawing = view(View::Exploded, &wish, &inside, &cabinet);
    let mut names: Vec<&str> = drawing.labels.iter().map(|(_, words)| words.as_str()).collect();
    names.sort_unstable();
    assert_eq!(names, ["back", "bottom", "front", "left", "right", "top"]);
    for part in names.iter().map(|name| format!("board {name}")).chain(["brace".to_owned()]) {
        let faces =
            drawing.strokes.iter().filter(|stroke| stroke.part == part && stroke.line == Line::Cut).count();
        // Of a block seen from a corner three sides face the reader.
        assert_eq!(faces % 3, 0, "{part}: {faces}");
        assert!(faces >= 3, "{part}: {faces}");
    }
    // Apart: larger than the box drawn so would be.
    let [low, high] = drawing.extent;
    assert!(high[0] - low[0] > 0.6 + 0.5 * 0.5 * 0.866, "{:?}", drawing.extent);
}

#[test]
fn the_middle_of_a_way_is_an_open_line_in_every_file() {
    let mut wish = body(EnclosureShape::Rectangular);
    wish.fold.folds = Some(1);
    let path = DuctPath { areas: vec![[0.0, 0.05], [2.5, 0.05]], seat: Seat::Along(0.5), apart: Vec::new() };
    let inside = Contents { wanted: [Some(path.volume()), None], path: Some(path), ..contents(1.0) };
    let cabinet = wish.build(&inside).expect("a line");
    let drawing = view(View::Side, &wish, &inside, &cabinet);
    let open: Vec<_> = drawing.strokes.iter().filter(|stroke| !stroke.closed).collect();
    assert_eq!(open.len(), 1, "the middle line of the way");
    assert_eq!(open[0].line, Line::Middle);
    let text = write_svg(&drawing, "Line");
    assert_eq!(text.matches("<polyline").count(), 1);
    assert_eq!(text.matches("<polygon").count(), drawing.strokes.len() - 1);
    let bytes = write_dxf(&drawing).expect("written");
    let file = dxf::Drawing::load(&mut bytes.as_slice()).expect("opens");
    let not_closed = file
        .entities()
        .filter(|entity| match &entity.specific {
            dxf::entities::EntityType::LwPolyline(line) => !line.is_closed(),
            _ => false,
        })
        .count();
    assert_eq!(not_closed, 1);
}

proptest! {
    #![proptest_config(ProptestConfig::with_cases(40))]
    #[test]
    fn every_shape_is_drawn_whole_from_everywhere(shape in any_shape()) {
        for wanted in View::ALL {
            let mut wish = body(shape);
            if let EnclosureShape::Cylinder { lying: false } = shape {
                wish.drivers.face = oak_cabinetry::geometry::Face::Top;
            }
            wish.sizes = [Some(0.5), Some(0.6), Some(0.4)];
            let Ok(cabinet) = wish.build(&contents(30.0)) else { return Ok(()) };
            let drawing = view(wanted, &wish, &contents(30.0), &cabinet);
            let bytes = write_dxf(&drawing).expect("written");
            let file = dxf::Drawing::load(&mut bytes.as_slice()).expect("opens");
            let all = drawing.strokes.len() + drawing.rings.len() + drawing.labels.len();
            prop_assert_eq!(file.entities().count(), all);
            let [low, high] = drawing.extent;
            prop_assert!(low.iter().chain(&high).all(|at| at.is_finite()), "{wanted:?}");
            if wanted == View::Side {
                // What the section cuts lies within the body that it cuts.
                let [from, to] = cabinet.outer.bounds();
                let panels = polygon(&drawing, "boards");
                prop_assert!(panels.len() >= 3);
                for point in panels {
                    prop_assert!((from[2] - 1e-9..=to[2] + 1e-9).contains(&point[0]));
                    prop_assert!((from[1] - 1e-9..=to[1] + 1e-9).contains(&point[1]));
                }
                let interior = area(polygon(&drawing, "chamber")).abs();
                prop_assert!(interior < area(panels).abs());
                // As large as the body says that it is there, by another way of cutting.
                let at = f64::midpoint(cabinet.interior.bounds()[0][0], cabinet.interior.bounds()[1][0]);
                let says = cabinet.interior.area_at(Axis::X, at);
                prop_assert!((interior - says).abs() < 2e-3 * says, "{interior} {says}");
            }
        }
    }
}
