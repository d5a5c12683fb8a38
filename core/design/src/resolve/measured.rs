//! What was measured in the workshop, laid over what was typed.

use oak_acoustics::enclosure::Enclosure;
use oak_cabinetry::panel::Material;
use oak_cabinetry::{Body, Item, Panel};

use super::reading::Reading;
use crate::field;
use crate::file::{LONGEST_NAME, MOST_MEASURED, RawFoundBox, RawMeasurements};
use crate::problem::ProblemKind;

/// What was measured of a driver, m.
#[derive(Debug, Clone, Copy, Default, PartialEq)]
pub struct MeasuredDriver {
    /// The hole that it needs.
    pub cutout: Option<f64>,
    /// From the front of its frame to the back of its magnet.
    pub depth: Option<f64>,
}

/// What a volume that was measured is called among what eats of the box.
pub const FOUND_DIFFERENCE: &str = "Found difference";

/// Boards of a thickness are this near to it, m.
const SAME: f64 = 5e-5;

/// Reads what was measured, and lays it over a box.
pub(super) fn measured(
    raw: Option<&RawMeasurements>,
    body: Option<&mut Body>,
    enclosure: Option<&mut Enclosure>,
    reading: &mut Reading,
) -> MeasuredDriver {
    let Some(raw) = raw else { return MeasuredDriver::default() };
    let driver = MeasuredDriver {
        cutout: reading.optional("measured.cutout", &field::MEASURED_CUTOUT, &raw.cutout),
        depth: reading.optional("measured.depth", &field::MEASURED_DEPTH, &raw.depth),
    };
    if raw.boards.len() > MOST_MEASURED {
        let kind = ProblemKind::TooMany { found: raw.boards.len(), max: MOST_MEASURED };
        reading.note("measured.boards", kind);
    }
    let boards: Vec<Board> = raw
        .boards
        .iter()
        .take(MOST_MEASURED)
        .enumerate()
        .filter_map(|(index, board)| {
            let at = |name: &str| format!("measured.boards[{index}].{name}");
            let nominal =
                reading.required(&at("nominal"), &field::MEASURED_NOMINAL, &Some(board.nominal.clone()));
            let measured =
                reading.required(&at("measured"), &field::MEASURED_THICKNESS, &Some(board.measured.clone()));
            Some(Board { material: board.material.id(), nominal: nominal?, measured: measured? })
        })
        .collect();
    let volume = raw.volume.as_ref().and_then(|volume| {
        let measured = Some(volume.measured.clone());
        let measured = reading.required("measured.volume.measured", &field::MEASURED_VOLUME, &measured);
        let expected = Some(volume.expected.clone());
        let expected = reading.required("measured.volume.expected", &field::EXPECTED_VOLUME, &expected);
        Some(expected? - measured?)
    });
    if let Some(body) = body {
        lay(&boards, body);
        let name = FOUND_DIFFERENCE.to_owned();
        body.items.extend(volume.map(|volume| Item { name, volume, block: None }));
    }
    found(raw.found.as_ref(), reading);
    let extra = reading.optional("measured.port_ends", &field::MEASURED_PORT_ENDS, &raw.port_ends);
    if let (Some(extra), Some(Enclosure::Ported(ported))) = (extra, enclosure) {
        ported.ports.iter_mut().for_each(|port| port.extra = extra);
    }
    driver
}

/// Reads what was found: the workshop learns from it, the design does not change.
fn found(raw: Option<&RawFoundBox>, reading: &mut Reading) {
    let Some(raw) = raw else { return };
    reading.text("measured.found.of", raw.of.as_deref().unwrap_or_default(), 0, LONGEST_NAME);
    let kinds = [
        ("ql", &field::FOUND_QL, &field::FOUND_ERROR, &raw.ql),
        ("qa", &field::FOUND_QA, &field::FOUND_ERROR, &raw.qa),
        ("port_ends", &field::FOUND_PORT_ENDS, &field::FOUND_LENGTH_ERROR, &raw.port_ends),
    ];
    for (name, field, error, found) in kinds {
        let Some(found) = found else { continue };
        let at = |part: &str| format!("measured.found.{name}.{part}");
        reading.required(&at("value"), field, &Some(found.value.clone()));
        reading.required(&at("error"), error, &Some(found.error.clone()));
        reading.optional(&at("expected"), field, &found.expected);
    }
}

struct Board {
    material: &'static str,
    nominal: f64,
    measured: f64,
}

fn lay(boards: &[Board], body: &mut Body) {
    let found = |material: &Material, thickness: f64| {
        let same = |board: &&Board| board.material == material.id && (board.nominal - thickness).abs() < SAME;
        boards.iter().find(same).map_or(thickness, |board| board.measured)
    };
    let lay_panel = |panel: &mut Panel| panel.thickness = found(panel.material, panel.thickness);
    let material = body.panel.material;
    lay_panel(&mut body.panel);
    lay_panel(&mut body.partition);
    body.panels.iter_mut().for_each(|(_, panel)| lay_panel(panel));
    body.fold.thickness = found(material, body.fold.thickness);
    for brace in &mut body.braces {
        brace.thickness = found(material, brace.thickness);
    }
}
