//! The cabinet suits the shape of its place: a wedge, a gap under it, a head on top of it, air before openings that face its walls.

use oak_cabinetry::geometry::Face;
use oak_cabinetry::{Cabinet, Contents, PartKind};
use oak_design::built::{Boxed, Built};
use oak_design::resolve::Brief;

use super::opening::{Facing, Tuned, facing};
use super::{Check, Verdict};
use crate::Case;

/// How much wider than the head on it a cabinet looks right (common practice): not narrower by more than the first, nor wider by more
/// than the second, as shares.
const HEAD: [f64; 2] = [0.98, 1.15];

/// Judged where the place asks for more than a size.
pub(super) fn judge(case: &Case<'_>) -> Option<Check> {
    let worst = worst(case.brief, case.built())?;
    let met = worst.ratio >= 1.0 - 1e-9;
    Some(Check {
        id: "place",
        name: "Shape of the place",
        reached: worst.reached,
        words: worst.words,
        verdict: Verdict::of(met),
        ratio: worst.ratio,
        why: worst.why,
    })
}

/// How well a box suits the shape of its place, at worst: 1 does; `None` where nothing is asked.
pub(crate) fn ratio(brief: &Brief, built: &Built) -> Option<f64> {
    worst(brief, built).map(|found| found.ratio)
}

fn worst(brief: &Brief, built: &Built) -> Option<Found> {
    let Boxed { contents, cabinet } = built.boxed.as_ref()?;
    let travel = built.design.driver.driver.xmax.unwrap_or(0.0);
    let all = [wedge(brief, built), feet(brief, contents, cabinet, travel), head(brief, cabinet)];
    all.into_iter()
        .flatten()
        .chain(facing(brief, built).iter().map(opening))
        .min_by(|a, b| a.ratio.total_cmp(&b.ratio))
}

struct Found {
    reached: String,
    words: String,
    ratio: f64,
    why: String,
}

/// Stood in a place that is less deep at its top, its upright side against the upright side of the place.
fn wedge(brief: &Brief, built: &Built) -> Option<Found> {
    let Boxed { contents, cabinet } = built.boxed.as_ref()?;
    let [_, height, depth] = brief.outside;
    let (height, depth) = height.zip(depth)?;
    let top = brief.top_depth?;
    let [low, high] = cabinet.standing(&built.design.body, contents);
    let proud = cabinet.proud(&built.design.body, contents).flat_map(|[from, to]| {
        (0..4_usize).map(move |bits| [from[0], [from, to][bits & 1][1], [from, to][bits >> 1][2]])
    });
    let corners = cabinet.outer.facets().into_iter().flat_map(|facet| facet.corners);
    let corners: Vec<_> = corners.chain(proud).collect();
    // How far any corner is beyond the slanting line that the place ends at, with its back against the upright side, or turned round.
    let over = |turned: bool| {
        let reach = |z: f64| if turned { high[2] - z } else { z - low[2] };
        let beyond = corners.iter().map(|[_, y, z]| (reach(*z) - (depth + (top - depth) * y / height), *y));
        beyond.max_by(|a, b| a.0.total_cmp(&b.0))
    };
    let (by, at) = [over(false)?, over(true)?].into_iter().min_by(|a, b| a.0.total_cmp(&b.0))?;
    let allowed = depth + (top - depth) * at / height;
    let met = by <= 1e-9;
    Some(Found {
        reached: if met { "fits the space".to_owned() } else { format!("{:.0} mm too deep", by * 1e3) },
        words: if met {
            format!("{:.0} mm to spare", (-by * 1e3).max(0.0))
        } else {
            format!("at {:.0} mm height", at * 1e3)
        },
        ratio: if met { 1.0 } else { (allowed / (allowed + by)).clamp(0.01, 0.999) },
        why: format!(
            "The place is {:.0} mm deep below and {:.0} mm at its top. A wedge of the same lean uses all of it; a plain box must make \
             do with what is left at its own height.",
            depth * 1e3,
            top * 1e3
        ),
    })
}

/// The gap under a driver that fires down, of a cone and its travel (m), m: as large round its rim as the cone, `pi d h = pi d2/4`, and the
/// travel.
pub(crate) fn feet_of(cone: f64, travel: f64) -> f64 {
    cone / 4.0 + travel
}

/// A driver that fires down needs a gap under its rim as large as its cone.
fn feet(brief: &Brief, contents: &Contents, cabinet: &Cabinet, travel: f64) -> Option<Found> {
    let down =
        cabinet.parts.iter().any(|part| part.kind == PartKind::Driver && part.face == Some(Face::Bottom));
    let height = brief.outside[1]?;
    if !down {
        return None;
    }
    let feet = feet_of(contents.drivers.cone, travel);
    let [low, high] = cabinet.outer.bounds();
    let needs = high[1] - low[1] + feet;
    let met = needs <= height + 1e-9;
    Some(Found {
        reached: format!("{:.0} mm feet", feet * 1e3),
        words: if met {
            format!("{:.0} mm to spare", (height - needs).abs() * 1e3)
        } else {
            format!("{:.0} mm too high on them", (needs - height) * 1e3)
        },
        ratio: height / needs,
        why: format!(
            "The driver fires down. For the air to pass as freely under its rim as before its cone the gap is a quarter of the cone's \
             diameter and its travel: {:.0} mm (common practice). With the box that makes {:.0} mm; the place has {:.0} mm.",
            feet * 1e3,
            needs * 1e3,
            height * 1e3
        ),
    })
}

/// Before a wall of the place.
fn opening(Facing { name, wall, gap, needs, tuned }: &Facing) -> Found {
    let tuned = tuned.as_ref().map_or_else(String::new, |Tuned { there, free, lower }| {
        let to = if *lower { "below" } else { "to" };
        format!("; tunes {to} {there:.1} Hz there instead of {free:.1}")
    });
    Found {
        reached: format!("{:.0} mm before the {name}", gap * 1e3),
        words: format!("{:.0} mm is wanted{tuned}", needs * 1e3),
        ratio: (gap / needs).clamp(0.01, 1.0),
        why: format!(
            "The {name} opens {:.0} mm from the wall {wall} it, as the place leaves it; as much clear air as it is wide, {:.0} mm, is \
             common practice{tuned}. Put it on the front, leave more room {wall} it, or make the port shorter by what the wall adds.",
            gap * 1e3,
            needs * 1e3
        ),
    }
}

/// Under a head of a width.
fn head(brief: &Brief, cabinet: &Cabinet) -> Option<Found> {
    let head = brief.head?;
    let [low, high] = cabinet.outer.bounds();
    let width = high[0] - low[0];
    let share = width / head;
    let ratio = (share / HEAD[0]).min(HEAD[1] / share);
    let met = ratio >= 1.0;
    Some(Found {
        reached: format!("{:.0} mm wide", width * 1e3),
        words: if met {
            format!("suits a head of {:.0} mm", head * 1e3)
        } else if share < 1.0 {
            format!("{:.0} mm narrower than the head", (head - width) * 1e3)
        } else {
            format!("{:.0} mm wider than the head", (width - head) * 1e3)
        },
        ratio: ratio.min(1.0),
        why: format!(
            "A cabinet looks right under a head of {:.0} mm when it is as wide or a little wider, up to {:.0} mm, and the head stands \
             safely on it (common practice).",
            head * 1e3,
            HEAD[1] * head * 1e3
        ),
    })
}
