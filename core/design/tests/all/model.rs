//! The box in three dimensions holds what the box holds.

use crate::support::demo_builds;
use approx::assert_relative_eq;
use oak_cabinetry::Piece;
use oak_design::built::Boxed;
use oak_design::file::{RawBody, RawDesign, RawEnclosureShape, RawFamily, RawStuffing, Typed};
use oak_design::report::{BodyReport, ModelReport, compute_undelayed};
use oak_design::resolve::resolve_design;
use oak_design::response::FrequencyGrid;

/// What a closed surface encloses, m3, by the divergence theorem: less than nothing where it is inside out.
fn enclosed(faces: &[Vec<[f64; 3]>]) -> f64 {
    let cone = |a: [f64; 3], b: [f64; 3], c: [f64; 3]| {
        (a[0] * (b[1] * c[2] - b[2] * c[1])
            + a[1] * (b[2] * c[0] - b[0] * c[2])
            + a[2] * (b[0] * c[1] - b[1] * c[0]))
            / 6.0
    };
    let fan = |face: &Vec<[f64; 3]>| -> f64 {
        face.windows(2).skip(1).map(|pair| cone(face[0], pair[0], pair[1])).sum()
    };
    faces.iter().map(fan).sum()
}

/// The surface of one board: outside, inside turned round, and the edges between.
fn surface(outer: &[[f64; 3]], inner: &[[f64; 3]]) -> Vec<Vec<[f64; 3]>> {
    let count = outer.len();
    let mut faces = vec![outer.to_vec(), inner.iter().rev().copied().collect()];
    faces.extend((0..count).map(|k| {
        let next = (k + 1) % count;
        vec![outer[k], inner[k], inner[next], outer[next]]
    }));
    faces
}

struct Laid {
    model: ModelReport,
    report: BodyReport,
}

fn laid(raw: &RawDesign) -> Option<Laid> {
    let resolved = resolve_design(raw).expect("resolves");
    let grid = FrequencyGrid::logarithmic(10.0, 500.0, 24).expect("a grid");
    let computed = compute_undelayed(&resolved, &grid).expect("computes");
    let report = BodyReport::of(&resolved, &computed, None).expect("builds")?;
    let Boxed { contents, cabinet } = computed.built.boxed.as_ref().expect("a box");
    Some(Laid { model: ModelReport::of(&computed.built.design, contents, cabinet), report })
}

fn check(name: &str, Laid { model, report }: &Laid) {
    let outside: Vec<_> = model.panels.iter().map(|panel| panel.outer.clone()).collect();
    let inside: Vec<_> = model.panels.iter().map(|panel| panel.inner.clone()).collect();
    let [whole, room] = [enclosed(&outside), enclosed(&inside)];
    assert!(whole > room && room > 0.0, "{name}: {whole} {room}");
    let wood: f64 = model
        .panels
        .iter()
        .map(|panel| {
            assert_eq!(panel.outer.len(), panel.inner.len(), "{name}: {}", panel.face);
            enclosed(&surface(&panel.outer, &panel.inner))
        })
        .sum();
    // Nothing is left out and nothing counted twice.
    assert_relative_eq!(wood, whole - room, max_relative = 1e-6);
    let size = [0, 1, 2].map(|k| model.bounds[1][k] - model.bounds[0][k]);
    for (size, said) in size.iter().zip(&report.outside) {
        assert_relative_eq!(*size, *said, max_relative = 1e-9);
    }
    // Made of the same parts as the drawings, with the same names.
    let names = |all: Vec<&str>| {
        let mut all: Vec<_> = all.into_iter().map(str::to_owned).collect();
        all.sort_unstable();
        all.dedup();
        all
    };
    let mounted = names(report.parts.iter().map(|part| part.name.as_str()).collect());
    let shown = names(model.parts.iter().map(|part| part.name.as_str()).collect());
    assert!(mounted.iter().all(|name| shown.contains(name)), "{name}: {mounted:?} {shown:?}");
    for part in &model.parts {
        for piece in &part.pieces {
            let points = match piece {
                Piece::Block { low, high } => {
                    assert!((0..3).all(|k| high[k] > low[k]), "{name}: {}", part.name);
                    vec![*low, *high]
                }
                Piece::Rod { from, to, radii } => {
                    assert!(
                        radii[0] > 0.0 && radii[1] >= 0.0 && (0..3).any(|k| (to[k] - from[k]).abs() > 1e-9),
                        "{name}: {}",
                        part.name
                    );
                    vec![*from, *to]
                }
                Piece::Prism { near, far } => {
                    assert!(near.len() == far.len() && near.len() >= 3, "{name}: {}", part.name);
                    near.iter().chain(far).copied().collect()
                }
            };
            let within = |point: &[f64; 3]| {
                (0..3).all(|k| (model.bounds[0][k] - 1e-6..=model.bounds[1][k] + 1e-6).contains(&point[k]))
            };
            assert!(points.iter().all(within), "{name}: {} {points:?}", part.name);
        }
        if part.mouth.is_some() {
            assert!(part.size[0] > 0.0, "{name}: {}", part.name);
            let far: f64 = part.normal.iter().map(|value| value * value).sum();
            assert_relative_eq!(far, 1.0, max_relative = 1e-9);
        }
    }
}

#[test]
fn every_box_of_the_demo_is_whole_in_three_dimensions() {
    let mut seen = 0;
    for build in demo_builds() {
        for raw in &build.variants {
            let Some(laid) = laid(raw) else { continue };
            if laid.report.findings.iter().any(|finding| finding.forbids) {
                continue;
            }
            check(&raw.name, &laid);
            seen += 1;
        }
    }
    assert!(seen >= 6, "{seen} boxes");
}

#[test]
fn a_box_of_every_shape_is_whole_in_three_dimensions() {
    let builds = demo_builds();
    let sealed = builds
        .iter()
        .flat_map(|build| &build.variants)
        .find(|raw| serde_json::to_value(&raw.enclosure).expect("JSON")["family"] == "sealed");
    let plain = sealed.expect("a sealed demo design");
    for shape in [
        RawEnclosureShape::Box,
        RawEnclosureShape::Wedge,
        RawEnclosureShape::Prism,
        RawEnclosureShape::Pipe,
        RawEnclosureShape::LyingPipe,
        RawEnclosureShape::Pyramid,
        RawEnclosureShape::Rounded,
        RawEnclosureShape::Step,
    ] {
        let typed = |text: &str| Some(Typed::from(text));
        let mut body = RawBody { shape, ..RawBody::default() };
        (body.width, body.height, body.depth) = (typed("600 mm"), typed("700 mm"), typed("550 mm"));
        (body.top_depth, body.radius, body.sides) = (typed("400 mm"), typed("60 mm"), Some(Typed::from(6.0)));
        body.top_width = typed("450 mm");
        (body.step_height, body.step_depth) = (typed("200 mm"), typed("150 mm"));
        let laid = laid(&RawDesign { body: Some(body), ..plain.clone() }).expect("a box");
        check(&format!("{shape:?}"), &laid);
        let faces: std::collections::BTreeSet<_> =
            laid.model.panels.iter().map(|panel| panel.face.as_str()).collect();
        assert_eq!(faces.len(), laid.report.panels.len(), "{shape:?}: every board is listed");
    }
}

/// Fill that has no place of its own is drawn where it usually lies, as much as there is, and weighs what its density says.
#[test]
fn fill_lies_in_the_box_and_weighs_what_it_should() {
    let builds = demo_builds();
    let all = || builds.iter().flat_map(|build| &build.variants);
    let plain = all().find(|raw| raw.enclosure.family == RawFamily::Sealed).expect("a sealed demo design");
    let with = |change: &dyn Fn(&mut RawDesign)| {
        let mut raw = plain.clone();
        raw.body.get_or_insert_default().fills = Vec::new();
        (raw.enclosure.fill, raw.enclosure.fill_density) = (None, None);
        change(&mut raw);
        laid(&raw).expect("a box")
    };
    let drawn = |laid: &Laid| laid.model.fills.iter().map(|faces| enclosed(faces)).sum::<f64>();
    let empty = with(&|_| {});
    let room = empty.report.chambers[0].gross;
    assert!(empty.model.fills.is_empty() && empty.report.weight.fill == 0.0);
    for (amount, share, density) in
        [(RawStuffing::Half, 0.5, 5.0), (RawStuffing::Full, 1.0, 10.0), (RawStuffing::Packed, 1.0, 20.0)]
    {
        let laid = with(&|raw| raw.enclosure.fill = Some(amount));
        assert_relative_eq!(drawn(&laid), share * room, max_relative = 0.05);
        let net = laid.report.chambers[0].net;
        assert_relative_eq!(laid.report.weight.fill, density * net, max_relative = 1e-6);
    }
    // A lining of 3 cm leaves most of the room open; between the amounts the weight says how far it reaches.
    let lined = with(&|raw| raw.enclosure.fill = Some(RawStuffing::Lined));
    assert!((0.1..0.6).contains(&(drawn(&lined) / room)), "{}", drawn(&lined) / room);
    let weighed = with(&|raw| raw.enclosure.fill_density = Some(Typed::from("3 g/l")));
    assert_relative_eq!(drawn(&weighed), 0.3 * room, max_relative = 0.05);
    // A layer lies on its board, with its own thickness and weight.
    let layer = with(&|raw| {
        raw.body.get_or_insert_default().fills = serde_json::from_value(
            serde_json::json!([{ "face": "back", "thickness": "50 mm", "density": "20 kg/m3" }]),
        )
        .expect("a layer");
    });
    let [low, high] = layer.report.fills[0].bounds;
    let volume: f64 = (0..3).map(|k| high[k] - low[k]).product();
    assert_relative_eq!(drawn(&layer), volume, max_relative = 0.05);
    assert_relative_eq!(layer.report.weight.fill, 20.0 * volume, max_relative = 1e-6);
}

/// Fill of a line lies in its channels: as much as its stretches hold.
#[test]
fn fill_of_a_line_lies_in_its_channels() {
    let builds = demo_builds();
    let filled = |raw: &&RawDesign| {
        let way = raw.enclosure.passage.as_ref();
        way.is_some_and(|way| way.segments.iter().any(|segment| segment.fill_density.is_some()))
    };
    let mut seen = 0;
    for raw in builds.iter().flat_map(|build| &build.variants).filter(filled) {
        let Some(laid) = laid(raw) else { continue };
        let drawn: f64 = laid.model.fills.iter().map(|faces| enclosed(faces)).sum();
        let bounds = laid.model.fills.iter().flatten().flatten();
        let low = laid.model.bounds[0];
        let high = laid.model.bounds[1];
        assert!(drawn > 0.0 && laid.report.weight.fill > 0.0, "{}", raw.name);
        for point in bounds {
            assert!((0..3).all(|k| point[k] > low[k] && point[k] < high[k]), "{}: {point:?}", raw.name);
        }
        // Its weight over what is drawn is its density, as far as corners are drawn round.
        let density = laid.report.weight.fill / drawn;
        assert!((4.0..40.0).contains(&density), "{}: {density}", raw.name);
        seen += 1;
    }
    assert!(seen > 0, "the demo has a filled line");
}
