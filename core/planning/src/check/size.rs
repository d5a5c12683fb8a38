//! The box as drawn is no larger than the brief allows.

use oak_acoustics::enclosure::Compiled;
use oak_cabinetry::frame_of;
use oak_design::built::Built;
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
    let inside = |side: Option<f64>| side.map(|side| (side - 2.0 * PANEL).max(0.0));
    let sides = brief.outside.map(inside).into_iter().collect::<Option<Vec<_>>>();
    let sides = sides.map(|sides| sides.iter().product::<f64>());
    sides.into_iter().chain(brief.free.map(|free| free * INSIDE)).min_by(f64::total_cmp)
}

/// Air that a place (m3 inside the walls) leaves beside drivers of a frame (m), with the ports, m3; none or less where not even
/// they fit.
pub(crate) fn left(room: f64, drivers: u32, frame: f64) -> f64 {
    room * (1.0 - BRACES) - f64::from(drivers) * DRIVER * frame.powi(3)
}

/// Room that air (m3) takes with drivers of a frame (m), ports (m3) and braces, m3.
fn needed(air: f64, drivers: u32, frame: f64, ports: f64) -> f64 {
    (air + f64::from(drivers) * DRIVER * frame.powi(3) + ports) / (1.0 - BRACES)
}

/// Frame of a driver, m; without one in the sheet the usual one of its cone.
pub(crate) fn frame(driver: &ResolvedDriver) -> f64 {
    driver.record.size.unwrap_or(frame_of(driver.driver.sd))
}

/// What all ports take without their walls, m3.
pub(crate) fn port_volume(compiled: &Compiled) -> f64 {
    let tunings = [&compiled.port_tuning, &compiled.rear_tuning];
    let ports = tunings.into_iter().flatten().flat_map(|tuning| &tuning.ports);
    ports.map(|port| port.area * port.length * f64::from(port.count)).sum()
}

/// A limit of the brief and what the box takes of it.
struct Limit {
    most: f64,
    taken: f64,
    /// By how much it is over, or within.
    words: fn(f64) -> String,
}

fn limits(brief: &Brief, outside: [f64; 3], volume: f64) -> Vec<Limit> {
    let said: [fn(f64) -> String; 3] =
        [|over| side(over, "wide"), |over| side(over, "high"), |over| side(over, "deep")];
    let sides =
        (0..3).filter_map(|k| brief.outside[k].map(|most| Limit { most, taken: outside[k], words: said[k] }));
    let whole = brief.free.map(|most| Limit { most, taken: volume, words: whole });
    sides.chain(whole).collect()
}

fn side(over: f64, too: &str) -> String {
    if over > 0.0 {
        format!("{:.0} mm too {too}", (over * 1e3).max(1.0))
    } else {
        format!("{:.0} mm to spare", (-over * 1e3).abs())
    }
}

fn whole(over: f64) -> String {
    if over > 0.0 {
        format!("{:.1} l too large", over * 1e3)
    } else {
        format!("{:.1} l to spare", -over * 1e3)
    }
}

/// What a rounding of sizes may be over, as a share.
const EXACT: f64 = 1e-6;

/// What a brief allows over what a box takes, at worst: from 1 on it is small enough; `None` where nothing is asked, or there is no box.
pub(crate) fn ratio(brief: &Brief, built: &Built) -> Option<f64> {
    let limits = limits(brief, built.standing()?, built.boxed.as_ref()?.cabinet.outer.volume());
    limits.iter().map(|limit| limit.most / limit.taken).min_by(f64::total_cmp)
}

/// The same of its sides alone (m); no less than all where the brief names none.
pub(crate) fn sides(brief: &Brief, outside: [f64; 3]) -> f64 {
    let each = brief.outside.into_iter().zip(outside).filter_map(|(most, taken)| Some(most? / taken));
    each.fold(f64::INFINITY, f64::min)
}

pub(super) fn judge(case: &Case<'_>) -> Option<Check> {
    let (id, name) = ("size", "Size outside");
    let asked = case.brief.free.is_some() || case.brief.outside.iter().any(Option::is_some);
    let built = case.built();
    if asked && built.unbuildable.is_some() {
        return Some(Check::unknown(
            id,
            name,
            "no box to measure",
            "The box cannot be built as it is described.",
        ));
    }
    let (outside, boxed) = built.outside().zip(built.boxed.as_ref())?;
    let standing = built.standing()?;
    let volume = boxed.cabinet.outer.volume();
    let limits = limits(case.brief, standing, volume);
    let tightest = limits.iter().min_by(|a, b| (a.most / a.taken).total_cmp(&(b.most / b.taken)))?;
    let ratio = tightest.most / tightest.taken;
    let met = ratio >= 1.0 - EXACT;
    let sizes = outside.map(|size| format!("{:.1}", size * 100.0)).join(" × ");
    let litres = format!("{:.1} l", volume * 1e3);
    let further = [0, 1, 2].map(|k| standing[k] - outside[k]);
    let flush = boxed.contents.drivers.sinks(built.design.body.recess);
    let flush = if flush { "; let in flush it would not" } else { "" };
    let proud = ["width", "height", "depth"]
        .into_iter()
        .zip(further)
        .find(|(_, more)| *more > 5e-4)
        .map_or_else(String::new, |(side, more)| {
            format!(" What stands proud of its boards adds {:.0} mm to its {side}{flush}.", more * 1e3)
        });
    let most = ["wide", "high", "deep"].into_iter().zip(case.brief.outside);
    let place: Vec<String> = most
        .filter_map(|(name, most)| Some(format!("{:.0} mm {name}", most? * 1e3)))
        .chain(case.brief.free.map(|free| format!("{:.1} l in all", free * 1e3)))
        .collect();
    Some(Check {
        id,
        name,
        reached: litres.clone(),
        words: (tightest.words)(if met {
            (tightest.taken - tightest.most).min(0.0)
        } else {
            tightest.taken - tightest.most
        }),
        verdict: Verdict::of(met),
        ratio,
        why: format!(
            "As drawn it is {sizes} cm wide, high and deep outside, {litres}, and holds {:.1} l of air.{proud} The brief allows at most {}. Other \
             proportions, thinner panels, a smaller box that plays less low or less loud, or a driver with less Vas fit a smaller space.",
            case.air() * 1e3,
            place.join(", ")
        ),
    })
}

/// As [`judge`], of a cabinet whose box has not been drawn.
pub(crate) fn estimated(case: &Case<'_>) -> Option<Check> {
    let room = room(case.brief)?;
    let air = case.air();
    if air <= 0.0 {
        return None;
    }
    let ports = port_volume(&case.computed.built.compiled);
    let needed = needed(air, case.drivers(), frame(&case.design.driver), ports);
    let met = needed <= room;
    Some(Check {
        id: "size",
        name: "Size, estimated",
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
             This is an estimate: the box is not drawn yet. A smaller box plays less low or less loud; a driver with less \
             Vas, or two as an isobaric pair, asks for less.",
            needed * 1e3,
            room * 1e3
        ),
    })
}
