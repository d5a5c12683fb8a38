//! The boards inside a cabinet: its partition, those of folds and of slots.

use std::f64::consts::SQRT_2;

use oak_acoustics::medium::CrossSection;

use super::wall::{EDGE, grid, plate};
use super::{Location, Plate, Wall};
use crate::body::{Body, Panel};
use crate::cabinet::Cabinet;
use crate::contents::Contents;
use crate::geometry::{Axis, length, minus};
use crate::part::PartKind;

/// All of them.
pub(super) fn inner(body: &Body, contents: &Contents, cabinet: &Cabinet) -> Vec<Wall> {
    let folds = folds(body, cabinet);
    let ends = partition(body, cabinet).into_iter().chain(chamber_end(body, cabinet));
    ends.chain(folds).chain(slots(body, contents, cabinet)).collect()
}

/// The board between two chambers.
fn partition(body: &Body, cabinet: &Cabinet) -> Option<Wall> {
    let (axis, [at, _]) = cabinet.partition()?;
    let [low, high] = cabinet.interior.bounds();
    let spans = |axis: &Axis| -> Vec<f64> {
        let k = axis.index();
        let braces = body.braces.iter().filter(|brace| brace.axis == *axis);
        let mut places: Vec<f64> = braces.map(|brace| brace.place(&cabinet.interior)).collect();
        places.retain(|place| (low[k] + EDGE..high[k] - EDGE).contains(place));
        places.extend([low[k], high[k]]);
        places.sort_by(f64::total_cmp);
        places.windows(2).map(|pair| pair[1] - pair[0]).collect()
    };
    let across: Vec<Vec<f64>> = Axis::ALL.iter().filter(|other| **other != axis).map(spans).collect();
    let area = cabinet.interior.area_at(axis, at);
    let fields = grid(&body.partition, &across[0], &across[1]);
    Some(board(Location::Partition, body.partition, area, area * body.partition.total(), fields))
}

/// The board that ends a chamber shorter than the channels of its way.
fn chamber_end(body: &Body, cabinet: &Cabinet) -> Option<Wall> {
    let part = cabinet.parts.iter().find(|part| part.kind == PartKind::ChamberEnd)?;
    let [low, high] = part.pieces.first()?.bounds();
    let (width, tall) = (high[0] - low[0], high[body.fold.stack.index()] - low[body.fold.stack.index()]);
    let fields = vec![plate(&body.partition, width, tall)];
    let area = width * tall;
    Some(board(Location::ChamberEnd, body.partition, area, area * body.partition.total(), fields))
}

/// The boards of a folded way: each stands on a wall and between two sides, and ends free where the way turns.
fn folds(body: &Body, cabinet: &Cabinet) -> Vec<Wall> {
    let Some(laid) = &cabinet.fold else { return Vec::new() };
    let panel = Panel { thickness: body.fold.thickness, layers: 1, ..body.panel };
    let width = laid.plan.width;
    let fold = |location, corners: &[[f64; 2]; 4], long: f64, free: bool| {
        let field = Plate { free, ..plate(&panel, width, long) };
        let wood = crate::geometry::area(corners).abs() * width;
        board(location, panel, width * long, wood, vec![field])
    };
    let between = laid.panels.iter().enumerate();
    let between = between.map(|(index, one)| fold(Location::Fold(index), &one.corners, one.length, true));
    let closing = laid.closing.iter().map(|closing| {
        let [[a, b], [c, d], ..] = closing.corners;
        let long = (c - a).hypot(d - b);
        fold(Location::Closing, &closing.corners, long, false)
    });
    between.chain(closing).collect()
}

/// The boards of slots and corner ports: held along the passage and in front, free inside.
fn slots(body: &Body, contents: &Contents, cabinet: &Cabinet) -> Vec<Wall> {
    let ports = [false, true].into_iter().zip(&contents.ports);
    let ports = ports
        .flat_map(|(front, ports)| ports.iter().enumerate().map(move |(index, port)| (front, index, port)));
    let found = ports.filter_map(|(front, index, port)| {
        let build = body.port_build(front, index);
        let panel = Panel { thickness: build.wall, layers: 1, ..body.panel };
        let wide = match port.section {
            CrossSection::Round { .. } => return None,
            CrossSection::Slot { width, .. } => width,
            CrossSection::Corner { side } => SQRT_2 * side,
        };
        let chamber = if front { cabinet.chambers.len() - 1 } else { 0 };
        let drawn = cabinet.parts.iter().find(|part| {
            part.kind == PartKind::Port
                && part.index == index
                && part.chamber == chamber
                && part.path.len() > 1
        })?;
        let legs = drawn.path.windows(2).map(|pair| length(minus(pair[1], pair[0])));
        let fields: Vec<Plate> = legs.map(|long| Plate { free: true, ..plate(&panel, wide, long) }).collect();
        let area = wide * fields.iter().map(|field| field.sides[1]).sum::<f64>();
        Some(board(Location::Slot { front, index }, panel, area, port.wood(&build), fields))
    });
    found.collect()
}

fn board(location: Location, panel: Panel, area: f64, wood: f64, fields: Vec<Plate>) -> Wall {
    Wall { location, panel, area, wood, mass: wood * panel.material.density, fields }
}
