//! What a builder does first: something mounted elsewhere, let in, left out, of thinner or lighter boards.

use oak_cabinetry::geometry::{Axis, Face, Frame};
use oak_cabinetry::{Finding, PartKind};
use oak_design::built::Boxed;
use oak_design::field;
use oak_design::file::{
    RawBody, RawDesign, RawEnd, RawFace, RawMaterial, RawPlace, RawPortBuild, RawPortSection,
};

use super::bench::Bench;
use super::trial::Attempt;

/// Where a brace or a driver is tried, as shares of what there is.
const PLACES: [f64; 6] = [0.38, 0.62, 0.3, 0.7, 0.22, 0.78];
/// Between a port and the edge of its board, m (common practice).
const EDGE: f64 = 0.02;
/// Boards that are tried instead, m.
const THINNER: [f64; 2] = [0.015, 0.012];
/// Of what, where it is to weigh less.
const LIGHTER: [(RawMaterial, &str); 2] =
    [(RawMaterial::BirchPly, "birch plywood"), (RawMaterial::PoplarPly, "poplar plywood")];

/// Everything of the kind that may fix what is short.
pub(super) fn attempts(bench: &Bench<'_>) -> Vec<Attempt> {
    match bench.check.id {
        "fits" => fits(bench),
        "size" | "place" => let_in(bench).into_iter().chain(thinner(bench)).collect(),
        "weight" => lighter(bench).chain(thinner(bench)).collect(),
        _ => Vec::new(),
    }
}

fn with(bench: &Bench<'_>, words: String, effort: f64, change: impl FnOnce(&mut RawBody)) -> Attempt {
    let mut design = bench.ask.design.clone();
    change(design.body.get_or_insert_default());
    Attempt::Mounted(words, Box::new(design), effort)
}

/// Frames flush with their boards.
fn let_in(bench: &Bench<'_>) -> Option<Attempt> {
    let design = &bench.held.built.design;
    let size = design.driver_size();
    size.sinks(design.body.recess).then(|| {
        let words = format!("The frame let {:.0} mm into its board", size.rim * 1e3);
        with(bench, words, 0.01, |body| body.recess = Some(field::RECESS.typed(size.rim, 3)))
    })
}

fn thinner<'a>(bench: &'a Bench<'_>) -> impl Iterator<Item = Attempt> + 'a {
    let now = bench.held.built.design.body.panel.thickness;
    THINNER.into_iter().filter(move |thick| *thick < now - 1e-6).map(move |thick| {
        let words = format!("Boards of {:.0} mm, stiffened by a brace", thick * 1e3);
        with(bench, words, 0.25 + now - thick, |body| {
            body.thickness = Some(field::THICKNESS.typed(thick, 3));
        })
    })
}

fn lighter<'a>(bench: &'a Bench<'_>) -> impl Iterator<Item = Attempt> + 'a {
    let now = bench.held.built.design.body.panel.material.id;
    LIGHTER.into_iter().filter(move |(material, _)| material.id() != now).map(move |(material, name)| {
        with(bench, format!("Boards of {name}"), 0.1, |body| body.material = Some(material))
    })
}

/// Drivers, ports and braces that are in each other's way, elsewhere.
fn fits(bench: &Bench<'_>) -> Vec<Attempt> {
    let Some(Boxed { cabinet, .. }) = &bench.held.built.boxed else { return Vec::new() };
    let findings: Vec<&Finding> = cabinet.findings.iter().filter(|finding| finding.forbids()).collect();
    let concerns = |word: &str| findings.iter().any(|finding| finding.to_string().contains(word));
    let mut found = Vec::new();
    if findings.iter().any(|finding| matches!(finding, Finding::NotAcross { .. })) {
        found.extend(across(bench));
    }
    let [low, high] = cabinet.interior.bounds();
    if concerns("brace") {
        for (index, brace) in bench.held.built.design.body.braces.iter().enumerate() {
            let long = high[brace.axis.index()] - low[brace.axis.index()];
            let now = brace.place(&cabinet.interior) - low[brace.axis.index()];
            for place in PLACES {
                let at = (place * long * 1e3).round() * 1e-3;
                let words = format!("The brace {}", aside(brace.axis, at - now));
                let effort = 0.02 + 0.05 * (at - now).abs() / long;
                found.push(with(bench, words, effort, |body| {
                    body.braces[index].at = Some(field::BRACE_AT.typed(at, 4));
                }));
            }
            found.push(with(bench, "Without the brace".to_owned(), 0.12, |body| {
                drop(body.braces.remove(index));
            }));
        }
    }
    // In a way the design itself says where they sit.
    if bench.held.built.design.enclosure.path().is_some() {
        return found;
    }
    let mut drivers = concerns("driver");
    for part in &cabinet.parts {
        let Some(frame) = part.face.and_then(|face| Frame::of(&cabinet.outer, face)) else { continue };
        match part.kind {
            PartKind::Driver if std::mem::take(&mut drivers) => {
                found.extend(driver(bench, part.face, &frame, part.at));
            }
            PartKind::Port if part.index == 0 && concerns("port") => {
                let front = bench.ask.design.enclosure.ports.is_empty();
                if (part.chamber == 1) == front {
                    found.extend(port(bench, front, part.wall, &frame));
                }
            }
            _ => {}
        }
    }
    found
}

/// How far and which way along an axis.
fn aside(axis: Axis, by: f64) -> String {
    let [less, more] = match axis {
        Axis::X => ["to the left", "to the right"],
        Axis::Y => ["lower", "higher"],
        Axis::Z => ["farther back", "farther forward"],
    };
    format!("{:.0} mm {}", by.abs() * 1e3, if by > 0.0 { more } else { less })
}

/// The slot between both sides with no width of its own.
fn across(bench: &Bench<'_>) -> Option<Attempt> {
    let mut design: RawDesign = bench.ask.design.clone();
    let enclosure = &mut design.enclosure;
    let front = enclosure.front.as_mut().map(|front| &mut front.ports);
    let ports = enclosure.ports.iter_mut().chain(front.into_iter().flatten());
    let mut any = false;
    for port in ports {
        if port.shape == RawPortSection::Slot && port.inner_end == Some(RawEnd::ThreeWalls) {
            any |= port.width.take().is_some();
        }
    }
    any.then(|| Attempt::Mounted("The slot as wide as the box".to_owned(), Box::new(design), 0.0))
}

/// The drivers higher or lower in their board.
fn driver<'a>(
    bench: &'a Bench<'_>,
    face: Option<Face>,
    frame: &Frame,
    now: [f64; 2],
) -> impl Iterator<Item = Attempt> + 'a {
    let tall = frame.size[1];
    let written = bench.ask.design.body.as_ref().and_then(|body| body.driver.clone());
    let place = written.unwrap_or(RawPlace { face: RawFace::Front, across: None, up: None });
    let there = face == Some(Face::from(place.face));
    PLACES.into_iter().filter(move |_| there).map(move |share| {
        let up = (share * tall * 1e3).round() * 1e-3;
        let words = format!("The drivers {}", aside(Axis::Y, up - now[1]));
        with(bench, words, 0.03 + 0.1 * (up - now[1]).abs() / tall, |body| {
            body.driver = Some(RawPlace { up: Some(field::DRIVER_UP.typed(up, 4)), ..place.clone() });
        })
    })
}

/// The first port in the corners of its board, and in the middle of its edges.
fn port<'a>(
    bench: &'a Bench<'_>,
    front: bool,
    wall: f64,
    frame: &Frame,
) -> impl Iterator<Item = Attempt> + 'a {
    let contents = bench.held.built.boxed.as_ref().map(|boxed| &boxed.contents);
    let size = contents.and_then(|contents| contents.ports[usize::from(front)].first());
    let [width, height] = frame.size;
    let board = bench.held.built.design.body.panel.thickness;
    let places = size.filter(|size| size.walls == 0).map(|size| {
        let half = size.outside(wall).map(|side| side / 2.0 + board + EDGE);
        let across = [("to the left", half[0]), ("", width / 2.0), ("to the right", width - half[0])];
        let up = [("low", half[1]), ("half way up", height / 2.0), ("high", height - half[1])];
        across.into_iter().flat_map(move |a| up.map(move |b| (a, b)))
    });
    places.into_iter().flatten().map(move |((aside, across), (level, up))| {
        let words = if aside.is_empty() {
            format!("The port in the middle, {level}")
        } else {
            format!("The port {aside}, {level}")
        };
        with(bench, words, 0.04, |body| {
            let builds = if front { &mut body.front_ports } else { &mut body.ports };
            builds.resize_with(builds.len().max(1), Default::default);
            builds[0] = RawPortBuild {
                across: Some(field::PORT_ACROSS.typed((across * 1e3).round() * 1e-3, 4)),
                up: Some(field::PORT_UP.typed((up * 1e3).round() * 1e-3, 4)),
                ..builds[0].clone()
            };
        })
    })
}
