//! The cabinet fits its place.

use oak_acoustics::enclosure::Compiled;
use oak_cabinetry::geometry::Measured;
use oak_design::resolve::{Brief, ResolvedDriver};

use super::{Check, Verdict};
use crate::Case;

/// Panels of a small cabinet, m (common practice).
const PANEL: f64 = 0.018;
/// Of the room inside, what braces, corner strips and terminals take (common practice).
const BRACES: f64 = 0.05;
/// What a driver takes of the room, times the cube of its frame (common practice: 2 l for 250 mm).
const DRIVER: f64 = 0.12;
/// Where only a free volume is given: what is left of it inside panels of 18 mm, for cabinets of 10 to 100 l.
const INSIDE: f64 = 0.75;

/// Room inside the walls of a place, m3; `None` where the brief names none.
pub(crate) fn room(brief: &Brief) -> Option<f64> {
    match (brief.outside, brief.free) {
        (Some(sides), _) => Some(sides.iter().map(|side| (side - 2.0 * PANEL).max(0.0)).product()),
        (None, Some(free)) => Some(free * INSIDE),
        _ => None,
    }
}

/// Air that a place (m3 inside the walls) leaves beside drivers of a frame (m), with the ports, m3; none or less where not even
/// they fit.
pub(crate) fn left(room: f64, drivers: u32, frame: f64) -> f64 {
    room * (1.0 - BRACES) - f64::from(drivers) * DRIVER * frame.powi(3)
}

/// Room that air (m3) takes with drivers of a frame (m), ports (m3) and braces, m3.
pub(crate) fn needed(air: f64, drivers: u32, frame: f64, ports: f64) -> f64 {
    (air + f64::from(drivers) * DRIVER * frame.powi(3) + ports) / (1.0 - BRACES)
}

/// Frame of a driver, m. Without one in the sheet: a cone with half its surround has about two thirds of the frame's area
/// (common practice).
pub(crate) fn frame(driver: &ResolvedDriver) -> f64 {
    driver.record.size.unwrap_or((4.0 * driver.driver.sd / (0.66 * std::f64::consts::PI)).sqrt())
}

/// What all ports take without their walls, m3.
pub(crate) fn port_volume(compiled: &Compiled) -> f64 {
    let tunings = [&compiled.port_tuning, &compiled.rear_tuning];
    let ports = tunings.into_iter().flatten().flat_map(|tuning| &tuning.ports);
    ports.map(|port| port.area * port.length * f64::from(port.count)).sum()
}

/// Once the box itself is written of, it is measured: its sizes against those of the place, and what those sizes that are left
/// open can hold within the place.
fn measured(case: &Case<'_>) -> Option<Check> {
    case.raw.body.as_ref()?;
    let most = case.brief.outside?;
    let contents = case.design.contents(&case.computed.compiled)?;
    let body = &case.design.body;
    // What is measured inside is larger outside by its panels.
    let panels = match body.measured {
        Measured::Outside => 0.0,
        Measured::Inside => 2.0 * body.panel.total(),
    };
    let free = body.shape.free();
    let fixed = (0..3).filter(|k| free[*k]).filter_map(|k| body.sizes[k].map(|size| (k, size + panels)));
    let over = fixed.map(|(k, size)| (most[k] / size, k, size)).min_by(|a, b| a.0.total_cmp(&b.0));
    let largest = [0, 1, 2].map(|k| Some(body.sizes[k].unwrap_or(most[k] - panels)));
    let net: f64 = oak_cabinetry::Body { sizes: largest, ..body.clone() }
        .net(&contents)
        .map_or(0.0, |net| net.iter().flatten().sum());
    let wanted: f64 = contents.wanted.iter().flatten().sum();
    let open = (0..3).any(|k| free[k] && body.sizes[k].is_none());
    let room = if open { net / wanted } else { f64::INFINITY };
    let ratio = over.map_or(f64::INFINITY, |over| over.0).min(room);
    let met = ratio >= 1.0 - 1e-9;
    let words = match over {
        Some((ratio, k, size)) if ratio < 1.0 => {
            format!("{:.0} mm too {}", (size - most[k]) * 1e3, ["wide", "high", "deep"][k])
        }
        _ if !met => format!("{:.1} l too large", (wanted - net) * 1e3),
        _ if open => format!("{:.1} l to spare", (net - wanted) * 1e3),
        _ => "fits its place".to_owned(),
    };
    Some(Check {
        id: "size",
        name: "Size, air inside",
        reached: format!("{:.1} l", wanted * 1e3),
        words,
        verdict: Verdict::of(met),
        ratio,
        why: format!(
            "Boards, driver, ports and braces counted. The place is {:.0} mm wide, {:.0} mm high and {:.0} mm deep. Sizes that are \
             left open may fill it.",
            most[0] * 1e3,
            most[1] * 1e3,
            most[2] * 1e3
        ),
    })
}

pub(super) fn judge(case: &Case<'_>) -> Option<Check> {
    measured(case).or_else(|| estimated(case))
}

fn estimated(case: &Case<'_>) -> Option<Check> {
    let room = room(case.brief)?;
    let air = case.air();
    if air <= 0.0 {
        return None;
    }
    let ports = port_volume(&case.computed.compiled);
    let needed = needed(air, case.drivers(), frame(&case.design.driver), ports);
    let met = needed <= room;
    Some(Check {
        id: "size",
        name: "Size, air inside",
        reached: format!("{:.1} l", air * 1e3),
        words: if met {
            format!("{:.1} l to spare", (room - needed) * 1e3)
        } else {
            format!("{:.1} l too large", (needed - room) * 1e3)
        },
        verdict: Verdict::of(met),
        ratio: room / needed,
        why: format!(
            "With drivers, ports and braces the inside must hold about {:.1} l; the place leaves {:.1} l within panels of 18 mm. \
             This is an estimate until the box itself is drawn up. A smaller box plays less low or less loud; a driver with less \
             Vas, or two as an isobaric pair, asks for less.",
            needed * 1e3,
            room * 1e3
        ),
    })
}
