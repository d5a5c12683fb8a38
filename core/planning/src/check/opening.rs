//! Openings that face a wall of their place: the clear air before them, and what the wall does to their tuning.

use oak_acoustics::element::before_wall;
use oak_acoustics::enclosure::Compiled;
use oak_cabinetry::geometry::{Face, Frame};
use oak_cabinetry::{Part, PartKind, PortSize};
use oak_design::built::{Boxed, Built};
use oak_design::resolve::Brief;

/// An opening before a wall.
pub(super) struct Facing {
    /// What it is called.
    pub name: String,
    /// Which wall, as seen from the cabinet.
    pub wall: &'static str,
    /// From the opening to the wall, m.
    pub gap: f64,
    /// As much clear air as it is wide, m (common practice).
    pub needs: f64,
    /// What a port tunes to there, Hz; none of a mouth.
    pub tuned: Option<Tuned>,
}

/// A tuning before a wall.
pub(super) struct Tuned {
    /// There, Hz.
    pub there: f64,
    /// With no wall, Hz.
    pub free: f64,
    /// Whether it is lower still: the gap is smaller than what the formula holds for.
    pub lower: bool,
}

/// Every opening in the back, a side or the lid, stood on the floor of the place with the front at its front, in the middle of its width.
pub(super) fn facing(brief: &Brief, built: &Built) -> Vec<Facing> {
    let Some((Boxed { contents, cabinet }, standing)) = built.boxed.as_ref().zip(built.standing()) else {
        return Vec::new();
    };
    let spare = |k: usize| brief.outside[k].map(|most| (most - standing[k]).max(0.0));
    let one = |part: &Part| {
        let face = part.face?;
        let (gap, wall) = match face {
            // A place that is a wedge is left to the wedge's own rule.
            Face::Back if brief.top_depth.is_none() => (spare(2)?, "behind"),
            Face::Left | Face::Right => (spare(0)? / 2.0, "beside"),
            // Where the drivers look up the place is open above.
            Face::Top if built.design.body.drivers.face != Face::Top => (spare(1)?, "above"),
            _ => return None,
        };
        let [width, height] = cabinet.mouth(part, contents)?.size;
        let tuned = contents.port(part).and_then(|port| {
            let least = LEAST * port.diameter() / 2.0;
            let reach = reach(Frame::of(&cabinet.outer, face)?.size, part.at);
            let free = tuning(built, part.chamber)?;
            let there = free * lower(&contents.ports[part.chamber.min(1)], port, gap.max(least), reach);
            Some(Tuned { there, free, lower: gap < least })
        });
        Some(Facing { name: part.name(), wall, gap, needs: width.min(height), tuned })
    };
    let open = |part: &&Part| matches!(part.kind, PartKind::Port | PartKind::Mouth);
    cabinet.parts.iter().filter(open).filter_map(one).collect()
}

/// Smallest gap over an opening's radius that [`before_wall`] holds for.
const LEAST: f64 = 0.25;

/// Where the ports of a chamber tune it, Hz.
fn tuning(built: &Built, chamber: usize) -> Option<f64> {
    let Compiled { rear_tuning, port_tuning, .. } = &built.compiled;
    let [behind, before] = [rear_tuning, port_tuning];
    let tuning = if chamber == 0 { behind.as_ref().or(before.as_ref()) } else { before.as_ref() };
    tuning.map(|tuning| tuning.reactance)
}

/// The tuning of ports over what it was, with one kind of them before a wall.
fn lower(ports: &[PortSize], faced: &PortSize, gap: f64, reach: f64) -> f64 {
    let flow = |more: f64| -> f64 {
        let each = ports.iter().map(|port| {
            let area = port.section.area();
            let ends: f64 = port.ends.iter().map(|end| end.length_correction(area)).sum();
            let more = if port == faced { more } else { 0.0 };
            f64::from(port.count) * area / (port.length + ends + more)
        });
        each.sum()
    };
    let more = before_wall(faced.diameter() / 2.0, gap, reach);
    (flow(more) / flow(0.0)).sqrt()
}

/// How far it is from a place in a face of a size (m) to its edges: the mean of the logarithms over all directions, m. Of a square
/// from its middle within 4 % of what the flow between two plates takes it for.
fn reach(size: [f64; 2], at: [f64; 2]) -> f64 {
    const RAYS: u32 = 64;
    let rays = (0..RAYS).map(|ray| {
        let (sin, cos) = (std::f64::consts::TAU * (f64::from(ray) + 0.5) / f64::from(RAYS)).sin_cos();
        let along = |k: usize, way: f64| {
            let left = if way > 0.0 { size[k] - at[k] } else { at[k] };
            left.max(1e-3) / way.abs()
        };
        along(0, cos).min(along(1, sin)).ln()
    });
    (rays.sum::<f64>() / f64::from(RAYS)).exp()
}
